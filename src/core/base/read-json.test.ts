import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readCardFile } from '../document/chapters/models/card-file.ts';
import { readSiteFile } from '../document/site-file.ts';
import { isTooDeep, readJson } from './read-json.ts';

test.each([
  { why: 'lists', text: `${'['.repeat(5000)}${']'.repeat(5000)}` },
  { why: 'records', text: `${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}` },
  { why: 'lists without an end', text: '['.repeat(500_000) },
])('$why nested deeper than a stack are refused in words, whatever reads them', ({ text }) => {
  expect(readJson(text)).toMatchObject({ ok: false, error: { message: expect.stringContaining('nested deeper') } });
  expect(readSiteFile(text)).toMatchObject({ ok: false, error: { message: expect.stringContaining('nested deeper') } });
  expect(readCardFile(text)).toMatchObject({ ok: false, error: { message: expect.stringContaining('nested deeper') } });
});

test('brackets in texts are no depth, and what is not deep is read as JSON reads it', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), fc.string(), (value, text) => {
      const written = JSON.stringify([value, `${'['.repeat(200)}\\"${text}`]);
      expect(readJson(written)).toEqual({ ok: true, value: JSON.parse(written) });
    }),
  );
  expect(isTooDeep(`"${'['.repeat(100)}"`)).toBe(false);
});
