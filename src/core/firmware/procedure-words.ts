import type { LampRole, ReflashGuide } from './guide.ts';
import type { Cause, Direction, Phase, Signal } from './procedure.ts';

/** What can be answered to “what do you see?”, or was done. */
export interface Answer {
  readonly signal: Signal;
  readonly says: string;
  /** The sign of the lamp that it is, drawn beside it. */
  readonly lamp?: LampRole | 'dark';
  /** As it should be. */
  readonly isExpected?: true;
  /** Offered only when patience has run out. */
  readonly isLate?: true;
}

interface StepWords {
  readonly title: string;
  readonly do: (guide: ReflashGuide, direction: Direction) => string;
  readonly answers: readonly Answer[];
}

const imageOf = ({ imageName, backName }: ReflashGuide, direction: Direction): string =>
  direction === 'onward' ? imageName : backName;
const or = (text: string, otherwise: string): string => (text.trim() === '' ? otherwise : text);

/** What is said at each step, in the order of the work. Every way out of a phase has its words. */
export const STEP_WORDS: Readonly<Record<Phase, StepWords>> = {
  'power-off': {
    title: 'Plug out',
    do: ({ powerOffS }) => `Pull its plug, and leave it out for ${powerOffS} s.`,
    answers: [
      { signal: 'next', says: 'It was out that long', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  insert: {
    title: 'Card in',
    do: (guide, direction) =>
      `Push the card with ${imageOf(guide, direction)} in: ${or(guide.cardWay, 'the way its slot shows')}.`,
    answers: [
      { signal: 'next', says: 'It is in', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  hold: {
    title: 'Hold and plug in',
    do: ({ button }) => `Hold ${or(button, 'its button')}, keep holding, and plug it in.`,
    answers: [
      { signal: 'next', says: 'Held, and plugged in', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  watch: {
    title: 'Keep holding, watch the lamp',
    do: ({ holdS, signWithinS }) =>
      `Hold on for ${holdS} s at least. The sign comes within ${signWithinS} s. What do you see?`,
    answers: [
      { signal: 'taken', says: 'The card is taken', lamp: 'taken', isExpected: true },
      { signal: 'usual', says: 'It boots as before', lamp: 'usual' },
      { signal: 'dark', says: 'No light at all', lamp: 'dark' },
      { signal: 'stuck', says: 'This, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  release: {
    title: 'Let go',
    do: () => 'Let the button go, now. What do you see?',
    answers: [
      { signal: 'writing', says: 'It writes', lamp: 'writing', isExpected: true },
      { signal: 'dark', says: 'No light: many are dark while they write', lamp: 'dark' },
      { signal: 'usual', says: 'It boots as before', lamp: 'usual' },
      { signal: 'stuck', says: 'This, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
    ],
  },
  writing: {
    title: 'It writes: leave its plug alone',
    do: ({ writeFromS, writeToS, patienceS }) =>
      `Power must not fail now. It takes ${sayWait(writeFromS)} to ${sayWait(writeToS)}; no silence is a fault before ${sayWait(patienceS)}.`,
    answers: [
      { signal: 'usual', says: 'It starts anew', lamp: 'usual', isExpected: true },
      { signal: 'next', says: 'It is dark, and was writing: it restarts', lamp: 'dark' },
      { signal: 'stuck', says: 'This, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
      { signal: 'give-up', says: 'Nothing for longer than that', isLate: true },
    ],
  },
  reboot: {
    title: 'It restarts',
    do: ({ rebootS }) => `Wait until it is back: ${sayWait(rebootS)} at most. What do you see?`,
    answers: [
      { signal: 'usual', says: 'It runs', lamp: 'usual', isExpected: true },
      { signal: 'next', says: 'It runs, and shows another sign' },
      { signal: 'dark', says: 'It stays dark', lamp: 'dark' },
      { signal: 'stuck', says: 'This, again and again', lamp: 'stuck' },
      { signal: 'loop', says: 'It starts again every minute' },
      { signal: 'cut', says: 'Power failed: it starts once more' },
    ],
  },
  network: {
    title: 'Is it on the network?',
    do: (_, direction) =>
      direction === 'onward'
        ? 'Look at the router, or probe its address. Take the card out meanwhile.'
        : 'Look at the router, or in its maker’s app. Take the card out meanwhile.',
    answers: [
      { signal: 'seen', says: 'It is there', isExpected: true },
      { signal: 'unseen', says: 'It is not there' },
      { signal: 'loop', says: 'It comes and goes every minute' },
    ],
  },
  check: {
    title: 'Does it give its picture?',
    do: (_, direction) => (direction === 'onward' ? 'Probe its stream, or open it.' : 'Look in its maker’s app.'),
    answers: [
      { signal: 'picture', says: 'It gives its picture', isExpected: true },
      { signal: 'no-picture', says: 'It runs without a picture' },
      { signal: 'unseen', says: 'It is as it was before' },
    ],
  },
  restore: {
    title: 'Its settings',
    do: () => 'Set its account, its time and its picture again: they went with the old firmware.',
    answers: [{ signal: 'next', says: 'They are set', isExpected: true }],
  },
  retry: {
    title: 'Once more',
    do: () => 'Nothing was written, and nothing is lost. Mend what is likely first, then try again.',
    answers: [
      { signal: 'again', says: 'Try again', isExpected: true },
      { signal: 'give-up', says: 'Bring it back by another way' },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  recover: {
    title: 'Bring it back',
    do: ({ backName }) =>
      `Write an image that is surely right by the same way${backName === '' ? '' : `, ${backName} for choice`}. Where that does not take, a loader over a wire or a programmer does.`,
    answers: [
      { signal: 'again', says: 'The same way, with that image', isExpected: true },
      { signal: 'rescued', says: 'A loader or a programmer brought it back' },
      { signal: 'give-up', says: 'It does not come back' },
    ],
  },
  done: {
    title: 'Done',
    do: (_, direction) => (direction === 'onward' ? 'It runs its new firmware.' : 'It runs as it came.'),
    answers: [],
  },
  stopped: { title: 'Stopped', do: () => 'Nothing was written. It runs as before.', answers: [] },
  replaced: {
    title: 'Given up',
    do: () => 'It did not come back. Take another one, and keep this for its parts.',
    answers: [],
  },
};

/** Steps of a reflash that goes well, in their order. */
export const WAY: readonly Phase[] = [
  'power-off',
  'insert',
  'hold',
  'watch',
  'release',
  'writing',
  'reboot',
  'network',
  'check',
  'restore',
];

interface CauseWords {
  readonly title: string;
  readonly do: readonly string[];
}

/** What a wrong sign likely means, and what to do. */
export const CAUSE_WORDS: Readonly<Record<Cause, CauseWords>> = {
  'card-ignored': {
    title: 'It did not take the card',
    do: [
      'The name of the file, letter by letter, with all endings shown.',
      'FAT32 on the first partition, and a partition that is small enough.',
      'An older card of 32 GB or less. Then a longer hold.',
    ],
  },
  'no-sign': {
    title: 'It did not start',
    do: ['Is its plug in, and its supply the right one?', 'Let go, pull the plug, and begin anew.'],
  },
  'released-early': {
    title: 'The button was let go too early',
    do: ['Hold it until the sign has come, then a breath longer.'],
  },
  'not-written': {
    title: 'It runs what it ran before',
    do: ['The card was taken and nothing was written: compare the copy on the card with the image.'],
  },
  'power-cut': {
    title: 'Half of an image is in it',
    do: [
      'Its boot loader mostly lives: the same way with an image that is surely right.',
      'Put it on a supply that nobody unplugs.',
    ],
  },
  'wrong-image': {
    title: 'The image does not run on it',
    do: ['Its revision is another one: go back to the image of before.', 'Never try images at random.'],
  },
  'no-radio': {
    title: 'It runs, and its radio does not',
    do: [
      'A wire or a USB adaptor, where it has a socket.',
      'The file with name and key of the network on the card.',
      'Else its radio chip is another one: go back.',
    ],
  },
  'sensor-differs': {
    title: 'It runs, and its sensor does not',
    do: ['The image was made for another sensor: go back to the image of before.'],
  },
  loop: {
    title: 'It starts again and again',
    do: [
      'Measure the voltage at its plug while it starts.',
      'Clear its settings, where its guide says how. Else go back.',
    ],
  },
  'silent-too-long': {
    title: 'It says nothing any more',
    do: ['Pull its plug only now. Then the same way with the image of before.'],
  },
};

/** “10 s”, “2 min”. */
export const sayWait = (s: number): string => (s < 120 ? `${s} s` : `${Number((s / 60).toFixed(1))} min`);
