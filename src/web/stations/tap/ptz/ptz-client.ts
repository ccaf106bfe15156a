import { LIVE_PROTOCOL } from '../../../../contract/app-header.ts';
import type { OnvifRequest, PtzMessage } from '../../../../contract/onvif-api.ts';
import type { PtzPosition, PtzPreset, PtzVelocity } from '../../../../core/onvif/services/ptz.ts';
import type { HeadAbility, PtzOrder } from '../../../../core/onvif-client/ptz-types.ts';
import { serverToken } from '../../../api/client.ts';

export type Did = Extract<PtzMessage, { kind: 'did' }>;

export interface PtzState {
  readonly status: 'opening' | 'ready' | 'ended';
  readonly message: string | null;
  readonly ability: HeadAbility | null;
  readonly presets: readonly PtzPreset[];
  readonly position: PtzPosition | null;
  readonly isMoving: boolean | null;
  /** Stops that had to be said again, in this session. */
  readonly stopsLost: number;
  /** It was told to stop for ten seconds, and did not rest. */
  readonly isRunaway: boolean;
}

export const UNOPENED: PtzState = {
  status: 'opening',
  message: null,
  ability: null,
  presets: [],
  position: null,
  isMoving: null,
  stopsLost: 0,
  isRunaway: false,
};

/** While a key is held it is said again so often; silence lets go. */
const HOLD_EVERY_MS = 800;

/** A hand on a head: what it asks goes to the server, which stops the head when this hand goes away. */
export class PtzClient {
  readonly #socket: WebSocket;
  readonly #waiting = new Map<number, (did: Did) => void>();
  #state = UNOPENED;
  #number = 0;
  #holding: ReturnType<typeof setInterval> | null = null;
  #held: PtzVelocity | null = null;

  constructor(
    request: OnvifRequest,
    private readonly onState: (state: PtzState) => void,
  ) {
    const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
    const protocols = serverToken === null ? [LIVE_PROTOCOL] : [LIVE_PROTOCOL, serverToken];
    this.#socket = new WebSocket(`${scheme}://${location.host}/api/steer`, protocols);
    this.#socket.onopen = () => this.#socket.send(JSON.stringify(request));
    this.#socket.onclose = () =>
      this.#ended('Clear Tap’s own server stopped. The pan-tilt head stops if it honours its timeout.');
    this.#socket.onmessage = ({ data }: MessageEvent<string>) => this.#take(JSON.parse(data));
  }

  #put(change: Partial<PtzState>): void {
    this.#state = { ...this.#state, ...change };
    this.onState(this.#state);
  }
  #ended(message: string): void {
    if (this.#state.status === 'ended') return;
    this.#letGo();
    for (const [number, resolve] of this.#waiting) resolve(notDone(number, message));
    this.#waiting.clear();
    this.#put({ status: 'ended', message });
  }

  #take(message: PtzMessage): void {
    switch (message.kind) {
      case 'ready':
        return this.#put({ status: 'ready', ability: message.ability, presets: message.presets });
      case 'presets':
        return this.#put({ presets: message.presets });
      case 'status':
        return this.#put({
          position: message.position,
          isMoving: message.isMoving,
          ...(message.isMoving === false ? { isRunaway: false } : {}),
        });
      case 'notStopped':
        return this.#put({ isRunaway: true });
      case 'stopLost':
        return this.#put({ stopsLost: this.#state.stopsLost + 1 });
      case 'did':
        this.#waiting.get(message.number)?.(message);
        this.#waiting.delete(message.number);
        return;
      case 'ended':
        return this.#ended(message.note || 'It was released.');
    }
  }

  #say(order: PtzOrder): number {
    this.#number += 1;
    if (this.#socket.readyState === WebSocket.OPEN) this.#socket.send(JSON.stringify({ number: this.#number, order }));
    return this.#number;
  }

  /** Resolves when it is over. */
  ask(order: PtzOrder): Promise<Did> {
    this.#letGo();
    if (this.#state.status !== 'ready') return Promise.resolve(notDone(0, 'PTZ is not connected.'));
    const number = this.#say(order);
    return new Promise((resolve) => this.#waiting.set(number, resolve));
  }

  /** It turns for as long as this is not let go. */
  hold(velocity: PtzVelocity): void {
    const isSame =
      this.#held?.pan === velocity.pan && this.#held.tilt === velocity.tilt && this.#held.zoom === velocity.zoom;
    if (isSame || this.#state.status !== 'ready') return;
    this.#held = velocity;
    this.#say({ kind: 'run', velocity });
    if (this.#holding) clearInterval(this.#holding);
    this.#holding = setInterval(() => this.#say({ kind: 'run', velocity }), HOLD_EVERY_MS);
  }
  release(): void {
    if (this.#held) this.stop();
  }
  stop(): void {
    this.#letGo();
    this.#say({ kind: 'rest' });
  }
  #letGo(): void {
    this.#held = null;
    if (this.#holding) clearInterval(this.#holding);
    this.#holding = null;
  }

  close(): void {
    this.#socket.onclose = null;
    this.#socket.onmessage = null;
    this.#letGo();
    this.#socket.close();
  }
}

const notDone = (number: number, note: string): Did => ({
  kind: 'did',
  number,
  ok: false,
  note,
  ranMs: null,
  from: null,
  to: null,
  token: null,
  keptTimeout: null,
});
