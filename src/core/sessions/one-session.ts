import { driveEffectOf } from '../machine/client-drive.ts';
import type { CameraEffect, CameraInput } from '../machine/machine.ts';
import { RtspClient } from '../rtsp/client.ts';
import type { ClientEffect, ClientInput, RtspClientOptions } from '../rtsp/client-types.ts';
import type { SessionRefusal } from './sessions-types.ts';

/** What a session wants of whoever holds it. */
export type OneSessionWish =
  | { readonly kind: 'effect'; readonly effect: CameraEffect }
  | { readonly kind: 'awaits'; readonly afterMs: number }
  | { readonly kind: 'answered' }
  | { readonly kind: 'keepAlive'; readonly afterMs: number }
  /** PLAY was granted: packets are to come. */
  | { readonly kind: 'plays' }
  | { readonly kind: 'firstPacket' }
  | { readonly kind: 'left' };

/** One client of many: it draws the stream, counts its packets, and keeps what it was refused with. */
export class OneSession {
  readonly #client: RtspClient;
  #refusal: SessionRefusal | null = null;
  #status: number | null = null;
  #wishes: OneSessionWish[] = [];
  #hasPackets = false;
  #isLeft = false;
  #isStopping = false;
  #isBidden = false;
  packets = 0;

  constructor(
    options: Omit<RtspClientOptions, 'play'>,
    private readonly timeoutMs: number,
  ) {
    this.#client = new RtspClient({ ...options, play: true });
  }

  /** Packets come, and nobody has ended it. */
  get isPlaying(): boolean {
    return this.#hasPackets && !this.#isLeft && !this.#isStopping;
  }
  get isLeft(): boolean {
    return this.#isLeft;
  }
  get refusal(): SessionRefusal | null {
    return this.#refusal;
  }
  /** Its TEARDOWN was answered. */
  get isBidden(): boolean {
    return this.#isBidden;
  }

  hear(input: CameraInput): readonly OneSessionWish[] {
    switch (input.kind) {
      case 'resolved':
        return [];
      case 'dialFailed':
        this.#refuse({ cause: input.cause, status: null, note: input.note });
        this.#isLeft = true;
        return [{ kind: 'left' }];
      default:
        return this.#drive(input);
    }
  }

  answerIsLate(atMs: number): readonly OneSessionWish[] {
    return this.#drive({ kind: 'answerTimer', atMs });
  }
  keepAliveIsDue(atMs: number): readonly OneSessionWish[] {
    return this.#drive({ kind: 'keepAliveTimer', atMs });
  }
  packetsAreLate(atMs: number): readonly OneSessionWish[] {
    this.#refuse({ cause: 'no-packets', status: null, note: 'PLAY was granted, and no packet came.' });
    return this.stop(atMs);
  }
  stop(atMs: number): readonly OneSessionWish[] {
    this.#isStopping = true;
    return this.#isLeft ? [] : this.#drive({ kind: 'stop', atMs });
  }

  #drive(input: ClientInput): readonly OneSessionWish[] {
    this.#wishes = [];
    for (const effect of this.#client.handle(input)) this.#take(effect);
    return this.#wishes;
  }

  #take(effect: ClientEffect): void {
    const done = driveEffectOf(effect, this.timeoutMs);
    if (done) return void this.#wishes.push(wishOf(done));
    switch (effect.kind) {
      case 'playing':
        if (!this.#hasPackets) this.#wishes.push({ kind: 'plays' });
        break;
      case 'rtp':
        this.packets += 1;
        if (this.#hasPackets) break;
        this.#hasPackets = true;
        this.#wishes.push({ kind: 'firstPacket' });
        break;
      case 'stepEnded':
        if (effect.name === 'teardown') this.#isBidden = effect.ok;
        else if (!effect.ok) this.#status = effect.status;
        break;
      case 'failed':
        this.#refuse({ cause: effect.cause, status: this.#status, note: effect.note });
        break;
      case 'ended':
        this.#isLeft = true;
        this.#wishes.push({ kind: 'left' });
        break;
    }
  }

  /** The first failure is the reason; what follows from it is none. */
  #refuse(refusal: SessionRefusal): void {
    if (!this.#isStopping) this.#refusal ??= refusal;
  }
}

function wishOf(done: NonNullable<ReturnType<typeof driveEffectOf>>): OneSessionWish {
  switch (done.kind) {
    case 'arm':
      return { kind: done.timer === 'answer' ? 'awaits' : 'keepAlive', afterMs: done.afterMs };
    case 'disarm':
      return { kind: 'answered' };
    default:
      return { kind: 'effect', effect: done };
  }
}
