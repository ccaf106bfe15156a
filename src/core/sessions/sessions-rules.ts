import { sayCount, sayMany } from '../base/say.ts';
import type { Finding } from '../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, type Row, rulesFor } from '../findings/rule.ts';
import type { EffectOnFirst, SessionsReport } from './sessions-types.ts';

/** What a count of sessions gave. */
export interface SessionsFacts {
  readonly opened: number;
  readonly limit: number;
  readonly cause: string;
  readonly status: number;
  readonly note: string;
  readonly effectOnFirst: EffectOnFirst;
  readonly alonePerS: number;
  readonly besidePerS: number;
  readonly unanswered: number;
}

const rule = rulesFor<SessionsFacts>();

/** “453”, or how else a client was turned away. */
const sayRefusal = ({ cause, status }: { readonly cause: string; readonly status?: number | undefined }): string =>
  status === undefined ? `“${cause}”` : `${status}`;

export const SESSIONS_RULES = [
  rule({
    id: 'sessions.none',
    question: 'Does it grant a session at all?',
    source: 'the first session that was requested',
    needs: ['opened', 'cause', 'note'],
    fails: (f) => f.opened === 0,
    severity: 'stop',
    title: (f) => (f.cause === 'too-many-sessions' ? 'All sessions in use' : 'No session granted'),
    because: (f) => f.note,
    do: ['Probe it: that tells why.', 'If other clients pull it now, count again while they are off.'],
    why: 'How many sessions it supports is known only from sessions that play.',
  }),
  rule({
    id: 'sessions.one',
    question: 'Does it play for more than one client?',
    source: 'sessions that played at once',
    needs: ['limit'],
    isTight: (f) => f.limit === 1,
    severity: 'caution',
    title: () => 'One client at a time',
    because: () => 'The second one was refused.',
    do: ['Let one recorder or server pull it, and let all others pull from there.'],
    why: 'Whoever views it directly takes the stream from the recorder, or is refused.',
  }),
  rule({
    id: 'sessions.pushes-out',
    question: 'Does one more client end the first?',
    source: 'the first session, watched after one more was requested',
    needs: ['effectOnFirst'],
    asks: (f) => (f.opened ?? 0) > 0,
    fails: (f) => f.effectOnFirst === 'ended',
    severity: 'fix',
    title: () => 'One more client ends the first',
    because: (f) => `With one more than ${sayMany(f.limit ?? 0, 'session')} the first was ended.`,
    do: ['Plan fewer clients than it supports.', 'Let one recorder pull it, and let all others pull from there.'],
    why: 'The recorder loses its stream at the moment somebody views the camera.',
  }),
  rule({
    id: 'sessions.starves',
    question: 'Does the first client get less beside the others?',
    source: 'packets a second of the first session, alone and beside the others; below 60 % of before [A]',
    needs: ['effectOnFirst', 'alonePerS', 'besidePerS', 'opened'],
    asks: (f) => (f.opened ?? 0) > 1,
    isTight: (f) => f.effectOnFirst === 'slower' || f.effectOnFirst === 'stalled',
    severity: 'fix',
    title: (f) =>
      f.effectOnFirst === 'stalled' ? 'First client stalls beside others' : 'First client gets less beside others',
    because: (f) =>
      `${Math.round(f.besidePerS)} packets a second with ${sayMany(f.opened, 'session')} open, ${Math.round(f.alonePerS)} alone.`,
    do: ['Plan fewer clients than it grants.', 'Use the sub stream for those who only view.'],
    why: 'It grants sessions that it cannot serve, and refuses none: no client is told.',
  }),
  rule({
    id: 'sessions.odd-refusal',
    question: 'Does it say that no session is left?',
    source: 'RFC 2326 §11.3.4 (453 Not Enough Bandwidth) and 503 are the answers when no session is left',
    needs: ['limit', 'cause', 'note'],
    asks: (f) => (f.limit ?? 0) > 0,
    isTight: (f) => f.cause !== 'too-many-sessions' && f.effectOnFirst !== 'ended',
    severity: 'note',
    title: (f) => `No session left is answered by ${sayRefusal(f)}`,
    because: (f) => f.note,
    do: ['Check the number of sessions first when a client is refused like that.'],
    why: 'It reads like a wrong path or a wrong password, and is neither.',
  }),
  rule({
    id: 'sessions.teardown',
    question: 'Does it answer TEARDOWN?',
    source: 'answers to TEARDOWN, RFC 2326 §10.7',
    needs: ['unanswered', 'opened'],
    isTight: (f) => f.unanswered > 0,
    severity: 'note',
    title: (f) => `TEARDOWN unanswered: ${sayCount(f.unanswered)} of ${f.opened}`,
    because: () => 'Its sessions may stay in use until they time out.',
    do: ['Wait a minute before the next client is added.'],
    why: 'A client that is restarted finds its old session still in use.',
  }),
] as const;

export function sessionsFacts(report: SessionsReport): Facts<SessionsFacts> {
  const { limit, opened, refusedWith, effectOnFirst, firstAlonePerS, firstBesidePerS, closed } = report;
  const isFirstLost = effectOnFirst === 'ended';
  return {
    opened,
    limit: limit ?? undefined,
    cause: refusedWith?.cause ?? '',
    status: refusedWith?.status ?? undefined,
    note: refusedWith?.note ?? '',
    effectOnFirst: effectOnFirst ?? undefined,
    alonePerS: firstAlonePerS ?? undefined,
    besidePerS: firstBesidePerS ?? undefined,
    // a session that the camera ended itself needs no TEARDOWN
    unanswered: Math.max(0, opened - closed - (isFirstLost ? 1 : 0)),
  };
}

export const judgeSessions = (report: SessionsReport): readonly Row[] =>
  judgeRows(SESSIONS_RULES, sessionsFacts(report));

export const findingsOfSessions = (report: SessionsReport): readonly Finding[] => findingsOf(judgeSessions(report));
