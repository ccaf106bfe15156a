import { clipText } from '../../../base/clip.ts';
import { TEXT_LIMITS } from '../../../base/limits.ts';
import { sayMany } from '../../../base/say.ts';
import type { SessionsReport } from '../../../sessions/sessions-types.ts';
import { cameraOf, type Recorders, words } from '../../command-parts.ts';
import { factsOfCount } from '../../facts-of-count.ts';
import { cameraSubject } from '../../subject.ts';

/** How many sessions a camera played at once. */
export interface SessionsRecord {
  readonly kind: 'recordSessions';
  readonly cameraId: string;
  readonly countId: string;
  readonly host: string;
  readonly report: SessionsReport;
}

const isKeepable = (value: unknown): boolean => typeof value !== 'number' || Number.isFinite(value);

export const SESSIONS_RECORDERS: Recorders<SessionsRecord> = {
  recordSessions: (site, { cameraId, countId, host, report }) => {
    const subject = cameraSubject(cameraId);
    const { limit, opened, most, refusedWith, effectOnFirst } = report;
    const outcome =
      opened === 0 ? 'none was had' : limit === null ? `none of ${most} was refused` : sayMany(limit, 'session');
    return {
      ...words('tap', subject, `${cameraOf(site, cameraId).name}, sessions at once: ${outcome}`, {
        'then told': refusedWith ? clipText(refusedWith.note, TEXT_LIMITS.place) : undefined,
        'the first one then': effectOnFirst ?? undefined,
      }),
      source: countId,
      facts: factsOfCount(report, host)
        .filter(([, value]) => isKeepable(value))
        .map(([quantity, value]) => ({ subject, quantity, value, how: 'measured' as const })),
    };
  },
};
