import { areAlike } from '../base/alike.ts';
import type { Verdict } from '../base/verdict.ts';
import { worstVerdict } from '../base/verdict.ts';
import {
  bestKnown,
  type EvidenceIndex,
  type StreamFacts,
  streamFacts,
  streamSubject,
  tapSubject,
} from '../document/best-known.ts';
import type { Model } from '../document/cards/model-card.ts';
import { type RememberedProbe, rememberedProbe } from '../document/probe-evidence.ts';
import type { Camera, Destination, Site, Stream, Tap } from '../document/site-types.ts';
import { hasAddress, plainUrlOf } from '../document/stream-address.ts';
import type { Finding } from '../findings/finding.ts';
import { bySeverity } from '../findings/rule.ts';
import { type Choice, judgeChoice } from '../stations/choose/choice-verdict.ts';
import { type ChooseContext, chooseFacts } from '../stations/choose/choose-facts.ts';
import { createPowerReckoner } from '../stations/power/power-reckoner.ts';
import { createTapJudge, type TapJudge } from '../stations/tap/tap-judgement.ts';
import { GATES, type LaneFacts, STATIONS, type Station, stationOfRule } from './gates.ts';

/** How far one camera got through the stations. */
export interface Lane {
  readonly cameraId: string;
  readonly stations: readonly { readonly station: Station; readonly verdict: Verdict; readonly isDone: boolean }[];
  /** The station it stands at; `null` when every gate holds. */
  readonly standsAt: Station | null;
  readonly worst: Finding | null;
  readonly findings: readonly Finding[];
  readonly next: string | null;
  readonly probedAt: string | null;
  /** It was probed, but at another address than it has now. */
  readonly isOutdated: boolean;
}

/** Streams that count for a camera: those that are tapped, or its first one. */
function streamsInUse(camera: Camera, taps: readonly Tap[]): readonly Stream[] {
  const tapped = camera.streams.filter((stream) => taps.some((tap) => tap.streamId === stream.id));
  return tapped.length > 0 ? tapped : camera.streams.slice(0, 1);
}

export function handOverState(index: EvidenceIndex, tap: Tap, url: string): 'yes' | 'no' | 'outdated' {
  const entered = bestKnown(index, tapSubject(tap.id), 'handedOver');
  if (!entered) return 'no';
  return entered.value === url ? 'yes' : 'outdated';
}

/** Works out the lanes of all cameras from the document alone, in the order of the site's cameras. */
export const lanesOf = (site: Site, index: EvidenceIndex): readonly Lane[] => createLaneReckoner()(site, index);

interface Reckoned {
  readonly lane: Lane;
  /** All that the lane was worked out from. */
  readonly from: readonly unknown[];
}

/**
 * Works out lanes of one document after the other, and keeps those that nothing touched: an edit costs what it changes.
 * Documents share what they have in common, so that a part is unchanged when it is the same object.
 */
export function createLaneReckoner(): (site: Site, index: EvidenceIndex) => readonly Lane[] {
  let kept = new Map<string, Reckoned>();
  const choosing = createPartReckoner<Choice>();
  const reckonPower = createPowerReckoner();
  const probes = new WeakMap<object, RememberedProbe | null>();
  const facts = new WeakMap<Stream, { readonly evidence: unknown; readonly value: StreamFacts }>();
  return (site, index) => {
    // Every tap asks for the facts of its stream, the disk it records on and each wire again: found once a document.
    const found = new Map<Stream, StreamFacts>();
    const factsOf = (stream: Stream): StreamFacts => {
      let value = found.get(stream);
      if (value === undefined) {
        value = factsAnew(stream);
        found.set(stream, value);
      }
      return value;
    };
    const factsAnew = (stream: Stream): StreamFacts => {
      const evidence = index.get(streamSubject(stream.id));
      const known = facts.get(stream);
      if (known && known.evidence === evidence) return known.value;
      const value = streamFacts(index, stream);
      facts.set(stream, { evidence, value });
      return value;
    };
    const probeOf = (stream: Stream): RememberedProbe | null => {
      const evidence = index.get(streamSubject(stream.id));
      if (!evidence) return null;
      let probe = probes.get(evidence);
      if (probe === undefined) {
        probe = rememberedProbe(index, stream.id);
        probes.set(evidence, probe);
      }
      return probe;
    };
    const judge = createTapJudge(site, index, factsOf);
    const powers = reckonPower(site, factsOf);
    const context: ChooseContext = site;
    const models = new Map(site.models.map((model) => [model.id, model]));
    const destinations = new Map(site.destinations.map((one) => [one.id, one]));
    const taps = new Map<string, Tap[]>(site.cameras.map(({ id }) => [id, []]));
    for (const tap of site.taps) taps.get(tap.cameraId)?.push(tap);
    const next = new Map<string, Reckoned>();
    const lanes = site.cameras.map((camera) => {
      const own = taps.get(camera.id) ?? [];
      const model = camera.modelId === null ? undefined : models.get(camera.modelId);
      const power = powers.get(camera.id);
      const { need, mounting } = camera;
      const chosenBy: unknown[] = [need, model, mounting];
      if (need)
        chosenBy.push(
          site.costing,
          site.assumptions,
          ...need.draws.map((draw) => destinations.get(draw.destinationId)),
        );
      const choice = choosing(camera.id, chosenBy, () => choiceOf(camera, model, context));
      const eachPart = (visit: (part: unknown) => void): void => {
        visit(camera);
        visit(choice);
        visit(power);
        for (const { id } of camera.streams) visit(index.get(streamSubject(id)));
        for (const tap of own) {
          visit(tap);
          visit(index.get(tapSubject(tap.id)));
          visit(destinations.get(tap.destinationId));
          visit(judge.ledgerMark(tap.destinationId));
        }
      };
      const before = kept.get(camera.id);
      const reckoned =
        before && isMadeOf(before.from, eachPart)
          ? before
          : {
              from: listOf(eachPart),
              lane: laneOf({
                destinations,
                index,
                probeOf,
                judge,
                camera,
                choice,
                powerFindings: power?.findings ?? NO_FINDINGS,
                lacksFeeder: power?.lacksFeeder ?? false,
                taps: own,
              }),
            };
      next.set(camera.id, reckoned);
      return reckoned.lane;
    });
    kept = next;
    return lanes;
  };
}

type EachPart = (visit: (part: unknown) => void) => void;

/** Compared in place: lists of thousands of cameras, made only to be compared, cost more than all else. */
function isMadeOf(parts: readonly unknown[], eachPart: EachPart): boolean {
  let at = 0;
  let isSame = true;
  eachPart((part) => {
    isSame &&= parts[at] === part;
    at += 1;
  });
  return isSame && at === parts.length;
}

function listOf(eachPart: EachPart): readonly unknown[] {
  const parts: unknown[] = [];
  eachPart((part) => parts.push(part));
  return parts;
}

interface LaneInput {
  readonly destinations: ReadonlyMap<string, Destination>;
  readonly index: EvidenceIndex;
  readonly probeOf: (stream: Stream) => RememberedProbe | null;
  readonly judge: TapJudge;
  readonly camera: Camera;
  readonly choice: Choice;
  readonly powerFindings: readonly Finding[];
  readonly lacksFeeder: boolean;
  /** Those of this camera. */
  readonly taps: readonly Tap[];
}

function laneOf(input: LaneInput): Lane {
  const { destinations, index, probeOf, judge, camera, taps } = input;
  const judged = taps.map((tap) => ({ tap, judgement: judge.judge(tap) }));
  const probes = streamsInUse(camera, taps).map((stream) => ({ stream, probe: probeOf(stream) }));
  const current = probes.filter(({ stream, probe }) => probe?.url === plainUrlOf(camera, stream));
  const findings = [
    ...current.flatMap(({ probe }) => probe?.findings ?? []),
    ...judged.flatMap(({ judgement }) => judgement.findings),
    ...input.choice.findings,
    ...input.powerFindings,
  ].sort(bySeverity);

  const byStation: Readonly<Record<Station, Finding[]>> = { choose: [], power: [], tap: [], 'hand-over': [] };
  for (const finding of findings) byStation[stationOfRule(finding.rule)].push(finding);
  const stopAt = (station: Station): string | null =>
    byStation[station].find(({ severity }) => severity === 'stop')?.title ?? null;
  const facts: LaneFacts = {
    hasNeed: camera.need !== null,
    hasModel: camera.modelId !== null,
    chooseStop: stopAt('choose'),
    powerStop: stopAt('power'),
    hasFeed: camera.feed !== null,
    lacksFeeder: input.lacksFeeder,
    hasAddress: hasAddress(camera),
    probe: probeState(probes, current),
    taps: judged.map(({ tap, judgement }) => {
      const stream = camera.streams.find(({ id }) => id === tap.streamId);
      return {
        destination: destinations.get(tap.destinationId)?.name ?? tap.destinationId,
        verdict: judgement.verdict,
        handedOver: stream ? handOverState(index, tap, plainUrlOf(camera, stream)) : 'no',
      };
    }),
  };
  const unmet = GATES.find((gate) => !gate.holds(facts));
  const standsAt = unmet?.station ?? null;
  const stations = STATIONS.map((station) => {
    const isDone = GATES.every((gate) => gate.station !== station || gate.holds(facts));
    const verdict = verdictAt(station, {
      facts,
      choice: input.choice,
      own: byStation[station],
      isDone: isDone && standsAt === null,
    });
    return {
      station,
      verdict,
      isDone: isDone && (standsAt === null || STATIONS.indexOf(station) < STATIONS.indexOf(standsAt)),
    };
  });
  const worst = findings.find(({ severity }) => severity !== 'note') ?? null;
  return {
    cameraId: camera.id,
    stations,
    standsAt,
    worst,
    findings,
    next: unmet?.next(facts) ?? null,
    probedAt: probes[0]?.probe?.at ?? null,
    isOutdated: facts.probe.state === 'outdated',
  };
}

function probeState(
  probes: readonly { probe: { verdict: string; findings: readonly Finding[] } | null }[],
  current: readonly { probe: { verdict: string; findings: readonly Finding[] } | null }[],
): LaneFacts['probe'] {
  const failed = current.find(({ probe }) => probe?.verdict === 'fail');
  if (failed) return { state: 'failed', title: failed.probe?.findings[0]?.title ?? '' };
  if (current.length === probes.length && probes.length > 0) return { state: 'answered' };
  return { state: probes.some(({ probe }) => probe !== null) ? 'outdated' : 'none' };
}

const NO_FINDINGS: readonly Finding[] = []; // one object, so that it is seen to be unchanged

/** Keeps what was worked out of a camera while nothing that it rests on changes. */
function createPartReckoner<T>() {
  const kept = new Map<string, { readonly from: readonly unknown[]; readonly part: T }>();
  return (cameraId: string, from: readonly unknown[], reckon: () => T): T => {
    const before = kept.get(cameraId);
    if (before && areAlike(before.from, from)) return before.part;
    const part = reckon();
    kept.set(cameraId, { from, part });
    return part;
  };
}

/** Without a need or a model there is nothing to judge. */
const UNSAID: Choice = { findings: NO_FINDINGS, verdict: 'unknown' };

function choiceOf({ need, mounting }: Camera, model: Model | undefined, context: ChooseContext): Choice {
  if (!need || !model) return UNSAID;
  return judgeChoice(chooseFacts(need, model, mounting, context));
}

function verdictOf(findings: readonly Finding[]): Verdict {
  if (findings.some(({ severity }) => severity === 'stop')) return 'will-not-work';
  return findings.some(({ severity }) => severity === 'fix') ? 'tight' : 'ok';
}

function verdictAt(
  station: Station,
  { facts, choice, own, isDone }: { facts: LaneFacts; choice: Choice; own: readonly Finding[]; isDone: boolean },
): Verdict {
  switch (station) {
    case 'choose':
      return choice.verdict;
    case 'power':
      return facts.hasFeed && !facts.lacksFeeder ? verdictOf(own) : 'unknown';
    case 'tap':
      return tapVerdict(facts, own);
    case 'hand-over':
      return isDone ? 'ok' : 'unknown';
  }
}

function tapVerdict(facts: LaneFacts, findings: readonly Finding[]): Verdict {
  if (facts.probe.state === 'none' || facts.probe.state === 'outdated') return 'unknown';
  const bySeverityOf = verdictOf(findings);
  // A stream that nobody draws yet may be sound, but it fits nothing: that is known only with a destination.
  if (facts.taps.length === 0) return bySeverityOf === 'ok' ? 'unknown' : bySeverityOf;
  return worstVerdict([bySeverityOf, ...facts.taps.map(({ verdict }) => verdict)]);
}
