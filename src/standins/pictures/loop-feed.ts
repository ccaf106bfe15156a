import { bytesFromBase64 } from '../../core/base/bytes.ts';
import { BFRAMES_LOOP } from '../loops/bframes-loop.ts';
import { H265_LOOP } from '../loops/h265-loop.ts';
import { OPEN_GROUP_LOOP } from '../loops/open-group-loop.ts';
import { PLAIN_LOOP } from '../loops/plain-loop.ts';
import type { Feed, Picture, ShownFormat } from './picture-feed.ts';

/** Pictures that were encoded beforehand, by what is out of the ordinary about them. */
export type LoopName = 'plain' | 'h265' | 'b-frames' | 'open-group';

const TEXTS: Readonly<Record<LoopName, string>> = {
  plain: PLAIN_LOOP,
  h265: H265_LOOP,
  'b-frames': BFRAMES_LOOP,
  'open-group': OPEN_GROUP_LOOP,
};

/** Of every loop. */
const FPS = 12;

interface LoopPicture {
  readonly shownAt: number;
  readonly units: readonly Uint8Array[];
}

const bytesOf = (base64: string): Uint8Array => {
  const bytes = bytesFromBase64(base64);
  if (!bytes.ok) throw new Error('A loop is damaged'); // ours: made by scripts/make-loops.mjs
  return bytes.value;
};

const read = (name: LoopName): readonly LoopPicture[] =>
  TEXTS[name].split('|').map((text) => {
    const [shownAt, ...units] = text.split(' ');
    return { shownAt: Number(shownAt), units: units.map(bytesOf) };
  });

const H264_SPS = 7;
const H265_SPS = 33;

/** The same pictures over and over, each when its turn to be sent comes; its place in showing order is in its time stamp. */
export class LoopFeed implements Feed {
  readonly #pictures: readonly LoopPicture[];
  readonly #listeners = new Set<(picture: Picture) => void>();
  #timer: NodeJS.Timeout | null = null;
  #beganUnixMs = 0;
  #next = 0;

  readonly format: ShownFormat;

  constructor(
    name: LoopName,
    private readonly clockErrorMs = 0,
  ) {
    this.#pictures = read(name);
    this.format = { codec: name === 'h265' ? 'H265' : 'H264', fps: FPS };
  }

  warmUp(): void {}

  async parameterSets(): Promise<readonly Uint8Array[]> {
    return (this.#pictures[0]?.units ?? []).filter((nal) => this.#isParameterSet(nal));
  }

  subscribe(listener: (picture: Picture) => void): () => void {
    this.#listeners.add(listener);
    if (!this.#timer) {
      this.#beganUnixMs = Date.now();
      this.#next = 0;
      this.#give();
    }
    return () => {
      this.#listeners.delete(listener);
      if (this.#listeners.size === 0) this.stop();
    };
  }

  stop(): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
  }

  #isParameterSet(nal: Uint8Array): boolean {
    const first = nal[0] ?? 0;
    return this.format.codec === 'H265'
      ? ((first >> 1) & 0x3f) >= 32 && ((first >> 1) & 0x3f) <= 34
      : [7, 8].includes(first & 0x1f);
  }
  #hasSps(units: readonly Uint8Array[]): boolean {
    return units.some(([first = 0]) =>
      this.format.codec === 'H265' ? ((first >> 1) & 0x3f) === H265_SPS : (first & 0x1f) === H264_SPS,
    );
  }

  readonly #give = (): void => {
    const { fps } = this.format;
    const { length } = this.#pictures;
    const picture = this.#pictures[this.#next % length];
    const round = Math.floor(this.#next / length);
    if (picture) {
      const sentUnixMs = this.#beganUnixMs + (this.#next * 1000) / fps;
      const shownUnixMs = this.#beganUnixMs + ((round * length + picture.shownAt) * 1000) / fps;
      const isKeyFrame = this.#hasSps(picture.units);
      const given: Picture = {
        unixMs: sentUnixMs + this.clockErrorMs,
        shownUnixMs: shownUnixMs + this.clockErrorMs,
        units: picture.units,
        isKeyFrame,
      };
      for (const listener of [...this.#listeners]) listener(given);
    }
    this.#next += 1;
    if (this.#listeners.size === 0) return this.stop();
    const dueUnixMs = this.#beganUnixMs + (this.#next * 1000) / fps;
    this.#timer = setTimeout(this.#give, Math.max(0, dueUnixMs - Date.now()));
  };
}
