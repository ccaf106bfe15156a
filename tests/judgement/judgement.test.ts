import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { type AssumptionId, assumptionOf } from '../../src/core/assumptions/assumptions.ts';
import { STATIONS } from '../../src/core/stations/registry.ts';

const ROOT = join(__dirname, '../..');
const PAGE = join(ROOT, 'docs/judgement.md');

interface RuleRow {
  readonly id: string;
  readonly question: string;
  readonly limits?: readonly AssumptionId[];
  readonly source: string;
  readonly mends?: unknown;
}
const stations = STATIONS.map(({ name, rules }) => ({ name, rules: rules as readonly RuleRow[] }));
const rules = stations.flatMap((station) => station.rules);

/** Every test of the project by its path, beside this one, and the cases that several tests share. */
function testFiles(folder: string): readonly string[] {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    if (entry.isDirectory()) return testFiles(path);
    const isTest = /\.(test|spec)\.tsx?$/.test(entry.name) || path.startsWith('tests/support');
    return isTest && !path.startsWith('tests/judgement') ? [path] : [];
  });
}
const tests = [...testFiles('src'), ...testFiles('tests')].map((path) => ({
  path,
  text: readFileSync(join(ROOT, path), 'utf8'),
}));
const testedIn = (id: string): readonly string[] =>
  tests.filter(({ text }) => text.includes(`'${id}'`)).map(({ path }) => path.replace(/^.*\//, ''));

function sayLimit(id: AssumptionId): string {
  const found = assumptionOf(id);
  if (!found) throw new Error(`no assumption ${id}`);
  return `${found.label.toLowerCase()}: ${found.value} ${found.unit}`;
}

function page(): string {
  const cell = (text: string): string => text.replaceAll('|', '\\|');
  const rowOf = (station: string, { id, question, limits = [], source, mends }: RuleRow): string => {
    const cells = [
      station,
      `\`${id}\``,
      question,
      limits.map(sayLimit).join('; ') || '–',
      source,
      mends ? 'act' : 'words',
    ];
    return `| ${[...cells, testedIn(id).join(', ')].map(cell).join(' | ')} |`;
  };
  return [
    '# What Clear Tap judges, and by what',
    '',
    'One row for each rule, in the order in which a station asks. `npm run judgement` makes this page from the rules; a test',
    'holds it to them. A rule whose facts are missing is *not known*, never fine. **Limits** are assumptions that a site can',
    'change; other numbers stand in the source, and **[A]** marks those that no standard sets. **Mend** tells whether core can',
    'carry the remedy out: *act* means that each offer is tried on the whole site before it is shown.',
    '',
    '| Station | Rule | Question | Limits | Source | Mend | Tests |',
    '| --- | --- | --- | --- | --- | --- | --- |',
    ...stations.flatMap(({ name, rules: own }) => own.map((rule) => rowOf(name, rule))),
    '',
  ].join('\n');
}

test('every rule asks a question of its own, in words', () => {
  const questions = rules.map(({ question }) => question);
  expect(questions.filter((question) => !/^[A-Z].+\?$/.test(question))).toEqual([]);
  expect(new Set(rules.map(({ id }) => id)).size).toBe(rules.length);
});

test('every rule is named by a test', () => {
  expect(rules.filter(({ id }) => testedIn(id).length === 0).map(({ id }) => id)).toEqual([]);
});

test('docs/judgement.md is the table of the rules as they are', () => {
  if (process.env.WRITE_JUDGEMENT === '1') writeFileSync(PAGE, page());
  expect(readFileSync(PAGE, 'utf8')).toBe(page());
});

/** Remedies that were found to mend nothing, or to harm, and words that claimed what nobody had looked at. */
const NEVER_SAID: readonly { readonly why: string; readonly words: RegExp }[] = [
  { why: 'a splitter can be entered nowhere', words: /splitter/i },
  { why: 'rtsps cannot be probed', words: /try rtsps/i },
  { why: 'recording on events takes the same air', words: /or record on events/i },
  { why: 'three tenths less is 43 % more', words: /a third larger/i },
  { why: 'near the equator steeper brings nothing', words: /steeper panel/i },
  { why: 'fibre carries no power', words: /'Take fibre/ },
  { why: 'a path that is not found proves no account', words: /account and address are right/i },
  { why: 'its light may take nothing', words: /By day it works/ },
];
const WORDS = [
  ...['choose', 'power', 'prepare', 'address', 'tap'].flatMap((station) =>
    readdirSync(join(ROOT, 'src/core/stations', station)).map((name) => `src/core/stations/${station}/${name}`),
  ),
  ...readdirSync(join(ROOT, 'src/core/probe')).map((name) => `src/core/probe/${name}`),
]
  .filter((path) => !path.includes('.test.'))
  .map((path) => readFileSync(join(ROOT, path), 'utf8'))
  .join('\n');

test.each(NEVER_SAID)('no rule says it: $why', ({ words }) => expect(WORDS).not.toMatch(words));
