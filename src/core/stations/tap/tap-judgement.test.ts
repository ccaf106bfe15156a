import { expect, test } from '@jest/globals';
import { apply, mill, probed, record, report } from '../../../../tests/support/sites.ts';
import { emptyModel } from '../../document/chapters/models/model-fields.ts';
import type { Tap } from '../../document/chapters/taps/tap.ts';
import type { Site } from '../../document/site.ts';
import { indexEvidence } from '../../evidence/evidence-index.ts';
import { judgeTap } from './tap-judgement.ts';

const judge = (site: Site, tapId = 'tap-1') => {
  const tap = site.taps.find(({ id }) => id === tapId);
  if (!tap) throw new Error(tapId);
  return judgeTap(site, indexEvidence(site.journal), tap);
};
const at = (kbps: number) => apply(mill(), probed('sluice', report({ kbps })), record('tap-1', 'sluice'));

// 225 GB usable ÷ (kbps × 1000 ÷ 8 × 86,400 × 1.02) bytes a day.
test.each([
  { why: 'far below', kbps: 800, verdict: 'ok', days: 225e9 / (800e3 * 10_800 * 1.02) },
  { why: 'above 1.2 times the wish', kbps: 1215, verdict: 'ok', days: 225e9 / (1215e3 * 10_800 * 1.02) },
  { why: 'between', kbps: 1300, verdict: 'tight', days: 225e9 / (1300e3 * 10_800 * 1.02) },
  { why: 'below the wish', kbps: 1500, verdict: 'will-not-work', days: 225e9 / (1500e3 * 10_800 * 1.02) },
])('retention: $why', ({ kbps, verdict, days }) => {
  const judgement = judge(at(kbps));
  expect(judgement.verdict).toBe(verdict);
  expect(judgement.retention?.daysFit).toBeCloseTo(days, 6);
  expect(judgement.rate).toMatchObject({ value: kbps, how: 'measured' });
});

test('everything that is recorded on a disk shares it', () => {
  const site = apply(
    at(800),
    probed('boots', report({ kbps: 700 }), 'rtsp://10.77.4.27:8554/live/main'),
    record('tap-2', 'boots'),
  );
  expect(judge(site)).toMatchObject({ verdict: 'will-not-work', retention: { recordings: 2 } });
  expect(judge(site).retention?.daysFit).toBeCloseTo(225e9 / (1500e3 * 10_800 * 1.02), 6);
});

test('a rate that is not known makes the days not known, and names whose it is', () => {
  const bare = mill();
  const cameras = bare.cameras.map((camera) => ({
    ...camera,
    streams: camera.streams.map((stream) => ({ ...stream, codec: null })),
  }));
  const site = apply({ ...bare, cameras }, record('tap-1', 'sluice'));
  expect(judge(site)).toMatchObject({ verdict: 'unknown', retention: null, ratesMissing: ['sluice'] });
});

test('a stream that failed frees no disk: it has no rate, and nothing lasts for ever', () => {
  const planned = apply(mill(), record('tap-1', 'sluice'));
  const silent = report({ kbps: 0 });
  const failed = apply(planned, probed('sluice', { ...silent, verdict: 'fail', cause: 'no-packets' }));
  // As an older file may hold it: a rate of 0, measured.
  expect(judge(failed).rate).toMatchObject({ how: 'declared', value: 2048 });
  expect(judge(failed).retention?.daysFit).toBeCloseTo(225e9 / (2048e3 * 10_800 * 1.02), 6);
  const idle = apply(planned, {
    kind: 'changeTap',
    tap: { ...(planned.taps[0] as Tap), schedule: { mode: 'duty', duty: 0 } },
  });
  expect(judge(idle)).toMatchObject({ verdict: 'unknown', retention: null });
});

test('another stream is offered only where the recorder takes it, and no sliver of a day or of a rate', () => {
  const site = at(3100);
  const taking = (codecs: readonly string[]): Site => ({
    ...site,
    destinations: site.destinations.map((one) => (one.id === 'loft' ? { ...one, codecs } : one)),
    cameras: site.cameras.map((camera) => ({
      ...camera,
      streams: camera.streams.map((stream, at) => (at === 1 ? { ...stream, codec: 'JPEG' } : stream)),
    })),
  });
  const offered = (codecs: readonly string[]) =>
    judge(taking(codecs))
      .levers()
      .map(({ id }) => id);
  expect(offered(['H264'])).not.toContain('stream');
  const tiny = { ...taking([]), destinations: taking([]).destinations.map((one) => ({ ...one, retentionDays: 3000 })) };
  const texts = judge(tiny)
    .levers()
    .map(({ text }) => text);
  expect(texts.filter((text) => /^Record \d+ %|^Lower/.test(text))).toEqual([]);
});

test('each lever, followed, brings the verdict it promises', () => {
  const site = at(3100);
  const levers = judge(site).levers();
  expect(levers.map(({ id }) => id)).toEqual(['stream', 'rate', 'share', 'disk', 'days']);
  const text = (id: string) => levers.find((lever) => lever.id === id)?.text ?? '';
  const number = (id: string) => Number(/[\d.]+/.exec(text(id))?.[0]);

  const withDestination = (change: object): Site => ({
    ...site,
    destinations: site.destinations.map((one) => (one.id === 'loft' ? { ...one, ...change } : one)),
  });
  expect(
    judge(withDestination({ storage: { diskTB: number('disk'), usableFraction: 0.9, price: null } })).verdict,
  ).toBe('ok');
  expect(judge(withDestination({ retentionDays: number('days') })).verdict).toBe('ok');
  expect(text('rate')).toMatch(/Mbit\/s$/);
  expect(judge(at(number('rate') * 1000 - 5)).verdict).toBe('ok');

  const tap = site.taps[0];
  const shorter: Tap[] = tap ? [{ ...tap, schedule: { mode: 'duty', duty: number('share') / 100 } }] : [];
  expect(judge({ ...site, taps: shorter }).verdict).toBe('ok');
  // The sub stream is planned at 256 kbit/s.
  const onSub: Tap[] = tap ? [{ ...tap, streamId: 'sluice-sub' }] : [];
  expect(judge({ ...site, taps: onSub }).verdict).toBe(levers.find(({ id }) => id === 'stream')?.verdict);
});

test('when all fits, it says how much room is left, and that much still fits', () => {
  const levers = judge(at(800)).levers();
  expect(levers).toMatchObject([{ id: 'room', verdict: 'ok' }]);
  const room = Number(/[\d.]+/.exec(levers[0]?.text ?? '')?.[0]);
  expect(judge(at(800 + room - 1)).verdict).toBe('ok');
  expect(judge(at(800 + room + 5)).verdict).toBe('tight');
});

const liveAt = (destinationId: string, codec: string): Site =>
  apply(mill(), probed('sluice', report({ codec })), {
    kind: 'addTap',
    judged: '',
    tap: {
      id: 'tap-1',
      cameraId: 'sluice',
      streamId: 'sluice-main',
      destinationId,
      use: 'live',
      protocol: 'rtsp',
      schedule: { mode: 'continuous' },
    },
  });

test.each([
  { why: 'a codec it takes', site: liveAt('loft', 'H264'), verdict: 'ok' },
  { why: 'a codec it does not take', site: liveAt('loft', 'H265'), verdict: 'will-not-work' },
  { why: 'a destination that does not say', site: liveAt('hub', 'H265'), verdict: 'ok' },
])('watching live asks no disk: $why', ({ site, verdict }) =>
  expect(judge(site)).toMatchObject({ verdict, retention: null }),
);

/** A sound track beside the picture, as a probe tells it. */
const withSound = (codec: string, kbps: number | null) => {
  const plain = report({ kbps: 800 });
  const [video] = plain.media;
  if (!video?.measured) throw new Error('a measured picture');
  const measured = kbps === null ? null : { ...video.measured, bitrateKbps: kbps };
  const audio = {
    ...video,
    kind: 'audio' as const,
    codec,
    clockRate: 8000,
    declared: { ...video.declared, bitrateKbps: null },
    measured,
  };
  return apply(mill(), probed('sluice', { ...plain, media: [video, audio] }), record('tap-1', 'sluice'));
};
test.each([
  { why: 'as measured', codec: 'AAC', kbps: 128, sounds: [], adds: 128 },
  { why: 'by definition of its codec', codec: 'PCMA', kbps: null, sounds: [], adds: 64 },
  { why: 'none where the destination drops it', codec: 'PCMA', kbps: 64, sounds: ['AAC'], adds: 0 },
])('days on disk count the sound that is recorded: $why', ({ codec, kbps, sounds, adds }) => {
  const site = withSound(codec, kbps);
  const destinations = site.destinations.map((one) => ({ ...one, sounds }));
  expect(judge({ ...site, destinations }).retention?.daysFit).toBeCloseTo(
    225e9 / ((800 + adds) * 1000 * 10_800 * 1.02),
    6,
  );
});

test('channels of one box share its sessions; cameras beside each other do not', () => {
  const boxed = (kind: 'camera' | 'channel') => {
    const site = mill();
    const cameras = site.cameras.map((camera) => ({ ...camera, kind, host: '10.77.4.21', modelId: 'box' }));
    const models = [{ ...emptyModel('box', 'Ostrel', 'BX-8'), sessions: 2 }];
    return apply({ ...site, cameras, models }, ...cameras.map(({ id }, at) => record(`tap-${at + 1}`, id)));
  };
  const told = (kind: 'camera' | 'channel') =>
    judge(boxed(kind)).findings.find(({ rule }) => rule === 'tap.sessions')?.because;
  expect(boxed('channel').taps).toHaveLength(2);
  expect(told('channel')).toMatch(/used by 2 taps/);
  expect(told('camera')).toBeUndefined();
});
