import { bytesOf, textOf } from '../base/bytes.ts';
import type { Machine } from '../machine/machine.ts';
import { parseIpv4, sayIpv4 } from '../net/ipv4.ts';
import { countOf, type ScanRange } from '../net/scan-range.ts';
import { probeMessage, readProbeMatches } from '../onvif/discovery.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';
import {
  firstGreeting,
  type Greeting,
  greetingText,
  isGreeted,
  learn,
  nextGreeting,
  type Talked,
  WANTED,
} from './greetings.ts';
import { FirstAnswerReader } from './http-answer.ts';
import { atOnceOf, callsOf, impliedSeconds, type ScanPace } from './scan-plan.ts';
import type { ScanEffect, ScanEvent, ScanInput } from './scan-types.ts';
import type { SeenDoor } from './seen.ts';
import { SeenHosts } from './seen-hosts.ts';

export interface ScanOptions {
  /** `null` asks by multicast alone. */
  readonly range: ScanRange | null;
  readonly ports: readonly number[];
  readonly pace: ScanPace;
  /** Asks by WS-Discovery too. */
  readonly isDiscovering: boolean;
  /** A fresh UUID. */
  readonly messageId: string;
}

const TICK_MS = 50;
/** Some devices think for five seconds before their first word. */
const PATIENCE_MS = 6500;
/** What takes longer than this is told as slow. */
const SLOW_MS = 2000;
/** How long answers to the question by multicast are waited for: each waits up to half a second, and some are late. */
const DISCOVERY_MS = 3000;
/** Asked again, since datagrams get lost. Source: SOAP-over-UDP §3.4. */
const ASK_AGAIN_MS = 500;
const NEIGHBOURS_EVERY_MS = 1000;
const PROGRESS_EVERY_MS = 250;
/** So many calls in a row that fail at once, unsent: the plug or the radio of this computer is gone. A free address takes longer. */
const GONE_AFTER = 24;
const AT_ONCE_MS = 20;
/** More answers than these are counted and not read: no house has as many devices, and each costs time. */
const MOST_ANSWERS = 10_000;
/** A device with fewer ports that all answer is nothing odd. */
const ODD_FROM_PORTS = 4;

/** One call: before anybody answers, or while it is greeted. */
interface Call {
  readonly host: string;
  readonly port: number;
  /** The last of its greetings is said on this connection. */
  readonly talked: Talked;
  readonly calledMs: number;
  openedMs: number | null;
  readonly reader: FirstAnswerReader;
}

/**
 * Looks through a range, gently: calls go out at a stated rate, each answer is greeted without a login and told as soon as it
 * is understood. What goes wrong with one address is of no matter to the next.
 */
export class ScanMachine implements Machine<ScanInput, ScanEffect> {
  readonly #hosts = new SeenHosts();
  readonly #calls = new Map<number, Call>();
  readonly #of: number;
  readonly #open = new Map<string, number>();
  readonly #count = { open: 0, refused: 0, silent: 0, answers: 0 };
  #asked = 0;
  #pending = 0;
  #numbers = 0;
  #timesAsked = 0;
  #neighboursMs = 0;
  #progressMs = 0;
  #inRowLost = 0;
  #isGone = false;
  #isOver = false;
  #lastNeighbours: 'not asked' | 'asked' | 'told' = 'not asked';

  constructor(private readonly options: ScanOptions) {
    this.#of = callsOf(options.range, options.ports);
  }

  begin(atMs: number): readonly ScanEffect[] {
    const { pace } = this.options;
    const impliedS = Math.max(impliedSeconds(this.#of, pace), this.options.isDiscovering ? DISCOVERY_MS / 1000 : 0);
    return [{ kind: 'began', calls: this.#of, impliedS, atOnce: atOnceOf(pace) }, ...this.#tick(atMs)];
  }

  handle(input: ScanInput): readonly ScanEffect[] {
    if (this.#isOver) return [];
    switch (input.kind) {
      case 'timer':
        return this.#tick(input.atMs);
      case 'opened':
        return this.#opened(input.door, input.atMs);
      case 'shut':
        return this.#shut(input.door, input.cause, input.atMs);
      case 'heard':
        return this.#heard(input.door, input.chunk, input.atMs);
      case 'hungUp':
        return this.#over(input.door, input.atMs);
      case 'answered':
        return this.#answered(input.from, input.chunk);
      case 'cannotAsk':
        return [{ kind: 'trouble', note: input.note }];
      case 'neighbours':
        return this.#neighbours(input.table);
      case 'broken':
        return [{ kind: 'trouble', note: input.note }, ...(input.isLast ? this.#end(input.atMs, true) : [])];
      case 'cancel':
        return this.#end(input.atMs, true);
    }
  }

  #tick(atMs: number): readonly ScanEffect[] {
    const effects: ScanEffect[] = [...this.#ask(atMs), ...this.#callMore(atMs), ...this.#lostPatience(atMs)];
    if (atMs - this.#neighboursMs >= NEIGHBOURS_EVERY_MS) {
      this.#neighboursMs = atMs;
      effects.push({ kind: 'askNeighbours' });
    }
    if (atMs - this.#progressMs >= PROGRESS_EVERY_MS) {
      this.#progressMs = atMs;
      effects.push({ kind: 'progress', asked: this.#asked, of: this.#of, atMs });
    }
    if (!this.#isQuiet(atMs)) return [...effects, { kind: 'arm', timer: 'tick', afterMs: TICK_MS }];
    // The table of neighbours is looked at once more, now that all were called.
    if (this.#lastNeighbours === 'told') return [...effects, ...this.#end(atMs, false)];
    if (this.#lastNeighbours === 'not asked') {
      this.#lastNeighbours = 'asked';
      effects.push({ kind: 'askNeighbours' });
    }
    return [...effects, { kind: 'arm', timer: 'tick', afterMs: TICK_MS }];
  }

  /** Nothing is under way any more. */
  #isQuiet(atMs: number): boolean {
    const isHeardOut = !this.options.isDiscovering || atMs >= DISCOVERY_MS;
    return this.#asked === this.#of && this.#calls.size === 0 && isHeardOut;
  }

  #ask(atMs: number): readonly ScanEffect[] {
    if (!this.options.isDiscovering || this.#timesAsked >= 2 || atMs < this.#timesAsked * ASK_AGAIN_MS) return [];
    this.#timesAsked += 1;
    return [{ kind: 'askAll', bytes: bytesOf(probeMessage(this.options.messageId)) }];
  }

  /** Calls that are due by the clock: port after port through all addresses, so that no device is called at once for all. */
  #callMore(atMs: number): readonly ScanEffect[] {
    const { range, ports, pace } = this.options;
    if (!range) return [];
    const effects: ScanEffect[] = [];
    const due = Math.min(this.#of, Math.floor((atMs / 1000) * pace.rate) + 1);
    const addresses = countOf(range);
    while (this.#asked < due && this.#pending < atOnceOf(pace)) {
      const host = sayIpv4(range.from + (this.#asked % addresses));
      const port = ports[Math.floor(this.#asked / addresses)] ?? 0;
      this.#asked += 1;
      const door: SeenDoor = { port, is: 'other', server: '', title: '', isSlow: false };
      effects.push(...this.#call(host, { door, greetings: [firstGreeting(port)], isPlainPage: false }, atMs));
    }
    return effects;
  }

  #call(host: string, talked: Talked, calledMs: number): readonly ScanEffect[] {
    const { port } = talked.door;
    const reader = new FirstAnswerReader(WANTED[greetingOf(talked)]);
    this.#numbers += 1;
    this.#pending += 1;
    this.#calls.set(this.#numbers, { host, port, talked, calledMs, openedMs: null, reader });
    return [{ kind: 'call', door: this.#numbers, host, port, timeoutMs: this.options.pace.timeoutMs }];
  }

  #opened(door: number, atMs: number): readonly ScanEffect[] {
    const call = this.#calls.get(door);
    if (!call) return [];
    this.#pending -= 1;
    this.#reached();
    call.openedMs = atMs;
    if (!isGreeted(call.port)) {
      this.#calls.delete(door);
      this.#count.open += 1;
      return [{ kind: 'hangUp', door }, ...seen(this.#hosts.door(call.host, call.talked.door))];
    }
    const { greetings } = call.talked;
    const text = greetingText(greetingOf(call.talked), call.host, call.port);
    const words: ScanEffect = { kind: 'tell', door, bytes: bytesOf(text) };
    if (greetings.length > 1) return [words];
    this.#count.open += 1;
    const open = (this.#open.get(call.host) ?? 0) + 1;
    this.#open.set(call.host, open);
    const { length } = this.options.ports;
    return [
      words,
      ...seen(this.#hosts.door(call.host, call.talked.door)),
      ...(length >= ODD_FROM_PORTS && open === length ? seen(this.#hosts.answersAll(call.host)) : []),
    ];
  }

  #reached(): void {
    this.#inRowLost = 0;
    this.#isGone = false;
  }

  #shut(door: number, cause: ProbeCause, atMs: number): readonly ScanEffect[] {
    const call = this.#calls.get(door);
    if (!call) return [];
    this.#pending -= 1;
    this.#calls.delete(door);
    // a device that takes one connection at a time refuses the next: what it was not asked yet may still be asked
    if (call.talked.greetings.length > 1) return this.#callNext(call.host, call.talked, atMs);
    if (cause === 'refused' || cause === 'closed') {
      // Somebody is at home, and says no.
      this.#count.refused += 1;
      this.#reached();
      return seen(this.#hosts.alive(call.host));
    }
    this.#count.silent += 1;
    this.#inRowLost = cause === 'unreachable' && atMs - call.calledMs < AT_ONCE_MS ? this.#inRowLost + 1 : 0;
    if (this.#isGone || this.#inRowLost < GONE_AFTER) return [];
    this.#isGone = true;
    return [
      {
        kind: 'trouble',
        note: 'Packets no longer leave this computer: its cable or Wi-Fi is down, or it has no route to these addresses. What was seen is kept, and the scan goes on.',
      },
    ];
  }

  #heard(door: number, chunk: Uint8Array, atMs: number): readonly ScanEffect[] {
    const call = this.#calls.get(door);
    if (!call) return [];
    call.reader.push(chunk);
    return call.reader.isEnough ? this.#read(door, call, atMs) : [];
  }

  #over(door: number, atMs: number): readonly ScanEffect[] {
    const call = this.#calls.get(door);
    return call ? this.#read(door, call, atMs) : [];
  }

  /** Doors that were waited for long enough. */
  #lostPatience(atMs: number): readonly ScanEffect[] {
    return [...this.#calls].flatMap(([door, call]) =>
      call.openedMs !== null && atMs - call.openedMs >= PATIENCE_MS ? this.#read(door, call, atMs) : [],
    );
  }

  /** Nothing more is wanted of this connection, or nothing more comes. */
  #read(number: number, { host, talked, openedMs, reader }: Call, atMs: number): readonly ScanEffect[] {
    this.#calls.delete(number);
    const learnt = learn(talked, reader.answer());
    // how slow it is tells what taught what it is: who is silent in another protocol may be quick in its own
    const isTaught = talked.door.is === 'other' || learnt.door.is !== talked.door.is;
    const isSlow = isTaught ? atMs - (openedMs ?? atMs) >= SLOW_MS : talked.door.isSlow;
    const door = { ...learnt.door, isSlow };
    const next = this.#callNext(host, { ...learnt, door }, atMs);
    return [{ kind: 'hangUp', door: number }, ...seen(this.#hosts.door(host, door)), ...next];
  }

  #callNext(host: string, talked: Talked, atMs: number): readonly ScanEffect[] {
    const next = nextGreeting(talked);
    return next ? this.#call(host, { ...talked, greetings: [...talked.greetings, next] }, atMs) : [];
  }

  #answered(from: string, chunk: Uint8Array): readonly ScanEffect[] {
    this.#count.answers += 1;
    if (this.#count.answers > MOST_ANSWERS) return [];
    const read = readProbeMatches(textOf(chunk), this.options.messageId);
    // What is no answer, or hostile, is not worth a word: anybody may send datagrams.
    if (!read.ok) return [];
    return read.value.flatMap((device) => seen(this.#hosts.device(from, device)));
  }

  #neighbours(table: ReadonlyMap<string, string>): readonly ScanEffect[] {
    if (this.#lastNeighbours === 'asked') this.#lastNeighbours = 'told';
    const known = new Set(this.#hosts.all.map(({ host }) => host));
    return [...table].flatMap(([host, mac]) =>
      known.has(host) || this.#isInRange(host) ? seen(this.#hosts.neighbour(host, mac)) : [],
    );
  }

  #isInRange(host: string): boolean {
    const { range } = this.options;
    const address = parseIpv4(host);
    return range !== null && address !== null && address >= range.from && address <= range.to;
  }

  #end(atMs: number, isCancelled: boolean): readonly ScanEffect[] {
    this.#isOver = true;
    const summary = {
      asked: this.#asked,
      of: this.#of,
      seconds: atMs / 1000,
      ...this.#count,
      leftOut: this.#hosts.leftOut,
      isCancelled,
    };
    return [
      { kind: 'disarm', timer: 'tick' },
      { kind: 'progress', asked: this.#asked, of: this.#of, atMs },
      { kind: 'ended', summary },
      { kind: 'done' },
    ];
  }
}

const greetingOf = ({ greetings }: Talked): Greeting => greetings.at(-1) ?? 'page';
const seen = (host: ReturnType<SeenHosts['alive']>): readonly ScanEvent[] => (host ? [{ kind: 'seen', host }] : []);
