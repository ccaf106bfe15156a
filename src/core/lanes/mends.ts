import { isWorse } from '../base/verdict.ts';
import type { Stamp } from '../document/command-parts.ts';
import type { Site } from '../document/site.ts';
import { applyCommand, type SiteCommand } from '../document/site-commands.ts';
import { NO_SECRETS, type SecretsKnown } from '../document/site-secrets.ts';
import type { EvidenceIndex } from '../evidence/evidence-index.ts';
import { type Finding, type Mend, SEVERITIES } from '../findings/finding.ts';
import { viewOf } from '../site/site-view.ts';
import { STATIONS } from '../stations/registry.ts';
import { lanesOf } from './lane.ts';
import type { Lane } from './lane-types.ts';

export type SiteMend = Mend<SiteCommand>;

/** Of a trial: what it writes is thrown away. */
function trialStamp(): Stamp {
  let count = 0;
  return {
    at: '1970-01-01T00:00:00.000Z',
    newId: () => {
      count += 1;
      return `trial-${count}`;
    },
  };
}

/** More than these are not tried: the likeliest come first. */
const MOST_TRIALS = 6;

/**
 * Remedies of one finding of one camera that core can carry out. Each was tried on a copy of the site: the finding goes, and
 * nothing gets worse for any camera at any station. Asked when somebody looks, since each trial judges the whole site.
 * @throws RangeError when there is no such camera: a bug of the caller
 */
export function mendsOf(
  site: Site,
  index: EvidenceIndex,
  cameraId: string,
  rule: string,
  secrets: SecretsKnown = NO_SECRETS,
): readonly SiteMend[] {
  const camera = site.cameras.find(({ id }) => id === cameraId);
  if (!camera) throw new RangeError(`cameraId: there is no camera ${cameraId}`);
  const view = viewOf(site, index, secrets);
  const offered = STATIONS.flatMap((station) => station.mends(camera, rule, view));
  if (offered.length === 0) return [];
  const before = lanesOf(site, index, secrets);
  return offered.slice(0, MOST_TRIALS).filter(({ command }) => {
    const after = lanesOf(applyCommand(site, command, trialStamp()), index, secrets);
    return isMended(before, after, cameraId, rule);
  });
}

/** Whether a finding of one camera is gone, and nothing is worse for any. */
export function isMended(before: readonly Lane[], after: readonly Lane[], cameraId: string, rule: string): boolean {
  const laneIn = (lanes: readonly Lane[]): Lane | undefined => lanes.find((lane) => lane.cameraId === cameraId);
  if (countOf(laneIn(after), rule) >= countOf(laneIn(before), rule)) return false;
  return after.every((lane, at) => {
    const was = before[at];
    return was !== undefined && !isWorseLane(was, lane);
  });
}

const countOf = (lane: Lane | undefined, rule: string): number =>
  lane?.findings.filter((finding) => finding.rule === rule).length ?? 0;

function isWorseLane(before: Lane, after: Lane): boolean {
  if (after.stations.some(({ verdict }, at) => isWorse(verdict, before.stations[at]?.verdict ?? 'unknown')))
    return true;
  return after.findings.some((finding) => isGrave(finding) && !before.findings.some((was) => isAsGrave(was, finding)));
}

const rank = ({ severity }: Finding): number => SEVERITIES.indexOf(severity);
const isGrave = (finding: Finding): boolean => rank(finding) <= SEVERITIES.indexOf('fix');
const isAsGrave = (was: Finding, now: Finding): boolean => was.rule === now.rule && rank(was) <= rank(now);
