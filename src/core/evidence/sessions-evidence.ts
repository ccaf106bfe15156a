import type { Camera } from '../document/chapters/cameras/camera.ts';
import { cameraSubject } from '../document/subject.ts';
import type { SessionsReport } from '../sessions/sessions-types.ts';
import { type EvidenceIndex, lastPayload } from './evidence-index.ts';

/** The last count of sessions of a camera, and where it was counted. */
export interface CountedSessions {
  readonly report: SessionsReport;
  readonly host: string;
  readonly at: string;
}

export function countedSessions(index: EvidenceIndex, cameraId: string): CountedSessions | null {
  const last = lastPayload(index, cameraSubject(cameraId), 'sessions');
  return last ? { report: last.payload.report, host: last.payload.host, at: last.takenAt } : null;
}

/** It was counted where the camera is now: another address may be another camera. */
export const isCountCurrent = (counted: CountedSessions, { host }: Pick<Camera, 'host'>): boolean =>
  counted.host === host;

/** So many clients it is known to serve, where `used` are planned: as counted, else as its card says. */
export function sessionsAllowed(
  report: SessionsReport | null,
  ofCard: number | null | undefined,
  used: number,
): number | undefined {
  if (report?.limit != null && report.limit > 0) return report.limit;
  // a count that met no refusal proves that so many play, and no limit
  if (report?.limit === null && used < report.opened && (ofCard ?? 0) < report.opened) return report.opened;
  return ofCard ?? undefined;
}
