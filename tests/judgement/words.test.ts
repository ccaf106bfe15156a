import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { USAGE } from '../../src/cli/usage.ts';
import { ALLOWED, retiredIn } from '../support/retired-words.ts';

// Words that a screen, a finding, a file or the terminal says: those that the field does not use are refused, in every text
// of the product that a person may read.

const root = join(__dirname, '../../src');

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
  const shown: string[] = []; // between tags everything is read, a single word too
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isLiteralTypeNode(node)) return;
    if (ts.isJsxAttribute(node) && NOT_READ.test(node.name.getText())) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    else if (ts.isJsxText(node)) shown.push(node.text.trim());
    else if (ts.isTemplateExpression(node))
      found.push(`${node.head.text}{}${node.templateSpans.map(({ literal }) => literal.text).join('{}')}`);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return [...found.filter(isRead), ...shown];
}

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
