import { assumed } from '../../assumptions/assumptions.ts';
import { isWorse } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Link } from '../../document/chapters/links/link.ts';
import { cameraSubject, destinationSubject } from '../../document/subject.ts';
import type { Facts } from '../../findings/rule.ts';
import type { LinkLoad, SiteLinks } from '../../site/links.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { FactsDraft, PowerFacts } from './power-facts.ts';

type NameAt = (subject: string) => string;

const isFuller = (load: LinkLoad, than: LinkLoad): boolean => load.verdict === than.verdict && load.share > than.share;

const isOverAir = ({ medium }: Link): boolean => medium === 'wifi';

/** The radio link of a camera: what arrives there, and how full its channel is. */
export function airFacts(view: SiteView, links: SiteLinks, camera: Camera, nameAt: NameAt): Facts<PowerFacts> {
  const facts: FactsDraft = {};
  const subject = cameraSubject(camera.id);
  const link = view.linksTo(subject).find(isOverAir) ?? view.linksFrom(subject).find(isOverAir);
  if (!link) return facts;
  const { assumptions } = view.site;
  const model = view.modelOf(camera);
  const apSubject = link.from === subject ? link.to : link.from;
  const ap = view.gearAt(apSubject);
  if (ap?.kind !== 'access-point') return facts;
  const state = links.radio(link);
  facts.accessPoint = ap.name;
  facts.band = ap.band;
  if (model && (model.wired !== null || model.bands.length > 0)) facts.bandsOffered = model.bands;
  facts.rssiDbm = state.rssiDbm ?? undefined;
  facts.rssiIsMeasured = state.how === 'measured';
  facts.signalOk = assumed(assumptions, 'air.signal-ok');
  facts.signalTight = assumed(assumptions, 'air.signal-tight');
  if (state.rssiDbm !== null)
    facts.signalPath =
      state.how === 'measured' || !state.estimate
        ? 'measured there'
        : `${state.estimate.distanceM.toFixed(0)} m and ${wallWords(state.estimate.walls)}`;
  facts.airtime = links.airtimeOf(apSubject);
  facts.airVerdict = links.airVerdictOf(apSubject);
  facts.airtimeOk = assumed(assumptions, 'air.airtime-ok');
  facts.airtimeTight = assumed(assumptions, 'air.airtime-tight');
  facts.airtimeSharers = links
    .airOf(apSubject)
    .filter(({ link: other }) => other !== link && links.load(other).mbps > 0)
    .map(({ station }) => nameAt(station));
  return facts;
}

/** The fullest wire on the way to any destination, and destinations that no link leads to. */
export function wireFacts(view: SiteView, links: SiteLinks, camera: Camera, nameAt: NameAt): Facts<PowerFacts> {
  const facts: FactsDraft = {};
  const { assumptions } = view.site;
  const draws = links.drawsFrom(camera.id);
  facts.isDrawn = draws.length > 0;
  if (view.site.links.length === 0) return facts;
  const unjoined = new Set<string>();
  let fullest: LinkLoad | null = null;
  facts.crossesPowerline = false;
  for (const draw of draws) {
    const { path } = draw;
    if (!path) unjoined.add(nameAt(destinationSubject(draw.destinationId)));
    for (const link of path ?? []) {
      if (link.medium === 'wifi') continue;
      if (link.medium === 'powerline') facts.crossesPowerline = true;
      const load = links.load(link);
      if (!fullest || isWorse(load.verdict, fullest.verdict) || isFuller(load, fullest)) fullest = load;
    }
  }
  facts.unjoined = [...unjoined];
  if (!fullest) return facts;
  facts.wire = `${nameAt(fullest.link.from)} to ${nameAt(fullest.link.to)}`;
  facts.wireMbps = fullest.mediumMbps;
  facts.wireVerdict = fullest.verdict;
  facts.wireUnknown = fullest.mediumUnknown;
  facts.isWireShared = fullest.link.medium === 'powerline' && links.powerlines().length > 1;
  facts.wireCapacityMbps = fullest.capacityMbps;
  facts.wireOk = assumed(assumptions, 'link.ok');
  facts.wireTight = assumed(assumptions, 'link.tight');
  return facts;
}

function wallWords(walls: readonly { readonly material: string }[]): string {
  if (walls.length === 0) return 'no wall between';
  const counts = new Map<string, number>();
  for (const { material } of walls) counts.set(material, (counts.get(material) ?? 0) + 1);
  return [...counts].map(([material, count]) => `${count} × ${material}`).join(', ');
}
