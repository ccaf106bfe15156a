import { clipText } from '../base/clip.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { wallLengthM } from '../base/plan-geometry.ts';
import { sayMany } from '../base/say.ts';
import { NO_MARKS } from '../firmware/marks.ts';
import type { Camera, Stream } from './chapters/cameras/camera.ts';
import { UNKNOWN_IDENTITY } from './chapters/cameras/identity.ts';
import { type HeadPreset, NO_STEERING, STEERING_LIMITS, type Tour } from './chapters/cameras/ptz.ts';
import type { Reflash } from './chapters/cameras/reflash.ts';
import type { Link } from './chapters/links/link.ts';
import { nameOfModel } from './chapters/models/model-name.ts';
import type { Site } from './site.ts';
import type { PlanningCommand } from './site-commands.ts';
import { accountFor } from './stream-address.ts';
import { cameraSubject, destinationSubject, gearSubject, networkSubject } from './subject.ts';
import { nameOfSubject } from './subjects.ts';

/** Something that can be made, and so renamed, copied and removed. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** What can be done to one kind of thing, whatever screen shows it. A thing that is not there raises a RangeError. */
export interface ThingKind {
  /** As one says it: “camera”. */
  readonly noun: string;
  /** Most letters of its name; an empty one is allowed where it has another to be known by. */
  readonly name: { readonly max: number; readonly mayBeEmpty: boolean };
  readonly all: (site: Site) => readonly Named[];
  readonly rename: (site: Site, id: string, name: string) => PlanningCommand;
  /** Another one of the same, by a name that is free; `null` where a copy makes no sense or no room is left. */
  readonly copy: (site: Site, id: string, newId: () => string) => PlanningCommand | null;
  /** `null` where it must stay: the only stream of a camera. */
  readonly remove: (site: Site, id: string) => PlanningCommand | null;
  /** What goes or changes with it, in words, before it is removed. */
  readonly hanging: (site: Site, id: string) => readonly string[];
}

const found = <T extends { readonly id: string }>(items: readonly T[], id: string): T => {
  const item = items.find((one) => one.id === id);
  if (!item) throw new RangeError(`there is no ${id}`);
  return item;
};

/** “Landing stage 2”: the first number behind the name that nobody has. */
export function freeName(name: string, taken: readonly string[], max: number = TEXT_LIMITS.name): string {
  const stem = name.replace(/ \d{1,4}$/, '');
  const known = new Set(taken);
  for (let number = 2; ; number++) {
    const next = `${clipText(stem, max - ` ${number}`.length)} ${number}`;
    if (!known.has(next)) return next;
  }
}

/** “PD-5, copy”: a number behind a model would name another model. */
export function freeModel(model: string, taken: readonly string[]): string {
  const stem = model.replace(/, copy(?: \d{1,4})?$/, '');
  const copy = `${clipText(stem, TEXT_LIMITS.name - ', copy'.length)}, copy`;
  return taken.includes(copy) ? freeName(copy, taken) : copy;
}

const many = (count: number, noun: string): string[] => (count > 0 ? [sayMany(count, noun)] : []);
const namesOf = (items: readonly Named[]): readonly string[] => items.map(({ name }) => name);
const linksAt = (site: Site, subject: string): number =>
  site.links.filter(({ from, to }) => from === subject || to === subject).length;
const all = TEXT_LIMITS.name;
const needed = { max: all, mayBeEmpty: false } as const;

export const nameOfLink = (site: Site, { name, from, to }: Link): string =>
  name || `${nameOfSubject(site, from)} – ${nameOfSubject(site, to)}`;

/** What holds of another device too: what was read on the one board is none of the other's. */
const asDecided = (reflash: Reflash): Reflash => ({
  ...reflash,
  label: { hardwareRev: '', version: '' },
  marks: NO_MARKS,
  backImage: null,
});

/** Another one of its kind in another place: no address, no account, nothing measured. */
export function copyOfCamera(site: Site, camera: Camera, newId: () => string): Camera {
  const id = newId();
  const streams = camera.streams.map((stream): Stream => ({ ...stream, id: newId() }));
  const paths = streams.map(({ path }) => path);
  return {
    ...camera,
    id,
    name: freeName(camera.name, namesOf(site.cameras)),
    host: '',
    account: accountFor('', paths, `secret-${id}`),
    adminAccount: null,
    identity: UNKNOWN_IDENTITY,
    keeping: null,
    onvifPort: null,
    onvifTls: false,
    steering: NO_STEERING,
    reflash: camera.reflash && asDecided(camera.reflash),
    streams,
    position: null,
    channel: camera.channel === null ? null : Math.min(256, camera.channel + 1),
  };
}

interface CameraStream extends Named {
  readonly camera: Camera;
  readonly stream: Stream;
}
const streamsOf = ({ cameras }: Site): readonly CameraStream[] =>
  cameras.flatMap((camera) => camera.streams.map((stream) => ({ id: stream.id, name: stream.label, camera, stream })));

interface CameraHeadPreset extends Named {
  readonly camera: Camera;
  readonly preset: HeadPreset;
}
const headPresetsOf = ({ cameras }: Site): readonly CameraHeadPreset[] =>
  cameras.flatMap((camera) =>
    camera.steering.presets.map((preset) => ({ id: preset.id, name: preset.name, camera, preset })),
  );

interface CameraTour extends Named {
  readonly camera: Camera;
  readonly tour: Tour;
}
const toursOf = ({ cameras }: Site): readonly CameraTour[] =>
  cameras.flatMap((camera) => camera.steering.tours.map((tour) => ({ id: tour.id, name: tour.name, camera, tour })));

/** Every kind of thing that a site is made of, one row each: screens, keys and tests read it here. */
export const THING_KINDS = {
  camera: {
    noun: 'camera',
    name: needed,
    all: ({ cameras }) => cameras,
    rename: (_, cameraId, name) => ({ kind: 'changeCamera', cameraId, changed: { name } }),
    copy: (site, id, newId) => ({
      kind: 'addCamera',
      camera: copyOfCamera(site, found(site.cameras, id), newId),
    }),
    remove: (_, cameraId) => ({ kind: 'removeCamera', cameraId }),
    hanging: (site, id) => [
      ...many(site.taps.filter(({ cameraId }) => cameraId === id).length, 'tap'),
      ...many(linksAt(site, cameraSubject(id)), 'link'),
    ],
  },
  stream: {
    noun: 'stream',
    name: { max: TEXT_LIMITS.label, mayBeEmpty: false },
    all: streamsOf,
    rename: (site, id, label) => {
      const { camera, stream } = found(streamsOf(site), id);
      return { kind: 'changeStream', cameraId: camera.id, stream: { ...stream, label } };
    },
    copy: (site, id, newId) => {
      const { camera, stream } = found(streamsOf(site), id);
      const taken = camera.streams.map(({ label }) => label);
      const label = freeName(stream.label, taken, TEXT_LIMITS.label);
      return { kind: 'addStream', cameraId: camera.id, stream: { ...stream, id: newId(), label } };
    },
    remove: (site, streamId) => {
      const { camera } = found(streamsOf(site), streamId);
      return camera.streams.length > 1 ? { kind: 'removeStream', cameraId: camera.id, streamId } : null;
    },
    hanging: (site, id) => many(site.taps.filter(({ streamId }) => streamId === id).length, 'tap'),
  },
  headPreset: {
    noun: 'position of its pan-tilt head',
    name: { max: TEXT_LIMITS.label, mayBeEmpty: false },
    all: headPresetsOf,
    rename: (site, id, name) => {
      const { camera, preset } = found(headPresetsOf(site), id);
      return { kind: 'putHeadPreset', cameraId: camera.id, preset: { ...preset, name } };
    },
    copy: (site, id, newId) => {
      const { camera, preset } = found(headPresetsOf(site), id);
      if (camera.steering.presets.length >= STEERING_LIMITS.presets) return null;
      const name = freeName(preset.name, namesOf(camera.steering.presets), TEXT_LIMITS.label);
      return { kind: 'putHeadPreset', cameraId: camera.id, preset: { ...preset, id: newId(), name } };
    },
    remove: (site, presetId) => ({
      kind: 'removeHeadPreset',
      cameraId: found(headPresetsOf(site), presetId).camera.id,
      presetId,
    }),
    hanging: (site, id) => {
      const { tours } = found(headPresetsOf(site), id).camera.steering;
      return many(tours.filter(({ stops }) => stops.some(({ presetId }) => presetId === id)).length, 'preset tour');
    },
  },
  tour: {
    noun: 'preset tour',
    name: { max: TEXT_LIMITS.label, mayBeEmpty: false },
    all: toursOf,
    rename: (site, id, name) => {
      const { camera, tour } = found(toursOf(site), id);
      return { kind: 'putTour', cameraId: camera.id, tour: { ...tour, name } };
    },
    copy: (site, id, newId) => {
      const { camera, tour } = found(toursOf(site), id);
      if (camera.steering.tours.length >= STEERING_LIMITS.tours) return null;
      const name = freeName(tour.name, namesOf(camera.steering.tours), TEXT_LIMITS.label);
      return { kind: 'putTour', cameraId: camera.id, tour: { ...tour, id: newId(), name } };
    },
    remove: (site, tourId) => ({ kind: 'removeTour', cameraId: found(toursOf(site), tourId).camera.id, tourId }),
    hanging: () => [],
  },
  destination: {
    noun: 'destination',
    name: needed,
    all: ({ destinations }) => destinations,
    rename: (site, id, name) => ({
      kind: 'changeDestination',
      destination: { ...found(site.destinations, id), name },
    }),
    copy: (site, id, newId) => {
      const one = found(site.destinations, id);
      const name = freeName(one.name, namesOf(site.destinations));
      return { kind: 'addDestination', destination: { ...one, id: newId(), name, host: '', position: null } };
    },
    remove: (_, destinationId) => ({ kind: 'removeDestination', destinationId }),
    hanging: (site, id) => [
      ...many(site.taps.filter(({ destinationId }) => destinationId === id).length, 'tap'),
      ...many(linksAt(site, destinationSubject(id)), 'link'),
      ...many(
        site.cameras.filter(({ need }) => need?.draws.some(({ destinationId }) => destinationId === id)).length,
        'need',
      ),
    ],
  },
  gear: {
    noun: 'gear',
    name: needed,
    all: ({ gear }) => gear,
    rename: (site, id, name) => ({ kind: 'putGear', gear: { ...found(site.gear, id), name } }),
    copy: (site, id, newId) => {
      const one = found(site.gear, id);
      return {
        kind: 'putGear',
        gear: { ...one, id: newId(), name: freeName(one.name, namesOf(site.gear)), position: null },
      };
    },
    remove: (_, gearId) => ({ kind: 'removeGear', gearId }),
    hanging: (site, id) => many(linksAt(site, gearSubject(id)), 'link'),
  },
  link: {
    noun: 'link',
    name: { max: all, mayBeEmpty: true },
    all: (site) => site.links.map((link) => ({ id: link.id, name: nameOfLink(site, link) })),
    rename: (site, id, name) => ({ kind: 'putLink', link: { ...found(site.links, id), name } }),
    // A second cable between the same two: it has a way of its own.
    copy: (site, id, newId) => {
      const link = found(site.links, id);
      const name = freeName(
        nameOfLink(site, link),
        site.links.map((one) => nameOfLink(site, one)),
      );
      return { kind: 'putLink', link: { ...link, id: newId(), name } };
    },
    remove: (_, linkId) => ({ kind: 'removeLink', linkId }),
    hanging: () => [],
  },
  network: {
    noun: 'network',
    name: needed,
    all: ({ networks }) => networks,
    rename: (site, id, name) => ({ kind: 'putNetwork', network: { ...found(site.networks, id), name } }),
    // Another one has other addresses: they are typed before anything else makes sense.
    copy: (site, id, newId) => {
      const one = found(site.networks, id);
      const name = freeName(one.name, namesOf(site.networks));
      return { kind: 'putNetwork', network: { ...one, id: newId(), name, permit: '' } };
    },
    remove: (_, networkId) => ({ kind: 'removeNetwork', networkId }),
    hanging: (site, id) => {
      const subject = networkSubject(id);
      return [
        ...many(site.destinations.filter(({ networkId }) => networkId === id).length, 'destination'),
        ...many(site.reach.rows.filter(({ from, to }) => from === subject || to === subject).length, 'firewall rule'),
      ];
    },
  },
  wall: {
    noun: 'wall',
    name: { max: all, mayBeEmpty: true },
    all: ({ plan }) =>
      plan.walls.map((wall) => ({
        id: wall.id,
        name: wall.name || `${wallLengthM(wall).toFixed(1)} m of ${wall.material}`,
      })),
    rename: (site, id, name) => ({ kind: 'putWall', wall: { ...found(site.plan.walls, id), name } }),
    copy: (site, id, newId) => {
      const wall = found(site.plan.walls, id);
      const beside = (point: { readonly xM: number; readonly yM: number }) => ({ xM: point.xM + 1, yM: point.yM + 1 });
      const taken = site.plan.walls.map(({ name }) => name);
      const name = wall.name === '' ? '' : freeName(wall.name, taken);
      return { kind: 'putWall', wall: { ...wall, id: newId(), name, from: beside(wall.from), to: beside(wall.to) } };
    },
    remove: (_, wallId) => ({ kind: 'removeWall', wallId }),
    hanging: () => [],
  },
  model: {
    noun: 'model card',
    name: needed,
    all: ({ models }) => models.map((model) => ({ id: model.id, name: nameOfModel(model) })),
    rename: (site, id, model) => ({ kind: 'putModel', model: { ...found(site.models, id), model } }),
    copy: (site, id, newId) => {
      const one = found(site.models, id);
      const taken = site.models.map((other) => other.model);
      return { kind: 'putModel', model: { ...one, id: newId(), model: freeModel(one.model, taken) } };
    },
    remove: (_, modelId) => ({ kind: 'removeModel', modelId }),
    hanging: (site, id) => [
      ...many(site.cameras.filter(({ modelId }) => modelId === id).length, 'camera'),
      ...many(site.cameras.filter(({ candidates }) => candidates.includes(id)).length, 'choice'),
    ],
  },
  option: {
    noun: 'option',
    name: needed,
    all: ({ costing }) => costing.options,
    rename: (site, id, name) => ({ kind: 'putOption', option: { ...found(site.costing.options, id), name } }),
    copy: (site, id, newId) => {
      const option = found(site.costing.options, id);
      return {
        kind: 'putOption',
        option: { ...option, id: newId(), name: freeName(option.name, namesOf(site.costing.options)) },
      };
    },
    remove: (_, optionId) => ({ kind: 'removeOption', optionId }),
    hanging: () => [],
  },
} as const satisfies Readonly<Record<string, ThingKind>>;
export type ThingName = keyof typeof THING_KINDS;
