import type { CommonEffect, CommonInput } from '../machine/machine.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';
import type { SeenHost } from './seen.ts';

/** What happens to a sweep beside what happens to every machine. A door is one call of it, by its number. */
export type ScanInput =
  | CommonInput<'tick'>
  | { readonly kind: 'opened'; readonly door: number; readonly atMs: number }
  | { readonly kind: 'shut'; readonly door: number; readonly cause: ProbeCause; readonly atMs: number }
  | { readonly kind: 'heard'; readonly door: number; readonly chunk: Uint8Array; readonly atMs: number }
  | { readonly kind: 'hungUp'; readonly door: number; readonly atMs: number }
  /** An answer by WS-Discovery, from this address. */
  | { readonly kind: 'answered'; readonly from: string; readonly chunk: Uint8Array; readonly atMs: number }
  | { readonly kind: 'cannotAsk'; readonly note: string; readonly atMs: number }
  /** MAC addresses by address, as the system's table has them now. */
  | { readonly kind: 'neighbours'; readonly table: ReadonlyMap<string, string>; readonly atMs: number };

/** What is done for it beside what is done for every machine. */
export type ScanDoing =
  | {
      readonly kind: 'call';
      readonly door: number;
      readonly host: string;
      readonly port: number;
      readonly timeoutMs: number;
    }
  | { readonly kind: 'tell'; readonly door: number; readonly bytes: Uint8Array }
  | { readonly kind: 'hangUp'; readonly door: number }
  /** Asks all who listen, once more each time. */
  | { readonly kind: 'askAll'; readonly bytes: Uint8Array }
  | { readonly kind: 'askNeighbours' };

/** What it tells: lines of the answer, as they happen. */
export type ScanEvent =
  | { readonly kind: 'began'; readonly calls: number; readonly impliedS: number; readonly atOnce: number }
  | { readonly kind: 'seen'; readonly host: SeenHost }
  | { readonly kind: 'progress'; readonly asked: number; readonly of: number; readonly atMs: number }
  /** Something is wrong with the sweep itself; it goes on. */
  | { readonly kind: 'trouble'; readonly note: string }
  | { readonly kind: 'ended'; readonly summary: ScanSummary };

export interface ScanSummary {
  /** Calls that were made. */
  readonly asked: number;
  readonly of: number;
  readonly seconds: number;
  /** Calls by what came of them. */
  readonly open: number;
  readonly refused: number;
  readonly silent: number;
  /** Answers to the question by multicast, those of one device more than once among them. */
  readonly answers: number;
  /** Addresses that answered beyond what is kept. */
  readonly leftOut: number;
  readonly isCancelled: boolean;
}

export type ScanEffect = CommonEffect<'tick'> | ScanDoing | ScanEvent;
