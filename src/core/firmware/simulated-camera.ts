import { bytes } from '../base/units.ts';
import type { ReflashGuide } from './guide.ts';
import { compareNames, NAME_WORDS } from './image-name.ts';
import type { LedPattern } from './led.ts';
import { DARK } from './led.ts';
import { ALIGN_MIB, type FileSystem, partitionOf } from './memory-card.ts';

// A camera as its boot loader behaves: what it does with a card, a button and a plug. Time comes from outside.

export type Firmware = 'stock' | 'new';
/** What a file on a card really is, whatever its name. `spoilt` is an image of another revision, or a copy cut short. */
export type Content = 'stock' | 'new' | 'spoilt';

export interface CardFile {
  readonly name: string;
  readonly content: Content;
}

export interface SimCard {
  readonly bytes: number;
  readonly fileSystem: FileSystem;
  /** Of its first partition, MiB; `null` is the whole card. */
  readonly partitionMiB: number | null;
  readonly files: readonly CardFile[];
}

/** Where it is. `loader` looks for a card, `taken` waits for the button to be let go. */
export type SimPhase = 'off' | 'loader' | 'taken' | 'writing' | 'rebooting' | 'running' | 'stuck' | 'dead';

export interface SimCamera {
  readonly phase: SimPhase;
  readonly sinceMs: number;
  readonly firmware: Firmware;
  /** Its memory: whole, half written, or written with what does not run on it. */
  readonly memory: 'whole' | 'half' | 'wrong';
  readonly card: SimCard | null;
  readonly isHeld: boolean;
  /** What it writes now, or has just written. */
  readonly content: Content | null;
  /** Why it did what it did last, in words; nothing of this is seen on a real one. */
  readonly why: string;
}

export type SimInput =
  | { readonly kind: 'card'; readonly card: SimCard | null }
  | { readonly kind: 'press' }
  | { readonly kind: 'release' }
  | { readonly kind: 'plug' }
  | { readonly kind: 'unplug' };

export const simCamera = (firmware: Firmware, atMs = 0): SimCamera => ({
  phase: 'running',
  sinceMs: atMs,
  firmware,
  memory: 'whole',
  card: null,
  isHeld: false,
  content: null,
  why: 'it runs as it was delivered',
});

/** [A] A button that is held on for so long after the sign is let go by the camera: it boots as before. */
const HELD_ON_S = 60;

/** What its lamp shows. */
export function ledOf({ phase }: SimCamera, { lamps }: ReflashGuide): LedPattern {
  switch (phase) {
    case 'off':
    case 'dead':
    case 'rebooting':
      return DARK;
    case 'taken':
      return lamps.taken;
    case 'writing':
      return lamps.writing;
    case 'stuck':
      return lamps.stuck;
    default:
      return lamps.usual; // a loader that looks for a card shows nothing of it
  }
}

/** Whether something listens on its RTSP port. */
export const listens = ({ phase, firmware }: SimCamera): boolean => phase === 'running' && firmware === 'new';

type Look = { readonly content: Content; readonly why: string } | { readonly content: null; readonly why: string };

/** What a boot loader makes of a card, and why it takes nothing from it. */
function lookAt(card: SimCard | null, guide: ReflashGuide): Look {
  const no = (why: string): Look => ({ content: null, why });
  if (!card) return no('no SD card is inserted');
  const whole = partitionOf(bytes(card.bytes), ALIGN_MIB, card.partitionMiB);
  if (!whole.fits) return no('the partition lies beyond the end of the SD card');
  const gib = whole.sizeMiB / 1024;
  if (guide.limitGiB !== null && gib > guide.limitGiB)
    return no(`the partition of ${gib.toFixed(1)} GiB is larger than the ${guide.limitGiB} GiB that it reads`);
  if (card.fileSystem !== guide.fileSystem)
    return no(`the SD card is ${card.fileSystem}, and it reads ${guide.fileSystem}`);
  const wanted = [guide.imageName, guide.backName].filter((name) => name !== '');
  const found = card.files.find(({ name }) => wanted.includes(name));
  if (found) return { content: found.content, why: `it found ${found.name}` };
  const [near] = card.files;
  if (!near) return no('no file is on the SD card');
  const verdict = compareNames(guide.imageName, near.name);
  return no(`it looked for ${guide.imageName} and found ${near.name}: ${NAME_WORDS[verdict]}`);
}

const at = (camera: SimCamera, phase: SimPhase, sinceMs: number, why: string): SimCamera => ({
  ...camera,
  phase,
  sinceMs,
  why,
});

/** What it is without its loader: it runs, hangs, or is dark. */
function booted(camera: SimCamera, sinceMs: number, why: string): SimCamera {
  const phase = camera.memory === 'half' ? 'stuck' : camera.memory === 'wrong' ? 'dead' : 'running';
  return at(camera, phase, sinceMs, why);
}

/** When it turns by itself; `null` while it stays as it is. */
function turnOf(camera: SimCamera, guide: ReflashGuide): number | null {
  const after = (s: number): number => camera.sinceMs + s * 1000;
  switch (camera.phase) {
    case 'loader':
      return after(guide.holdS);
    case 'taken':
      return after(HELD_ON_S);
    case 'writing':
      return after(guide.writeFromS);
    case 'rebooting':
      return after(Math.ceil(guide.rebootS / 3));
    default:
      return null;
  }
}

/** What becomes of it at its turn. */
function turned(camera: SimCamera, guide: ReflashGuide, atMs: number): SimCamera {
  switch (camera.phase) {
    case 'loader': {
      const look = lookAt(camera.card, guide);
      return look.content === null
        ? booted(camera, atMs, `It boots as before: ${look.why}.`)
        : at({ ...camera, content: look.content }, 'taken', atMs, `The firmware file was found: ${look.why}.`);
    }
    case 'taken':
      return booted({ ...camera, content: null }, atMs, 'It boots as before: the button was never released.');
    case 'writing': {
      const { content } = camera;
      if (content === 'spoilt')
        return at(
          { ...camera, memory: 'wrong' },
          'rebooting',
          atMs,
          'Written, and it does not run on this hardware revision.',
        );
      const firmware = content === 'new' ? 'new' : 'stock';
      return at({ ...camera, firmware, memory: 'whole' }, 'rebooting', atMs, `Written: ${firmware} firmware.`);
    }
    default:
      return booted(camera, atMs, camera.firmware === 'new' ? 'The new firmware runs.' : 'The original firmware runs.');
  }
}

/** The camera as it is at a time, with all that it did by itself until then. */
export function simAt(camera: SimCamera, guide: ReflashGuide, atMs: number): SimCamera {
  let now = camera;
  for (let turn = turnOf(now, guide); turn !== null && turn <= atMs; turn = turnOf(now, guide))
    now = turned(now, guide, turn);
  return now;
}

/** What hands do to it. What cannot be done, such as plugging in twice, changes nothing. */
export function simStep(camera: SimCamera, input: SimInput, guide: ReflashGuide, atMs: number): SimCamera {
  const now = simAt(camera, guide, atMs);
  switch (input.kind) {
    case 'card':
      // A card that is pulled while it writes leaves half of an image behind.
      if (now.phase === 'writing' && input.card === null)
        return at(
          { ...now, card: null, memory: 'half' },
          'stuck',
          atMs,
          'The SD card was removed while it was writing.',
        );
      return { ...now, card: input.card };
    case 'press':
      return { ...now, isHeld: true };
    case 'release': {
      const free = { ...now, isHeld: false };
      if (now.phase === 'loader' && now.isHeld)
        return booted(free, atMs, 'It boots as before: the button was released too early.');
      if (now.phase === 'taken') return at(free, 'writing', atMs, 'It is writing.');
      return free;
    }
    case 'plug':
      if (now.phase !== 'off') return now;
      return now.isHeld
        ? at(now, 'loader', atMs, 'It starts with the button held.')
        : booted(now, atMs, 'It starts, the button is not held.');
    case 'unplug':
      if (now.phase === 'off') return now;
      if (now.phase === 'writing')
        return at(
          { ...now, memory: 'half' },
          'off',
          atMs,
          'Power failed while it was writing: the firmware is written halfway.',
        );
      return at({ ...now, content: null }, 'off', atMs, 'It is unplugged.');
  }
}
