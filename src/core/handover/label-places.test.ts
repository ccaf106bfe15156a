import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../tests/support/runs.ts';
import { placeLabels } from './label-places.ts';

test('names on a plan lie on no other name and on no mark, or are left out', () => {
  const item = fc.record({
    x: fc.integer({ min: 0, max: 900 }),
    y: fc.integer({ min: 0, max: 500 }),
    name: fc.string({ minLength: 1, maxLength: 18 }),
  });
  fc.assert(
    fc.property(fc.array(item, { maxLength: 40 }), (items) => {
      const all = items.map((one, at) => ({ ...one, id: `${at}` }));
      const places = placeLabels(all, 900);
      const boxes = all.flatMap(({ id, name, x, y }) => {
        const width = name.length * 7.4;
        const place = places.get(id) ?? 'none';
        const left = { right: x + 13, left: x - 13 - width, below: x - width / 2, above: x - width / 2, none: 0 }[
          place
        ];
        const top = { right: y, left: y, below: y + 18, above: y - 18, none: 0 }[place] - 8;
        return place === 'none' ? [] : [{ left, right: left + width, top, bottom: top + 16 }];
      });
      for (const [at, a] of boxes.entries()) {
        for (const b of boxes.slice(at + 1))
          expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
        for (const { x, y } of all)
          expect(a.left < x + 9 && x - 9 < a.right && a.top < y + 9 && y - 9 < a.bottom).toBe(false);
        expect(a.left >= 0 && a.right <= 900).toBe(true);
      }
    }),
    runs(200),
  );
});
