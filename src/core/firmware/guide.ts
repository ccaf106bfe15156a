import { between, wholes } from '../base/range.ts';
import type { LedPattern } from './led.ts';
import type { Mark } from './marks.ts';
import type { FileSystem } from './memory-card.ts';

export const MARK_WORDS: Readonly<Record<Mark, string>> = {
  board: 'board',
  flash: 'flash chip',
  sensor: 'sensor',
  radio: 'radio',
};

export const LED_ROLES = ['usual', 'taken', 'writing', 'stuck'] as const;
export type LedRole = (typeof LED_ROLES)[number];
export const LED_ROLE_WORDS: Readonly<Record<LedRole, string>> = {
  usual: 'it boots as before',
  taken: 'firmware file found: release the button',
  writing: 'it is writing',
  stuck: 'it hangs after a power failure',
};

/**
 * How a model is reflashed from a card, as somebody found it out. It belongs to a model card and travels with it; the tool
 * ships none.
 */
export interface ReflashGuide {
  /** The name that its boot loader looks for, to the letter. */
  readonly imageName: string;
  /** The name that the image of before must carry, for going back; empty where there is no way back by card. */
  readonly backName: string;
  readonly fileSystem: FileSystem;
  /** Largest partition that it reads, GiB; `null` where none is known. */
  readonly limitGiB: number | null;
  /** Which way the card goes in, in words. */
  readonly cardWay: string;
  /** Which button, in words. */
  readonly button: string;
  /** How long its plug stays out before, s. */
  readonly powerOffS: number;
  /** How long the button is held from when power comes, s; the sign of the lamp ends it. */
  readonly holdS: number;
  /** The sign comes at the latest so long after power, s. */
  readonly signWithinS: number;
  /** Writing takes at least and at most, s. */
  readonly writeFromS: number;
  readonly writeToS: number;
  /** Before this no silence is a fault, s. */
  readonly patienceS: number;
  /** Until it is on the network again, s. */
  readonly rebootS: number;
  readonly lamps: Readonly<Record<LedRole, LedPattern>>;
}

/** What its numbers may be: nobody holds a button for longer than two minutes, and what writes for an hour hangs. */
export const GUIDE_RANGES = {
  limitGiB: between(0.1, 2048, 'GiB'),
  powerOffS: wholes(1, 600, 's'),
  holdS: wholes(1, 120, 's'),
  signWithinS: wholes(1, 120, 's'),
  writeS: wholes(5, 3600, 's'),
  patienceS: wholes(10, 7200, 's'),
  rebootS: wholes(1, 1800, 's'),
} as const;

/** [A] What boot loaders usually ask for; each is changed on the card of a model. */
export const USUAL_GUIDE: ReflashGuide = {
  imageName: '',
  backName: '',
  fileSystem: 'FAT32',
  limitGiB: 32,
  cardWay: '',
  button: '',
  powerOffS: 10,
  holdS: 6,
  signWithinS: 15,
  writeFromS: 120,
  writeToS: 600,
  patienceS: 900,
  rebootS: 180,
  lamps: {
    usual: { colour: 'red', rhythm: 'steady' },
    taken: { colour: 'blue', rhythm: 'slow' },
    writing: { colour: 'blue', rhythm: 'fast' },
    stuck: { colour: 'red', rhythm: 'two-short' },
  },
};

/** What contradicts itself in a guide, in words; `null` when nothing does. */
export function guideProblem(
  guide: ReflashGuide,
): { readonly field: keyof ReflashGuide; readonly text: string } | null {
  if (guide.signWithinS < guide.holdS)
    return { field: 'signWithinS', text: 'The LED pattern cannot come later than the button is held.' };
  if (guide.writeToS < guide.writeFromS)
    return { field: 'writeToS', text: 'The longest writing time lies below the shortest.' };
  if (guide.patienceS < guide.writeToS)
    return { field: 'patienceS', text: 'The timeout must be at least the longest writing time.' };
  if (guide.imageName !== '' && guide.imageName === guide.backName)
    return {
      field: 'backName',
      text: 'Both firmware files have the same name: one of them would be written by mistake.',
    };
  return null;
}
