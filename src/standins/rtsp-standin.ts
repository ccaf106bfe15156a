import { randomBytes } from 'node:crypto';
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { base64Of, hexOf } from '../core/base/bytes.ts';
import { findReceptionReport, type ReceptionReport } from '../core/rtp/receiver-report.ts';
import { RtspMessageParser } from '../core/rtsp/message-parser.ts';
import { headerOf, type RtspHeader, type RtspRequest, writeResponse } from '../core/rtsp/rtsp-message.ts';
import { parseSession, parseTransport } from '../core/rtsp/transport.ts';
import { LoginGuard } from './login-guard.ts';
import type { Personality, StreamPersonality } from './personality.ts';
import { type EncodeGroup, type FeedHead, PictureFeed } from './pictures/picture-feed.ts';
import { RtpSender, type SenderCounts } from './rtp-sender.ts';
import { openUdpSender, type UdpSender } from './udp-sender.ts';

export interface SessionEnd extends SenderCounts {
  readonly camera: string;
  readonly stream: string;
  readonly transport: 'tcp' | 'udp';
  /** Whether the client said TEARDOWN, or was gone without a word. */
  readonly how: 'teardown' | 'hang-up';
  /** The last receiver report that the client sent. */
  readonly received: ReceptionReport | null;
}

export interface RtspStandIn {
  readonly personality: Personality;
  /** Loopback port it really listens on. */
  readonly port: number;
  /** Sessions that are drawing now. */
  readonly sessions: () => number;
  /** Sets its account, as its own page would. */
  setAccount(account: NonNullable<Personality['account']>): void;
  /** Opens or closes its port: a firmware that gives no stream refuses whoever dials. */
  setListening(isOn: boolean): Promise<void>;
  close(): Promise<void>;
}

const METHODS = 'OPTIONS, DESCRIBE, SETUP, PLAY, GET_PARAMETER, TEARDOWN';
/** RFC 3551 §6: 26 is JPEG; H.264 has a dynamic type. */
const PAYLOAD_TYPES = { H264: 96, JPEG: 26 } as const;
/** A client this far behind is gone or stuck: it is cut off rather than buffered for. */
const MAX_UNSENT_BYTES = 4 * 1024 * 1024;

interface Session {
  readonly id: string;
  readonly stream: StreamPersonality;
  /** Channels inside the connection, or the camera's end over UDP. */
  readonly path: { readonly channels: readonly [number, number] } | { readonly udp: UdpSender };
  received: ReceptionReport | null;
  sender: RtpSender | null;
  unsubscribe: (() => void) | null;
}

/** Starts a simulated camera on a loopback port. It speaks RTSP 1.0 to any client, packets over TCP or UDP. */
export async function startRtspStandIn(
  personality: Personality,
  encode: EncodeGroup,
  onSessionEnd: (end: SessionEnd) => void = () => {},
  { keptShare = () => 1, head = null }: { readonly keptShare?: () => number; readonly head?: FeedHead | null } = {},
): Promise<RtspStandIn> {
  const feeds = new Map(
    personality.streams.map((stream) => [
      stream.path,
      new PictureFeed(stream.format, encode, personality.clockErrorMs, keptShare, head),
    ]),
  );
  const connections = new Set<Connection>();
  let account = personality.account;
  const server: Server = createServer((socket) => {
    const connection = new Connection(socket, { ...personality, account }, feeds, all, onSessionEnd);
    connections.add(connection);
    socket.on('close', () => connections.delete(connection));
  });
  const all: AllSessions = {
    count: () => [...connections].reduce((sum, { sessionCount }) => sum + sessionCount, 0),
    first: () => [...connections].find(({ sessionCount }) => sessionCount > 0) ?? null,
  };
  const open = (port: number): Promise<void> =>
    new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(port, '127.0.0.1', () => {
        server.off('error', reject);
        resolve();
      });
    });
  const shut = (): Promise<void> => {
    for (const connection of connections) connection.close();
    for (const feed of feeds.values()) feed.stop();
    return new Promise((resolve) => server.close(() => resolve()));
  };
  await open(0);
  // Drawn and encoded once before anybody dials, so that the first description is not late.
  for (const feed of feeds.values()) await feed.parameterSets();
  const { port } = server.address() as AddressInfo; // a TCP server's address is an object
  return {
    personality,
    port,
    sessions: all.count,
    setAccount: (other) => {
      account = other;
    },
    setListening: async (isOn) => {
      if (isOn !== server.listening) await (isOn ? open(port) : shut());
    },
    close: shut,
  };
}

/** Who draws from a camera, over all connections. */
interface AllSessions {
  readonly count: () => number;
  readonly first: () => { close(): void } | null;
}

/** One client's connection. */
class Connection {
  readonly #parser = new RtspMessageParser();
  readonly #guard: LoginGuard;
  readonly #sessions = new Map<string, Session>();
  #expiry: NodeJS.Timeout | null = null;

  constructor(
    private readonly socket: Socket,
    private readonly personality: Personality,
    private readonly feeds: ReadonlyMap<string, PictureFeed>,
    private readonly all: AllSessions,
    private readonly onSessionEnd: (end: SessionEnd) => void,
  ) {
    socket.on('error', () => this.close());
    socket.on('close', () => this.close());
    socket.on('data', (chunk) => this.#take(chunk));
    socket.setNoDelay(true);
    this.#guard = new LoginGuard(personality);
  }

  get sessionCount(): number {
    return this.#sessions.size;
  }

  close(): void {
    for (const session of [...this.#sessions.values()]) this.#end(session);
    if (this.#expiry) clearTimeout(this.#expiry);
    this.socket.destroy();
  }

  #take(chunk: Uint8Array): void {
    for (const event of this.#parser.push(chunk)) {
      if (event.kind === 'request')
        this.#answerInTime(event.request).catch(() => this.close()); // as a camera would
      else if (event.kind === 'interleaved') this.#takeRtcp(event.channel, event.payload);
      else if (event.kind === 'malformed') this.socket.end(writeResponse(400, 'Bad Request', []));
    }
  }

  async #answerInTime(request: RtspRequest): Promise<void> {
    const { answerDelayMs } = this.personality;
    if (answerDelayMs > 0) await new Promise((resolve) => setTimeout(resolve, answerDelayMs));
    if (!this.socket.destroyed) await this.#answer(request);
  }

  #takeRtcp(channel: number, packet: Uint8Array): void {
    for (const session of this.#sessions.values())
      if ('channels' in session.path && session.path.channels[1] === channel)
        session.received = findReceptionReport(packet) ?? session.received;
  }

  async #answer(request: RtspRequest): Promise<void> {
    this.#restartExpiry();
    const { method, uri } = request;
    if (method === 'OPTIONS') return this.#reply(request, 200, 'OK', [{ name: 'Public', value: METHODS }]);
    if (!this.#guard.admits(method, uri, headerOf(request, 'Authorization')))
      return this.#reply(request, 401, 'Unauthorized', [{ name: 'WWW-Authenticate', value: this.#guard.challenge }]);
    switch (method) {
      case 'DESCRIBE':
        return this.#describe(request);
      case 'SETUP':
        return this.#setUp(request);
      case 'PLAY':
        return this.#play(request);
      case 'GET_PARAMETER':
      case 'SET_PARAMETER':
        return this.#reply(
          request,
          this.#sessionOf(request) ? 200 : 454,
          this.#sessionOf(request) ? 'OK' : 'Session Not Found',
          [],
        );
      case 'TEARDOWN': {
        const session = this.#sessionOf(request);
        if (session) this.#end(session, 'teardown');
        return this.#reply(request, session ? 200 : 454, session ? 'OK' : 'Session Not Found', []);
      }
      default:
        return this.#reply(request, 501, 'Not Implemented', []);
    }
  }

  async #describe(request: RtspRequest): Promise<void> {
    const stream = this.#streamAt(request.uri);
    const feed = stream && this.feeds.get(stream.path);
    if (!stream || !feed) return this.#reply(request, 404, 'Not Found', []);
    feed.warmUp();
    const { sps, pps } = await feed.parameterSets();
    const { fps, codec } = stream.format;
    const payloadType = PAYLOAD_TYPES[codec];
    const profile = hexOf(sps.subarray(1, 4)).toUpperCase();
    const sdp = [
      'v=0',
      `o=- ${Math.floor(Date.now() / 1000)} 1 IN IP4 ${this.personality.host}`,
      `s=${this.personality.name} ${stream.label}`,
      'c=IN IP4 0.0.0.0',
      't=0 0',
      'a=control:*',
      'a=range:npt=now-',
      `m=video 0 RTP/AVP ${payloadType}`,
      `a=rtpmap:${payloadType} ${codec}/90000`,
      ...(codec === 'H264'
        ? [
            `a=fmtp:${payloadType} packetization-mode=1;profile-level-id=${profile};sprop-parameter-sets=${base64Of(sps)},${base64Of(pps)}`,
          ]
        : []),
      `a=framerate:${fps}`,
      'a=control:trackID=0',
      '',
    ].join('\r\n');
    const headers = [
      { name: 'Content-Type', value: 'application/sdp' },
      { name: 'Content-Base', value: `${request.uri.replace(/\/?$/, '/')}` },
    ];
    this.#reply(request, 200, 'OK', headers, sdp);
  }

  async #setUp(request: RtspRequest): Promise<void> {
    const stream = this.#streamAt(request.uri.replace(/\/?trackID=0$/, ''));
    if (!stream) return this.#reply(request, 404, 'Not Found', []);
    const wanted = headerOf(request, 'Transport') ?? '';
    const { lower, interleaved, clientPorts } = parseTransport(wanted);
    const { transports } = this.personality;
    const isOffered = lower !== null && transports.includes(lower);
    if (!isOffered || (lower === 'udp' && !clientPorts)) return this.#reply(request, 461, 'Unsupported Transport', []);
    if (this.all.count() >= this.personality.maxSessions) {
      const { whenFull } = this.personality;
      if (whenFull === 'hangs-up') return this.close();
      if (whenFull === undefined) return this.#reply(request, 453, 'Not Enough Bandwidth', []);
      if (whenFull === 'ends-first') this.all.first()?.close();
    }
    const path: Session['path'] =
      lower === 'udp' && clientPorts
        ? { udp: await openUdpSender(this.socket.remoteAddress ?? '', clientPorts, (packet) => onRtcp(packet)) }
        : { channels: interleaved ?? ([0, 1] as const) };
    const id = randomBytes(4).toString('hex');
    const session: Session = { id, stream, path, received: null, sender: null, unsubscribe: null };
    const onRtcp = (packet: Uint8Array): void => {
      session.received = findReceptionReport(packet) ?? session.received;
    };
    this.#sessions.set(session.id, session);
    if (this.socket.destroyed) return this.#end(session);
    this.#reply(request, 200, 'OK', [
      {
        name: 'Transport',
        value:
          'udp' in path
            ? `RTP/AVP;unicast;client_port=${clientPorts?.join('-')};server_port=${path.udp.ports.join('-')}`
            : `RTP/AVP/TCP;unicast;interleaved=${path.channels.join('-')}`,
      },
      { name: 'Session', value: `${session.id};timeout=${this.personality.sessionTimeoutS}` },
    ]);
  }

  #play(request: RtspRequest): void {
    const session = this.#sessionOf(request);
    const feed = session && this.feeds.get(session.stream.path);
    if (!session || !feed) return this.#reply(request, 454, 'Session Not Found', []);
    const { dropEvery, maxPayloadBytes, stopsAfterMs } = this.personality;
    const firstSeq = randomBytes(2).readUInt16BE();
    const sender = new RtpSender({
      ssrc: randomBytes(4).readUInt32BE(),
      firstSeq,
      codec: session.stream.format.codec,
      payloadType: PAYLOAD_TYPES[session.stream.format.codec],
      maxPayloadBytes,
      dropEvery,
      ...this.#wayOf(session),
    });
    session.sender = sender;
    this.#reply(request, 200, 'OK', [
      { name: 'Session', value: session.id },
      { name: 'Range', value: 'npt=now-' },
      { name: 'RTP-Info', value: `url=${request.uri.replace(/\/?$/, '/')}trackID=0;seq=${firstSeq}` },
    ]);
    const startedMs = Date.now();
    session.unsubscribe?.();
    session.unsubscribe = feed.subscribe((picture) => {
      if (stopsAfterMs !== null && Date.now() - startedMs > stopsAfterMs) return;
      if (this.#isStarved) return;
      // From wherever the group stands, as cameras do: the first key frame comes later. A picture's packets leave as one
      // burst, which is also how a network card hands them over at the other end.
      this.socket.cork();
      sender.send(picture);
      this.socket.uncork();
    });
  }

  get #isStarved(): boolean {
    const { whenFull, maxSessions } = this.personality;
    return whenFull === 'starves-first' && this.all.count() > maxSessions && this.all.first() === this;
  }

  #wayOf({ path }: Session): Pick<UdpSender, 'sendRtp' | 'sendRtcp'> {
    if ('udp' in path) return path.udp;
    return {
      sendRtp: (packet) => this.#sendInterleaved(path.channels[0], packet),
      sendRtcp: (packet) => this.#sendInterleaved(path.channels[1], packet),
    };
  }

  /** Source: RFC 2326 §10.12. */
  #sendInterleaved(channel: number, packet: Uint8Array): void {
    if (this.socket.destroyed) return;
    if (this.socket.writableLength > MAX_UNSENT_BYTES) return this.close();
    const framed = Buffer.allocUnsafe(4 + packet.length);
    framed.set([0x24, channel, packet.length >> 8, packet.length & 0xff]);
    framed.set(packet, 4);
    this.socket.write(framed);
  }

  #streamAt(uri: string): StreamPersonality | undefined {
    const path = uri.replace(/^[a-z]+:\/\/[^/]*/i, '').replace(/\/$/, '');
    return this.personality.streams.find((stream) => stream.path === path);
  }
  #sessionOf(request: RtspRequest): Session | undefined {
    return this.#sessions.get(parseSession(headerOf(request, 'Session') ?? '').id);
  }
  #end(session: Session, how: SessionEnd['how'] = 'hang-up'): void {
    if (!this.#sessions.delete(session.id)) return;
    session.unsubscribe?.();
    if ('udp' in session.path) session.path.udp.close();
    const counts = session.sender?.counts ?? { sent: 0, dropped: 0 };
    if (!session.sender) return;
    const transport = 'udp' in session.path ? 'udp' : 'tcp';
    const { received } = session;
    this.onSessionEnd({
      camera: this.personality.name,
      stream: session.stream.label,
      transport,
      how,
      received,
      ...counts,
    });
  }
  /** RFC 2326 §12.37: a server may close a session whose client stays silent for the timeout. */
  #restartExpiry(): void {
    if (this.#expiry) clearTimeout(this.#expiry);
    this.#expiry = setTimeout(() => this.close(), this.personality.sessionTimeoutS * 1000);
    this.#expiry.unref();
  }
  #reply(request: RtspRequest, status: number, reason: string, headers: readonly RtspHeader[], body = ''): void {
    const all = [
      { name: 'CSeq', value: headerOf(request, 'CSeq') ?? '0' },
      { name: 'Server', value: this.personality.server },
      ...headers,
    ];
    if (body !== '') all.push({ name: 'Content-Length', value: String(Buffer.byteLength(body)) });
    if (!this.socket.destroyed) this.socket.write(writeResponse(status, reason, all, body));
  }
}
