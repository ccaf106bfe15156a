import { weakMapMemoize } from 'reselect';
import { pushTo } from '../base/push-to.ts';
import type { TapUse } from '../base/tap-uses.ts';
import { kilobits } from '../base/units.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { KnownHow } from '../document/chapters/journal/entry.ts';
import type { Link } from '../document/chapters/links/link.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { cameraSubject, destinationSubject } from '../document/subject.ts';
import type { Known } from '../evidence/best-known.ts';
import { modelledRate } from '../video/bitrate-model.ts';
import type { SiteView } from './site-view.ts';

/** One destination drawing from one camera, tapped or still meant to be. */
export interface Draw {
  readonly cameraId: string;
  readonly destinationId: string;
  readonly use: TapUse;
  /** Of the stream, as it is known everywhere; `null` when it is not. */
  readonly kbps: number | null;
  /** The same as it crosses a wire, headers counted. */
  readonly mbps: number | null;
  readonly how: KnownHow | null;
  /** Links from the camera to the destination; `null` when they are not joined. */
  readonly path: readonly Link[] | null;
}

/** RTP interleaved in TCP on Ethernet against its payload. Source: header sizes of RFC 791, 9293, 3550, 2326 §10.12. */
const WIRE_FACTOR = 1.074;
const toMbps = (kbps: number): number => (kbps * WIRE_FACTOR) / 1000;

/** What every camera is drawn for: by its taps, and where one is not made yet, as its need says and its model would give. */
export function drawsOf(view: SiteView): readonly Draw[] {
  const draws: Draw[] = [];
  const { site, factsOf } = view;
  const { links } = site;
  const streams = new Map(site.cameras.flatMap(({ streams }) => streams.map((stream) => [stream.id, stream] as const)));
  for (const { cameraId, destinationId, use, streamId } of site.taps) {
    const stream = streams.get(streamId);
    const rate = stream ? factsOf(stream).bitrateKbps : null;
    draws.push({ cameraId, destinationId, use, ...drawn(rate), path: pathOf(links, cameraId, destinationId) });
  }
  for (const camera of site.cameras) {
    const { id: cameraId, need } = camera;
    if (!need) continue;
    const taps = view.tapsOf(cameraId);
    for (const { destinationId, use } of need.draws) {
      if (taps.some((tap) => tap.destinationId === destinationId && tap.use === use)) continue;
      const takes = view.destination(destinationId)?.codecs ?? [];
      const model = view.modelOf(camera);
      const rate = rateOfStreams(camera, model, factsOf, use) ?? plannedRate(model, use, takes);
      const path = pathOf(links, cameraId, destinationId);
      draws.push({ cameraId, destinationId, use, ...drawn(rate), path });
    }
  }
  return draws;
}

type Rate = Pick<Known<number>, 'value' | 'how'>;

const drawn = (rate: Rate | null): Pick<Draw, 'kbps' | 'mbps' | 'how'> => ({
  kbps: rate?.value ?? null,
  mbps: rate && toMbps(rate.value),
  how: rate?.how ?? null,
});

const IS_SMALL: ReadonlySet<TapUse> = new Set(['live', 'detect']);

/**
 * The rate of the stream that would be drawn, as it was measured or planned: the first one to record, the leanest one to
 * watch. Where only one is known and the card has a smaller one, that is not the one that is watched.
 */
function rateOfStreams(
  camera: Camera,
  model: Model | undefined,
  factsOf: SiteView['factsOf'],
  use: TapUse,
): Rate | null {
  const [main] = camera.streams;
  if (!IS_SMALL.has(use)) return main ? factsOf(main).bitrateKbps : null;
  const known = camera.streams.flatMap((stream) => factsOf(stream).bitrateKbps ?? []);
  if (known.length < 2 && (model?.subs?.length ?? 0) > 0) return null;
  return known.toSorted((a, b) => a.value - b.value)[0] ?? null;
}

function plannedRate(model: Model | undefined, use: TapUse, takes: readonly string[]): Rate | null {
  const value = plannedKbps(model, use, takes);
  return value === null ? null : { value, how: 'assumed' };
}

/** [A] As most cameras are delivered, where the card does not say. */
const USUAL_FPS = { main: 15, sub: 10 } as const;

/** [A] A group of pictures of two seconds, as most are delivered. */
const GROUP_S = 2;

/** The first of its codecs that the destination takes; one that takes none of them gets the first, and is told so at Choose. */
const codecFor = (codecs: readonly string[], takes: readonly string[]): string | undefined =>
  codecs.find((codec) => takes.length === 0 || takes.includes(codec)) ?? codecs[0];

/** A camera that takes a seat for each of its lenses gives a stream for each; else its first lens stands for the picture. */
function plannedKbps(model: Model | undefined, use: TapUse, takes: readonly string[]): number | null {
  const [first] = model?.lenses ?? [];
  if (!model || !first) return null;
  const lenses = model.seats >= model.lenses.length ? model.lenses : [first];
  const sub = use === 'live' || use === 'detect' ? model.subs?.[0] : undefined;
  let kbps = 0;
  for (const lens of lenses) {
    const { widthPx: width, heightPx: height } = sub ?? lens;
    const codec = codecFor((sub ?? model).codecs, takes) ?? 'H264';
    const fps = (sub ?? model).fps ?? USUAL_FPS[sub ? 'sub' : 'main'];
    if (width === null || height === null) return null;
    const rate = modelledRate({ codec, width, height, fps, gopFrames: Math.round(fps * GROUP_S) });
    if (rate === null) return null;
    kbps += rate / kilobits(1);
  }
  return kbps;
}

const CARRIES_DATA: ReadonlySet<string> = new Set(['network-cable', 'wifi', 'powerline', 'fibre']);

/** From every thing of the site the next link towards one destination. */
interface Tree {
  readonly steps: ReadonlyMap<string, { readonly link: Link; readonly next: string }>;
  /** Ways that were asked for, from their start. */
  readonly paths: Map<string, readonly Link[] | null>;
}

/** By the list of links: a list that is the same object has the same trees. */
const treeTo = weakMapMemoize((links: readonly Link[], destination: string): Tree => {
  const neighbours = new Map<string, { link: Link; other: string }[]>();
  for (const link of links) {
    if (!CARRIES_DATA.has(link.medium)) continue;
    for (const [here, other] of [
      [link.from, link.to],
      [link.to, link.from],
    ] as const) {
      pushTo(neighbours, here, { link, other });
    }
  }
  const steps = new Map<string, { link: Link; next: string }>();
  const queue = [destination];
  for (let at = 0; at < queue.length; at++) {
    const here = queue[at] ?? '';
    for (const { link, other } of neighbours.get(here) ?? []) {
      if (other === destination || steps.has(other)) continue;
      steps.set(other, { link, next: here });
      queue.push(other);
    }
  }
  return { steps, paths: new Map() };
});

/** Links that a picture crosses from a camera to a destination, camera first; `null` when they are not joined. */
export function pathOf(links: readonly Link[], cameraId: string, destinationId: string): readonly Link[] | null {
  const end = destinationSubject(destinationId);
  const { steps, paths } = treeTo(links, end);
  const start = cameraSubject(cameraId);
  const kept = paths.get(start);
  if (kept !== undefined) return kept;
  const path: Link[] = [];
  let here = start;
  while (here !== end) {
    const step = steps.get(here);
    if (!step) {
      paths.set(start, null);
      return null;
    }
    path.push(step.link);
    here = step.next;
  }
  paths.set(start, path);
  return path;
}
