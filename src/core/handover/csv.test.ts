import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import Papa from 'papaparse';
import { writeCsv } from './csv.ts';

test.each([
  { why: 'a formula', text: '=1+1' },
  { why: 'one that goes on over lines', text: '=HYPERLINK("http://x")\nmore' },
  { why: 'one behind blanks', text: '  =1+1' },
  { why: 'one behind a line end', text: '\n=1+1' },
  { why: 'a tab', text: '\tcmd' },
  { why: 'an at', text: '@SUM(A1)' },
  { why: 'a plus', text: '+cmd|x' },
  { why: 'a minus that is no number', text: '-2+3+cmd' },
])('$why is text to a spreadsheet', ({ text }) => {
  const [row] = Papa.parse<Record<string, string>>(writeCsv([{ name: text }]), { header: true }).data;
  expect(row?.name).toBe(`'${text}`);
});

test.each(['-67', '+3.5', '4', 'Sluice rail', 'a=b', 'x-y', ''])('“%s” stays as it is', (text) => {
  const [row] = Papa.parse<Record<string, string>>(writeCsv([{ name: text }]), { header: true }).data;
  expect(row?.name).toBe(text);
});

test('no cell and no heading of any text begins as a formula does, and every row has its own line', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.string(), fc.string()), { minLength: 1, maxLength: 6 }),
      fc.string({ minLength: 1 }),
      (rows, heading) => {
        const written = writeCsv(rows.map(([a, b]) => ({ [heading]: a, other: b })));
        const { data } = Papa.parse<string[]>(written.trimEnd() === '' ? written : written.slice(0, -2));
        expect(data).toHaveLength(rows.length + 1);
        for (const cell of data.flat()) expect(cell).not.toMatch(/^\s*[=@|%]|^\s*[+-](?!\d{1,15}(?:\.\d{1,15})?$)/);
      },
    ),
  );
});
