import type { Seen } from './around.ts';
import type { GroupRequest } from './group-request.ts';
import type { EncodedGroup } from './mp4-samples.ts';
import type { PictureFormat } from './painter.ts';

/** What a description says of a stream. */
export interface ShownFormat {
  readonly codec: 'H264' | 'H265' | 'JPEG';
  readonly fps: number;
}

/** Pictures that are drawn and encoded here. */
export interface FeedFormat extends PictureFormat, ShownFormat {
  readonly codec: 'H264' | 'JPEG';
  readonly groupFrames: number;
  readonly quantiser: number;
}

export interface Picture {
  /** When it is given out; sender reports follow from it, and RTP time stamps. */
  readonly unixMs: number;
  /** When it is to be shown, where pictures are sent in another order. */
  readonly shownUnixMs?: number;
  /** NAL units of an H.264 picture; the file of a JPEG. */
  readonly units: readonly Uint8Array[];
  readonly isKeyFrame: boolean;
}

/** Where the pictures of one stream come from. */
export interface Feed {
  readonly format: ShownFormat;
  /** Starts ahead of a client that is about to draw. */
  warmUp(): void;
  /** Parameter sets for the description; none of a codec without them. */
  parameterSets(): Promise<readonly Uint8Array[]>;
  subscribe(listener: (picture: Picture) => void): () => void;
  stop(): void;
}

/** Encodes a group that is shown at `dueUnixMs` by the real clock; of several the one that is due first comes first. */
export type EncodeGroup = (request: GroupRequest, dueUnixMs: number) => Promise<EncodedGroup>;
type Listener = (picture: Picture) => void;

export interface FeedHead {
  seenAt(unixMs: number): Seen;
  isMovingAt(unixMs: number): boolean;
  onChange(listener: () => void): void;
}

/** A group while the head moves: short, so that the picture follows it. */
const MOVING_GROUP_FRAMES = 4;
/** How far ahead such a group is drawn. */
const MOVING_LEAD_MS = 90;

/** No group was asked for yet. */
const NOTHING_YET: Promise<EncodedGroup> = new Promise(() => {});

/** How long encoding goes on when nobody draws: a second client of a probe then finds it warm. */
const LINGER_MS = 4000;
/** First guess of what a pixel costs to draw and encode, generous; each group corrects it. */
const FIRST_GUESS_NS_PER_PIXEL = 90;
const HEADROOM = 1.4;
/** A first picture waits no longer than this: what a group took on a busy machine says little of the next one. */
const MOST_LEAD_MS = 1500;

/**
 * The pictures of one stream, encoded once for all its clients, a group ahead of time, and only while somebody draws.
 * Each picture is given out when its own clock says so, or paced from then on when encoding fell behind.
 */
export class PictureFeed implements Feed {
  readonly #listeners = new Set<Listener>();
  #run: { stopped: boolean } | null = null;
  #lingering: NodeJS.Timeout | null = null;
  #encodeMs: number;
  #latest: Pick<EncodedGroup, 'sps' | 'pps'> | null = null;
  #turns = 0;

  constructor(
    readonly format: FeedFormat,
    private readonly encode: EncodeGroup,
    /** The camera's clock minus the real one: what is burnt into the picture. */
    private readonly clockErrorMs = 0,
    /** The share of its pictures that it gives: a warm handset leaves the last of each group out. */
    private readonly keptShare: () => number = () => 1,
    /** Where its head looks at a time of the real clock, and whether it moves then; `null` has none. */
    private readonly head: FeedHead | null = null,
  ) {
    head?.onChange(() => this.#turned());
    this.#encodeMs = (format.width * format.height * format.groupFrames * FIRST_GUESS_NS_PER_PIXEL) / 1e6;
  }

  /** Starts encoding ahead of a client that is about to draw. */
  warmUp(): void {
    this.#start();
    this.#lingerWhenIdle();
  }

  subscribe(listener: Listener): () => void {
    this.#listeners.add(listener);
    this.#start();
    return () => {
      this.#listeners.delete(listener);
      this.#lingerWhenIdle();
    };
  }

  /** Encodes a picture when none was encoded yet. */
  async parameterSets(): Promise<readonly Uint8Array[]> {
    this.#latest ??= await this.encode({ ...this.format, frames: 1, startUnixMs: 0 }, 0); // clock at 1970: never sent
    return this.format.codec === 'H264' ? [this.#latest.sps, this.#latest.pps] : [];
  }

  stop(): void {
    if (this.#run) this.#run.stopped = true;
    this.#run = null;
    if (this.#lingering) clearTimeout(this.#lingering);
    this.#lingering = null;
  }

  #start(): void {
    if (this.#lingering) clearTimeout(this.#lingering);
    this.#lingering = null;
    if (this.#run) return;
    const run = { stopped: false };
    this.#run = run;
    this.#loop(run).catch((error: unknown) => {
      if (run.stopped) return;
      console.error(`Stand-in ${this.format.label}: ${String(error)}`);
      this.#run = null; // whoever draws next begins anew
    });
  }

  #lingerWhenIdle(): void {
    if (this.#listeners.size > 0 || this.#lingering) return;
    this.#lingering = setTimeout(() => this.stop(), LINGER_MS);
    this.#lingering.unref();
  }

  /** What was drawn ahead shows where the head looked before: it is thrown away. */
  #turned(): void {
    this.#turns += 1;
  }

  #groupFrames(startUnixMs: number): number {
    const isMoving = this.head?.isMovingAt(Date.now()) || this.head?.isMovingAt(startUnixMs);
    return isMoving ? Math.min(MOVING_GROUP_FRAMES, this.format.groupFrames) : this.format.groupFrames;
  }

  async #loop(run: { stopped: boolean }): Promise<void> {
    const { fps } = this.format;
    let startUnixMs = Date.now() + Math.min(this.#encodeMs * HEADROOM, MOST_LEAD_MS);
    let pending = this.#encodeTimed(startUnixMs);
    while (!run.stopped) {
      const turns = this.#turns;
      const group = await pending;
      if (run.stopped) return;
      // A group that was not ready in time is shown late and at its own pace, as a camera that is short of breath does.
      const playFromMs = Math.max(startUnixMs, Date.now());
      const { length: frames } = group.pictures;
      startUnixMs = playFromMs + (frames * 1000) / fps;
      // while it moves nobody knows where it will look after this group
      const isMoving = this.head?.isMovingAt(Date.now()) === true;
      pending = isMoving ? NOTHING_YET : this.#encodeTimed(startUnixMs);
      pending.catch(() => {}); // told by the await above, unless the run was stopped before
      const kept = Math.max(1, Math.round(frames * this.keptShare()));
      for (const [index, units] of group.pictures.slice(0, kept).entries()) {
        const unixMs = playFromMs + (index * 1000) / fps;
        await sleepUntil(unixMs);
        if (run.stopped) return;
        if (turns !== this.#turns) break;
        if (isMoving && pending === NOTHING_YET && index >= kept - 2) pending = this.#encodeTimed(startUnixMs);
        const isH264 = this.format.codec === 'H264';
        this.#give({
          unixMs: unixMs + this.clockErrorMs,
          units: index === 0 && isH264 ? [group.sps, group.pps, ...units] : units,
          isKeyFrame: index === 0 || !isH264,
        });
      }
      if (turns === this.#turns && pending !== NOTHING_YET) continue;
      startUnixMs = Date.now() + (this.head ? MOVING_LEAD_MS : 0);
      pending = this.#encodeTimed(startUnixMs);
      pending.catch(() => {});
    }
  }

  async #encodeTimed(startUnixMs: number): Promise<EncodedGroup> {
    const began = Date.now();
    const { format, head } = this;
    const frames = this.#groupFrames(startUnixMs);
    const seen = head
      ? Array.from({ length: frames }, (_, index) => head.seenAt(startUnixMs + (index * 1000) / format.fps))
      : null;
    const group = await this.encode(
      { ...format, frames, startUnixMs: startUnixMs + this.clockErrorMs, ...(seen ? { seen } : {}) },
      startUnixMs,
    );
    this.#encodeMs = ((Date.now() - began) * format.groupFrames) / frames;
    this.#latest = group;
    return group;
  }

  #give(picture: Picture): void {
    for (const listener of [...this.#listeners]) listener(picture);
  }
}

function sleepUntil(unixMs: number): Promise<void> {
  const waitMs = unixMs - Date.now();
  return waitMs <= 0 ? Promise.resolve() : new Promise((resolve) => setTimeout(resolve, waitMs));
}
