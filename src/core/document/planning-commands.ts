import type { Point } from '../base/plan-geometry.ts';
import { sayMany } from '../base/say.ts';
import { type BenchItem, benchQuantity } from './bench-test.ts';
import { cameraSubject } from './best-known.ts';
import { type Model, nameOfModel } from './cards/model-card.ts';
import { type Changed, clippedEvidence, type Draft, type Stamp } from './command-parts.ts';
import {
  type Costing,
  type Feed,
  type Gear,
  isSheet,
  type Link,
  type Mounting,
  type Need,
  type Plan,
  type Sky,
} from './planning-types.ts';
import type { Camera, Site } from './site-types.ts';
import { hasSubject, nameOfSubject } from './subjects.ts';

/** Every way the plan of a site changes: what is chosen, where it hangs, what feeds and joins it. */
export type PlanningCommand =
  | { readonly kind: 'setNeed'; readonly cameraId: string; readonly need: Need | null }
  | { readonly kind: 'setMounting'; readonly cameraId: string; readonly mounting: Mounting | null }
  | { readonly kind: 'setCandidates'; readonly cameraId: string; readonly candidates: readonly string[] }
  | { readonly kind: 'chooseModel'; readonly cameraId: string; readonly modelId: string | null }
  | { readonly kind: 'putModel'; readonly model: Model }
  | { readonly kind: 'setFeed'; readonly cameraId: string; readonly feed: Feed | null }
  | { readonly kind: 'putGear'; readonly gear: Gear }
  | { readonly kind: 'removeGear'; readonly gearId: string }
  | { readonly kind: 'putLink'; readonly link: Link }
  | { readonly kind: 'removeLink'; readonly linkId: string }
  /** One thing of the plan found its place: a camera, a destination or gear. */
  | { readonly kind: 'place'; readonly subject: string; readonly position: Point | null }
  | { readonly kind: 'setPlan'; readonly plan: Plan; readonly what: string }
  /** The picture's true size was found: all that was placed on it keeps its place in the picture. */
  | { readonly kind: 'scalePlan'; readonly factor: number }
  | { readonly kind: 'setSky'; readonly sky: Sky }
  | { readonly kind: 'setAssumption'; readonly id: string; readonly value: number | null }
  | { readonly kind: 'setCosting'; readonly costing: Costing; readonly what: string }
  | {
      readonly kind: 'recordBenchTest';
      readonly cameraId: string;
      readonly item: BenchItem;
      readonly seen: string;
      readonly by: string;
    };

type Of<K extends PlanningCommand['kind']> = Extract<PlanningCommand, { kind: K }>;

const draft = (kind: Draft['kind'], subject: string, text: string, refs: Draft['refs'] = []): Draft => ({
  kind,
  subject,
  text,
  refs,
});
const say = (value: unknown): string => (value === null || value === undefined ? 'none' : String(value));

function changeCamera(
  site: Site,
  cameraId: string,
  text: string,
  change: (camera: Camera) => Camera,
  kind: Draft['kind'] = 'choose',
  refs: Draft['refs'] = [],
): Changed {
  const camera = site.cameras.find(({ id }) => id === cameraId);
  if (!camera) throw new RangeError(`cameraId: there is no camera ${cameraId}`);
  const changed = change(camera);
  return {
    site: { ...site, cameras: site.cameras.map((other) => (other === camera ? changed : other)) },
    log: draft(kind, cameraSubject(cameraId), `${camera.name}: ${text}`, refs),
  };
}

/** The list with the item put in the place of the one with its id, or at the end. */
function put<T extends { readonly id: string }>(items: readonly T[], item: T): readonly T[] {
  return items.some(({ id }) => id === item.id)
    ? items.map((other) => (other.id === item.id ? item : other))
    : [...items, item];
}

export function changePlanning(site: Site, command: PlanningCommand, stamp: Stamp): Changed {
  switch (command.kind) {
    case 'setNeed':
      return changeCamera(
        site,
        command.cameraId,
        command.need ? 'need said' : 'need taken away',
        (camera) => ({
          ...camera,
          need: command.need,
        }),
        'choose',
        command.need ? needRefs(command.need) : [],
      );
    case 'setMounting':
      return setMounting(site, command);
    case 'setCandidates':
      return changeCamera(site, command.cameraId, sayMany(command.candidates.length, 'candidate'), (camera) => ({
        ...camera,
        candidates: command.candidates,
      }));
    case 'chooseModel':
      return chooseModel(site, command);
    case 'putModel':
      return {
        site: { ...site, models: put(site.models, command.model) },
        log: draft('choose', 'site', `Model card of ${nameOfModel(command.model)} kept`),
      };
    case 'setFeed':
      return changeCamera(
        site,
        command.cameraId,
        command.feed ? 'power planned' : 'power taken away',
        (camera) => ({ ...camera, feed: command.feed }),
        'power',
        command.feed ? [{ name: 'way', value: command.feed.way }] : [],
      );
    case 'putGear': {
      const isNew = !site.gear.some(({ id }) => id === command.gear.id);
      const log = draft('power', `gear:${command.gear.id}`, `${command.gear.name} ${isNew ? 'added' : 'changed'}`);
      return { site: { ...site, gear: put(site.gear, command.gear) }, log };
    }
    case 'removeGear':
      return removeGear(site, command);
    case 'putLink':
      return putLink(site, command);
    case 'removeLink': {
      const link = site.links.find(({ id }) => id === command.linkId);
      if (!link) throw new RangeError(`linkId: there is no link ${command.linkId}`);
      return {
        site: { ...site, links: site.links.filter((other) => other !== link) },
        log: draft(
          'power',
          link.to,
          `${nameOfSubject(site, link.to)} no longer joined to ${nameOfSubject(site, link.from)}`,
        ),
      };
    }
    case 'place':
      return place(site, command);
    case 'setPlan':
      return { site: { ...site, plan: command.plan }, log: draft('edit', 'site', `Plan: ${command.what}`) };
    case 'scalePlan':
      return scalePlan(site, command.factor);
    case 'setSky':
      return {
        site: { ...site, sky: command.sky },
        log: draft('edit', 'site', 'Latitude and clearness of the air changed', [
          { name: 'latitude', value: say(command.sky.latitudeDeg) },
        ]),
      };
    case 'setAssumption': {
      const { [command.id]: before, ...rest } = site.assumptions;
      const assumptions = command.value === null ? rest : { ...rest, [command.id]: command.value };
      const refs = [
        { name: 'from', value: before === undefined ? 'as delivered' : say(before) },
        { name: 'to', value: command.value === null ? 'as delivered' : say(command.value) },
      ];
      return { site: { ...site, assumptions }, log: draft('edit', 'site', `Assumption ${command.id} changed`, refs) };
    }
    case 'setCosting':
      return { site: { ...site, costing: command.costing }, log: draft('edit', 'site', `Cost: ${command.what}`) };
    case 'recordBenchTest':
      return recordBenchTest(site, command, stamp);
  }
}

const needRefs = (need: Need): Draft['refs'] => [
  { name: 'level', value: say(need.level) },
  { name: 'text', value: need.text ? `${need.text.charHeightMm} mm` : 'none' },
  { name: 'distance', value: `${need.distanceM} m` },
  { name: 'width', value: `${need.widthM} m` },
];

function setMounting(site: Site, { cameraId, mounting }: Of<'setMounting'>): Changed {
  const refs = mounting
    ? [
        { name: 'height', value: `${mounting.heightM} m` },
        { name: 'tilt', value: `${mounting.tiltDownDeg}°` },
        { name: 'heading', value: `${mounting.headingDeg}°` },
        { name: 'zoom', value: mounting.zoom === null ? 'to the zone' : `${mounting.zoom}×` },
      ]
    : [];
  return changeCamera(site, cameraId, 'mounting changed', (camera) => ({ ...camera, mounting }), 'choose', refs);
}

function chooseModel(site: Site, { cameraId, modelId }: Of<'chooseModel'>): Changed {
  const model = site.models.find(({ id }) => id === modelId);
  if (modelId !== null && !model) throw new RangeError(`modelId: there is no model ${modelId}`);
  return changeCamera(site, cameraId, model ? `${nameOfModel(model)} chosen` : 'no model chosen', (camera) => ({
    ...camera,
    modelId,
  }));
}

function removeGear(site: Site, { gearId }: Of<'removeGear'>): Changed {
  const gear = site.gear.find(({ id }) => id === gearId);
  if (!gear) throw new RangeError(`gearId: there is no gear ${gearId}`);
  const subject = `gear:${gearId}`;
  return {
    site: {
      ...site,
      gear: site.gear.filter((other) => other !== gear),
      links: site.links.filter(({ from, to }) => from !== subject && to !== subject),
    },
    log: draft('power', 'site', `${gear.name} removed, and what it was joined by`),
  };
}

function putLink(site: Site, { link }: Of<'putLink'>): Changed {
  for (const end of [link.from, link.to])
    if (!hasSubject(site, end)) throw new RangeError(`link: there is nothing called ${end}`);
  const before = site.links.find(({ id }) => id === link.id);
  const [from, to] = [nameOfSubject(site, link.from), nameOfSubject(site, link.to)];
  const what = !before ? 'joined' : before.from === link.from && before.to === link.to ? 'link changed' : 'moved';
  return {
    site: { ...site, links: put(site.links, link) },
    log: draft('power', link.to, `${to}: ${what}${what === 'link changed' ? '' : ` to ${from}`}`, [
      { name: 'medium', value: link.medium },
      { name: 'length', value: link.route ? `drawn, ${sayMany(link.route.length, 'point')}` : `${link.lengthM} m` },
    ]),
  };
}

function place(site: Site, { subject, position }: Of<'place'>): Changed {
  const [kind, ...rest] = subject.split(':');
  const id = rest.join(':');
  const name = nameOfSubject(site, subject);
  const at = <T extends { readonly id: string; readonly position: Point | null }>(items: readonly T[]): readonly T[] =>
    items.map((item) => (item.id === id ? { ...item, position } : item));
  const placed =
    kind === 'camera'
      ? { ...site, cameras: at(site.cameras) }
      : kind === 'gear'
        ? { ...site, gear: at(site.gear) }
        : { ...site, destinations: at(site.destinations) };
  const where = position ? `${position.xM.toFixed(1)} m right, ${position.yM.toFixed(1)} m down` : 'off the plan';
  // A drawn cable ends where its camera or its gear stands: it goes along, and measures itself anew.
  const isDrawnTo = ({ route, from, to }: Link): boolean => route !== null && (from === subject || to === subject);
  const links =
    position === null || !site.links.some(isDrawnTo)
      ? site.links
      : site.links.map((link) => (isDrawnTo(link) ? withEndAt(link, subject, position) : link));
  return { site: { ...placed, links }, log: draft('edit', subject, `${name} placed`, [{ name: 'at', value: where }]) };
}

function withEndAt(link: Link, subject: string, position: Point): Link {
  const route = [...(link.route ?? [])];
  if (link.from === subject) route[0] = position;
  if (link.to === subject) route[route.length - 1] = position;
  return { ...link, route };
}

function scalePlan(site: Site, factor: number): Changed {
  const { picture } = site.plan;
  if (!picture || !isSheet(site.plan.widthM * factor, site.plan.heightM * factor))
    throw new RangeError(`factor: expected one that leaves a sheet, got ${factor}`);
  const point = ({ xM, yM }: Point): Point => ({ xM: xM * factor, yM: yM * factor });
  const moved = <T extends { readonly position: Point | null }>(items: readonly T[]): readonly T[] =>
    items.map((item) => (item.position ? { ...item, position: point(item.position) } : item));
  const metresPerPx = picture.metresPerPx * factor;
  return {
    site: {
      ...site,
      cameras: moved(site.cameras),
      destinations: moved(site.destinations),
      gear: moved(site.gear),
      links: site.links.map((link) => (link.route ? { ...link, route: link.route.map(point) } : link)),
      plan: {
        widthM: site.plan.widthM * factor,
        heightM: site.plan.heightM * factor,
        picture: { ...picture, metresPerPx, isScaled: true },
        walls: site.plan.walls.map((wall) => ({ ...wall, from: point(wall.from), to: point(wall.to) })),
      },
    },
    log: draft('edit', 'site', 'Plan: scale set', [
      { name: 'picture', value: `${(picture.widthPx * metresPerPx).toFixed(2)} m wide` },
    ]),
  };
}

function recordBenchTest(site: Site, { cameraId, item, seen, by }: Of<'recordBenchTest'>, stamp: Stamp): Changed {
  const { site: same, log } = changeCamera(site, cameraId, `on the bench: ${item.said}`, (camera) => camera, 'power', [
    { name: 'seen', value: seen || 'yes' },
  ]);
  const evidence = clippedEvidence({
    id: stamp.newId(),
    subject: cameraSubject(cameraId),
    quantity: benchQuantity(item.id),
    value: seen || 'yes',
    how: 'confirmed',
    takenAt: stamp.at,
    source: by,
  });
  return { site: { ...same, evidence: [...site.evidence, evidence] }, log };
}
