import { expect, test } from '@jest/globals';
import { apply, camera, mill, poeSwitch, probed, record, report } from '../../../tests/support/sites.ts';
import { ALDER_MILL_MODELS } from '../../standins/alder-mill.ts';
import type { Verdict } from '../base/verdict.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Gear } from '../document/chapters/gear/gear.ts';
import { UNMEASURED_LINK } from '../document/chapters/links/link-fields.ts';
import type { Site } from '../document/site.ts';
import type { SiteCommand } from '../document/site-commands.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { RETIRED_RULES } from '../findings/rule.ts';
import { viewOf } from '../site/site-view.ts';
import type { Station } from '../stations/contract.ts';
import { settingsOf } from '../stations/prepare/settings.ts';
import { STATIONS } from '../stations/registry.ts';
import { laneOf, lanesOf } from './lane.ts';

const MODEL = ALDER_MILL_MODELS.find(({ id }) => id === 'pellam-b4');
const NEED: NonNullable<Camera['need']> = {
  level: 'observe',
  text: null,
  distanceM: 6,
  widthM: 3,
  nearM: 5,
  atNight: false,
  sound: 'none',
  turns: false,
  outdoors: false,
  draws: [],
};
const SWITCH = poeSwitch('s', 'Loft switch');
const CABLE = {
  id: 'l',
  from: 'gear:s',
  to: 'camera:sluice',
  medium: 'network-cable',
  ...UNMEASURED_LINK,
  lengthM: 10,
} as const;

/** A camera for which all is planned, up to its address. */
function planned(more: Partial<Camera> = {}, gear: readonly Gear[] = [SWITCH]): Site {
  const one = camera('sluice', {
    modelId: MODEL?.id ?? null,
    need: NEED,
    mounting: { heightM: 3, tiltDownDeg: 14, headingDeg: 0, zoom: null },
    feed: { way: 'poe', sun: null, charge: null },
    ...more,
  });
  return { ...mill(), models: MODEL ? [MODEL] : [], cameras: [one], gear, links: [CABLE] };
}
/** Every setting of it ticked, as it is wanted. */
function ticked(): readonly SiteCommand[] {
  const site = planned({ host: '' });
  const [one] = site.cameras;
  if (!one) return [];
  return settingsOf(one, viewOf(site, indexEvidence([]))).map(({ id, subject, label, wanted }) => ({
    kind: 'recordSetting',
    cameraId: one.id,
    subject,
    setting: id,
    said: label,
    value: wanted ?? 'as it is',
    by: 'hand',
  }));
}
const handedOver = (url: string): SiteCommand => ({ kind: 'recordHandOver', tapId: 't', url, by: 'hand', refs: [] });
const URL = 'rtsp://10.77.4.21/live/main';
const sound = probed('sluice', report());
const move: SiteCommand = { kind: 'setAddress', cameraId: 'sluice', host: '10.77.4.99', port: 554 };

test.each([
  { why: 'no need', site: planned({ need: null, host: '' }), at: 'choose', next: 'Enter what it must show' },
  { why: 'no model', site: planned({ modelId: null, host: '' }), at: 'choose', next: 'Choose a model card' },
  {
    why: 'a model that does not serve',
    site: planned({ need: { ...NEED, level: 'inspect', distanceM: 60 } }),
    at: 'choose',
    next: 'Choose another model, or place it differently',
  },
  { why: 'no power', site: planned({ feed: null, host: '' }), at: 'power', next: 'Plan its power source' },
  {
    why: 'fed by nothing',
    site: { ...planned({ host: '' }), links: [] },
    at: 'power',
    next: 'Link it to its power source',
  },
  {
    why: 'power that fails',
    site: planned({}, [{ ...SWITCH, budgetW: 5 } as Gear]),
    at: 'power',
    next: 'Fix its power and links',
  },
  {
    why: 'it hangs already, and nobody wrote down what for',
    site: { ...planned({ need: null, modelId: null, feed: null }), links: [] },
    at: 'tap',
    next: 'Probe it',
  },
  {
    why: 'no account',
    site: planned({ host: '', account: null }),
    at: 'prepare',
    next: 'Create its streaming account',
  },
  {
    why: 'settings that nobody looked at',
    site: planned({ host: '' }),
    at: 'prepare',
    next: 'Check its settings: RTSP switched on',
  },
  { why: 'no address', site: apply(planned({ host: '' }), ...ticked()), at: 'address', next: 'Enter its address' },
  { why: 'never probed', site: planned(), at: 'tap', next: 'Probe it' },
  { why: 'probed before it moved', site: apply(planned(), sound, move), at: 'tap', next: 'Probe the new address' },
  {
    why: 'a failed probe',
    site: apply(planned(), probed('sluice', report({ cause: 'refused' }))),
    at: 'tap',
    next: 'Fix the stream and probe again',
  },
  { why: 'nobody draws it', site: apply(planned(), sound), at: 'tap', next: 'Choose where it goes' },
  {
    why: 'it does not fit',
    site: apply(planned(), probed('sluice', report({ codec: 'H265' })), record('t', 'sluice')),
    at: 'tap',
    next: 'Make it fit Loft store',
  },
  {
    why: 'not handed over',
    site: apply(planned(), sound, record('t', 'sluice')),
    at: 'hand-over',
    next: 'Hand over to Loft store',
  },
  {
    why: 'handed over before its path changed',
    site: apply(planned(), sound, record('t', 'sluice'), handedOver('rtsp://10.77.4.21/old')),
    at: 'hand-over',
    next: 'Hand over again to Loft store',
  },
  { why: 'all done', site: apply(planned(), sound, record('t', 'sluice'), handedOver(URL)), at: null, next: null },
])('$why: it stands at $at', ({ site, at, next }) => {
  const [lane] = lanesOf(site, indexEvidence(site.journal));
  expect([lane?.standsAt, lane?.next]).toEqual([at, next]);
  // Nothing behind the gate it stands at counts as done, and a hand-over is known only when all before it is.
  const stand = lane?.stations.findIndex(({ station }) => station === at) ?? -1;
  for (const [place, { isDone }] of (lane?.stations ?? []).entries()) expect(isDone).toBe(stand < 0 || place < stand);
  expect(lane?.stations.at(-1)?.verdict).toBe(at === null ? 'ok' : 'unknown');
});

test('the lane has the stations of the registry, in its order, with its names', () => {
  const site = planned();
  const [lane] = lanesOf(site, indexEvidence(site.journal));
  expect(lane?.stations.map(({ station, name }) => ({ id: station, name }))).toEqual(
    STATIONS.map(({ id, name }) => ({ id, name })),
  );
});

test('each rule has an id of its own, and none that another rule had before', () => {
  const ids = STATIONS.flatMap(({ rules }) => rules.map(({ id }) => id));
  expect(new Set(ids).size).toBe(ids.length);
  for (const retired of RETIRED_RULES) expect(ids).not.toContain(retired);
});

test('with all its steps done a lane says what is not known, and is silent only where nothing is', () => {
  const held = [{ id: 'x.held', holds: true, next: '' }];
  const station = (id: string, verdict: Verdict, open: readonly string[]): Station => ({
    id,
    name: id,
    done: 'Handed over',
    rules: [],
    gates: [],
    judge: () => ({ verdict, findings: [], open, gates: held, idle: '' }),
    mends: () => [],
  });
  const [one] = planned().cameras;
  if (!one) throw new Error('a camera');
  const view = viewOf(planned(), indexEvidence([]));
  const told = (...stations: readonly Station[]) => {
    const { next, notKnown, idle } = laneOf(stations, one, view);
    return { next, notKnown, idle };
  };
  expect(told(station('Power', 'ok', []), station('Tap', 'ok', []))).toEqual({
    next: null,
    notKnown: null,
    idle: 'Handed over',
  });
  expect(told(station('Power', 'unknown', ['Is it warm?']), station('Tap', 'ok', []))).toEqual({
    next: null,
    notKnown: 'Is it warm?',
    idle: 'Handed over. Not known: Is it warm?',
  });
  expect(told(station('Power', 'unknown', []), station('Tap', 'ok', [])).notKnown).toMatch(/Power/);
});
