import type { Verdict } from '../base/verdict.ts';
import { worstVerdict } from '../base/verdict.ts';
import { createTapJudge, type TapJudgement } from '../budget/tap-judgement.ts';
import type { Finding } from '../probe/probe-types.ts';
import { GATES, type LaneFacts, STATIONS, type Station } from '../rules/gates.ts';
import { bySeverity } from '../rules/rule.ts';
import { bestKnown, type EvidenceIndex, tapSubject } from './best-known.ts';
import { rememberedProbe } from './probe-evidence.ts';
import type { Camera, Site, Stream, Tap } from './site-types.ts';
import { hasAddress, plainUrlOf } from './stream-address.ts';

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
export function lanesOf(site: Site, index: EvidenceIndex): readonly Lane[] {
  const judge = createTapJudge(site, index);
  const taps = new Map<string, Tap[]>(site.cameras.map(({ id }) => [id, []]));
  for (const tap of site.taps) taps.get(tap.cameraId)?.push(tap);
  return site.cameras.map((camera) => laneOf({ site, index, judge, camera, taps: taps.get(camera.id) ?? [] }));
}

interface LaneInput {
  readonly site: Site;
  readonly index: EvidenceIndex;
  readonly judge: (tap: Tap) => TapJudgement;
  readonly camera: Camera;
  /** Those of this camera. */
  readonly taps: readonly Tap[];
}

function laneOf({ site, index, judge, camera, taps }: LaneInput): Lane {
  const judged = taps.map((tap) => ({ tap, judgement: judge(tap) }));
  const probes = streamsInUse(camera, taps).map((stream) => ({ stream, probe: rememberedProbe(index, stream.id) }));
  const current = probes.filter(({ stream, probe }) => probe?.url === plainUrlOf(camera, stream));
  const findings = [
    ...current.flatMap(({ probe }) => probe?.findings ?? []),
    ...judged.flatMap(({ judgement }) => judgement.findings),
  ].sort(bySeverity);

  const facts: LaneFacts = {
    hasAddress: hasAddress(camera),
    probe: probeState(probes, current),
    taps: judged.map(({ tap, judgement }) => {
      const stream = camera.streams.find(({ id }) => id === tap.streamId);
      return {
        destination: site.destinations.find(({ id }) => id === tap.destinationId)?.name ?? tap.destinationId,
        verdict: judgement.verdict,
        handedOver: stream ? handOverState(index, tap, plainUrlOf(camera, stream)) : 'no',
      };
    }),
  };
  const unmet = GATES.find((gate) => !gate.holds(facts));
  const standsAt = unmet?.station ?? null;
  const stations = STATIONS.map((station) => {
    const isDone = GATES.every((gate) => gate.station !== station || gate.holds(facts));
    const verdict = station === 'tap' ? tapVerdict(facts, findings) : isDone && standsAt === null ? 'ok' : 'unknown';
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

function tapVerdict(facts: LaneFacts, findings: readonly Finding[]): Verdict {
  if (facts.probe.state === 'none' || facts.probe.state === 'outdated') return 'unknown';
  const bySeverityOf: Verdict = findings.some(({ severity }) => severity === 'stop')
    ? 'will-not-work'
    : findings.some(({ severity }) => severity === 'fix')
      ? 'tight'
      : 'ok';
  // A stream that nobody draws yet may be sound, but it fits nothing: that is known only with a destination.
  if (facts.taps.length === 0) return bySeverityOf === 'ok' ? 'unknown' : bySeverityOf;
  return worstVerdict([bySeverityOf, ...facts.taps.map(({ verdict }) => verdict)]);
}
