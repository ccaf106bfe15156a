import { expect, test } from '@jest/globals';
import { siteOf } from '../../../tests/support/planned-sites.ts';
import { apply, probed, record, report } from '../../../tests/support/sites.ts';
import { alderMill } from '../../standins/alder-mill.ts';
import { factsOf, indexEvidence } from '../evidence/evidence-index.ts';
import { emptyModel } from './chapters/models/model-fields.ts';
import { UNKNOWN_NETWORK } from './chapters/networks/network-fields.ts';
import { EMPTY_PLAN } from './chapters/plan/drawn-plan.ts';
import { NO_EDITS, noteEdit, redoEdit, undoEdit } from './edit-history.ts';
import { emptySite } from './empty-site.ts';
import { planOf, type Site } from './site.ts';
import { applyCommand, type PlanningCommand } from './site-commands.ts';
import { readSiteFile, writeSiteFile } from './site-file.ts';
import { freeModel, freeName, THING_KINDS, type ThingKind, type ThingName } from './things.ts';

const AT = '2026-11-26T09:00:00.000Z';
const mill = alderMill(AT);
const OPTION = {
  id: 'o',
  name: 'One box',
  school: 'software',
  destinationId: null,
  lines: [],
  includedSeats: 0,
  packs: [],
  subscriptionPerMonth: 0,
  loadW: 5,
} as const;
const WALL = { id: 'w', name: '', from: { xM: 0, yM: 0 }, to: { xM: 3, yM: 4 }, material: 'brick' } as const;

/** How each kind is made in an otherwise empty site, and one change that is no rename. */
const MADE: {
  readonly [K in ThingName]: {
    readonly base: Site;
    readonly make: PlanningCommand;
    readonly change: (site: Site, id: string) => PlanningCommand;
  };
} = (() => {
  const empty = emptySite('s', 'S');
  const planned = siteOf();
  const camera = planned.cameras[0];
  const [stream] = camera?.streams ?? [];
  const [destination, gear, link] = [planned.destinations[0], planned.gear[0], planned.links[0]];
  if (!camera || !stream || !destination || !gear || !link) throw new Error('a planned site');
  const bare = { ...camera, modelId: null, candidates: [] };
  const withEnds = { ...empty, cameras: [bare], gear: [gear] };
  return {
    network: {
      base: empty,
      make: {
        kind: 'putNetwork',
        network: { ...UNKNOWN_NETWORK, id: 'n', name: 'House', cidr: '10.77.4.0/24', gateway: '10.77.4.1' },
      },
      change: (site, id) => {
        const network = site.networks.find((one) => one.id === id);
        if (!network) throw new Error(`there is no ${id}`);
        return { kind: 'putNetwork', network: { ...network, vlan: 7 } };
      },
    },
    camera: {
      base: empty,
      make: { kind: 'addCamera', camera: bare },
      change: (_, cameraId) => ({ kind: 'changeCamera', cameraId, changed: { place: 'By the door' } }),
    },
    stream: {
      base: { ...empty, cameras: [bare] },
      make: { kind: 'addStream', cameraId: bare.id, stream: { ...stream, id: 'third', label: 'third' } },
      change: (site, id) => ({
        kind: 'changeStream',
        cameraId: bare.id,
        stream: { ...stream, ...site.cameras[0]?.streams.find((one) => one.id === id), id, fps: 7 },
      }),
    },
    headPreset: {
      base: { ...empty, cameras: [{ ...bare, steering: { presets: [], tours: [] } }] },
      make: {
        kind: 'putHeadPreset',
        cameraId: camera.id,
        preset: { id: 'p', name: 'Gate', token: '1', still: '' },
      },
      change: (site, id) => {
        const preset = site.cameras[0]?.steering.presets.find((one) => one.id === id);
        if (!preset) throw new Error(`there is no ${id}`);
        return {
          kind: 'putHeadPreset',
          cameraId: camera.id,
          preset: { ...preset, still: 'data:image/jpeg;base64,AAAA' },
        };
      },
    },
    tour: {
      base: { ...empty, cameras: [{ ...bare, steering: { presets: [], tours: [] } }] },
      make: { kind: 'putTour', cameraId: camera.id, tour: { id: 'r', name: 'Tour', stops: [] } },
      change: (site, id) => {
        const tour = site.cameras[0]?.steering.tours.find((one) => one.id === id);
        if (!tour) throw new Error(`there is no ${id}`);
        return { kind: 'putTour', cameraId: camera.id, tour: { ...tour, stops: [{ presetId: 'p', dwellS: 10 }] } };
      },
    },
    destination: {
      base: empty,
      make: { kind: 'addDestination', destination },
      change: (site, id) => ({
        kind: 'changeDestination',
        destination: { ...destination, ...site.destinations.find((one) => one.id === id), decodes: 3 },
      }),
    },
    gear: {
      base: empty,
      make: { kind: 'putGear', gear },
      change: (site, id) => ({
        kind: 'putGear',
        gear: { ...gear, ...site.gear.find((one) => one.id === id), price: 12 },
      }),
    },
    link: {
      base: withEnds,
      make: { kind: 'putLink', link },
      change: (site, id) => ({
        kind: 'putLink',
        link: { ...link, ...site.links.find((one) => one.id === id), lengthM: 33 },
      }),
    },
    wall: {
      base: { ...empty, plan: EMPTY_PLAN },
      make: { kind: 'putWall', wall: WALL },
      change: (site, id) => ({
        kind: 'putWall',
        wall: { ...WALL, ...site.plan.walls.find((one) => one.id === id), material: 'glass' },
      }),
    },
    model: {
      base: empty,
      make: { kind: 'putModel', model: emptyModel('m', 'Tarrow', 'Eye') },
      change: (site, id) => ({
        kind: 'putModel',
        model: { ...emptyModel('m', 'Tarrow', 'Eye'), ...site.models.find((one) => one.id === id), sessions: 2 },
      }),
    },
    option: {
      base: empty,
      make: { kind: 'putOption', option: OPTION },
      change: (site, id) => ({
        kind: 'putOption',
        option: { ...OPTION, ...site.costing.options.find((one) => one.id === id), loadW: 9 },
      }),
    },
  };
})();

let count = 0;
const newId = (): string => {
  count += 1;
  return `new-${count}`;
};
const STAMP = { at: AT, newId };
const kinds = Object.keys(THING_KINDS) as ThingName[];
const namesOf = (kind: ThingKind, site: Site): readonly string[] => kind.all(site).map(({ name }) => name);
const opened = (site: Site): Site => {
  const read = readSiteFile(writeSiteFile(site));
  if (!read.ok) throw new Error(read.error.message);
  return read.value;
};

/** Done, taken back and done again: each time the plan is what it was, and opens from a file. */
function done(site: Site, command: PlanningCommand): Site {
  const stamp = STAMP;
  const after = applyCommand(site, command, stamp);
  const history = noteEdit(NO_EDITS, command, site, after);
  const back = undoEdit(after, history, stamp);
  expect(planOf(back.site)).toEqual(planOf(site));
  expect(planOf(redoEdit(back.site, back.history, stamp).site)).toEqual(planOf(after));
  expect(planOf(opened(after))).toEqual(planOf(after));
  return after;
}

test.each(kinds)('a %s is made, renamed, changed, copied and removed, and each of it is taken back', (name) => {
  const kind: ThingKind = THING_KINDS[name];
  const { base, make, change } = MADE[name];
  const before = kind.all(base).length;
  let site = done(base, make);
  const made = kind.all(site).find(({ id }) => !kind.all(base).some((one) => one.id === id));
  if (!made) throw new Error(`no ${name} was made`);
  site = done(site, kind.rename(site, made.id, 'Hen house'));
  expect(namesOf(kind, site).some((one) => one.includes('Hen house'))).toBe(true);
  const renamed = planOf(site);
  site = done(site, change(site, made.id));
  expect(planOf(site)).not.toEqual(renamed);
  expect(namesOf(kind, site).some((one) => one.includes('Hen house'))).toBe(true);
  const copy = kind.copy(site, made.id, newId);
  if (!copy) throw new Error(`no copy of a ${name}`);
  site = done(site, copy);
  expect(kind.all(site)).toHaveLength(before + 2);
  expect(new Set(namesOf(kind, site)).size).toBe(before + 2);
  for (const one of kind.all(site).filter(({ name: own }) => own.includes('Hen house'))) {
    const remove = kind.remove(site, one.id);
    if (!remove) throw new Error(`a ${name} stays`);
    site = done(site, remove);
  }
  expect(kind.all(site)).toHaveLength(before);
});

test.each(kinds)('what hangs on a %s of the demo is named, and nothing is left hanging when it goes', (name) => {
  const kind: ThingKind = THING_KINDS[name];
  const site = apply(
    mill,
    record2('t1', 'sluice-rail'),
    probed('sluice-rail', report(), 'rtsp://x/', 'sluice-rail-main'),
  );
  for (const { id } of kind.all(site)) {
    const remove = kind.remove(site, id);
    if (!remove) continue;
    const after = applyCommand(site, remove, STAMP);
    opened(after); // a broken reference would refuse it
    const parts = (one: Site): number => one.taps.length + one.links.length;
    const lost = parts(site) - parts(after) - (name === 'link' ? 1 : 0);
    const words = kind.hanging(site, id).join(', ');
    expect([id, lost > 0]).toEqual([id, /tap|link/.test(words)]);
  }
});

const record2 = (id: string, cameraId: string): PlanningCommand => ({
  kind: 'addTap',
  judged: '',
  tap: {
    id,
    cameraId,
    streamId: `${cameraId}-main`,
    destinationId: 'loft-store',
    use: 'record',
    protocol: 'rtsp',
    schedule: { mode: 'continuous' },
  },
});

test('the only stream of a camera stays', () => {
  const site = { ...siteOf(), cameras: siteOf().cameras.map((one) => ({ ...one, streams: one.streams.slice(0, 1) })) };
  expect(THING_KINDS.stream.remove(site, 'c-main')).toBeNull();
  expect(() => applyCommand(site, { kind: 'removeStream', cameraId: 'c', streamId: 'c-main' }, STAMP)).toThrow(
    RangeError,
  );
});

test.each([
  { name: 'Gate', taken: ['Gate'], free: 'Gate 2' },
  { name: 'Gate 2', taken: ['Gate', 'Gate 2', 'Gate 3'], free: 'Gate 4' },
  { name: 'x'.repeat(80), taken: [], free: `${'x'.repeat(77)}… 2` },
])('a copy of $name is called $free', ({ name, taken, free }) => expect(freeName(name, taken)).toBe(free));

test.each([
  { name: 'Sol 2', taken: ['Sol 2'], free: 'Sol 2, copy' },
  { name: 'Sol 2, copy', taken: ['Sol 2', 'Sol 2, copy'], free: 'Sol 2, copy 2' },
  { name: 'Sol 2, copy 2', taken: ['Sol 2, copy', 'Sol 2, copy 2'], free: 'Sol 2, copy 3' },
])('a copy of the model $name is called $free', ({ name, taken, free }) => expect(freeModel(name, taken)).toBe(free));

test('several at once are one line of the log, and one step back', () => {
  const site = siteOf();
  const commands = [
    { kind: 'changeCamera', cameraId: 'c', changed: { name: 'Gate' } },
    { kind: 'removeLink', linkId: 'feed' },
  ] as const;
  const after = done(site, { kind: 'many', commands, what: '1 camera: put right' });
  expect(after.journal.length - site.journal.length).toBe(1);
  expect(after.journal.at(-1)).toMatchObject({ text: '1 camera: put right', refs: [{ name: 'each' }] });
  expect([after.cameras[0]?.name, after.links.some(({ id }) => id === 'feed')]).toEqual(['Gate', false]);
});

test('a camera that another model replaces keeps taps and record; what was measured of the old one counts no more', () => {
  const reading = {
    kind: 'recordReading',
    about: 'camera:c',
    subject: 'camera:c',
    quantity: 'batteryC',
    value: 40,
    by: 'hand',
  } as const;
  // Years of readings: none of them may be left to speak of the new device.
  const site = apply(siteOf(), record('t', 'c'), probed('c', report()), ...Array(250).fill(reading));
  const streams = [
    {
      stream: {
        ...(site.cameras[0]?.streams[0] as Site['cameras'][number]['streams'][number]),
        id: 'new-main',
        path: '/h264',
      },
      instead: 'c-main',
    },
  ];
  const stamp = STAMP;
  const command = { kind: 'replaceCamera', cameraId: 'c', modelId: 'spare', streams } as const;
  const after = applyCommand(site, command, stamp);
  expect(after.taps).toMatchObject([{ id: 't', streamId: 'new-main' }]);
  expect(after.cameras[0]).toMatchObject({ modelId: 'spare', need: site.cameras[0]?.need });
  expect(after.journal.slice(0, -1)).toEqual(site.journal);
  const known = (one: Site) => factsOf(indexEvidence(one.journal), 'camera:c', 'batteryC').length;
  expect([known(site), known(after), indexEvidence(after.journal).get('stream:new-main')]).toEqual([250, 0, undefined]);
  const history = noteEdit(NO_EDITS, command, site, after);
  const back = undoEdit(after, history, stamp);
  expect([planOf(back.site), known(back.site)]).toEqual([planOf(site), 250]);
  const again = redoEdit(back.site, back.history, stamp);
  expect([planOf(again.site), known(again.site)]).toEqual([planOf(after), 0]);
  expect(known(undoEdit(again.site, again.history, stamp).site)).toBe(250);
});
