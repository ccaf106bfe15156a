import type { Migration } from './migrate.ts';
import { to2 } from './to-2.ts';
import { to3 } from './to-3.ts';
import { to4 } from './to-4.ts';
import { to5 } from './to-5.ts';
import { to6 } from './to-6.ts';
import { to7 } from './to-7.ts';
import { to8 } from './to-8.ts';
import { to9 } from './to-9.ts';
import { to10 } from './to-10.ts';
import { to11 } from './to-11.ts';
import { to12 } from './to-12.ts';
import { to13 } from './to-13.ts';
import { to14 } from './to-14.ts';

/** Every step, by the version that it starts from. */
export const MIGRATIONS: Readonly<Record<number, Migration>> = {
  1: to2,
  2: to3,
  3: to4,
  4: to5,
  5: to6,
  6: to7,
  7: to8,
  8: to9,
  9: to10,
  10: to11,
  11: to12,
  12: to13,
  13: to14,
};
