import { expect, test } from '@jest/globals';
import type { Personality } from '../../src/standins/personality.ts';
import { ACCOUNT, type ProbeGiven, probe, startTestCamera, type TestCamera } from '../support/test-camera.ts';

async function withCamera(more: Partial<Personality>, act: (camera: TestCamera) => Promise<void>): Promise<void> {
  const camera = await startTestCamera(more);
  try {
    await act(camera);
  } finally {
    await camera.close();
  }
}

test.each<{
  why: string;
  offers: Personality['transports'];
  given: ProbeGiven;
  transport: string | null;
  reason: RegExp;
}>([
  { why: 'auto takes TCP first', offers: ['tcp', 'udp'], given: {}, transport: 'tcp', reason: /TCP was granted/ },
  { why: 'auto goes over to UDP on 461', offers: ['udp'], given: {}, transport: 'udp', reason: /refused TCP with 461/ },
  {
    why: 'UDP when asked for',
    offers: ['tcp', 'udp'],
    given: { transport: 'udp' },
    transport: 'udp',
    reason: /UDP was/,
  },
])('$why', ({ offers, given, transport, reason }) =>
  withCamera({ transports: offers, dropEvery: 9 }, async (camera) => {
    const { report } = await probe(camera.url, { seconds: 3, ...given });
    expect(report).toMatchObject({ cause: null, transport });
    expect(report.transportReason).toMatch(reason);
    const [ended] = camera.ended;
    const measured = report.media[0]?.measured;
    expect(measured?.width).toBe(160);
    // Over TCP what was sent before the farewell comes before its answer; over UDP the last of it may come too late.
    if (transport === 'tcp') expect(measured?.lost).toBe(ended?.dropped);
    expect(measured?.lossRatio).toBeGreaterThan(0.08);
    expect(measured?.lossRatio).toBeLessThan(0.14);
    // The camera was told: one packet in nine is 28/256.
    expect(ended).toMatchObject({ transport });
    expect(ended?.received?.fractionLost).toBeGreaterThan(20);
    expect(ended?.received?.fractionLost).toBeLessThan(36);
    expect(ended?.received?.cumulativeLost).toBeGreaterThan(3);
    expect(ended?.received?.lastSenderReport).not.toBe(0);
    expect(camera.sessions()).toBe(0);
  }),
);

test('a camera that answers an interleaved SETUP with 400 and then stalls is asked over UDP, on a new connection', () =>
  withCamera({ odd: { interleaved: 'stalls' } }, async (camera) => {
    const { report } = await probe(camera.url);
    expect(report).toMatchObject({ cause: null, transport: 'udp' });
    expect(report.transportReason).toMatch(/refused TCP with 400/);
    expect(report.steps.filter(({ name }) => name === 'describe')).toHaveLength(1);
    expect(camera.sessions()).toBe(0);
  }));

test('a camera that closes after each 401 refused the login: that is what it is called', () =>
  withCamera({ odd: { closesAfter401: true } }, async (camera) => {
    const { report } = await probe(camera.url, { credentials: { ...ACCOUNT, password: 'Heron & Otter/9' } });
    expect(report).toMatchObject({ verdict: 'fail', cause: 'auth-failed' });
    expect((await probe(camera.url)).report.cause).toBeNull();
  }));

test.each<{ why: string; offers: Personality['transports']; transport: 'tcp' | 'udp' }>([
  { why: 'TCP only, but UDP wanted', offers: ['tcp'], transport: 'udp' },
  { why: 'UDP only, but TCP wanted', offers: ['udp'], transport: 'tcp' },
])('a camera that grants $why fails with transport-refused', ({ offers, transport }) =>
  withCamera({ transports: offers }, async (camera) => {
    const { report, tookMs } = await probe(camera.url, { transport });
    expect(report).toMatchObject({ verdict: 'fail', cause: 'transport-refused' });
    expect(report.findings[0]?.because).toMatch(/461/);
    expect(tookMs).toBeLessThan(1500);
  }),
);

test('a JPEG camera with Basic login, a slow tongue and a clock years off is measured and told so', () =>
  withCamera(
    {
      login: 'basic',
      digestQop: null,
      answerDelayMs: 350,
      clockErrorMs: -8 * 365 * 24 * 3600 * 1000,
      streams: [
        {
          label: 'main',
          path: '/live',
          format: {
            codec: 'JPEG',
            scene: 'stair',
            label: 'T',
            quantiser: 50,
            width: 160,
            height: 96,
            fps: 10,
            groupFrames: 20, // drawn two seconds ahead: a busy machine does not slow it
          },
        },
      ],
    },
    async (camera) => {
      const { report } = await probe(camera.url, { seconds: 2, transport: 'udp' });
      expect(report).toMatchObject({ verdict: 'warn', cause: null, auth: { scheme: 'basic' } });
      expect(report.media[0]).toMatchObject({
        codec: 'JPEG',
        declared: { fps: 10 },
        measured: { width: 160, height: 96, lost: 0, keyframeIntervalFrames: null },
      });
      expect(report.media[0]?.measured?.fps).toBeCloseTo(10, 0);
      expect(report.findings.map(({ rule }) => rule).sort()).toEqual([
        'auth.basic',
        'camera.clock-wrong',
        'rtsp.answers-slow',
      ]);
      expect(report.findings.find(({ rule }) => rule === 'camera.clock-wrong')?.title).toBe('Clock is 8 years slow');
    },
  ));
