import { assumed } from '../../assumptions/assumptions.ts';
import { merged } from '../../base/merged.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import { type Destination, PROTOCOL_OF_LINE, type Protocol } from '../../document/chapters/destinations/destination.ts';
import type { Tap } from '../../document/chapters/taps/tap.ts';
import type { Site } from '../../document/site.ts';
import { plainUrlOf } from '../../document/stream-address.ts';
import { streamSubject, tapSubject } from '../../document/subject.ts';
import { bestKnown, type Known } from '../../evidence/best-known.ts';
import type { EvidenceIndex } from '../../evidence/evidence-index.ts';
import { lastProbeFact } from '../../evidence/remembered-probe.ts';
import { countedSessions, isCountCurrent, sessionsAllowed } from '../../evidence/sessions-evidence.ts';
import { soundCodecOf } from '../../figures/written-figures.ts';
import type { Finding } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, type Row, verdictOf } from '../../findings/rule.ts';
import type { SessionsReport } from '../../sessions/sessions-types.ts';
import { tapsOfDevice } from '../../site/device-taps.ts';
import { DiskLedgers, type RetentionNumbers, retentionOf } from '../../site/disk-ledger.ts';
import { type LicenceCount, licenceCount, sayPacks } from '../../site/licences.ts';
import { type SiteView, viewOf } from '../../site/site-view.ts';
import { type Lever, leversFor } from './levers.ts';
import type { TapFacts } from './tap-facts.ts';
import { TAP_RULES } from './tap-rules.ts';

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
  readonly seats: LicenceCount | null;
}

/** Judges the taps of one document. */
export interface TapJudge {
  judge(tap: Tap): TapJudgement;
}

/** A site is judged whole in time linear in its taps. */
class SiteTapJudge implements TapJudge {
  readonly #disks: DiskLedgers;
  readonly #clockOkS: number;
  readonly #decodes = new Map<string, number>();
  readonly #seats = new Map<string, LicenceCount | null>();

  constructor(private readonly view: SiteView) {
    const { site } = view;
    this.#disks = new DiskLedgers(view);
    this.#clockOkS = assumed(site.assumptions, 'stream.clock');
    for (const tap of site.taps)
      if (isDecoded(tap)) this.#decodes.set(tap.destinationId, (this.#decodes.get(tap.destinationId) ?? 0) + 1);
  }

  #licencesOf(destination: Destination): LicenceCount | null {
    const known = this.#seats.get(destination.id);
    if (known !== undefined) return known;
    const seats = licenceCount(this.view.site, destination);
    this.#seats.set(destination.id, seats);
    return seats;
  }

  #countedAt(camera: Camera): SessionsReport | null {
    const counted = countedSessions(this.view.index, camera.id);
    return counted && isCountCurrent(counted, camera) ? counted.report : null;
  }

  /** Somebody entered it there and saw its picture, at the address that it has now. */
  #isShown({ id }: Tap, camera: Camera, stream: Stream): boolean {
    return bestKnown(this.view.index, tapSubject(id), 'handedOver')?.value === plainUrlOf(camera, stream);
  }

  judge(tap: Tap): TapJudgement {
    const destination = this.view.destination(tap.destinationId);
    const camera = this.view.camera(tap.cameraId);
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
    const { codec, bitrateKbps: rate, width, height, fps } = this.view.factsOf(stream);
    const seats = this.#licencesOf(destination);
    const isShown = this.#isShown(tap, camera, stream);
    const ledger = tap.use === 'record' ? this.#disks.of(destination.id) : null;
    const retention = ledger && retentionOf(ledger, destination, tap);
    const sessionsUsed = tapsOfDevice(camera, this.view);
    const counted = this.#countedAt(camera);
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
      sessionsAllowed: sessionsAllowed(counted, this.view.modelOf(camera)?.sessions, sessionsUsed),
      sessionsUsed,
      refusedWith: counted?.refusedWith?.status ?? undefined,
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
      licencesUsed: seats?.used,
      licencesIncluded: seats?.included,
      licencePacks: seats
        ? sayPacks(seats.purchase, destination.seats?.packs ?? [], this.view.site.costing.currency)
        : undefined,
    };
    const facts = merged(ofTap, probedFacts(this.view.index, stream));
    const rows = judgeRows(TAP_RULES, facts);
    const rateKbps = rate?.value ?? 0;
    const levers = (): readonly Lever[] =>
      retention ? leversFor(this.view, { tap, camera, destination, rateKbps, numbers: retention }) : [];
    const ratesMissing = ledger?.ratesMissing ?? [];
    const verdict = verdictOf(rows);
    const wanted = verdict === 'unknown' ? wantedFor(rows, destination, ratesMissing) : [];
    const findings = findingsOf(rows);
    return { facts, verdict, findings, rate, retention, levers, ratesMissing, wanted, isShown, seats };
  }
}

/** RTSP comes from a camera by its line. */
const protocolOf = ({ protocol }: Tap, { line }: Camera): Protocol =>
  protocol === 'rtsp' ? PROTOCOL_OF_LINE[line] : protocol;

const isDecoded = ({ use }: Pick<Tap, 'use'>): boolean => use === 'live' || use === 'detect';

/** What shows its picture takes its codec, whatever its figures leave out. */
const codecsTaken = (
  { codecs }: Destination,
  codec: string | undefined,
  isShown: boolean,
): readonly string[] | undefined => (codecs.length > 0 ? codecs : isShown && codec !== undefined ? [codec] : undefined);

const OF_STREAM = 'probe it, or plan its codec, resolution and frame rate';

/** What somebody would have to enter for a verdict. */
function wantedFor(
  rows: readonly Row[],
  { name, storage }: Destination,
  ratesMissing: readonly string[],
): readonly string[] {
  const missing = new Set(rows.filter(({ weighs }) => weighs).flatMap((row) => row.missing));
  const wanted: string[] = [];
  if (missing.has('codecsTaken')) wanted.push(`the codecs that ${name} takes`);
  if (['codec', 'widthPx', 'streamFps', 'rateKbps'].some((fact) => missing.has(fact)))
    wanted.push(`its codec and resolution: ${OF_STREAM}`);
  if (missing.has('sessionsAllowed'))
    wanted.push('how many sessions it supports: count them, or complete its model card');
  if (missing.has('daysFit'))
    wanted.push(
      ratesMissing.length > 0
        ? `the bit rate of ${ratesMissing.join(', ')}: ${OF_STREAM}`
        : storage
          ? `the retention of ${name}, in days`
          : `the disk of ${name}, and its retention in days`,
    );
  return wanted;
}

/**
 * Judges taps of a site: whether a destination can draw a stream for a use, by the codec it takes and, for recordings,
 * the days its disk holds with everything else that is recorded on it. Computed from the best known rate of every
 * stream involved. Make one for each document and ask it about every tap.
 */
export const createTapJudge = (view: SiteView): TapJudge => new SiteTapJudge(view);

/** The same for one tap. */
export const judgeTap = (site: Site, index: EvidenceIndex, tap: Tap): TapJudgement =>
  createTapJudge(viewOf(site, index)).judge(tap);

/** What the last probe told of the login and the clock. */
function probedFacts(
  index: EvidenceIndex,
  stream: Stream,
): Pick<Facts<TapFacts>, 'authScheme' | 'isEncrypted' | 'clockErrorS' | 'soundCodec'> {
  const subject = streamSubject(stream.id);
  const sound = bestKnown(index, subject, 'sound.codec')?.value;
  return {
    authScheme: lastProbeFact(index, stream.id, 'authScheme'),
    isEncrypted: lastProbeFact(index, stream.id, 'isEncrypted'),
    clockErrorS: lastProbeFact(index, stream.id, 'clockErrorS'),
    soundCodec: typeof sound === 'string' ? soundCodecOf(sound) : undefined,
  };
}
