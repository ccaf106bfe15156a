import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { countedSessions, isCountCurrent } from '../../evidence/sessions-evidence.ts';
import type { Finding } from '../../findings/finding.ts';
import { findingsOfSessions } from '../../sessions/sessions-rules.ts';
import type { SiteView } from '../../site/site-view.ts';

const NONE: readonly never[] = [];

/** Of the last count of its sessions, where it was counted at its present address. */
export function countFindings(camera: Camera, { index }: Pick<SiteView, 'index'>): readonly Finding[] {
  const counted = countedSessions(index, camera.id);
  return counted && isCountCurrent(counted, camera) ? findingsOfSessions(counted.report) : NONE;
}
