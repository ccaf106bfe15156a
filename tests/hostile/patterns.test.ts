import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { RegExpParser } from '@eslint-community/regexpp';
import { expect, test } from '@jest/globals';
import { analyse } from 'scslre';
import ts from 'typescript';

// Every pattern of the product, read from its source: none may take more than linear time over a text that somebody made
// for it. What is listed below was looked at by a person, with the reason why its text cannot be long.

const root = join(__dirname, '../../src');

const REVIEWED: readonly { readonly text: string; readonly why: string }[] = [
  { text: String.raw`/\B(?=(\d{3})+$)/g`, why: 'the digits of one number of ours, two dozen at most' },
];

function* sources(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\.|\.d\.ts$/.test(entry.name)) yield path;
  }
}

interface Pattern {
  readonly file: string;
  readonly text: string;
}

/** A line in which a literal may begin: not all of a comment, an import, or a slash that no pattern begins with. */
const mayHold = (line: string): boolean =>
  !/^\s*(\*|\/\/|\/\*|import |export .* from |\} from )/.test(line) && /(^|[^/*<])\/(?![/*])/.test(line);

function patternsOf(path: string): Pattern[] {
  const text = readFileSync(path, 'utf8');
  if (!text.split('\n').some(mayHold)) return [];
  const found: Pattern[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isRegularExpressionLiteral(node)) found.push({ file: relative(root, path), text: node.text });
    ts.forEachChild(node, visit);
  };
  visit(
    ts.createSourceFile(
      path,
      text,
      ts.ScriptTarget.Latest,
      false,
      path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
    ),
  );
  return found;
}

const slowWays = (text: string): string[] => {
  const literal = new RegExpParser().parseLiteral(text);
  return analyse(literal, { reportTypes: { Move: true, Self: true, Trade: true } }).reports.map(
    ({ type, character, exponential }) => `${type}${exponential ? ', exponential' : ''}: ${character.literal.source}`,
  );
};

test('the analysis finds what backtracks, and passes what does not', () => {
  expect(slowWays('/=+$/')).not.toEqual([]); // each start of a run runs to its end
  expect(slowWays('/^(a+)+$/')).not.toEqual([]);
  expect(slowWays(String.raw`/^x\s*(.*?)\s*$/`)).not.toEqual([]);
  expect(slowWays(String.raw`/^[A-Z]+ \S+$/`)).toEqual([]);
});

const LAYERS = readdirSync(root, { withFileTypes: true }).filter((entry) => entry.isDirectory());
const OF_LAYER = new Map(LAYERS.map(({ name }) => [name, [...sources(join(root, name))].flatMap(patternsOf)]));

test.each([...OF_LAYER])('no pattern of %s backtracks over what somebody sent', (_, patterns) => {
  const slow = [...new Map(patterns.map((one) => [one.text, one])).values()].flatMap(({ file, text }) => {
    const ways = REVIEWED.some((one) => one.text === text) ? [] : slowWays(text);
    return ways.length === 0 ? [] : [{ file, text, ways }];
  });
  expect(slow).toEqual([]);
});

test('what was looked at by a person is still there, among all that there is', () => {
  const texts = new Set([...OF_LAYER.values()].flat().map(({ text }) => text));
  expect(texts.size).toBeGreaterThan(50);
  expect(REVIEWED.filter(({ text }) => !texts.has(text))).toEqual([]);
});
