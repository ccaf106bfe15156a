import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, camera, mill, probed, record, report } from '../../../tests/support/sites.ts';
import { alderMill } from '../../standins/alder-mill.ts';
import { bestKnown, knownAs, streamFacts } from '../evidence/best-known.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { factsOfReport } from '../evidence/probe-evidence.ts';
import { judgeProbe, rememberedProbe } from '../evidence/remembered-probe.ts';
import { lanesOf } from '../lanes/lane.ts';
import type { Entry, KnownHow } from './chapters/journal/entry.ts';
import { emptyModel } from './chapters/models/model-fields.ts';
import type { Site } from './site.ts';
import { applyCommand } from './site-commands.ts';
import { readSite, readSiteFile, writeSiteFile } from './site-file.ts';

const worked = (): Site =>
  apply(mill(), probed('sluice', report()), record('tap-1', 'sluice'), {
    kind: 'setAddress',
    cameraId: 'boots',
    host: '10.77.4.28',
    port: 8554,
  });

test.each([
  { why: 'a worked site', site: worked() },
  { why: 'an empty one', site: { ...mill(), cameras: [], destinations: [] } },
  { why: 'the demo', site: alderMill('2026-11-25T09:00:00.000Z') },
])('a site file opens again as the same site: $why', ({ site }) => {
  expect(readSiteFile(writeSiteFile(site))).toEqual({ ok: true, value: site });
});

test('cut off anywhere, a file is refused whole', () => {
  const text = writeSiteFile(worked());
  for (let length = 0; length < text.length - 2; length += 97)
    expect(readSiteFile(text.slice(0, length))).toMatchObject({ ok: false, error: { code: 'site.not-json' } });
});

const broken = (change: (site: Record<string, unknown> & { cameras: unknown[] }) => void): unknown => {
  const copy = JSON.parse(writeSiteFile(worked()));
  change(copy);
  return copy;
};
const first = (site: { cameras: unknown[] }) => site.cameras[0] as Record<string, unknown>;

test.each([
  { why: 'another program’s JSON', document: { hello: 1 }, code: 'site.not-a-site', says: /format/ },
  { why: 'a list', document: [], code: 'site.not-a-site', says: /format/ },
  {
    why: 'a newer version',
    document: broken((site) => {
      site.version = 99;
    }),
    code: 'site.newer-version',
    says: /version 99/,
  },
  {
    why: 'sessions of a model card that are no number',
    document: broken((site) => {
      site.models = [{ ...emptyModel('m', 'x', 'y'), sessions: 'many' }];
    }),
    code: 'site.does-not-fit',
    says: /sessions/,
  },
  {
    why: 'no version',
    document: broken((site) => {
      delete site.version;
    }),
    code: 'site.does-not-fit',
    says: /version/,
  },
  {
    why: 'a port of 70000',
    document: broken((site) => {
      first(site).ports = { rtsp: 70_000 };
    }),
    code: 'site.does-not-fit',
    says: /cameras\[0\]\.ports\.rtsp/,
  },
  {
    why: 'a port as text',
    document: broken((site) => {
      first(site).ports = { rtsp: '554' };
    }),
    code: 'site.does-not-fit',
    says: /cameras\[0\]\.ports\.rtsp/,
  },
  {
    why: 'a secret in the document',
    document: broken((site) => {
      first(site).password = 'x';
    }),
    code: 'site.does-not-fit',
    says: /password/,
  },
  {
    why: 'a missing list',
    document: broken((site) => {
      delete site.taps;
    }),
    code: 'site.does-not-fit',
    says: /taps/,
  },
  {
    why: 'a time that is none',
    document: broken((site) => {
      site.journal = [{ id: 'a', at: 'yesterday', kind: 'edit', subject: 's', text: 't', refs: [] }];
    }),
    code: 'site.does-not-fit',
    says: /journal\[0\]\.at/,
  },
  {
    why: 'a share above one',
    document: broken((site) => {
      site.destinations = [
        {
          id: 'd',
          name: 'D',
          kind: 'recorder',
          codecs: [],
          storage: { diskTB: 1, usableFraction: 9, price: null },
          retentionDays: 1,
          secretLimits: { longest: null, refused: '' },
          position: null,
        },
      ];
    }),
    code: 'site.does-not-fit',
    says: /usableFraction/,
  },
  {
    why: 'the same camera twice',
    document: broken((site) => {
      site.cameras = [site.cameras[0], site.cameras[0]];
    }),
    code: 'site.broken-reference',
    says: /twice/,
  },
  {
    why: 'a tap of no stream',
    document: broken((site) => {
      first(site).streams = [];
    }),
    code: 'site.broken-reference',
    says: /no stream/,
  },
])('refuses $why and names it', ({ document, code, says }) => {
  const read = readSite(document);
  expect(read).toMatchObject({ ok: false, error: { code } });
  expect(read.ok ? '' : read.error.message).toMatch(says);
});

test('any JSON at all is refused or read, never an exception', () => {
  fc.assert(fc.property(fc.json(), (text) => void readSiteFile(text)));
  const head = { format: 'clear-tap/site', version: 1 };
  fc.assert(fc.property(fc.object(), (noise) => expect(readSite({ ...noise, ...head }).ok).toBe(false)));
});

const evidence = (how: KnownHow, value: number, at = '2026-11-25T09:00:00.000Z'): Entry => ({
  id: `${how}${value}`,
  at,
  kind: 'probe',
  subject: 'site',
  text: 'x',
  refs: [],
  source: 'test',
  facts: [{ subject: 'stream:a', quantity: 'fps', value, how }],
  payload: null,
  revokes: [],
  isPast: false,
});

test.each([
  {
    why: 'measured beats declared, whatever came later',
    list: [evidence('measured', 14), evidence('declared', 15, '2027-01-01T00:00:00.000Z')],
    planned: 20,
    value: 14,
  },
  {
    why: 'the later of two measured',
    list: [evidence('measured', 14), evidence('measured', 12, '2026-11-26T00:00:00.000Z')],
    planned: null,
    value: 12,
  },
  { why: 'confirmed beats all', list: [evidence('confirmed', 10), evidence('measured', 14)], planned: null, value: 10 },
  { why: 'a plan beats an assumption', list: [evidence('assumed', 25)], planned: 20, value: 20 },
  { why: 'nothing', list: [], planned: null, value: undefined },
])('best known: $why', ({ list, planned, value }) => {
  expect(bestKnown(indexEvidence(list), 'stream:a', 'fps', planned)?.value).toBe(value);
});

test('a rate that nobody measured is modelled and marked assumed', () => {
  const [stream] = camera('sluice').streams;
  const facts = stream && streamFacts(indexEvidence([]), stream);
  // DOMAIN b: 1280×720 at 15, H.264, normal: 0.92 Mbit/s.
  expect(facts?.bitrateKbps?.how).toBe('assumed');
  expect(facts?.bitrateKbps?.value).toBeCloseTo(922, 0);
});

test('a probe replaces what was assumed, everywhere at once', () => {
  const site = apply(mill(), probed('sluice', report({ kbps: 3100 })));
  const stream = site.cameras[0]?.streams[0];
  const facts = stream && streamFacts(indexEvidence(site.journal), stream);
  expect(facts).toMatchObject({
    bitrateKbps: { value: 3100, how: 'measured' },
    fps: { value: 14.9, how: 'measured' },
    codec: { value: 'H264', how: 'measured' },
  });
  expect(knownAs(indexEvidence(site.journal), 'stream:sluice-main', 'bitrateKbps', 'declared')?.value).toBe(2048);
});

test('findings are told again from evidence, as the probe told them', () => {
  const lossy = report({ lost: 8 });
  const site = apply(mill(), probed('sluice', lossy));
  const remembered = rememberedProbe(indexEvidence(site.journal), 'sluice-main');
  expect(remembered?.payload).toMatchObject({ verdict: 'ok', url: 'rtsp://10.77.4.21/live/main' });
  expect(remembered && judgeProbe(remembered, {}, undefined).findings).toMatchObject([{ rule: 'rtp.loss' }]);
});

test('a later failed probe leaves no facts of the earlier one behind', () => {
  const site = apply(mill(), probed('sluice', report({ lost: 8 })), probed('sluice', report({ cause: 'not-found' })));
  const remembered = rememberedProbe(indexEvidence(site.journal), 'sluice-main');
  const findings = remembered ? judgeProbe(remembered, {}, undefined).findings : [];
  expect(findings.map(({ rule, because }) => [rule, because])).toEqual([['probe.not-found', 'it refused the login']]);
});

test('sound beside the picture is kept as it was described and as it came', () => {
  const [video] = report().media;
  if (!video?.measured) throw new Error('a measured picture');
  const sound = {
    ...video,
    kind: 'audio' as const,
    codec: 'PCMA',
    clockRate: 8000,
    declared: { ...video.declared, channels: 1, bitrateKbps: 64 },
    measured: { ...video.measured, bitrateKbps: 63.8, lossRatio: 0.002 },
  };
  const facts = factsOfReport({ ...report(), media: [video, sound] }, 's');
  expect(facts.filter(({ quantity }) => quantity.startsWith('sound.')).map(({ value, how }) => [value, how])).toEqual([
    ['PCMA', 'declared'],
    [8000, 'declared'],
    [1, 'declared'],
    [64, 'declared'],
    [63.8, 'measured'],
    [0.002, 'measured'],
  ]);
});

test('a sample that failed or was too short teaches no rate', () => {
  const [video] = report().media;
  if (!video?.measured) throw new Error('a measured picture');
  const silent = { ...video, measured: { ...video.measured, bitrateKbps: null, fps: null } };
  const facts = factsOfReport({ ...report(), media: [silent] }, 's');
  expect(facts.filter(({ quantity, how }) => quantity === 'bitrateKbps' && how === 'measured')).toEqual([]);
});

test('what a probe teaches holds no secret and no undefined', () => {
  for (const { value } of factsOfReport(report(), 's')) expect(['string', 'number', 'boolean']).toContain(typeof value);
});

test('every command leaves one line in the log, with its numbers', () => {
  const site = worked();
  expect(site.journal.map(({ kind, text }) => `${kind}: ${text}`)).toEqual([
    'probe: sluice main probed: works',
    'tap: sluice main goes to Loft store to record',
    'edit: boots: address changed',
  ]);
  expect(site.journal[2]?.refs).toEqual([
    { name: 'from', value: '10.77.4.27:8554' },
    { name: 'to', value: '10.77.4.28:8554' },
  ]);
  expect(site.journal[0]?.refs).toContainEqual({ name: 'rate', value: '1.20 Mbit/s' });
});

test.each([
  {
    why: 'a camera added',
    command: { kind: 'addCamera', camera: camera('weir') } as const,
    holds: (site: Site) => site.cameras.length === 3,
  },
  {
    why: 'an account changed',
    command: { kind: 'setAccount', cameraId: 'sluice', account: null } as const,
    holds: (site: Site) => site.cameras[0]?.account === null,
  },
  {
    why: 'a path changed',
    command: { kind: 'setStreamPath', cameraId: 'sluice', streamId: 'sluice-sub', path: '/x' } as const,
    holds: (site: Site) => site.cameras[0]?.streams[1]?.path === '/x',
  },
  {
    why: 'a destination changed',
    command: {
      kind: 'changeDestination',
      destination: { ...mill().destinations[0], name: 'Attic' } as Site['destinations'][number],
    } as const,
    holds: (site: Site) => site.destinations[0]?.name === 'Attic',
  },
  {
    why: 'a remark',
    command: { kind: 'note', logKind: 'site', subject: 'site', text: 'opened' } as const,
    holds: (site: Site) => site.cameras.length === 2,
  },
])('command: $why, and the result is a sound site', ({ command, holds }) => {
  const before = mill();
  const after = apply(before, command);
  expect(holds(after)).toBe(true);
  expect(after.journal).toHaveLength(1);
  expect(readSite(JSON.parse(JSON.stringify(after))).ok).toBe(true);
  expect(before).toEqual(mill()); // the site before is as it was
});

test('a tap that is removed is gone, and both are on record', () => {
  const site = apply(mill(), record('tap-1', 'sluice'), { kind: 'removeTap', tapId: 'tap-1' });
  expect(site.taps).toEqual([]);
  expect(site.journal.map(({ text }) => text)).toEqual([
    'sluice main goes to Loft store to record',
    'sluice no longer goes to Loft store',
  ]);
});

test('a command about something that is not there is a mistake of ours', () => {
  expect(() => applyCommand(mill(), { kind: 'removeTap', tapId: 'none' }, { at: '', newId: () => '' })).toThrow(
    RangeError,
  );
  expect(() =>
    applyCommand(
      mill(),
      { kind: 'setStreamPath', cameraId: 'sluice', streamId: 'none', path: '/' },
      { at: '', newId: () => '' },
    ),
  ).toThrow(/no stream/);
});

const lane = (site: Site, at = 0) => {
  const found = lanesOf(site, indexEvidence(site.journal))[at];
  if (!found) throw new Error('camera');
  return found;
};
const URL = 'rtsp://10.77.4.21/live/main';
const handOver = { kind: 'recordHandOver', tapId: 'tap-1', url: URL, by: 'hand', refs: [] } as const;

test.each([
  {
    why: 'begins at Tap, nothing known',
    site: mill(),
    standsAt: 'tap',
    tap: 'unknown',
    handOver: 'unknown',
    next: 'Probe it',
  },
  {
    why: 'probed and sound, but nobody draws it',
    site: apply(mill(), probed('sluice', report())),
    standsAt: 'tap',
    tap: 'ok',
    handOver: 'unknown',
    next: 'Choose where it goes',
  },
  {
    why: 'loses packets',
    site: apply(mill(), probed('sluice', report({ lost: 8 }))),
    standsAt: 'tap',
    tap: 'tight',
    handOver: 'unknown',
    next: 'Choose where it goes',
  },
  {
    why: 'failed',
    site: apply(mill(), probed('sluice', report({ cause: 'refused' }))),
    standsAt: 'tap',
    tap: 'will-not-work',
    handOver: 'unknown',
    next: 'Fix the stream and probe again',
  },
  {
    why: 'tapped and fits',
    site: apply(mill(), probed('sluice', report({ kbps: 800 })), record('tap-1', 'sluice')),
    standsAt: 'hand-over',
    tap: 'ok',
    handOver: 'unknown',
    next: 'Hand over to Loft store',
  },
  {
    why: 'tapped and does not fit',
    site: apply(mill(), probed('sluice', report({ kbps: 3100 })), record('tap-1', 'sluice')),
    standsAt: 'tap',
    tap: 'will-not-work',
    handOver: 'unknown',
    next: 'Make it fit Loft store',
  },
  {
    why: 'handed over',
    site: apply(mill(), probed('sluice', report({ kbps: 800 })), record('tap-1', 'sluice'), handOver),
    standsAt: null,
    tap: 'ok',
    handOver: 'ok',
    next: null,
  },
])('lane: $why', ({ site, standsAt, tap, handOver: over, next }) => {
  const found = lane(site);
  expect(found).toMatchObject({
    standsAt,
    next,
    stations: [
      { station: 'choose' },
      { station: 'power' },
      { station: 'prepare' },
      { station: 'address' },
      { station: 'tap', verdict: tap },
      { station: 'hand-over', verdict: over },
    ],
  });
});

test('a camera that moved is to be probed and handed over again', () => {
  const done = apply(mill(), probed('sluice', report({ kbps: 800 })), record('tap-1', 'sluice'), handOver);
  const moved = apply(done, { kind: 'setAddress', cameraId: 'sluice', host: '10.77.4.40', port: 554 });
  expect(lane(moved)).toMatchObject({ standsAt: 'tap', next: 'Probe the new address' });
  const again = apply(moved, probed('sluice', report({ kbps: 800 }), 'rtsp://10.77.4.40/live/main'));
  expect(lane(again)).toMatchObject({ standsAt: 'hand-over', next: 'Hand over again to Loft store' });
});
