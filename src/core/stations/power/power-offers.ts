import { POWER_WAY_WORDS } from '../../base/ways.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import { UNMEASURED_LINK } from '../../document/chapters/links/link-fields.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { cameraSubject, destinationSubject, gearSubject } from '../../document/subject.ts';
import { nameOfSubject } from '../../document/subjects.ts';
import type { Mend } from '../../findings/finding.ts';
import { sunMends } from '../../power/sun-mends.ts';
import { lengthOf } from '../../site/link-length.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { PowerOffers } from './power-facts.ts';
import type { PowerJudge } from './power-judgement.ts';
import { feedBudget, feedsIn, poeDemand, runNumbers, WIRE_SIZES_MM2 } from './power-numbers.ts';

type Mends = readonly Mend<SiteCommand>[];

/** [A] Held there, a cell lasts. */
const CHARGE_LIMIT_PERCENT = 80;

/** A cable that now comes from other gear: it keeps its kind and its length; its drawn way is another one then. */
export const movedTo = (link: Link, gearId: string): Link => ({
  ...link,
  from: gearSubject(gearId),
  route: null,
  lengthM: link.route ? Number((lengthOf(link, () => null, {})?.lengthM ?? 0).toFixed(1)) : link.lengthM,
});

/** W that stay free on a switch when this camera hangs on it too; `null` where it has no room, or nobody knows. */
function roomFor(
  { site }: SiteView,
  judge: PowerJudge,
  gear: Extract<Gear, { kind: 'switch' }>,
  camera: Camera,
  link: Link,
): number | null {
  const model = judge.modelOf(camera);
  const { fed } = judge.budgetOf(gear);
  if (!model || fed.length >= gear.poePorts) return null;
  // What it asks of this very switch: another type grants it another class.
  const { headroomW, isWhole, starved, perhapsStarved } = feedBudget(
    gear,
    [...fed, { link: judge.links.sized(link), demand: poeDemand(model) }],
    site.assumptions,
  );
  return isWhole && headroomW >= 0 && !starved.has(fed.length) && !perhapsStarved.has(fed.length) ? headroomW : null;
}

export function powerOffers(view: SiteView, judge: PowerJudge, camera: Camera): PowerOffers {
  const { site } = view;
  const { feed } = camera;
  const judgement = judge.judge(camera);
  const { feedLink, feeder } = judgement;
  const subject = cameraSubject(camera.id);
  const put = (text: string, link: Link): Mend<SiteCommand> => ({ text, command: { kind: 'putLink', link } });
  const ofLink = (change: (link: Link) => Mend<SiteCommand> | null): Mends => {
    const mend = feedLink && change(feedLink);
    return mend ? [mend] : [];
  };
  return {
    ways: () =>
      (judge.modelOf(camera)?.power.ways ?? [])
        .filter((way) => way !== feed?.way && way !== 'solar') // a panel has figures that nobody entered
        .map((way) => ({
          text: `Power it by ${POWER_WAY_WORDS[way]}`,
          command: { kind: 'setFeed', cameraId: camera.id, feed: { sun: null, charge: null, ...feed, way } },
        })),
    feeders: () => {
      if (!feedLink || !feed) return [];
      const others = site.gear.filter((gear) => gear.id !== feeder?.id && feedsIn(feed.way, gear));
      const offers = others.flatMap((gear): { readonly room: number; readonly mend: Mend<SiteCommand> }[] => {
        const link = movedTo(feedLink, gear.id);
        if (gear.kind !== 'switch') return [{ room: 0, mend: put(`Move it to ${gear.name}`, link) }];
        const room = roomFor(view, judge, gear, camera, link);
        return room === null
          ? []
          : [{ room, mend: put(`Move it to ${gear.name}: ${room.toFixed(1)} W stay free`, link) }];
      });
      return offers.sort((a, b) => b.room - a.room).map(({ mend }) => mend);
    },
    thickerWire: () =>
      ofLink((link) => {
        const model = judge.modelOf(camera);
        if (link.medium !== 'pair' || feeder?.kind !== 'supply' || !model) return null;
        const areaMm2 = WIRE_SIZES_MM2.find(
          (size) =>
            size > (link.areaMm2 ?? 0) &&
            runNumbers(feeder, { ...judge.links.sized(link), areaMm2: size }, model, site.assumptions)?.verdict ===
              'ok',
        );
        return areaMm2 === undefined ? null : put(`Take ${areaMm2} mm² for the run`, { ...link, areaMm2 });
      }),
    solidCopper: () => ofLink((link) => put('Take solid copper', { ...link, isCopperClad: false })),
    sun: () => {
      const { sunInput } = judgement;
      if (!feed || !sunInput) return [];
      return sunMends(sunInput, judge.tappedHours(camera) !== null).map(({ text, sun }) => ({
        text,
        command: { kind: 'setFeed', cameraId: camera.id, feed: { ...feed, sun } },
      }));
    },
    chargeLimit: () =>
      feed
        ? [
            {
              text: `Limit its charge to ${CHARGE_LIMIT_PERCENT} %`,
              command: {
                kind: 'setFeed',
                cameraId: camera.id,
                feed: { ...feed, charge: { limitPercent: CHARGE_LIMIT_PERCENT } },
              },
            },
          ]
        : [],
    accessPoints: () => {
      const bands = judge.modelOf(camera)?.bands ?? [];
      const link = site.links.find(({ medium, from, to }) => medium === 'wifi' && (from === subject || to === subject));
      if (!link) return [];
      const present = link.from === subject ? link.to : link.from;
      return site.gear.flatMap((gear) =>
        gear.kind === 'access-point' && gearSubject(gear.id) !== present && bands.includes(gear.band)
          ? put(`Link it to ${gear.name}`, {
              ...link,
              from: gearSubject(gear.id),
              to: subject,
              route: null,
            })
          : [],
      );
    },
    joins: () => {
      const joined = site.links.flatMap(({ from, to }) => (from === subject ? to : to === subject ? from : []));
      const hubs = joined.filter(
        (end) =>
          end.startsWith('gear:') && site.gear.some(({ id, kind }) => gearSubject(id) === end && kind !== 'supply'),
      );
      const lost = new Set(
        judge.links.drawsFrom(camera.id).flatMap(({ path, destinationId }) => (path ? [] : destinationId)),
      );
      // One command joins one: where several are lost, none alone would take the finding away.
      const [destinationId] = lost.size === 1 ? lost : [];
      if (destinationId === undefined) return [];
      const to = destinationSubject(destinationId);
      return hubs.map((from) =>
        put(`Link ${nameOfSubject(site, to)} to ${nameOfSubject(site, from)}`, {
          id: freeLinkId(site.links),
          from,
          to,
          medium: 'network-cable',
          ...UNMEASURED_LINK,
        }),
      );
    },
  };
}

/** An id that no link has: commands of a mend are made without randomness. */
function freeLinkId(links: readonly Link[]): string {
  const taken = new Set(links.map(({ id }) => id));
  let at = links.length + 1;
  while (taken.has(`link-${at}`)) at += 1;
  return `link-${at}`;
}
