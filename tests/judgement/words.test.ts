import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { USAGE } from '../../src/cli/usage.ts';

// Words that a screen, a finding, a file or the terminal says: those that the field does not use are refused, in every text
// of the product that a person may read.

const root = join(__dirname, '../../src');

/** Retired words; what an installer says instead. */
const RETIRED: readonly (readonly [RegExp, string])[] = [
  [/\bsecrets?\b/i, 'password'],
  [/\bsigns?\b(?! by|ature)/i, 'character, LED pattern'],
  [/\blamps?\b/i, 'LED'],
  [/sign of life/i, 'keep-alive'],
  [/\bgood-?byes?\b/i, 'TEARDOWN'],
  [/\bdraws?\b|\bdrawn by\b|\bdrawing on\b/i, 'pull, goes to'],
  [/\bthe Round\b|\brounds\b/, 'Cameras, preset tour'],
  [/\bheads?\b/i, 'PTZ'],
  [/\bsteer(s|ed|ing)?\b/i, 'PTZ controls'],
  [/\bin hand\b/i, 'PTZ controls'],
  [/\bpassport\b/i, 'ONVIF device report'],
  [/\bgroups? of pictures\b|\bopen groups?\b/i, 'GOP'],
  [/key frames? every/i, 'key-frame interval'],
  [/\bunevenly\b/i, 'jitter'],
  [/\btape\b/i, 'connection log'],
  [/\bpatience\b/i, 'timeout'],
  [/\bvouch(es)? for itself\b/i, 'self-signed'],
  [/hardware address/i, 'MAC address'],
  [/\bhand(s|ed)? out\b/i, 'DHCP range'],
  [/\bpool\b/i, 'DHCP range'],
  [/left to chance/i, 'DHCP without a reservation'],
  [/\blook(s|ed|ing)? through\b/i, 'scan'],
  [/\btidy\b/i, 'consecutive addresses'],
  [/\blook(s|ed|ing)? in from\b/i, 'remote access'],
  [/\bleads? in\b/i, 'port forward'],
  [/opens? by itself/i, 'UPnP port mapping'],
  [/\btunnels?\b(?! that| closes)/i, 'VPN, RTSP over HTTP'],
  [/\bpassages?\b/i, 'firewall rule'],
  [/\bimages?\b/i, 'firmware file'],
  [/side branch|community image/i, 'maker’s RTSP firmware, community firmware'],
  [/\bdigest of\b|\bthe digest\b|\bits digest\b/i, 'checksum (SHA-256)'],
  [/\bhandsets?\b/i, 'old phone'],
  [/\bseats?\b/i, 'licences, channels'],
  [/\bschools?\b/i, 'approach'],
  [/bought again/i, 'replacement'],
  [/small streams?/i, 'sub stream'],
  [/movement is found/i, 'motion detection'],
  [/sees across|seen from, m/i, 'angle of view, nearest point'],
  [/\basleep\b/i, 'standby'],
  [/\bfed by\b|\bwhat feeds\b/i, 'power source'],
  [/too little arrives|does not carry it|no air left/i, 'voltage drop, solar yield, channel overloaded'],
  [/stands \d+ V/i, 'tolerates'],
  [/\btake (it|this|them)? ?back\b|\btaken back\b|\bleave it as\b/i, 'Undo, Cancel'],
  [/\bblanks?\b/i, 'space'],
  [/\bstills\b/i, 'snapshots'],
  [/\bits card\b|\bthe cards?\b(?! pulled)/i, 'its model card, the SD card'],
];

/** Where such a word is the standard term, or an everyday one: each with its reason. */
const ALLOWED: readonly { readonly text: RegExp; readonly why: string }[] = [
  { text: /^(\.\.?\/|\/|#|data:|image\/|text\/|<|\.png)/, why: 'a path, a type or a drawing, which nobody reads' },
  { text: /^[a-z]+([-.: ]?\$|[-.:]\{|-)/, why: 'an id that is put together' },
  { text: /a sign at the entrance/, why: 'a sign on a wall' },
  { text: /first sign of a link/, why: 'a symptom' },
  { text: /Leave a lamp on/, why: 'a lamp in a room' },
  { text: /pan-tilt head|top of a head|without a head/, why: 'the hardware, and the head of a person' },
  { text: /Tape two marks/, why: 'adhesive tape' },
  { text: /converter draws more current/, why: 'current is drawn' },
  {
    text: /Draw(n|s)? |canvas to draw|which cable to draw|to draw its picture|as drawn/i,
    why: 'a line that is drawn on a plan',
  },
  {
    text: /it opened a tunnel|HTTP tunnel|tunnelled|--tunnel/,
    why: 'RTSP over HTTP is a tunnel (its protocol’s word)',
  },
  { text: /its card was removed/, why: 'the card of a computer, whatever it is' },
  { text: /against the card of its model/, why: 'a model card by another order of words' },
  { text: /Groups of pictures|groups of pictures/, why: 'what a GOP is, said once where its damage is explained' },
  { text: /driver: goodbye/, why: 'a line of the console for those who wrote it' },
];

function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) {
      if (entry.name !== 'standins') yield* sources(path);
    } else if (/\.tsx?$/.test(entry.name) && !/\.test\.|\.d\.ts$/.test(entry.name)) yield path;
  }
}

const NOT_READ = /^(className|d|id|to|href|type|role|viewBox|points|transform|key|name|data-.*)$/;
const isRead = (text: string): boolean => / /.test(text.trim()) || /^[A-Z][a-z]/.test(text);

/** Texts of one source that a person may read, each as it stands, with `{}` for what is filled in. */
function textsOf(path: string): readonly string[] {
  const text = readFileSync(path, 'utf8');
  const source = ts.createSourceFile(
    path,
    text,
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isLiteralTypeNode(node)) return;
    if (ts.isJsxAttribute(node) && NOT_READ.test(node.name.getText())) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    else if (ts.isJsxText(node)) found.push(node.text.trim());
    else if (ts.isTemplateExpression(node))
      found.push(`${node.head.text}{}${node.templateSpans.map(({ literal }) => literal.text).join('{}')}`);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found.filter(isRead);
}

const retiredIn = (text: string): readonly string[] =>
  ALLOWED.some((one) => one.text.test(text))
    ? []
    : RETIRED.filter(([word]) => word.test(text)).map(([, instead]) => `${text.slice(0, 120)} → ${instead}`);

test('no text of the product says what the field does not say', () => {
  const found = [...sources(root)].flatMap((path) =>
    textsOf(path).flatMap((text) => retiredIn(text).map((said) => `${relative(root, path)}: ${said}`)),
  );
  expect(found).toEqual([]);
});

test('nor does the help of the command line', () => {
  expect(USAGE.split('\n').flatMap(retiredIn)).toEqual([]);
});

test('the exceptions are few, and each is still needed', () => {
  const all = [...sources(root)].flatMap(textsOf);
  expect(ALLOWED.length).toBeLessThan(25);
  expect(ALLOWED.filter(({ text }) => !all.some((one) => text.test(one)))).toEqual([]);
});
