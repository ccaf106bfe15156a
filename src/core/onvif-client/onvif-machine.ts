import type { CommonEffect, CommonInput, HttpEffect, HttpInput, Machine } from '../machine/machine.ts';
import type { OnvifReading } from '../onvif/reading.ts';
import type { ServicePlace } from '../onvif/service-place.ts';
import { createNumbers, type LineMoved, OnvifLine, type OnvifStep } from './onvif-line.ts';
import { OnvifSession } from './onvif-session.ts';
import { DeviceReader, type ReadDepth } from './read-script.ts';
import type { SessionOptions } from './session-types.ts';

type ReadTimer = 'enough';
export type OnvifInput = CommonInput<ReadTimer> | HttpInput;

/** What it tells: lines of the answer, as they happen. */
export type OnvifEvent =
  | { readonly kind: 'step'; readonly step: OnvifStep }
  /** A login that stood in an address of the device: for the vault of whoever asked, and kept nowhere else. */
  | { readonly kind: 'offeredLogin'; readonly user: string; readonly secret: string }
  | { readonly kind: 'reading'; readonly reading: OnvifReading };
export type OnvifEffect = CommonEffect<ReadTimer> | HttpEffect | OnvifEvent;

/** Where the device service lies unless somebody says otherwise. Source: ONVIF Core §5.1. */
export const DEVICE_PATH = '/onvif/device_service';

/** Of each answer. */
export const ONVIF_TIMEOUT_MS = 5000;
/** A slow box of many channels takes its time; beyond this the reading ends with what it has. */
const ENOUGH_MS = 120_000;

export interface OnvifOptions extends Omit<SessionOptions, 'unixMs' | 'target'> {
  readonly target: ServicePlace;
  readonly timeoutMs: number;
  readonly startedAtUnixMs: number;
  readonly depth?: ReadDepth;
  /** It ends then, with what it has. */
  readonly enoughMs?: number;
}

/** Reads a device once, and ends. */
export class OnvifMachine implements Machine<OnvifInput, OnvifEffect> {
  readonly #session: OnvifSession;
  readonly #line: OnvifLine<null>;
  readonly #reader: DeviceReader;
  #atMs = 0;
  #isOver = false;
  #answers = 0;
  #answerMs = 0;

  constructor(private readonly options: OnvifOptions) {
    const unixMs = (atMs: number): number => options.startedAtUnixMs + atMs;
    this.#session = new OnvifSession({ ...options, unixMs });
    this.#line = new OnvifLine(this.#session, { name: 'read', timeoutMs: options.timeoutMs, number: createNumbers() });
    this.#reader = new DeviceReader(
      this.#session,
      () => unixMs(this.#atMs),
      options.credentials !== null,
      options.depth,
    );
  }

  begin(atMs: number): readonly OnvifEffect[] {
    this.#atMs = atMs;
    return [
      { kind: 'arm', timer: 'enough', afterMs: this.options.enoughMs ?? ENOUGH_MS },
      ...this.#moved(this.#line.run(this.#reader.script(), atMs)),
    ];
  }

  handle(input: OnvifInput): readonly OnvifEffect[] {
    if (this.#isOver) return [];
    this.#atMs = input.atMs;
    switch (input.kind) {
      case 'responded':
      case 'failed':
        return this.#moved(this.#line.handle(input));
      case 'timer':
        return this.#end({
          cause: 'timeout',
          note: `Not finished after ${Math.round((this.options.enoughMs ?? ENOUGH_MS) / 1000)} s; what was read until then is kept.`,
        });
      case 'broken':
        return this.#end({ cause: 'closed', note: input.note });
      case 'cancel':
        return this.#end({ cause: 'closed', note: 'Cancelled.' });
    }
  }

  #moved({ effects, steps, result }: LineMoved<null>): readonly OnvifEffect[] {
    for (const { ok, durationMs, requests } of steps)
      if (ok || requests > 0) {
        this.#answers += requests;
        this.#answerMs += durationMs;
      }
    const told: readonly OnvifEffect[] = [...steps.map((step) => ({ kind: 'step', step }) as const), ...effects];
    return result === undefined ? told : [...told, ...this.#end(null)];
  }

  #end(early: Pick<OnvifReading, 'cause' | 'note'> | null): readonly OnvifEffect[] {
    this.#isOver = true;
    this.#session.close();
    const { extraAnswers, oddTypes, provenBy, heldDoors, certificate } = this.#session;
    const { facts, offered } = this.#reader;
    const reading: OnvifReading = {
      ...facts,
      ...(early && facts.cause === null ? early : {}),
      ...this.options.target,
      login: provenBy,
      heldDoors,
      tls: certificate,
      tellsLogin: offered.length > 0,
      extraAnswers,
      oddTypes,
      answers: this.#answers,
      meanAnswerMs: this.#answers > 0 ? this.#answerMs / this.#answers : null,
    };
    return [
      ...offered.map(({ user, password }) => ({ kind: 'offeredLogin', user, secret: password }) as const),
      { kind: 'reading', reading },
      { kind: 'disarm', timer: 'enough' },
      { kind: 'done' },
    ];
  }
}
