import equal from 'fast-deep-equal';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Site } from '../document/site.ts';
import { NO_SECRETS, type SecretsKnown } from '../document/site-secrets.ts';
import type { EvidenceIndex } from '../evidence/evidence-index.ts';
import { bySeverity } from '../findings/finding.ts';
import { type SiteView, viewOf } from '../site/site-view.ts';
import type { Station, StationFound } from '../stations/contract.ts';
import { STATIONS, type StationId } from '../stations/registry.ts';
import type { Lane } from './lane-types.ts';

/** One camera through stations in working order: the first gate that does not hold is where it stands. */
export function laneOf<Id extends string>(stations: readonly Station<Id>[], camera: Camera, view: SiteView): Lane<Id> {
  const found = stations.map((station) => ({ station, ...station.judge(camera, view) }));
  const stoppedAt = found.findIndex(({ gates }) => gates.some(({ holds }) => !holds));
  const stand = found[stoppedAt];
  const isDone = ({ gates }: StationFound): boolean => gates.every(({ holds }) => holds);
  const open = found.find(({ verdict }) => verdict === 'unknown');
  const notKnown = stand || !open ? null : (open.open[0] ?? `Is ${open.station.name} as it should be?`);
  const done = stations.at(-1)?.done ?? 'Nothing';
  const findings = found.flatMap(({ findings: own }) => own).sort(bySeverity);
  return {
    cameraId: camera.id,
    stations: found.map((one, at) => ({
      station: one.station.id,
      name: one.station.name,
      verdict: one.verdict,
      isDone: isDone(one) && (stoppedAt === -1 || at < stoppedAt),
      findings: one.findings,
      open: one.open,
    })),
    standsAt: stand?.station.id ?? null,
    worst: findings.find(({ severity }) => severity !== 'note') ?? null,
    findings,
    next: stand?.gates.find(({ holds }) => !holds)?.next ?? null,
    notKnown,
    // what is not known is not left out because all gates hold
    idle: stand ? stand.idle : notKnown === null ? done : `${done}. Not known: ${notKnown}`,
    measured: found.find(({ measured }) => measured)?.measured ?? null,
  };
}

/**
 * Works out the lanes of all cameras from the document, in the order of the site's cameras.
 * @param secrets what is known of the secrets in reach; without it what hangs on them is not known
 */
export const lanesOf = (site: Site, index: EvidenceIndex, secrets: SecretsKnown = NO_SECRETS): readonly Lane[] => {
  const view = viewOf(site, index, secrets);
  return site.cameras.map((camera) => laneOf<StationId>(STATIONS, camera, view));
};

/** The same of one document after the other: a lane that is found as it was stays the same object, and is not drawn anew. */
export function createLaneReckoner(): (site: Site, index: EvidenceIndex, secrets?: SecretsKnown) => readonly Lane[] {
  let kept: ReadonlyMap<string, Lane> = new Map();
  return (site, index, secrets) => {
    const lanes = lanesOf(site, index, secrets).map((lane) => {
      const before = kept.get(lane.cameraId);
      return before && equal(before, lane) ? before : lane;
    });
    kept = new Map(lanes.map((lane) => [lane.cameraId, lane]));
    return lanes;
  };
}
