import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { FactValue } from '../document/chapters/journal/entry.ts';
import type { QuantityName } from '../document/chapters/journal/quantities.ts';
import { cameraSubject } from '../document/subject.ts';
import { PROBE_CAUSES, type ProbeCause } from '../rtsp/exchange-types.ts';
import { EFFECTS_ON_FIRST, type SessionsReport } from '../sessions/sessions-types.ts';
import type { EvidenceIndex } from './best-known.ts';

/** The last count of sessions of a camera, and where it was counted. */
export interface CountedSessions {
  readonly report: SessionsReport;
  readonly host: string;
  readonly at: string;
}

const isCause = (text: unknown): text is ProbeCause => PROBE_CAUSES.some((cause) => cause === text);

/** Read back from the journal, which a file may have brought: what makes no sense is not known. */
export function countedSessions(index: EvidenceIndex, cameraId: string): CountedSessions | null {
  const facts = index.get(cameraSubject(cameraId));
  const first = facts?.get('sessions.played')?.at(-1);
  if (!first) return null;
  const told = (quantity: QuantityName): FactValue | undefined => facts?.get(quantity)?.at(-1)?.value;
  const number = (quantity: QuantityName): number | null => {
    const value = told(quantity);
    return typeof value === 'number' ? value : null;
  };
  const cause = told('sessions.cause');
  const effect = EFFECTS_ON_FIRST.find((one) => one === told('sessions.effect'));
  const host = told('sessions.host');
  return {
    host: typeof host === 'string' ? host : '',
    at: first.takenAt,
    report: {
      limit: number('sessions.limit'),
      opened: number('sessions.played') ?? 0,
      most: number('sessions.most') ?? 0,
      refusedWith: isCause(cause)
        ? { cause, status: number('sessions.status'), note: String(told('sessions.note') ?? '') }
        : null,
      firstAlonePerS: number('sessions.alonePerS'),
      firstBesidePerS: number('sessions.besidePerS'),
      effectOnFirst: effect ?? null,
      closed: number('sessions.closed') ?? 0,
    },
  };
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
