import type { LedRole, ReflashGuide } from './guide.ts';
import type { Cause, Direction, Phase, Signal } from './procedure.ts';

/** What can be answered to “what do you see?”, or was done. */
export interface Answer {
  readonly signal: Signal;
  readonly says: string;
  /** The sign of the lamp that it is, drawn beside it. */
  readonly lamp?: LedRole | 'dark';
  /** As it should be. */
  readonly isExpected?: true;
  /** Offered only when patience has run out. */
  readonly isLate?: true;
  /** Offered once something went wrong in this step, and its causes were gone through. */
  readonly isLast?: true;
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
    title: 'Unplug it',
    do: ({ powerOffS }) => `Unplug it, and leave it unplugged for ${powerOffS} s.`,
    answers: [
      { signal: 'next', says: 'It was unplugged that long', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  insert: {
    title: 'Insert the SD card',
    do: (guide, direction) =>
      `Insert the SD card with ${imageOf(guide, direction)}: ${or(guide.cardWay, 'as its slot shows')}.`,
    answers: [
      { signal: 'next', says: 'It is inserted', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  hold: {
    title: 'Hold the button and plug it in',
    do: ({ button }) => `Hold ${or(button, 'its button')}, keep holding, and plug it in.`,
    answers: [
      { signal: 'next', says: 'Held, and plugged in', isExpected: true },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  watch: {
    title: 'Keep holding, watch the LED',
    do: ({ holdS, signWithinS }) =>
      `Hold for at least ${holdS} s. The LED pattern comes within ${signWithinS} s. What do you see?`,
    answers: [
      { signal: 'taken', says: 'The firmware file was found', lamp: 'taken', isExpected: true },
      { signal: 'usual', says: 'It boots as before', lamp: 'usual' },
      { signal: 'dark', says: 'No LED at all', lamp: 'dark' },
      { signal: 'stuck', says: 'This pattern, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  release: {
    title: 'Release the button',
    do: () => 'Release the button now. What do you see?',
    answers: [
      { signal: 'writing', says: 'It is writing', lamp: 'writing', isExpected: true },
      { signal: 'dark', says: 'LED off: many are dark while they write', lamp: 'dark' },
      { signal: 'usual', says: 'It boots as before', lamp: 'usual' },
      { signal: 'stuck', says: 'This pattern, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
    ],
  },
  writing: {
    title: 'It is writing: leave it plugged in',
    do: ({ writeFromS, writeToS, patienceS }) =>
      `Power must not fail now. Writing takes ${sayWait(writeFromS)} to ${sayWait(writeToS)}; no silence is a fault before ${sayWait(patienceS)}.`,
    answers: [
      { signal: 'usual', says: 'It restarts', lamp: 'usual', isExpected: true },
      { signal: 'next', says: 'LED off, and it was writing: it restarts', lamp: 'dark' },
      { signal: 'stuck', says: 'This pattern, again and again', lamp: 'stuck' },
      { signal: 'cut', says: 'Power failed' },
      { signal: 'give-up', says: 'Nothing for longer than that', isLate: true },
    ],
  },
  reboot: {
    title: 'It restarts',
    do: ({ rebootS }) => `Wait until it is back: ${sayWait(rebootS)} at most. What do you see?`,
    answers: [
      { signal: 'usual', says: 'It runs', lamp: 'usual', isExpected: true },
      { signal: 'next', says: 'It runs, with another LED pattern' },
      { signal: 'dark', says: 'The LED stays off', lamp: 'dark' },
      { signal: 'stuck', says: 'This pattern, again and again', lamp: 'stuck' },
      { signal: 'loop', says: 'It restarts every minute' },
      { signal: 'cut', says: 'Power failed: start again' },
    ],
  },
  network: {
    title: 'Is it on the network?',
    do: (_, direction) =>
      direction === 'onward'
        ? 'Check the router’s device list, or probe its address. Remove the SD card meanwhile.'
        : 'Check the router’s device list, or its maker’s app. Remove the SD card meanwhile.',
    answers: [
      { signal: 'seen', says: 'It is there', isExpected: true },
      { signal: 'unseen', says: 'It is not there' },
      { signal: 'loop', says: 'It comes and goes every minute' },
      { signal: 'give-up', says: 'None of these: it stays away', isLast: true },
    ],
  },
  check: {
    title: 'Does the stream play?',
    do: (_, direction) => (direction === 'onward' ? 'Probe its stream, or open it.' : 'Check in its maker’s app.'),
    answers: [
      { signal: 'picture', says: 'The stream plays', isExpected: true },
      { signal: 'no-picture', says: 'It runs without a picture' },
      { signal: 'give-up', says: 'None of these: no picture', isLast: true },
      { signal: 'unseen', says: 'It runs as before' },
    ],
  },
  restore: {
    title: 'Its settings',
    do: () => 'Set its account, time and picture again: they were erased with the old firmware.',
    answers: [{ signal: 'next', says: 'They are set', isExpected: true }],
  },
  retry: {
    title: 'Try again',
    do: () => 'Nothing was written, and nothing is lost. Fix the likely cause first, then try again.',
    answers: [
      { signal: 'again', says: 'Try again', isExpected: true },
      { signal: 'give-up', says: 'Recover it another way' },
      { signal: 'stop', says: 'Stop here' },
    ],
  },
  recover: {
    title: 'Recover it',
    do: ({ backName }) =>
      `Write a firmware file that is surely right in the same way${backName === '' ? '' : `, preferably ${backName}`}. If it is not found, use a recovery loader over a serial or USB cable, or a programmer.`,
    answers: [
      { signal: 'again', says: 'The same way, with that file', isExpected: true },
      { signal: 'rescued', says: 'A recovery loader or programmer brought it back' },
      { signal: 'give-up', says: 'It does not come back' },
    ],
  },
  done: {
    title: 'Done',
    do: (_, direction) => (direction === 'onward' ? 'It runs its new firmware.' : 'It runs its original firmware.'),
    answers: [],
  },
  stopped: { title: 'Stopped', do: () => 'Nothing was written. It runs as before.', answers: [] },
  replaced: {
    title: 'Given up',
    do: () => 'It did not come back. Replace it, and keep this one for parts.',
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
    title: 'The firmware file was not found',
    do: [
      'The name of the file, letter by letter, with all extensions shown.',
      'FAT32 on the first partition, and a partition that is small enough.',
      'An older SD card of 32 GB or less. Then hold the button longer.',
    ],
  },
  'no-sign': {
    title: 'It did not start',
    do: ['Is it plugged in, with the right power supply?', 'Release the button, unplug it, and start again.'],
  },
  'released-early': {
    title: 'The button was released too early',
    do: ['Hold it until the LED pattern appears, then a moment longer.'],
  },
  'not-written': {
    title: 'It runs the firmware it had before',
    do: ['The firmware file was found and nothing was written: compare the copy on the SD card with the original.'],
  },
  'power-cut': {
    title: 'The firmware is written halfway',
    do: [
      'Its boot loader usually survives: the same way, with a firmware file that is surely right.',
      'Use a power supply that nobody unplugs.',
    ],
  },
  'wrong-image': {
    title: 'The firmware does not run on it',
    do: [
      'It is another hardware revision: go back to the original firmware file.',
      'Never try firmware files at random.',
    ],
  },
  'not-found': {
    title: 'It is not found on the network',
    do: [
      'Its address may have changed: scan the network, and look for its MAC address.',
      'Its settings may be erased, and its Wi-Fi key with them: join it to Wi-Fi again, or put the file with network name and key on the SD card.',
      'A network cable or a USB adaptor, where it has a socket.',
      'Only if none of these brings it back: its radio may be another chip.',
    ],
  },
  'no-radio': {
    title: 'It runs, and no network reaches it',
    do: ['Its radio is probably another chip than the firmware was made for: go back to the original firmware file.'],
  },
  'no-stream': {
    title: 'It runs, and no picture comes',
    do: [
      'Its settings may be erased: RTSP switched off, another port, path, account or password. Look at its own page.',
      'The lens cap, and the privacy mode.',
      'Only if none of these helps: the firmware may be made for another sensor.',
    ],
  },
  'sensor-differs': {
    title: 'It runs, without a picture',
    do: ['The firmware was probably made for another sensor: go back to the original firmware file.'],
  },
  loop: {
    title: 'It restarts again and again',
    do: [
      'Measure the voltage at its plug while it starts.',
      'Reset its settings, where its guide says how. Otherwise go back.',
    ],
  },
  'silent-too-long': {
    title: 'It no longer responds',
    do: ['Unplug it only now. Then the same way with the original firmware file.'],
  },
};

/** “10 s”, “2 min”. */
export const sayWait = (s: number): string => (s < 120 ? `${s} s` : `${Number((s / 60).toFixed(1))} min`);
