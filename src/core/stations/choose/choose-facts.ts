import { assumed, type ChangedAssumptions } from '../../assumptions/assumptions.ts';
import { merged } from '../../base/merged.ts';
import type { TapUse } from '../../base/tap-uses.ts';
import type { PowerWay } from '../../base/ways.ts';
import { energyOfYear, yearsAsPricesRise } from '../../cost/total-cost.ts';
import type { Mounting } from '../../document/chapters/cameras/mounting.ts';
import type { Need } from '../../document/chapters/cameras/need.ts';
import type { Costing } from '../../document/chapters/costing/costing.ts';
import type { Destination } from '../../document/chapters/destinations/destination.ts';
import type { LightKind, LocalStream, Model, Sound } from '../../document/chapters/models/model-card.ts';
import { nameOfModel } from '../../document/chapters/models/model-name.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import type { Facts } from '../../findings/rule.ts';
import type { DetailLevel } from '../../optics/detail-levels.ts';
import { pxPerMOf } from '../../optics/detail-levels.ts';
import type { Lens } from '../../optics/lens.ts';
import { infraredRange } from '../../optics/picture-geometry.ts';
import { serveBest, usualMounting, zoneFromM } from '../../site/needs.ts';
import { modelAsSeen, type SeenStream } from './seen-stream.ts';

/** What is asked of a camera for one place, and what a model answers. */
export interface ChooseFacts {
  readonly model: string;
  readonly distanceM: number;
  readonly level: DetailLevel;
  readonly wantedPxPerM: number;
  /** Where the zone has least. */
  readonly pxPerM: number;
  /** That is at its edge, not in its middle. */
  readonly isLowestAtEdge: boolean;
  readonly charHeightMm: number;
  readonly textPxPerM: number;
  readonly depressionDeg: number;
  readonly steepDeg: number;
  readonly wantsFaces: boolean;
  readonly isInView: boolean;
  readonly zoneFromM: number;
  readonly seenFromM: number;
  readonly faceSeenFromM: number;
  readonly zoneWidthM: number;
  /** Of the zone, from end to end. */
  readonly zoneSeenM: number;
  readonly viewWidthM: number;
  readonly hfovDeg: number;
  /** From the left edge of what all its lenses see to the right one. */
  readonly spanDeg: number;
  /** Of the zone as seen from the camera. */
  readonly zoneSpanDeg: number;
  readonly projection: Lens['projection'];
  readonly zoom: number;
  readonly zoomRange: number;
  readonly isBeyondModel: boolean;
  readonly gapDeg: number;
  readonly atNight: boolean;
  readonly lightKind: LightKind;
  /** From the camera to what is looked at. */
  readonly slantM: number;
  /** Over dark ground. */
  readonly lightReachM: number;
  readonly lightRatedM: number;
  readonly lightAngleDeg: number;
  readonly localStream: LocalStream;
  readonly sessions: number;
  readonly sessionsWanted: number;
  readonly codecs: readonly string[];
  readonly hasSub: boolean;
  readonly wantsSub: boolean;
  /** Destinations that would draw it and take none of its streams. */
  readonly missedBy: readonly { readonly name: string; readonly takes: readonly string[] }[];
  /** Destinations that would draw it, and of which nobody entered what they take. */
  readonly silentDrawers: readonly string[];
  readonly fps: number;
  /** Of the lens that is judged. */
  readonly pictureSize: string;
  readonly outdoors: boolean;
  readonly ingress: number;
  readonly soundWanted: Sound;
  readonly sound: Sound;
  readonly turnsWanted: boolean;
  readonly panRangeDeg: number;
  readonly tiltRangeDeg: number;
  readonly ways: readonly PowerWay[];
  readonly supplyInBox: boolean;
  readonly wired: boolean;
  readonly bands: readonly string[];
  readonly cardMaxGB: number;
  readonly lostWithoutAccount: readonly string[];
  readonly allInCost: number;
  readonly costYears: number;
  readonly currency: string;
  readonly mountHeightM: number;
  /** Of its main stream, by a probe: “1280 × 720”. */
  readonly seenSize: string;
  /** The same by its card. */
  readonly cardSize: string;
  readonly givesFewerPixels: boolean;
  readonly seenCodec: string;
  readonly cardCodecs: readonly string[];
}

export interface ChooseContext {
  readonly destinations: readonly Destination[];
  readonly costing: Costing;
  readonly assumptions: ChangedAssumptions;
}

/** What energy costs over the years as its price rises. */
const energyOver = ({ years, energyPrice, priceRise }: Costing, loadW: number): number =>
  energyOfYear(loadW, energyPrice).costPerYear * yearsAsPricesRise(years, priceRise);

const known = <T>(value: T | null): T | undefined => value ?? undefined;

/**
 * Puts a need and a model card beside each other. What the card does not say is absent, never a default; what was measured
 * of the camera counts before it.
 */
export function chooseFacts(
  need: Need,
  card: Model,
  mounting: Mounting | null,
  { destinations, costing, assumptions }: ChooseContext,
  seen: SeenStream | null = null,
): Facts<ChooseFacts> {
  const model = modelAsSeen(card, seen);
  const hung = mounting ?? usualMounting(need, assumptions, card);
  const service = serveBest(model, need, hung, assumptions);
  const best = service?.best;
  const { light, power } = model;
  const meanW = power.dayW === null ? null : (power.dayW + (power.nightW ?? power.dayW)) / 2;
  const isSunFed = power.ways.length > 0 && power.ways.every((way) => way === 'solar');
  const allIn =
    model.price === null
      ? undefined
      : model.price +
        (power.supplyInBox === false ? assumed(assumptions, 'cost.supply') : 0) +
        (meanW === null || isSunFed ? 0 : energyOver(costing, meanW));
  const drawers = need.draws.flatMap(({ destinationId, use }) => {
    const destination = destinations.find(({ id }) => id === destinationId);
    return destination ? [{ destination, use }] : [];
  });
  const lightM =
    light?.reachM == null
      ? undefined
      : infraredRange(light.reachM, 1) * (need.outdoors ? assumed(assumptions, 'optics.dark-ground') : 1);
  const ofCard = {
    model: nameOfModel(model),
    distanceM: need.distanceM,
    level: known(need.level),
    wantedPxPerM: need.level ? pxPerMOf(need.level) : undefined,
    pxPerM: service?.zoneDetail.facePxPerM,
    isLowestAtEdge: service?.zoneDetail.isLowestAtEdge,
    charHeightMm: need.text?.charHeightMm,
    textPxPerM: service?.zoneDetail.textPxPerM,
    depressionDeg: best?.face.depressionDeg,
    steepDeg: assumed(assumptions, 'optics.steep'),
    wantsFaces: need.level === 'recognise' || need.level === 'identify',
    isInView: best && (need.level || !need.text ? best.face.isInView : best.text.isInView),
    zoneFromM: zoneFromM(need),
    seenFromM: service ? Math.min(...service.all.map(({ seenFromM }) => seenFromM)) : undefined,
    faceSeenFromM: service ? Math.min(...service.all.map(({ faceSeenFromM }) => faceSeenFromM)) : undefined,
    zoneWidthM: need.widthM,
    zoneSeenM: service?.zoneSeenM,
    viewWidthM: service?.widthM,
    hfovDeg: best?.view.hfovDeg,
    spanDeg: service?.spanDeg,
    zoneSpanDeg: (2 * Math.atan2(need.widthM / 2, need.distanceM) * 180) / Math.PI,
    projection: best?.view.lens.projection,
    zoom: best?.view.zoom,
    zoomRange: best && best.view.lens.focalTeleMm / best.view.lens.focalWideMm,
    isBeyondModel: service?.all.some(({ view }) => view.isBeyondModel),
    gapDeg: service?.gapDeg,
    atNight: need.atNight,
    lightKind: light?.kind,
    slantM: best && (need.level || !need.text ? best.face : best.text).slantM,
    lightReachM: light?.kind === 'none' ? 0 : lightM,
    lightRatedM: light?.reachM ?? undefined,
    lightAngleDeg: light?.angleDeg ?? undefined,
    localStream: known(model.localStream),
    sessions: known(model.sessions),
    sessionsWanted: drawers.length,
    codecs: model.codecs.length > 0 ? model.codecs : undefined,
    hasSub: model.subs === null ? undefined : model.subs.length > 0,
    wantsSub: drawers.some(({ use }) => use === 'live' || use === 'detect'),
    missedBy: missedBy(drawers, model),
    silentDrawers: drawers.flatMap(({ destination }) => (destination.codecs.length === 0 ? destination.name : [])),
    fps: known(model.fps),
    pictureSize: best && `${best.view.lens.widthPx} × ${best.view.lens.heightPx}`,
    outdoors: need.outdoors,
    ingress: known(model.ingress),
    soundWanted: need.sound,
    sound: known(model.sound),
    turnsWanted: need.turns,
    panRangeDeg: known(model.panRangeDeg),
    tiltRangeDeg: known(model.tiltRangeDeg),
    ways: power.ways.length > 0 ? power.ways : undefined,
    supplyInBox: known(power.supplyInBox),
    wired: known(model.wired),
    bands: model.wired === null && model.bands.length === 0 ? undefined : model.bands,
    cardMaxGB: known(model.cardMaxGB),
    lostWithoutAccount: known(model.lostWithoutAccount),
    allInCost: allIn,
    costYears: costing.years,
    currency: costing.currency,
    mountHeightM: hung.heightM,
  };
  return merged(ofCard, seenFacts(card, seen));
}

/** What a probe found beside what the card says; two lenses in one picture have no size to compare. */
function seenFacts({ lenses, codecs }: Model, seen: SeenStream | null): Facts<ChooseFacts> {
  if (!seen) return {};
  const [lens] = lenses;
  const { widthPx, heightPx } = lens ?? { widthPx: null, heightPx: null };
  const isComparable = lenses.length === 1 && widthPx !== null && heightPx !== null;
  return {
    seenSize: `${seen.widthPx} × ${seen.heightPx}`,
    cardSize: isComparable ? `${widthPx} × ${heightPx}` : undefined,
    givesFewerPixels: isComparable ? seen.widthPx * seen.heightPx < widthPx * heightPx : undefined,
    seenCodec: seen.codec,
    cardCodecs: codecs.length > 0 ? codecs : undefined,
  };
}

/** Those that can show no stream of the model; a recorder wants the main one. Absent where the card names no codec. */
function missedBy(
  drawers: readonly { readonly destination: Destination; readonly use: TapUse }[],
  { codecs, subs }: Model,
): ChooseFacts['missedBy'] | undefined {
  if (codecs.length === 0) return undefined;
  const small = subs?.flatMap((sub) => sub.codecs) ?? [];
  return drawers
    .filter(({ destination, use }) => {
      const offered = use === 'record' ? codecs : [...codecs, ...small];
      return destination.codecs.length > 0 && !offered.some((codec) => destination.codecs.includes(codec));
    })
    .map(({ destination }) => ({ name: destination.name, takes: destination.codecs }));
}

/** What could be changed at Choose. Each offer takes the rule that found something and brings nothing worse there. */
export interface ChooseOffers {
  /** Hung otherwise: tilted, zoomed, lower. */
  readonly mountings: (rule: string) => readonly Mend<SiteCommand>[];
  /** Another model of this site: those that are weighed here come first. */
  readonly models: (rule: string) => readonly Mend<SiteCommand>[];
}
