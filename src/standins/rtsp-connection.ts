import { randomBytes } from 'node:crypto';
import { type Header, headerOf } from '../core/http/headers.ts';
import { findReceptionReport, type ReceptionReport } from '../core/rtp/receiver-report.ts';
import { RtspMessageParser } from '../core/rtsp/message-parser.ts';
import { type RtspRequest, writeRequest, writeResponse } from '../core/rtsp/rtsp-message.ts';
import { parseSession, parseTransport } from '../core/rtsp/transport.ts';
import { LoginGuard, type Refusals } from './login-guard.ts';
import type { OddAnswer, Oddities } from './oddities.ts';
import type { Personality, StreamPersonality } from './personality.ts';
import type { Feed } from './pictures/picture-feed.ts';
import type { SenderCounts } from './rtp-sender.ts';
import type { RtspLine } from './rtsp-line.ts';
import { SessionMedia, type Track } from './session-media.ts';
import { describeStream } from './stream-description.ts';
import { openUdpSender } from './udp-sender.ts';

export interface SessionEnd extends SenderCounts {
  readonly camera: string;
  readonly stream: string;
  readonly transport: 'tcp' | 'udp';
  /** Whether the client said TEARDOWN, or was gone without a word. */
  readonly how: 'teardown' | 'hang-up';
  /** The last receiver report that the client sent. */
  readonly received: ReceptionReport | null;
}

/** Who draws from a camera, over all connections. */
export interface AllSessions {
  readonly count: () => number;
  readonly first: () => { close(): void } | null;
}

/** Of which camera a connection is. */
export interface ConnectionOf {
  readonly personality: Personality;
  readonly feeds: ReadonlyMap<string, Feed>;
  readonly all: AllSessions;
  readonly refusals: Refusals;
  readonly onSessionEnd: (end: SessionEnd) => void;
}

interface Session {
  readonly id: string;
  readonly stream: StreamPersonality;
  readonly tracks: Map<number, Track>;
  received: ReceptionReport | null;
}

const ASKS_EVERY_MS = 1000;
const NO_ODDITIES: Oddities = {};

/** One client of a simulated camera. */
export class RtspConnection {
  readonly #parser = new RtspMessageParser();
  readonly #guard: LoginGuard;
  #isStalled = false;
  readonly #sessions = new Map<string, Session>();
  readonly #odd: Oddities;
  readonly #media: SessionMedia;
  #expiry: NodeJS.Timeout | null = null;
  #asking: NodeJS.Timeout | null = null;
  #asked = 0;
  #answered = 0;

  constructor(
    private readonly line: RtspLine,
    private readonly of: ConnectionOf,
  ) {
    this.#odd = of.personality.odd ?? NO_ODDITIES;
    this.#media = new SessionMedia(
      line,
      of,
      () => this.#isStarved,
      () => this.close(),
    );
    this.#guard = new LoginGuard(of.personality, of.refusals);
    line.onClose(() => this.close());
  }

  get sessionCount(): number {
    return this.#sessions.size;
  }

  close(): void {
    for (const session of [...this.#sessions.values()]) this.#end(session);
    if (this.#expiry) clearTimeout(this.#expiry);
    if (this.#asking) clearInterval(this.#asking);
    this.line.destroy();
  }

  take(chunk: Uint8Array): void {
    for (const event of this.#parser.push(chunk)) {
      if (event.kind === 'request')
        this.#answerInTime(event.request).catch(() => this.close()); // as a camera would
      else if (event.kind === 'response') this.#answered += 1;
      else if (event.kind === 'interleaved') this.#takeRtcp(event.channel, event.payload);
      else if (event.kind === 'malformed') {
        this.line.write(writeResponse(400, 'Bad Request', []));
        this.line.end();
      }
    }
  }

  async #answerInTime(request: RtspRequest): Promise<void> {
    const { answerDelayMs } = this.of.personality;
    if (answerDelayMs > 0) await new Promise((resolve) => setTimeout(resolve, answerDelayMs));
    if (!this.line.isGone) await this.#answer(request);
  }

  #takeRtcp(channel: number, packet: Uint8Array): void {
    for (const session of this.#sessions.values())
      for (const { path } of session.tracks.values())
        if ('channels' in path && path.channels[1] === channel)
          session.received = findReceptionReport(packet) ?? session.received;
  }

  get #methods(): string {
    const { keepAlive = 'GET_PARAMETER' } = this.#odd;
    const sign = keepAlive === 'OPTIONS' ? [] : [keepAlive === 'none' ? 'GET_PARAMETER' : keepAlive];
    return ['OPTIONS', 'DESCRIBE', 'SETUP', 'PLAY', ...sign, 'TEARDOWN'].join(', ');
  }

  async #answer(request: RtspRequest): Promise<void> {
    this.#restartExpiry();
    const { method, uri } = request;
    if (this.#odd.silentTo === method || this.#isStalled) return;
    const odd = this.#odd.answers?.[method];
    if (method === 'OPTIONS' && !odd)
      return this.#reply(request, 200, 'OK', [{ name: 'Public', value: this.#methods }]);
    // whatever is odd about what comes after a login is told to whoever has one
    if (odd?.status !== 401) {
      const verdict = this.#guard.admits(method, uri, headerOf(request, 'Authorization'));
      if (verdict === 'locked') return this.#reply(request, 423, 'Locked', []);
      if (verdict === 'refused') {
        const challenges = this.#guard.challenges.map((value) => ({ name: 'WWW-Authenticate', value }));
        this.#reply(request, 401, 'Unauthorized', challenges);
        return this.#odd.closesAfter401 ? this.line.end() : undefined;
      }
    }
    if (odd) return this.#replyOddly(request, odd);
    switch (method) {
      case 'DESCRIBE':
        return this.#describe(request);
      case 'SETUP':
        return this.#setUp(request);
      case 'PLAY':
        return this.#play(request);
      case 'GET_PARAMETER':
      case 'SET_PARAMETER':
        return this.#takeKeepAlive(request);
      case 'TEARDOWN': {
        const session = this.#sessionOf(request);
        if (session) this.#end(session, 'teardown');
        return this.#reply(request, session ? 200 : 454, session ? 'OK' : 'Session Not Found', []);
      }
      default:
        return this.#reply(request, 501, 'Not Implemented', []);
    }
  }

  #takeKeepAlive(request: RtspRequest): void {
    const { keepAlive } = this.#odd;
    if (keepAlive !== undefined && keepAlive !== request.method)
      return this.#reply(request, 501, 'Not Implemented', []);
    const isKnown = this.#sessionOf(request) !== undefined;
    return this.#reply(request, isKnown ? 200 : 454, isKnown ? 'OK' : 'Session Not Found', []);
  }

  async #describe(request: RtspRequest): Promise<void> {
    const stream = this.#streamAt(request.uri);
    const feed = stream && this.of.feeds.get(stream.path);
    if (!stream || !feed) return this.#reply(request, 404, 'Not Found', []);
    feed.warmUp();
    const { host, name } = this.of.personality;
    const base = request.uri.replace(/\/$/, '');
    const sdp = describeStream({
      host,
      title: `${name} ${stream.label}`,
      format: feed.format,
      parameterSets: await feed.parameterSets(),
      odd: this.#odd,
      base,
    });
    const headers = [
      { name: 'Content-Type', value: 'application/sdp' },
      { name: 'Content-Base', value: this.#odd.controls === 'in-place' ? base : `${base}/` },
    ];
    this.#reply(request, 200, 'OK', headers, sdp);
  }

  /** Which track of which stream an address means. */
  #trackAt(uri: string): { readonly stream: StreamPersonality; readonly number: number } | null {
    const match = /\/trackID=([01])$/.exec(uri);
    const before = uri.slice(0, uri.length - (match?.[0].length ?? 0));
    const stream =
      this.#odd.controls === 'in-place'
        ? this.of.personality.streams.find(({ path }) => path.startsWith(`${pathOf(before)}/`))
        : this.#streamAt(before);
    const number = Number(match?.[1] ?? 0);
    return stream && (number === 0 || this.#odd.sound) ? { stream, number } : null;
  }

  async #setUp(request: RtspRequest): Promise<void> {
    const found = this.#trackAt(request.uri);
    if (!found) return this.#reply(request, 404, 'Not Found', []);
    const { personality, all } = this.of;
    const { lower, interleaved, clientPorts } = parseTransport(headerOf(request, 'Transport') ?? '');
    if (interleaved && this.#odd.interleaved === 'stalls') {
      this.#isStalled = true;
      return this.#reply(request, 400, 'Bad Request', []);
    }
    const isOffered = lower !== null && personality.transports.includes(lower);
    if (!isOffered || (lower === 'udp' && !clientPorts)) return this.#reply(request, 461, 'Unsupported Transport', []);
    const known = this.#sessionOf(request);
    if (!known && all.count() >= personality.maxSessions) {
      const { whenFull } = personality;
      if (whenFull === 'hangs-up') return this.close();
      if (whenFull === undefined) return this.#reply(request, 453, 'Not Enough Bandwidth', []);
      if (whenFull === 'ends-first') all.first()?.close();
    }
    const id = known?.id ?? randomBytes(4).toString('hex');
    const session: Session = known ?? { id, stream: found.stream, tracks: new Map(), received: null };
    const onRtcp = (packet: Uint8Array): void => {
      session.received = findReceptionReport(packet) ?? session.received;
    };
    const path: Track['path'] =
      lower === 'udp' && clientPorts
        ? { udp: await openUdpSender(this.line.remoteAddress, clientPorts, onRtcp) }
        : { channels: interleaved ?? ([2 * found.number, 2 * found.number + 1] as const) };
    session.tracks.set(found.number, { number: found.number, path, sender: null, stop: null });
    this.#sessions.set(id, session);
    if (this.line.isGone) return this.#end(session);
    const transport =
      'udp' in path
        ? `RTP/AVP;unicast;client_port=${clientPorts?.join('-')};server_port=${path.udp.ports.join('-')}`
        : `RTP/AVP/TCP;unicast;interleaved=${path.channels.join('-')}`;
    this.#reply(request, 200, 'OK', [
      { name: 'Transport', value: transport },
      { name: 'Session', value: `${id};timeout=${personality.sessionTimeoutS}` },
    ]);
  }

  #play(request: RtspRequest): void {
    const session = this.#sessionOf(request);
    if (!session) return this.#reply(request, 454, 'Session Not Found', []);
    const base = request.uri.replace(/\/?$/, '/');
    const infos: string[] = [];
    for (const track of session.tracks.values()) {
      const firstSeq = randomBytes(2).readUInt16BE();
      infos.push(`url=${base}trackID=${track.number};seq=${firstSeq}`);
      track.stop?.();
      track.sender = this.#media.senderOf(track, session.stream, firstSeq);
    }
    this.#reply(request, 200, 'OK', [
      { name: 'Session', value: session.id },
      { name: 'Range', value: 'npt=now-' },
      { name: 'RTP-Info', value: infos.join(',') },
    ]);
    if (this.#odd.isMute) return;
    for (const track of session.tracks.values()) track.stop = this.#media.start(track, session.stream);
    if (this.#odd.asksBack) this.#askBack(request.uri);
  }

  /** RFC 2326 §10.1, §10.8: a server may ask too. */
  #askBack(uri: string): void {
    if (this.#asking) return;
    this.#asking = setInterval(() => {
      if (this.#asked > this.#answered + 1) return this.close();
      this.#asked += 1;
      const method = this.#asked % 2 === 1 ? 'OPTIONS' : 'GET_PARAMETER';
      this.line.write(writeRequest(method, uri, [{ name: 'CSeq', value: String(9000 + this.#asked) }]));
    }, ASKS_EVERY_MS);
  }

  get #isStarved(): boolean {
    const { whenFull, maxSessions } = this.of.personality;
    return whenFull === 'starves-first' && this.of.all.count() > maxSessions && this.of.all.first() === this;
  }

  #streamAt(uri: string): StreamPersonality | undefined {
    const path = pathOf(uri);
    return this.of.personality.streams.find((stream) => stream.path === path);
  }
  #sessionOf(request: RtspRequest): Session | undefined {
    return this.#sessions.get(parseSession(headerOf(request, 'Session') ?? '').id);
  }
  #end(session: Session, how: SessionEnd['how'] = 'hang-up'): void {
    if (!this.#sessions.delete(session.id)) return;
    for (const { path, stop } of session.tracks.values()) {
      stop?.();
      if ('udp' in path) path.udp.close();
    }
    const picture = session.tracks.get(0) ?? [...session.tracks.values()][0];
    if (!picture?.sender) return;
    this.of.onSessionEnd({
      camera: this.of.personality.name,
      stream: session.stream.label,
      transport: 'udp' in picture.path ? 'udp' : 'tcp',
      how,
      received: session.received,
      ...picture.sender.counts,
    });
  }
  /** RFC 2326 §12.37: a server may close a session whose client stays silent for the timeout. */
  #restartExpiry(): void {
    if (this.#expiry) clearTimeout(this.#expiry);
    this.#expiry = setTimeout(() => this.close(), this.of.personality.sessionTimeoutS * 1000);
    this.#expiry.unref();
  }
  #replyOddly(request: RtspRequest, { status, reason = 'Odd', headers = {}, body = '', raw }: OddAnswer): void {
    if (raw !== undefined) return this.line.write(raw);
    const all = Object.entries(headers).map(([name, value]) => ({
      name,
      value: value.replace('{asked}', request.uri),
    }));
    this.#reply(request, status, reason, all, body);
  }
  #reply(request: RtspRequest, status: number, reason: string, headers: readonly Header[], body = ''): void {
    const all = [
      { name: 'CSeq', value: headerOf(request, 'CSeq') ?? '0' },
      { name: 'Server', value: this.of.personality.server },
      ...headers,
    ];
    if (body !== '') all.push({ name: 'Content-Length', value: String(Buffer.byteLength(body)) });
    if (!this.line.isGone) this.line.write(writeResponse(status, reason, all, body));
  }
}

const pathOf = (uri: string): string => uri.replace(/^[a-z]+:\/\/[^/]*/i, '').replace(/\/$/, '');
