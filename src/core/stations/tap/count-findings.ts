import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { countedSessions, isCountCurrent } from '../../evidence/sessions-evidence.ts';
import type { Finding } from '../../findings/finding.ts';
import { findingsOf, type Row } from '../../findings/rule.ts';
import { judgeSessions } from '../../sessions/sessions-rules.ts';
import type { SiteView } from '../../site/site-view.ts';

const NONE: readonly never[] = [];

/** Of the last count of its sessions, where it was counted at its present address. */
export function countRows(camera: Camera, { index }: Pick<SiteView, 'index'>): readonly Row[] {
  const counted = countedSessions(index, camera.id);
  return counted && isCountCurrent(counted, camera) ? judgeSessions(counted.report) : NONE;
}

export const countFindings = (camera: Camera, view: Pick<SiteView, 'index'>): readonly Finding[] =>
  findingsOf(countRows(camera, view));
