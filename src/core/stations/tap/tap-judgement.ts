import { assumed } from '../../assumptions/assumptions.ts';
import { merged } from '../../base/merged.ts';
import { sayDays, sayRate } from '../../base/say.ts';
import { bytes, days, inTB, kilobits, terabytes } from '../../base/units.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { Destination, Protocol } from '../../document/chapters/destinations/destination.ts';
import type { Tap } from '../../document/chapters/taps/tap.ts';
import type { Site } from '../../document/site.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { plainUrlOf } from '../../document/stream-address.ts';
import { streamSubject, tapSubject } from '../../document/subject.ts';
import { bestKnown, type EvidenceIndex, type Known, type StreamFacts, streamFacts } from '../../evidence/best-known.ts';
import { countedSessions, isCountCurrent, sessionsAllowed } from '../../evidence/sessions-evidence.ts';
import { soundCodecOf } from '../../figures/written-figures.ts';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, type Row, verdictOf } from '../../findings/rule.ts';
import { AUTH_SCHEMES } from '../../rtsp/exchange-types.ts';
import type { SessionsReport } from '../../sessions/sessions-types.ts';
import { type SeatCount, sayPacks, seatCount } from '../../site/licences.ts';
import { bytesPerDay, daysFit, diskNeeded, type RecordedStream, secondsPerDay } from '../../storage/storage.ts';
import { STORAGE_ASSUMPTIONS } from '../../storage/storage-assumptions.ts';
import type { TapFacts } from './tap-facts.ts';
import { judgeDays, TAP_RULES } from './tap-rules.ts';

/** Something that would change the days, with the verdict they would then have. */
export interface Lever {
  readonly id: 'disk' | 'rate' | 'stream' | 'days' | 'share' | 'room';
  readonly text: string;
  readonly verdict: Verdict;
  /** What does it; `null` where somebody has to do it at the camera. */
  readonly command: SiteCommand | null;
}

export interface RetentionNumbers {
  readonly ownBytesPerDay: number;
  readonly allBytesPerDay: number;
  /** Taps that record on the same disk, this one counted. */
  readonly recordings: number;
  readonly usableBytes: number;
  readonly daysFit: number;
  readonly daysWanted: number;
  /** Of the days alone, whatever else stands in the way. */
  readonly verdict: Verdict;
}

export interface TapJudgement {
  readonly facts: Facts<TapFacts>;
  readonly verdict: Verdict;
  readonly findings: readonly Finding[];
  readonly rate: Known<number> | null;
  readonly retention: RetentionNumbers | null;
  /** What would change the verdict; worked out when asked, since lanes do not need it. */
  readonly levers: () => readonly Lever[];
  /** Names of recordings on this disk whose rate is not known: the days cannot be told while there are any. */
  readonly ratesMissing: readonly string[];
  /** What is missing for a verdict, as one would ask for it. */
  readonly wanted: readonly string[];
  /** It was entered there, at its present address, and its picture came. */
  readonly isShown: boolean;
  /** Seats of its destination, where it counts them. */
  readonly seats: SeatCount | null;
}

const { overheadFraction, comfortableFactor, sizesSoldTB } = STORAGE_ASSUMPTIONS;

/** What is recorded on one destination's disk: worked out once, asked by each of its taps. */
interface Ledger {
  readonly bytesPerDayOf: ReadonlyMap<string, number>;
  readonly allBytesPerDay: number;
  readonly ratesMissing: readonly string[];
}

const recorded = (rateKbps: number, tap: Tap): RecordedStream => ({
  count: 1,
  rate: kilobits(rateKbps),
  schedule: tap.schedule,
});
const perDay = (recordings: readonly { rateKbps: number; tap: Tap }[]): number =>
  bytesPerDay(
    recordings.map(({ rateKbps, tap }) => recorded(rateKbps, tap)),
    overheadFraction,
  );

/** Judges the taps of one document. */
export interface TapJudge {
  judge(tap: Tap): TapJudgement;
}

type FactsOf = (stream: Stream) => StreamFacts;

/** The site by id, and its ledgers as they are needed: a site is judged whole in time linear in its taps. */
class SiteTapJudge implements TapJudge {
  readonly #cameras: ReadonlyMap<string, Camera>;
  readonly #destinations: ReadonlyMap<string, Destination>;
  readonly #sessionsAllowed: ReadonlyMap<string, number>;
  readonly #tapsOfCamera = new Map<string, number>();
  readonly #recordings = new Map<string, Tap[]>();
  readonly #ledgers = new Map<string, Ledger>();
  readonly #clockOkS: number;
  readonly #decodes = new Map<string, number>();
  readonly #seats = new Map<string, SeatCount | null>();

  constructor(
    private readonly site: Site,
    private readonly index: EvidenceIndex,
    /** What is best known of a stream. Asked for every tap: the caller keeps what it found. */
    private readonly factsOf: FactsOf,
  ) {
    this.#clockOkS = assumed(site.assumptions, 'stream.clock');
    this.#cameras = new Map(site.cameras.map((camera) => [camera.id, camera]));
    this.#destinations = new Map(site.destinations.map((destination) => [destination.id, destination]));
    this.#sessionsAllowed = new Map(
      site.models.flatMap(({ id, sessions }) => (sessions === null ? [] : [[id, sessions] as const])),
    );
    for (const tap of site.taps) {
      this.#tapsOfCamera.set(tap.cameraId, (this.#tapsOfCamera.get(tap.cameraId) ?? 0) + 1);
      if (isDecoded(tap)) this.#decodes.set(tap.destinationId, (this.#decodes.get(tap.destinationId) ?? 0) + 1);
      if (tap.use !== 'record') continue;
      const list = this.#recordings.get(tap.destinationId);
      if (list) list.push(tap);
      else this.#recordings.set(tap.destinationId, [tap]);
    }
  }

  #ledgerOf(destinationId: string): Ledger {
    const known = this.#ledgers.get(destinationId);
    if (known) return known;
    const bytesPerDayOf = new Map<string, number>();
    const ratesMissing: string[] = [];
    let allBytesPerDay = 0;
    for (const tap of this.#recordings.get(destinationId) ?? []) {
      const camera = this.#cameras.get(tap.cameraId);
      const stream = camera?.streams.find(({ id }) => id === tap.streamId);
      const rate = stream ? this.factsOf(stream).bitrateKbps : null;
      if (!rate) ratesMissing.push(camera?.name ?? tap.cameraId);
      const own = rate ? perDay([{ rateKbps: rate.value, tap }]) : 0;
      bytesPerDayOf.set(tap.id, own);
      allBytesPerDay += own;
    }
    const ledger = { bytesPerDayOf, allBytesPerDay, ratesMissing };
    this.#ledgers.set(destinationId, ledger);
    return ledger;
  }

  #seatsOf(destination: Destination): SeatCount | null {
    const known = this.#seats.get(destination.id);
    if (known !== undefined) return known;
    const seats = seatCount(this.site, destination);
    this.#seats.set(destination.id, seats);
    return seats;
  }

  #countedAt(camera: Camera): SessionsReport | null {
    const counted = countedSessions(this.index, camera.id);
    return counted && isCountCurrent(counted, camera) ? counted.report : null;
  }

  /** Somebody entered it there and saw its picture, at the address that it has now. */
  #isShown({ id }: Tap, camera: Camera, stream: Stream): boolean {
    return bestKnown(this.index, tapSubject(id), 'handedOver')?.value === plainUrlOf(camera, stream);
  }

  judge(tap: Tap): TapJudgement {
    const destination = this.#destinations.get(tap.destinationId);
    const camera = this.#cameras.get(tap.cameraId);
    const stream = camera?.streams.find(({ id }) => id === tap.streamId);
    if (!destination || !camera || !stream)
      return {
        facts: {},
        verdict: 'unknown',
        findings: [],
        rate: null,
        retention: null,
        levers: () => [],
        ratesMissing: [],
        wanted: [],
        isShown: false,
        seats: null,
      };
    const { codec, bitrateKbps: rate, width, height, fps } = this.factsOf(stream);
    const seats = this.#seatsOf(destination);
    const isShown = this.#isShown(tap, camera, stream);
    const ledger = tap.use === 'record' ? this.#ledgerOf(destination.id) : null;
    const retention = ledger && ledger.ratesMissing.length === 0 ? retentionOf(ledger, destination, tap) : null;
    const ofTap = {
      destination: destination.name,
      codec: codec?.value,
      codecsTaken: codecsTaken(destination, codec?.value, isShown),
      rateKbps: rate?.value,
      rateHow: rate?.how,
      records: tap.use === 'record',
      daysFit: retention?.daysFit,
      daysWanted: retention?.daysWanted,
      bytesPerDay: retention?.allBytesPerDay,
      usableBytes: retention?.usableBytes,
      sessionsAllowed: sessionsAllowed(
        this.#countedAt(camera),
        camera.modelId === null ? undefined : this.#sessionsAllowed.get(camera.modelId),
        this.#tapsOfCamera.get(camera.id) ?? 0,
      ),
      sessionsUsed: this.#tapsOfCamera.get(camera.id),
      clockOkS: this.#clockOkS,
      protocol: protocolOf(tap, camera),
      soundsTaken: destination.sounds.length > 0 ? destination.sounds : undefined,
      protocolsTaken: destination.protocols.length > 0 ? destination.protocols : undefined,
      isSteeredLive: tap.use === 'live' && (camera.need?.turns === true || camera.steering.presets.length > 0),
      widthPx: width?.value,
      heightPx: height?.value,
      mostWidthPx: destination.largest?.widthPx,
      mostHeightPx: destination.largest?.heightPx,
      streamFps: fps?.value,
      mostFps: destination.mostFps ?? undefined,
      mostKbps: destination.mostKbps ?? undefined,
      isDecoded: isDecoded(tap),
      decodesUsed: this.#decodes.get(destination.id),
      decodes: destination.decodes ?? undefined,
      seatsUsed: seats?.used,
      seatsIncluded: seats?.included,
      seatPacks: seats
        ? sayPacks(seats.purchase, destination.seats?.packs ?? [], this.site.costing.currency)
        : undefined,
    };
    const facts = merged(ofTap, probedFacts(this.index, stream));
    const rows = judgeRows(TAP_RULES, facts);
    const rateKbps = rate?.value ?? 0;
    const levers = (): readonly Lever[] =>
      retention ? leversFor(this.index, { tap, camera, destination, rateKbps, numbers: retention }) : [];
    const ratesMissing = ledger?.ratesMissing ?? [];
    const verdict = verdictOf(rows);
    const wanted = verdict === 'unknown' ? wantedFor(rows, destination, ratesMissing) : [];
    const findings = findingsOf(rows);
    return { facts, verdict, findings, rate, retention, levers, ratesMissing, wanted, isShown, seats };
  }
}

/** RTSP comes from a camera by its line. */
const protocolOf = ({ protocol }: Tap, { line }: Camera): Protocol =>
  protocol !== 'rtsp' || line === 'plain' ? protocol : line === 'tls' ? 'rtsps' : 'tunnel';

const isDecoded = ({ use }: Pick<Tap, 'use'>): boolean => use === 'live' || use === 'detect';

/** What shows its picture takes its codec, whatever its figures leave out. */
const codecsTaken = (
  { codecs }: Destination,
  codec: string | undefined,
  isShown: boolean,
): readonly string[] | undefined => (codecs.length > 0 ? codecs : isShown && codec !== undefined ? [codec] : undefined);

const OF_STREAM = 'probe it, or plan its codec, size and frames';

/** What somebody would have to enter for a verdict. */
function wantedFor(
  rows: readonly Row[],
  { name, storage }: Destination,
  ratesMissing: readonly string[],
): readonly string[] {
  const missing = new Set(rows.filter(({ weighs }) => weighs).flatMap((row) => row.missing));
  const wanted: string[] = [];
  if (missing.has('codecsTaken')) wanted.push(`which codecs ${name} takes, in its figures`);
  if (['codec', 'widthPx', 'streamFps', 'rateKbps'].some((fact) => missing.has(fact)))
    wanted.push(`what it gives: ${OF_STREAM}`);
  if (missing.has('sessionsAllowed'))
    wanted.push('how many clients it serves at once: count them, or fill in its model card');
  if (missing.has('daysFit'))
    wanted.push(
      ratesMissing.length > 0
        ? `the rate of ${ratesMissing.join(', ')}: ${OF_STREAM}`
        : storage
          ? `how many days ${name} is to keep`
          : `the disk of ${name}, and how many days it is to keep`,
    );
  return wanted;
}

/**
 * Judges taps of a site: whether a destination can draw a stream for a use, by the codec it takes and, for recordings,
 * the days its disk holds with everything else that is recorded on it. Computed from the best known rate of every
 * stream involved. Make one for each document and ask it about every tap.
 */
export const createTapJudge = (
  site: Site,
  index: EvidenceIndex,
  factsOf: FactsOf = (stream) => streamFacts(index, stream),
): TapJudge => new SiteTapJudge(site, index, factsOf);

/** The same for one tap. */
export const judgeTap = (site: Site, index: EvidenceIndex, tap: Tap): TapJudgement =>
  createTapJudge(site, index).judge(tap);

/** What the last probe told of the login and the clock. */
function probedFacts(
  index: EvidenceIndex,
  stream: Stream,
): Pick<Facts<TapFacts>, 'authScheme' | 'clockErrorS' | 'soundCodec'> {
  const subject = streamSubject(stream.id);
  const scheme = bestKnown(index, subject, 'fact.authScheme')?.value;
  const clockErrorS = bestKnown(index, subject, 'fact.clockErrorS')?.value;
  const sound = bestKnown(index, subject, 'sound.codec')?.value;
  return {
    authScheme: AUTH_SCHEMES.find((known) => known === scheme),
    clockErrorS: typeof clockErrorS === 'number' ? clockErrorS : undefined,
    soundCodec: typeof sound === 'string' ? soundCodecOf(sound) : undefined,
  };
}

function retentionOf(ledger: Ledger, destination: Destination, tap: Tap): RetentionNumbers | null {
  const { storage, retentionDays } = destination;
  // Where nothing is written, nothing is known of the days: none lasts for ever.
  if (!storage || retentionDays === null || ledger.allBytesPerDay <= 0) return null;
  const fit = daysFit(terabytes(storage.diskTB), storage.usableFraction, bytes(ledger.allBytesPerDay));
  return {
    ownBytesPerDay: ledger.bytesPerDayOf.get(tap.id) ?? 0,
    allBytesPerDay: ledger.allBytesPerDay,
    recordings: ledger.bytesPerDayOf.size,
    usableBytes: terabytes(storage.diskTB) * storage.usableFraction,
    daysFit: fit,
    daysWanted: retentionDays,
    verdict: judgeDays(fit, retentionDays),
  };
}

interface LeverInput {
  readonly tap: Tap;
  readonly camera: Camera;
  readonly destination: Destination;
  readonly rateKbps: number;
  readonly numbers: RetentionNumbers;
}

/** [A] Less than this of a stream, or of a day, is no recording any more. */
const LEAST_SHARE = 0.1;

/** What would change the verdict, nearest first; when all fits, how much room is left. */
function leversFor(
  index: EvidenceIndex,
  { tap, camera, destination, rateKbps: own, numbers }: LeverInput,
): readonly Lever[] {
  const { storage } = destination;
  if (!storage) return [];
  const others = numbers.allBytesPerDay - numbers.ownBytesPerDay;
  const roomPerDay = numbers.usableBytes / (numbers.daysWanted * comfortableFactor) - others;
  const onDay = secondsPerDay(tap.schedule) * (1 + overheadFraction);
  const comfortableKbps = onDay > 0 ? (roomPerDay * 8) / onDay / 1000 : 0;
  if (numbers.verdict === 'ok')
    return [
      {
        id: 'room',
        text: `Room for ${sayRate(comfortableKbps - own)} more before it gets tight`,
        verdict: 'ok',
        command: null,
      },
    ];

  const changed = (change: Partial<Destination>): SiteCommand => ({
    kind: 'changeDestination',
    destination: { ...destination, ...change },
  });
  const levers: Lever[] = [];
  for (const stream of camera.streams) {
    if (stream.id === tap.streamId) continue;
    const { bitrateKbps: rate, codec } = streamFacts(index, stream);
    const isTaken = destination.codecs.length === 0 || (codec !== null && destination.codecs.includes(codec.value));
    if (!rate || rate.value >= own || !isTaken) continue;
    const fit = numbers.usableBytes / (others + perDay([{ rateKbps: rate.value, tap }]));
    levers.push({
      id: 'stream',
      text: `Record ${stream.label} at ${sayRate(rate.value)}: ${sayDays(fit)}`,
      verdict: judgeDays(fit, numbers.daysWanted),
      command: { kind: 'changeTap', tap: { ...tap, streamId: stream.id } },
    });
  }
  if (comfortableKbps >= own * LEAST_SHARE) {
    levers.push({ id: 'rate', text: `Lower this stream to ${sayRate(comfortableKbps)}`, verdict: 'ok', command: null });
    const percent = Math.floor((comfortableKbps / own) * (secondsPerDay(tap.schedule) / days(1)) * 100);
    if (percent >= LEAST_SHARE * 100)
      levers.push({
        id: 'share',
        text: `Record ${percent} % of the day`,
        verdict: 'ok',
        command: { kind: 'changeTap', tap: { ...tap, schedule: { mode: 'duty', duty: percent / 100 } } },
      });
  }
  const needed = diskNeeded(
    bytes(numbers.allBytesPerDay),
    numbers.daysWanted * comfortableFactor,
    storage.usableFraction,
    sizesSoldTB,
  );
  const diskTB = needed.pickTB;
  levers.push({
    id: 'disk',
    text: `Take a disk of ${diskTB ?? inTB(needed.size).toFixed(1)} TB`,
    verdict: 'ok',
    command: diskTB === null ? null : changed({ storage: { ...storage, diskTB } }),
  });
  const fewerDays = Math.floor(numbers.daysFit / comfortableFactor);
  if (fewerDays >= 1)
    levers.push({
      id: 'days',
      text: `Keep ${fewerDays} days`,
      verdict: 'ok',
      command: changed({ retentionDays: fewerDays }),
    });
  return levers;
}
