import { assumed } from '../../assumptions/assumptions.ts';
import { THRESHOLD_SLACK } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Gear } from '../../document/chapters/gear/gear.ts';
import type { QuantityName } from '../../document/chapters/journal/quantities.ts';
import { type Link, MEDIUM_OF_WAY } from '../../document/chapters/links/link.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { Site } from '../../document/site.ts';
import { cameraSubject, destinationSubject, gearSubject } from '../../document/subject.ts';
import { bestKnown } from '../../evidence/best-known.ts';
import type { Facts } from '../../findings/rule.ts';
import { type PoeDraw, poeClass } from '../../power/poe.ts';
import { marginOf, type SunInput, type SunYear } from '../../power/sun-budget.ts';
import { SiteLinks } from '../../site/links.ts';
import type { SiteView } from '../../site/site-view.ts';
import { secondsPerDay } from '../../storage/storage.ts';
import { airFacts, wireFacts } from './link-facts.ts';
import type { FactsDraft, PowerFacts } from './power-facts.ts';
import {
  cableFeed,
  type Fed,
  type FeedBudget,
  feedBudget,
  feedsIn,
  poeDemand,
  poeDemandOfClass,
  type RunNumbers,
  runNumbers,
  sunInputOf,
  sunYearOf,
  takenBy,
  UNKNOWN_DEMAND,
} from './power-numbers.ts';
import { switchesOnWay } from './switch-facts.ts';

type GearOf<K extends Gear['kind']> = Extract<Gear, { kind: K }>;

/** Everything that is worked out about how one camera is fed and joined. */
export interface PowerJudgement {
  readonly facts: Facts<PowerFacts>;
  readonly feedLink: Link | null;
  readonly feeder: Gear | null;
  readonly budget: FeedBudget | null;
  readonly cable: PoeDraw | null;
  readonly run: RunNumbers | null;
  readonly sunInput: SunInput | null;
  readonly sunYear: SunYear | null;
}

const HOURS = 3600;
/** From here on a stream counts as drawn without a break. */
const ALL_DAY_H = 23.5;

/** Judges power and links of one document; gear is added up once and asked by each of its cameras. */
export class PowerJudge {
  readonly links: SiteLinks;
  private readonly site: Site;
  private readonly budgets = new Map<string, { budget: FeedBudget; fed: readonly Fed[] }>();

  constructor(private readonly view: SiteView) {
    this.site = view.site;
    this.links = new SiteLinks(view);
  }

  modelOf(camera: Camera): Model | undefined {
    return this.view.modelOf(camera);
  }

  /** The link that a camera is fed by in its way of power. */
  feedLinkOf(camera: Camera): Link | null {
    const way = camera.feed?.way;
    const medium = way && MEDIUM_OF_WAY[way];
    return this.view.linksTo(cameraSubject(camera.id)).find((link) => link.medium === medium) ?? null;
  }

  /** Cameras that a switch or an injector feeds, and access points: both take of its budget. */
  private fedBy(subject: string): readonly Fed[] {
    const cameras = this.view.linksFrom(subject).flatMap((link): Fed[] => {
      const camera = this.cameraAt(link.to);
      if (camera?.feed?.way !== 'poe' || link.medium !== 'network-cable') return [];
      const model = this.view.modelOf(camera);
      return [
        {
          subject: link.to,
          name: camera.name,
          link: this.links.sized(link),
          demand: model ? poeDemand(model) : UNKNOWN_DEMAND,
        },
      ];
    });
    const points = this.linksAt(subject).flatMap((link): Fed[] => {
      const other = link.from === subject ? link.to : link.from;
      const gear = this.view.gearAt(other);
      if (gear?.kind !== 'access-point' || gear.poeClass === null || link.medium !== 'network-cable') return [];
      return [
        { subject: other, name: gear.name, link: this.links.sized(link), demand: poeDemandOfClass(gear.poeClass) },
      ];
    });
    return [...cameras, ...points];
  }

  gearAt(subject: string): Gear | undefined {
    return this.view.gearAt(subject);
  }
  linksAt(subject: string): readonly Link[] {
    return [...this.view.linksFrom(subject), ...this.view.linksTo(subject)];
  }

  budgetOf(gear: GearOf<'switch'> | GearOf<'injector'>): {
    readonly budget: FeedBudget;
    readonly fed: readonly Fed[];
  } {
    const subject = gearSubject(gear.id);
    const kept = this.budgets.get(subject);
    if (kept) return kept;
    const fed = this.fedBy(subject);
    const found = { budget: feedBudget(gear, fed, this.site.assumptions), fed };
    this.budgets.set(subject, found);
    return found;
  }

  /** What all cameras that hang on a supply or a passive injector draw together at night, and those whose watts are not in it. */
  private loadOf(feeder: GearOf<'supply'> | GearOf<'injector'>): {
    readonly amps: number;
    readonly names: readonly string[];
    readonly silent: readonly string[];
  } {
    let amps = 0;
    const names: string[] = [];
    const silent: string[] = [];
    for (const link of this.view.linksFrom(gearSubject(feeder.id))) {
      const camera = this.cameraAt(link.to);
      if (!camera || this.feedLinkOf(camera) !== link) continue;
      names.push(camera.name);
      const model = this.view.modelOf(camera);
      if (!model || !takenBy(model).isWhole) silent.push(camera.name);
      if (model) amps += this.runOf(feeder, this.links.sized(link), model)?.loadA ?? 0;
    }
    return { amps, names, silent };
  }

  private runOf(feeder: GearOf<'supply'> | GearOf<'injector'>, link: Link, model: Model): RunNumbers | null {
    const { assumptions } = this.site;
    if (feeder.kind === 'supply') return runNumbers(feeder, link, model, assumptions);
    const pairs = { ...link, areaMm2: PAIR_OF_PAIRS_MM2 };
    return runNumbers({ volts: feeder.volts, output: 'dc' }, pairs, model, assumptions);
  }

  /** Hours of a day in which somebody draws from it by its taps; `null` without taps. */
  tappedHours(camera: Camera): number | null {
    const taps = this.view.tapsOf(camera.id);
    return taps.length > 0 ? Math.max(...taps.map(({ schedule }) => secondsPerDay(schedule))) / HOURS : null;
  }

  judge(camera: Camera): PowerJudgement {
    const facts: FactsDraft = {};
    const model = this.view.modelOf(camera);
    const { feed } = camera;
    facts.way = feed?.way;
    if (model && model.power.ways.length > 0) facts.waysOffered = model.power.ways;
    const feedLink = this.feedLinkOf(camera);
    const feeder = (feedLink && this.view.gearAt(feedLink.from)) ?? null;
    facts.feeder = feeder?.name;
    const over = feedLink && model ? this.overWire(camera, model, this.links.sized(feedLink), feeder, facts) : NOTHING;
    const sun = this.fromSun(camera, model, facts);
    this.charging(camera, facts);
    const nameAt = (subject: string): string => this.nameAt(subject);
    Object.assign(
      facts,
      airFacts(this.view, this.links, camera, nameAt),
      wireFacts(this.view, this.links, camera, nameAt),
      switchesOnWay(this, camera, feeder),
    );
    return { facts, feedLink, feeder, ...over, ...sun };
  }

  private overWire(
    camera: Camera,
    model: Model,
    link: Link,
    feeder: Gear | null,
    facts: FactsDraft,
  ): Pick<PowerJudgement, 'budget' | 'cable' | 'run'> {
    const { assumptions } = this.site;
    if (link.isCopperClad) facts.isCopperClad = true;
    facts.isCopperOutside = link.leavesBuilding && link.medium !== 'fibre';
    facts.minVolts = model.power.minVolts ?? undefined;
    facts.maxVolts = model.power.maxVolts ?? undefined;
    if (feeder && camera.feed) facts.feederFeeds = feedsIn(camera.feed.way, feeder);
    if (feeder?.kind === 'supply' || (feeder?.kind === 'injector' && feeder.isPassive))
      return { budget: null, cable: null, run: this.overPair(camera, model, link, feeder, facts) };
    if (feeder?.kind !== 'switch' && feeder?.kind !== 'injector') return NOTHING;
    facts.cableM = link.lengthM ?? undefined;
    const demand = poeDemand(model);
    const { budget, fed } = this.budgetOf(feeder);
    const at = fed.findIndex((one) => one.subject === cameraSubject(camera.id));
    const cable = cableFeed(feeder, link, demand, assumptions);
    facts.isPoe = camera.feed?.way === 'poe';
    facts.budgetW = feeder.kind === 'injector' ? feeder.watts : feeder.budgetW;
    // What others take that nobody knows comes on top: the sum is known only where it is too much already.
    const isOver = budget.totalW > facts.budgetW * (1 + THRESHOLD_SLACK);
    facts.reservedW = budget.isWhole || isOver ? budget.totalW : undefined;
    facts.headroomWantedW =
      feeder.kind === 'injector' ? 0 : feeder.budgetW * assumed(assumptions, 'power.poe-headroom');
    const beside = fed.filter((_, other) => other !== at);
    facts.fedBeside = beside.map(({ name }) => name);
    facts.silentBeside = beside.filter(({ demand }) => !demand.isWhole).map(({ name }) => name);
    facts.cableVerdict = cable.verdict === 'unknown' ? undefined : cable.verdict;
    facts.cableVolts = cable.loadVolts ?? undefined;
    facts.classAsked = demand.class ?? undefined;
    facts.takesW = demand.pdW > 0 ? demand.pdW : undefined;
    facts.classGivesW = model.power.poeClass === null ? undefined : poeClass(model.power.poeClass).pdW;
    if (budget.starved.has(at)) facts.isUnderPowered = true;
    else if (demand.class !== null && !budget.perhapsStarved.has(at)) facts.isUnderPowered = false;
    if (feeder.kind === 'switch') {
      facts.portsUsed = fed.length;
      facts.poePorts = feeder.poePorts;
    }
    return { budget, cable, run: null };
  }

  /** Over two wires without a word: what is left at its end, and whether its supply gives all that hangs on it. */
  private overPair(
    camera: Camera,
    model: Model,
    link: Link,
    feeder: GearOf<'supply'> | GearOf<'injector'>,
    facts: FactsDraft,
  ): RunNumbers | null {
    const run = this.runOf(feeder, link, model);
    const { amps, names, silent } = this.loadOf(feeder);
    // What is not known comes on top: the load is known only where it is too much already.
    const knownUpTo = (load: number, most: number) => (silent.length === 0 || load > most ? load : undefined);
    facts.fedBeside = names.filter((name) => name !== camera.name);
    facts.silentBeside = silent.filter((name) => name !== camera.name);
    if (feeder.kind === 'supply') {
      facts.supplyVolts = feeder.volts;
      facts.supplyAmps = feeder.amps;
      facts.supplyLoadA = knownUpTo(amps, feeder.amps);
    } else {
      facts.cableM = link.lengthM ?? undefined;
      facts.passiveVolts = feeder.volts;
      facts.budgetW = feeder.watts;
      facts.reservedW = knownUpTo(amps * feeder.volts, feeder.watts);
    }
    facts.isRun = !run || run.supplyVolts > run.minVolts;
    runFacts(run, facts);
    return run;
  }

  private fromSun(
    camera: Camera,
    model: Model | undefined,
    facts: FactsDraft,
  ): Pick<PowerJudgement, 'sunInput' | 'sunYear'> {
    const { feed, need } = camera;
    if (feed?.way !== 'solar' || !feed.sun) return NO_SUN;
    const hours = this.tappedHours(camera);
    facts.latitudeKnown = this.site.sky.latitudeDeg !== null;
    facts.isLithium = feed.sun.isLithium;
    facts.isOutdoors = need?.outdoors ?? true;
    facts.hasConstantTap = (hours ?? 0) >= ALL_DAY_H;
    const sunInput = model ? sunInputOf(feed, model, this.site.sky, hours, this.site.assumptions) : null;
    if (!sunInput) return NO_SUN;
    const year = sunYearOf(sunInput);
    const worst = year.months[year.worstMonth - 1];
    facts.shortMonths = year.shortMonths;
    facts.worstMonth = year.worstMonth;
    facts.unknownMonths = year.unknownMonths;
    facts.sunMargin = (worst && marginOf(worst)) ?? undefined;
    facts.panelWp = feed.sun.panelWp;
    facts.panelWpNeeded = year.panelWpNeeded ?? undefined;
    facts.autonomyDays = year.autonomyDays;
    facts.hoursOnConstantDraw = year.hoursOnConstantDraw;
    return { sunInput, sunYear: year };
  }

  private charging({ id, kind, feed }: Camera, facts: FactsDraft): void {
    const charge = feed?.charge;
    const read = (quantity: QuantityName) => bestKnown(this.view.index, cameraSubject(id), quantity)?.value;
    const [batteryC, isSwollen] = [read('batteryC'), read('isSwollen')];
    if (kind !== 'handset' || (!charge && batteryC === undefined && isSwollen === undefined)) return;
    facts.isOldPhone = true;
    const limitPercent = charge?.limitPercent ?? null;
    facts.chargeUnlimited = limitPercent === null || limitPercent > 85;
    facts.chargeLimit = limitPercent ?? undefined;
    facts.batteryC = typeof batteryC === 'number' ? batteryC : undefined;
    facts.cellWarmC = assumed(this.site.assumptions, 'power.cell-warm');
    facts.cellHotC = assumed(this.site.assumptions, 'power.cell-hot');
    // that nobody looked at it is no sign that it is well
    facts.isSwollen = typeof isSwollen === 'boolean' ? isSwollen : undefined;
  }

  private cameraAt(subject: string): Camera | undefined {
    return subject.startsWith(cameraSubject(''))
      ? this.view.camera(subject.slice(cameraSubject('').length))
      : undefined;
  }
  nameAt(subject: string): string {
    const isDestination = subject.startsWith(destinationSubject(''));
    const destination = isDestination ? this.view.destination(subject.slice(destinationSubject('').length)) : undefined;
    return (this.cameraAt(subject) ?? this.view.gearAt(subject) ?? destination)?.name ?? subject;
  }
}

const NOTHING = { budget: null, cable: null, run: null } as const;
const NO_SUN = { sunInput: null, sunYear: null } as const;
/** Two pairs side by side of AWG 24, as passive feeds use them, mm². */
const PAIR_OF_PAIRS_MM2 = 0.41;

/** What a run leaves at its end, for the rules. */
function runFacts(run: RunNumbers | null, facts: FactsDraft): void {
  if (!run) return;
  facts.minVolts = run.minVolts;
  // What starts too low is a matter of the supply: no wire mends it, and none is to blame.
  if (run.supplyVolts <= run.minVolts) return;
  facts.runM = run.lengthM ?? undefined;
  facts.runVerdict = run.verdict === 'unknown' ? undefined : run.verdict;
  facts.runNightVolts = run.nightVolts ?? undefined;
  facts.runDayVolts = run.dayVolts ?? undefined;
  facts.runLongestM = run.longestM;
  facts.runPick =
    run.pickMm2 === null ? 'No cable size sold is thick enough.' : `${run.pickMm2} mm² is the thinnest that holds.`;
}
