import { assumed } from '../assumptions/assumptions.ts';
import type { Point } from '../base/plan-geometry.ts';
import { pushTo } from '../base/push-to.ts';
import { atMost, type Verdict } from '../base/verdict.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Gear } from '../document/chapters/gear/gear.ts';
import type { KnownHow } from '../document/chapters/journal/entry.ts';
import type { Link } from '../document/chapters/links/link.ts';
import type { Site } from '../document/site.ts';
import { airSubject, cameraSubject, gearSubject } from '../document/subject.ts';
import { thingsOf } from '../document/subjects.ts';
import { bestKnown } from '../evidence/best-known.ts';
import { airtimeShare, estimateSignal, type SignalEstimate, sharesAir } from '../radio/radio.ts';
import { radioKind, slowerOf } from '../radio/radio-kinds.ts';
import { type Draw, drawsOf } from './draws.ts';
import { lengthOf } from './link-length.ts';
import type { SiteView } from './site-view.ts';

/** What one link carries, and what it could. */
export interface LinkLoad {
  readonly link: Link;
  readonly mbps: number;
  /** Draws on it whose rate nobody knows: the load is at least what it says. */
  readonly unknown: number;
  /** The same of all that takes of its capacity. */
  readonly mediumUnknown: number;
  /** 0 where nobody knows it: a powerline without plugs. */
  readonly capacityMbps: number;
  /** What takes of its capacity: on a medium that is shared, all that others send there too, as this link counts it. */
  readonly mediumMbps: number;
  /** Of what it could carry; `Infinity` where that is nothing. */
  readonly share: number;
  /** Not known while a rate, a signal or the speed of plugs is missing, unless what is known decides it. */
  readonly verdict: Verdict;
}

/** One radio link on the channel of an access point. */
export interface AirShare {
  readonly link: Link;
  /** What talks over it: the end that is not this access point, or not the one that shares its channel. */
  readonly station: string;
  readonly share: number;
}

/** How a radio link fares: what arrives, and how fast it then talks. */
export interface RadioState {
  readonly link: Link;
  readonly rssiDbm: number | null;
  readonly how: KnownHow;
  readonly estimate: SignalEstimate | null;
  readonly phyMbps: number;
  readonly efficiency: number;
}

const AIR_LIMITS = ['air.airtime-ok', 'air.airtime-tight'] as const;
const WIRE_LIMITS = ['link.ok', 'link.tight'] as const;

/** [A] A camera's own port; what no card says faster. */
const CAMERA_PORT_MBPS = 100;

type AccessPoint = Extract<Gear, { kind: 'access-point' }>;

/** Loads and airtime of one document. */
export class SiteLinks {
  private readonly draws = new Map<string, Draw[]>();
  private readonly radioLinks = new Map<string, Link[]>();
  private readonly loads = new Map<Link, { mbps: number; unknown: number }>();
  private readonly worked = new Map<Link, LinkLoad>();
  private readonly site: Site;
  private readonly airs = new Map<string, readonly AirShare[]>();
  private readonly radios = new Map<Link, RadioState>();
  private positions: ReadonlyMap<string, Point | null> | null = null;
  private mains: readonly Link[] | null = null;
  private readonly cables = new Map<string, number>();

  constructor(private readonly view: SiteView) {
    const { site } = view;
    this.site = site;
    for (const link of site.links)
      for (const end of [link.from, link.to]) {
        if (link.medium === 'wifi') pushTo(this.radioLinks, end, link);
        if (link.medium === 'network-cable') this.cables.set(end, (this.cables.get(end) ?? 0) + 1);
      }
    for (const draw of drawsOf(view)) {
      pushTo(this.draws, draw.cameraId, draw);
      for (const link of draw.path ?? []) {
        const load = this.loads.get(link);
        if (!load) this.loads.set(link, { mbps: draw.mbps ?? 0, unknown: draw.mbps === null ? 1 : 0 });
        else if (draw.mbps === null) load.unknown += 1;
        else load.mbps += draw.mbps;
      }
    }
  }

  drawsFrom(cameraId: string): readonly Draw[] {
    return this.draws.get(cameraId) ?? [];
  }

  /** All draws that cross a link. */
  drawsOn(link: Link): readonly Draw[] {
    return [...this.draws.values()].flat().filter(({ path }) => path?.includes(link));
  }

  /** Network cables that end at a thing. */
  cablesAt(subject: string): number {
    return this.cables.get(subject) ?? 0;
  }

  load(link: Link): LinkLoad {
    const kept = this.worked.get(link);
    if (kept) return kept;
    const { mbps = 0, unknown = 0 } = this.loads.get(link) ?? {};
    const capacityMbps = this.capacityMbps(link);
    // Powerline is one shared medium: what other plugs send takes of the same time.
    const shared = link.medium === 'powerline' ? this.powerlines() : [link];
    const share = sumOf(shared, (one) => this.shareOf(one));
    const unknownOnIt = sumOf(shared, (one) => this.loads.get(one)?.unknown ?? 0);
    const load = {
      link,
      mbps,
      unknown,
      mediumUnknown: unknownOnIt,
      capacityMbps,
      mediumMbps: shared.length > 1 && Number.isFinite(share) ? share * capacityMbps : mbps,
      share,
      verdict: this.isSpeedKnown(link)
        ? this.judgeShare(link.medium, share, unknownOnIt === 0 ? 0 : unknownOnIt / capacityMbps)
        : this.carriesAny(link)
          ? 'unknown'
          : 'ok',
    } as const;
    this.worked.set(link, load);
    return load;
  }

  /** How fast radio talks follows from its signal, powerline from its plugs; of a wire it is assumed. */
  private isSpeedKnown(link: Link): boolean {
    if (link.capacityMbps !== null) return true;
    if (link.medium === 'wifi') return this.radio(link).rssiDbm !== null;
    return link.medium !== 'powerline' || this.capacityMbps(link) > 0;
  }

  private carriesAny(link: Link): boolean {
    const load = this.loads.get(link);
    return load !== undefined && (load.mbps > 0 || load.unknown > 0);
  }

  private shareOf(link: Link): number {
    const mbps = this.loads.get(link)?.mbps ?? 0;
    const capacityMbps = this.capacityMbps(link);
    return capacityMbps > 0 ? mbps / capacityMbps : mbps > 0 ? Number.POSITIVE_INFINITY : 0;
  }

  /** [A] All plugs of a site count as on one mains network: which are not, nobody sees from outside. */
  powerlines(): readonly Link[] {
    this.mains ??= this.site.links.filter(({ medium }) => medium === 'powerline');
    return this.mains;
  }

  /**
   * What is known decides where it is too much already, or where it holds even if each unknown stream is a large one.
   * @param unknownPerMbps share that an unknown Mbit/s of each of them would take
   */
  private judgeShare(medium: Link['medium'], share: number, unknownPerMbps: number): Verdict {
    const { assumptions } = this.site;
    const [ok, tight] = medium === 'wifi' ? AIR_LIMITS : WIRE_LIMITS;
    const limits = [assumed(assumptions, ok), assumed(assumptions, tight)] as const;
    const known = atMost(share, ...limits);
    if (unknownPerMbps === 0 || known === 'will-not-work') return known;
    const atWorst = atMost(share + unknownPerMbps * assumed(assumptions, 'link.unknown-stream'), ...limits);
    return atWorst === known ? known : 'unknown';
  }

  private capacityMbps(link: Link): number {
    if (link.capacityMbps !== null) return link.capacityMbps;
    const ends = [this.view.gearAt(link.from), this.view.gearAt(link.to)];
    if (link.medium === 'powerline') {
      const syncs = ends.flatMap((gear) => (gear?.kind === 'powerline' ? [gear.syncMbps] : []));
      return syncs.length > 0 ? Math.min(...syncs) * assumed(this.site.assumptions, 'air.powerline') : 0;
    }
    if (link.medium === 'wifi') {
      const { phyMbps, efficiency } = this.radio(link);
      return phyMbps * efficiency;
    }
    if (link.from.startsWith('camera:') || link.to.startsWith('camera:')) return CAMERA_PORT_MBPS;
    const uplinks = ends.flatMap((gear) => (gear?.kind === 'switch' ? [gear.uplinkMbps] : []));
    return uplinks.length > 0 ? Math.min(...uplinks) : 1000;
  }

  /** A measured signal counts; else what distance and walls of the plan leave of it. */
  radio(link: Link): RadioState {
    const kept = this.radios.get(link);
    if (kept) return kept;
    const state = this.hear(link);
    this.radios.set(link, state);
    return state;
  }

  private cameraOn({ from, to }: Link): Camera | undefined {
    const prefix = cameraSubject('');
    const subject = [from, to].find((end) => end.startsWith(prefix));
    return subject === undefined ? undefined : this.view.camera(subject.slice(prefix.length));
  }

  private hear(link: Link): RadioState {
    const ap = [this.view.gearAt(link.from), this.view.gearAt(link.to)].find((gear) => gear?.kind === 'access-point');
    const camera = this.cameraOn(link);
    const model = camera && this.view.modelOf(camera);
    const point = ap?.kind === 'access-point' ? radioKind(ap.radio) : undefined;
    const kind = slowerOf(point, model?.radio ? radioKind(model.radio) : undefined);
    const [from, to] = [this.positionOf(link.from), this.positionOf(link.to)];
    const { plan, assumptions } = this.site;
    const estimate =
      ap?.kind === 'access-point' && from && to ? estimateSignal(ap, from, to, plan.walls, assumptions) : null;
    const read = this.signalRead(link);
    const heard = read ?? estimate?.rssiDbm ?? null;
    // what it sends back is weaker by as much as it transmits with less
    const weakerDb =
      ap?.kind === 'access-point' && model?.radioDbm != null ? Math.max(0, ap.eirpDbm - model.radioDbm) : 0;
    const rssiDbm = heard === null ? null : heard - weakerDb;
    const isAtEdge = rssiDbm !== null && rssiDbm < assumed(assumptions, 'air.signal-ok');
    return {
      link,
      rssiDbm,
      how: read !== null ? 'measured' : 'assumed',
      estimate,
      phyMbps: (isAtEdge ? kind?.edgePhyMbps : kind?.phyMbps) ?? 0,
      efficiency: kind?.efficiency ?? 0,
    };
  }

  /** dBm, as somebody read it at the place of the thing that an access point reaches; `null` where nobody did. */
  signalRead(link: Link): number | null {
    const isPoint = this.view.gearAt(link.from)?.kind === 'access-point';
    const [point, end] = isPoint ? [link.from, link.to] : [link.to, link.from];
    const known = bestKnown(this.view.index, airSubject(point, end), 'signalDbm')?.value;
    return typeof known === 'number' ? known : null;
  }

  /** The link with its length as far as it is known; nothing else of its way counts. */
  sized(link: Link): Link {
    return {
      ...link,
      lengthM: lengthOf(link, this.positionOfAny, this.site.assumptions)?.lengthM ?? null,
      route: null,
    };
  }

  private readonly positionOfAny = (subject: string): Point | null => this.positionOf(subject);

  positionOf(subject: string): Point | null {
    this.positions ??= new Map(thingsOf(this.site).map((thing) => [thing.subject, thing.item.position]));
    return this.positions.get(subject) ?? null;
  }

  /** All that talks on the channel of an access point: its own stations, those of others on it, and hops between them. */
  airOf(apSubject: string): readonly AirShare[] {
    const kept = this.airs.get(apSubject);
    if (kept) return kept;
    const found = new Map<Link, AirShare>();
    for (const point of [apSubject, ...this.onSameChannel(apSubject)])
      for (const link of this.radioLinks.get(point) ?? [])
        if (!found.has(link))
          found.set(link, { link, station: link.from === point ? link.to : link.from, share: this.airtimeOn(link) });
    const air = [...found.values()];
    this.airs.set(apSubject, air);
    return air;
  }

  private get points(): readonly (readonly [string, AccessPoint])[] {
    return this.site.gear.flatMap((gear) =>
      gear.kind === 'access-point' ? [[gearSubject(gear.id), gear] as const] : [],
    );
  }

  /** Other access points whose channel shares air with its own; where a channel is not said, none. */
  onSameChannel(apSubject: string): readonly string[] {
    const own = this.view.gearAt(apSubject);
    if (own?.kind !== 'access-point') return [];
    return this.points.flatMap(([subject, gear]) => (subject !== apSubject && sharesAir(own, gear) ? [subject] : []));
  }

  /** Share of its channel's time that all links on it take together. */
  airtimeOf(apSubject: string): number {
    return sumOf(this.airOf(apSubject), ({ share }) => share);
  }

  /** Others of its band that may share its air: of one of the two nobody looked at the channel. */
  private perhapsOnChannel(apSubject: string): readonly string[] {
    const own = this.view.gearAt(apSubject);
    if (own?.kind !== 'access-point') return [];
    return this.points.flatMap(([subject, gear]) =>
      subject !== apSubject && gear.band === own.band && (gear.channel === null || own.channel === null)
        ? [subject]
        : [],
    );
  }

  /** On an access point's channel; not known while a rate, a signal or a channel is missing, unless what is known decides it. */
  airVerdictOf(apSubject: string): Verdict {
    const air = this.airOf(apSubject);
    const share = this.airtimeOf(apSubject);
    const beside = this.perhapsOnChannel(apSubject).flatMap((point) => this.radioLinks.get(point) ?? []);
    const mostShare = share + sumOf(beside, (link) => this.airtimeOn(link));
    const isUnheard = air.some(({ link }) => !this.isSpeedKnown(link) && this.carriesAny(link));
    const unknownPerMbps = sumOf(air, ({ link }) => {
      const unknown = this.loads.get(link)?.unknown ?? 0;
      return unknown === 0 ? 0 : unknown / this.capacityMbps(link);
    });
    const verdict = this.judgeShare('wifi', share, unknownPerMbps);
    if (verdict === 'will-not-work') return verdict;
    return isUnheard || this.judgeShare('wifi', mostShare, unknownPerMbps) !== verdict ? 'unknown' : verdict;
  }

  airtimeOn(link: Link): number {
    const { phyMbps, efficiency } = this.radio(link);
    const { mbps } = this.load(link);
    return mbps === 0 ? 0 : phyMbps === 0 ? Number.POSITIVE_INFINITY : airtimeShare(mbps, phyMbps, efficiency);
  }
}

function sumOf<T>(items: readonly T[], part: (item: T) => number): number {
  let sum = 0;
  for (const item of items) sum += part(item);
  return sum;
}
