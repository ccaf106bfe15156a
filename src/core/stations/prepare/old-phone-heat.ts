import { assumed } from '../../assumptions/assumptions.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { HandQuantity } from '../../document/chapters/journal/hand-quantities.ts';
import { cameraSubject } from '../../document/subject.ts';
import { factsOf, lastFact } from '../../evidence/evidence-index.ts';
import {
  type HeatRun,
  heatOf,
  heatRun,
  heatRunAt,
  heatScale,
  isHeatedElsewhere,
  MOUNTS,
  type OldPhoneBody,
  type OldPhoneLoad,
  scaledBy,
} from '../../old-phone/heat.ts';
import type { SiteView } from '../../site/site-view.ts';

/** Thermal figures as the site assumes them. */
const bodyOf = ({ site: { assumptions } }: Pick<SiteView, 'site'>): OldPhoneBody => ({
  kelvinPerWatt: {
    open: assumed(assumptions, 'handset.open'),
    metal: assumed(assumptions, 'handset.metal'),
    closed: assumed(assumptions, 'handset.closed'),
  },
  joulePerKelvin: assumed(assumptions, 'handset.capacity'),
});

/** What a handset does, from its largest stream in use and how it is kept; `null` while its size is not known. */
export function loadOf(camera: Camera, view: SiteView): OldPhoneLoad | null {
  const sized = camera.streams.flatMap((stream) => {
    const { width, height, fps } = view.factsOf(stream);
    // frames as planned: a warm handset gives fewer, and is warm for those that it was told to give
    const planned = stream.fps ?? fps?.value;
    return width && height && planned ? [{ widthPx: width.value, heightPx: height.value, fps: planned }] : [];
  });
  const [largest] = sized.toSorted((a, b) => b.widthPx * b.heightPx * b.fps - a.widthPx * a.heightPx * a.fps);
  const screen = camera.handset?.screen;
  if (!largest || !screen) return null;
  const limit = camera.feed?.charge?.limitPercent ?? null;
  return { ...largest, screen, isChargeLimited: limit !== null && limit < 100 };
}

/** What a reading of its battery is taken under: without it a warmth says nothing of another load. */
export function readingUnder(camera: Camera, view: SiteView) {
  const { mount = null, roomC = null } = camera.handset ?? {};
  const load = loadOf(camera, view);
  if (mount === null || roomC === null || !load) return [];
  return [
    { quantity: 'under.watts', value: Number(heatOf(load).toFixed(3)) },
    { quantity: 'under.mount', value: mount },
    { quantity: 'under.roomC', value: roomC },
  ] as const;
}

interface BodyRead {
  readonly body: OldPhoneBody;
  readonly isRead: boolean;
  /** It was warmer than its own watts can make it. */
  readonly isHeatedElsewhere: boolean;
}

/** How heat leaves this very handset: as assumed, or as it was seen to by the last reading that tells what it was taken under. */
export function bodyAsRead(camera: Camera, view: SiteView): BodyRead {
  const body = bodyOf(view);
  const subject = cameraSubject(camera.id);
  const read = lastFact(view.index, subject, 'batteryC');
  const then = (quantity: HandQuantity) =>
    factsOf(view.index, subject, quantity).findLast(({ takenAt }) => takenAt === read?.takenAt)?.value;
  const [watts, mount, roomC] = [then('under.watts'), then('under.mount'), then('under.roomC')];
  const place = MOUNTS.find((one) => one === mount);
  if (typeof read?.value !== 'number' || typeof watts !== 'number' || typeof roomC !== 'number' || !place)
    return { body, isRead: false, isHeatedElsewhere: false };
  const run = heatRunAt(watts, roomC, place, body);
  const scale = heatScale(run, roomC, read.value);
  return scale === null
    ? { body, isRead: false, isHeatedElsewhere: isHeatedElsewhere(run, roomC, read.value) }
    : { body: scaledBy(body, scale), isRead: true, isHeatedElsewhere: false };
}

/** How warm it gets; held to what was read after an hour, where somebody read it. */
export function heatOfOldPhone(
  camera: Camera,
  view: SiteView,
): { readonly run: HeatRun; readonly isRead: boolean; readonly isHeatedElsewhere: boolean } | null {
  const { mount = null, roomC = null } = camera.handset ?? {};
  const load = loadOf(camera, view);
  if (mount === null || roomC === null || !load) return null;
  const { body, ...read } = bodyAsRead(camera, view);
  return { run: heatRun(load, roomC, mount, body), ...read };
}
