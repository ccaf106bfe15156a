import { expect, test } from '@jest/globals';
import { rtp } from '../../../tests/support/fake-media.ts';
import { parseSdp } from '../sdp/sdp-parser.ts';
import { composeReport, type ReportInput } from './probe-report.ts';
import { TrackMeter } from './track-meter.ts';

const SDP = ['v=0', 'm=video 0 RTP/AVP 26', 'a=x-dimensions:800,450', 'a=control:track1'].join('\r\n');

/** A JPEG picture whose header counts blocks of eight pixels, fifteen a second for two seconds. */
function reportOf(blocks: readonly [number, number], isSampled = true) {
  const { session } = parseSdp(SDP, 'rtsp://10.77.4.21/live/');
  const [media] = session.media;
  if (!media) throw new Error('a track');
  const meter = new TrackMeter(media);
  for (let frame = 0; frame < 31; frame++)
    meter.push(rtp(frame, frame * 6000, Uint8Array.of(0, 0, 0, 0, 1, 50, ...blocks), true), (frame * 1000) / 15);
  const input: ReportInput = {
    target: { url: 'rtsp://10.77.4.21/live', host: '10.77.4.21', port: 554, path: '/live' },
    failure: isSampled ? null : { cause: 'no-packets', note: 'The packets stopped.' },
    steps: [],
    challenge: null,
    login: { offered: [], refusedInAll: 0, staleEachTime: false },
    server: null,
    sessionTimeoutS: null,
    clockErrorMs: null,
    hasSenderReports: true,
    tls: null,
    refusedKeepAlive: null,
    isSampled,
    transport: 'tcp',
    transportReason: null,
    session,
    meters: new Map([[0, meter]]),
    hide: (text) => text,
  };
  return composeReport(input);
}

test.each([
  { why: 'a padded last block is no other size', blocks: [100, 57] as const, height: 450, rules: [] },
  { why: 'a picture that is larger is', blocks: [100, 75] as const, height: 600, rules: ['video.size-differs'] },
])('JPEG of 800×450: $why', ({ blocks, height, rules }) => {
  const report = reportOf(blocks);
  expect(report.media[0]?.measured).toMatchObject({ width: 800, height });
  expect(report.findings.map(({ rule }) => rule).filter((rule) => rule.startsWith('video.size'))).toEqual(rules);
});

test('what a sample measured that broke off is no rate, and what was lost is told all the same', () => {
  expect(reportOf([100, 57]).media[0]?.measured).toMatchObject({ fps: 15, bitrateKbps: expect.any(Number) });
  expect(reportOf([100, 57], false).media[0]?.measured).toMatchObject({
    fps: null,
    bitrateKbps: null,
    jitterMs: null,
    lost: 0,
    packets: 31,
  });
});
