import type { Credentials } from '../../src/core/auth/authorization.ts';
import { parseStreamUrl } from '../../src/core/net/stream-url-parser.ts';
import type { ProbeReport } from '../../src/core/probe/probe-types.ts';
import type { TransportChoice } from '../../src/core/rtsp/client-types.ts';
import { createRealFinder } from '../../src/server/adapters/real-finder.ts';
import { systemClock, systemEntropy } from '../../src/server/adapters/system.ts';
import { createTcpDialer } from '../../src/server/adapters/tcp-dialer.ts';
import { Logins } from '../../src/server/logins.ts';
import { runProbe } from '../../src/server/works/run-probe.ts';
import { ORDINARY, type Personality } from '../../src/standins/personality.ts';
import { GroupEncoder } from '../../src/standins/pictures/group-encoder.ts';
import { type RtspStandIn, type SessionEnd, startRtspStandIn } from '../../src/standins/rtsp-standin.ts';

export const ACCOUNT = { user: 'viewer', password: 'Weir & Gate/7' };

/** A small camera: its pictures cost next to nothing, so a test does not wait for them. */
export const SMALL: Personality = {
  name: 'Test weir',
  host: '10.77.4.99',
  port: 554,
  server: 'test/1',
  realm: 'test weir',
  account: ACCOUNT,
  ...ORDINARY,
  digestQop: 'auth',
  sessionTimeoutS: 60,
  maxSessions: 3,
  dropEvery: null,
  maxPayloadBytes: 300,
  stopsAfterMs: null,
  streams: [
    {
      label: 'main',
      path: '/live',
      format: {
        codec: 'H264',
        scene: 'sluice',
        label: 'T',
        quantiser: 28,
        width: 160,
        height: 96,
        fps: 15,
        groupFrames: 10,
      },
    },
  ],
};

const encoder = new GroupEncoder();

export interface TestCamera extends RtspStandIn {
  readonly standIn: RtspStandIn;
  readonly ended: readonly SessionEnd[];
  readonly url: string;
}

export async function startTestCamera(more: Partial<Personality> = {}): Promise<TestCamera> {
  const ended: SessionEnd[] = [];
  const standIn = await startRtspStandIn(
    { ...SMALL, ...more },
    (request) => encoder.encode(request),
    (end) => ended.push(end),
  );
  return { ...standIn, standIn, ended, url: `rtsp://127.0.0.1:${standIn.port}/live` };
}

/** What a page asks for when it probes the camera at this URL. */
export const probeRequest = (url: string, more: object = {}) => ({
  url,
  user: ACCOUNT.user,
  secret: ACCOUNT.password,
  seconds: 0.5,
  timeoutMs: 2000,
  media: true,
  transport: 'auto',
  ...more,
});

export interface ProbeGiven {
  readonly credentials?: Credentials | null;
  readonly seconds?: number;
  readonly timeoutMs?: number;
  readonly media?: boolean;
  readonly signal?: AbortSignal;
  readonly transport?: TransportChoice;
}

/** Probes over real sockets, as the application does. */
export async function probe(url: string, given: ProbeGiven = {}): Promise<{ report: ProbeReport; tookMs: number }> {
  const parsed = parseStreamUrl(url);
  if (!parsed.ok) throw new Error(url);
  const world = {
    dialer: createTcpDialer({ allowPublic: false }),
    finder: createRealFinder({ host: '127.0.0.1', port: 9 }),
    clock: systemClock,
    entropy: systemEntropy,
    logins: new Logins(systemClock, systemEntropy),
  };
  const {
    credentials = ACCOUNT,
    seconds = 1,
    timeoutMs = 3000,
    media = true,
    transport = 'auto',
    signal = new AbortController().signal,
  } = given;
  const startedMs = performance.now();
  const report = await runProbe(
    { url: parsed.value.url, credentials, seconds, timeoutMs, media, transport },
    world,
    signal,
  );
  return { report, tookMs: performance.now() - startedMs };
}
