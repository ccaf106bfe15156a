import type { ProbeEvent } from '../../contract/probe-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import type { StreamUrl } from '../../core/net/stream-url.ts';
import { type ProbeEffect, type ProbeInput, ProbeMachine, type ProbeTimer } from '../../core/probe/probe-machine.ts';
import type { ProbeReport } from '../../core/probe/probe-types.ts';
import type { TransportChoice } from '../../core/rtsp/client-types.ts';
import { CameraLine } from '../camera-line.ts';
import { type Clock, type Dialer, DialFailure, type Entropy } from '../ports.ts';

export interface ProbeRun {
  readonly url: StreamUrl;
  readonly credentials: Credentials | null;
  readonly transport: TransportChoice;
  readonly seconds: number;
  readonly timeoutMs: number;
  readonly media: boolean;
}

export interface ProbeWorld {
  readonly dialer: Dialer;
  readonly clock: Clock;
  readonly entropy: Entropy;
}

export const USER_AGENT = 'ClearTap/0.1';

/**
 * Drives one probe over real sockets: effects of the machine become bytes and timers, and what happens goes back in.
 * Resolves with the report; when `signal` aborts, the socket is closed at once and the promise rejects with its reason.
 */
export function runProbe(
  run: ProbeRun,
  world: ProbeWorld,
  signal: AbortSignal,
  onEvent: (event: ProbeEvent) => void = () => {},
): Promise<ProbeReport> {
  const { clock, dialer, entropy } = world;
  const startedMs = clock.monotonicMs();
  const now = (): number => clock.monotonicMs() - startedMs;
  const machine = new ProbeMachine({
    url: run.url,
    credentials: run.credentials,
    transport: run.transport,
    sampleMs: run.seconds * 1000,
    timeoutMs: run.timeoutMs,
    media: run.media,
    userAgent: USER_AGENT,
    cnonce: () => entropy.hex(8),
    ownSsrc: Number.parseInt(entropy.hex(4), 16),
    startedAtUnixMs: clock.unixMs(),
  });
  const limits = { timeoutMs: run.timeoutMs, signal };

  return new Promise((resolve, reject) => {
    const timers = new Map<ProbeTimer, NodeJS.Timeout>();
    let isOver = false;

    const line = new CameraLine({ dialer, limits, now, put: (input) => put(input) });
    const disarm = (timer: ProbeTimer): void => {
      clearTimeout(timers.get(timer));
      timers.delete(timer);
    };
    const finish = (): void => {
      isOver = true;
      for (const timer of [...timers.keys()]) disarm(timer);
      signal.removeEventListener('abort', cancel);
      line.close();
    };
    const carryOut = (effect: ProbeEffect): void => {
      switch (effect.kind) {
        case 'send':
        case 'openUdp':
        case 'sendDatagram':
        case 'close':
          return line.carryOut(effect);
        case 'arm':
          disarm(effect.timer);
          timers.set(
            effect.timer,
            setTimeout(() => put({ kind: 'timer', timer: effect.timer, atMs: now() }), effect.afterMs),
          );
          return;
        case 'disarm':
          return disarm(effect.timer);
        case 'report':
          onEvent(effect);
          finish();
          return resolve(effect.report);
        default:
          onEvent(effect);
      }
    };
    const put = (input: ProbeInput): void => {
      if (isOver) return;
      for (const effect of machine.handle(input)) carryOut(effect);
    };
    // TEARDOWN is sent without waiting for its answer: a person who cancels does not wait.
    const cancel = (): void => {
      put({ kind: 'cancel', atMs: now() });
      finish();
      reject(signal.reason);
    };
    const start = async (): Promise<void> => {
      try {
        const address = await line.resolve(run.url.host, run.url.port);
        put({ kind: 'resolved', atMs: now(), note: address.note });
        if (isOver) return;
        if (await line.dial(address)) put({ kind: 'connected', atMs: now() });
      } catch (error) {
        if (isOver) return;
        if (error instanceof DialFailure)
          return put({ kind: 'dialFailed', atMs: now(), cause: error.probeCause, note: error.message });
        finish();
        reject(error);
      }
    };

    if (signal.aborted) return reject(signal.reason);
    signal.addEventListener('abort', cancel, { once: true });
    for (const effect of machine.begin(now())) carryOut(effect);
    void start();
  });
}
