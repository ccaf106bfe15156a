import { expect, test } from '@jest/globals';
import { emptySite } from '../../core/document/empty-site.ts';
import type { Site } from '../../core/document/site.ts';
import { FitGuard, type RefusalOf } from './fit-guard.ts';

const named = (name: string): Site => emptySite('quern', name);
/** Refuses sites of one name, and tells what it was asked. */
function schema(): { readonly asked: string[]; readonly refusalOf: RefusalOf } {
  const asked: string[] = [];
  return {
    asked,
    refusalOf: (fits, changed, part) => {
      asked.push(`${fits.name} → ${changed.name}, ${part}`);
      return changed.name === 'unfit' ? 'name does not fit' : null;
    },
  };
}
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

test('each change is held against the last that fits, and one that does not is taken back', async () => {
  const { asked, refusalOf } = schema();
  const guard = new FitGuard(async () => refusalOf);
  guard.opened(named('a'));
  await settled();
  expect(guard.changed(named('b'))).toBeNull();
  expect(guard.changed(named('unfit'))).toBe('name does not fit');
  expect(guard.changed(named('c'))).toBeNull();
  expect(asked).toEqual(['a → b, plan', 'b → unfit, plan', 'b → c, plan']);
});

test('what was changed before the schema came is not taken back unasked, but told when it is written', async () => {
  const { refusalOf } = schema();
  let come: (value: RefusalOf) => void = () => {};
  const guard = new FitGuard(() => new Promise((resolve) => (come = resolve)));
  guard.opened(named('a'));
  expect(guard.changed(named('unfit'))).toBeNull();
  const written = guard.refusalOf(named('a'), named('unfit'));
  come(refusalOf);
  expect(await written).toBe('name does not fit');
  expect(guard.changed(named('unfit'))).toBeNull(); // still one that nobody looked at
  expect(guard.changed(named('b'))).toBeNull();
  expect(guard.changed(named('unfit'))).toBe('name does not fit');
});

test('a schema that cannot be loaded holds no change back, and is asked for again', async () => {
  const { refusalOf } = schema();
  let isThere = false;
  const guard = new FitGuard(async () => {
    if (!isThere) throw new TypeError('Failed to fetch');
    return refusalOf;
  });
  guard.opened(named('a'));
  expect(await guard.refusalOf(named('a'), named('unfit'))).toBeNull();
  expect(guard.changed(named('b'))).toBeNull();
  isThere = true;
  expect(await guard.refusalOf(named('a'), named('unfit'))).toBe('name does not fit');
});
