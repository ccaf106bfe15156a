import {
  type Check,
  type ChecksOf,
  finite,
  flag,
  listOf,
  number,
  orNull,
  part,
  record,
  text,
  whole,
  word,
} from '../../base/check.ts';
import { hasOwn } from '../../base/has-own.ts';
import { isRecord } from '../../base/is-record.ts';
import { TEXT_LIMITS } from '../../base/limits.ts';
import { CAMERA_LINES } from '../../net/camera-line.ts';
import { STREAM_PATH } from '../../net/path-places.ts';
import { PORT_RANGE } from '../../net/port-range.ts';
import { ONVIF_CAUSES } from '../../onvif/onvif-cause.ts';
import { checkReading } from '../../onvif/reading-check.ts';
import { EVENT_KINDS } from '../../onvif/services/events.ts';
import type { Heard } from '../../onvif-client/hear-machine.ts';
import type { ProbeFacts } from '../../probe/probe-facts.ts';
import { PARAMETER_SETS_SEEN } from '../../probe/probe-types.ts';
import { type FoundWay, REASONS } from '../../probe/reasons.ts';
import { AUTH_SCHEMES, PROBE_CAUSES } from '../../rtsp/exchange-types.ts';
import { checkSeenHost } from '../../scan/seen-check.ts';
import { EFFECTS_ON_FIRST, type SessionRefusal, type SessionsReport } from '../../sessions/sessions-types.ts';
import type { PayloadKind, PayloadOf } from './payload.ts';

// What is judged again from a journal is checked field by field, whoever wrote it. A new field does not compile without its check.

const evidence = text(TEXT_LIMITS.evidence);
const count = whole(0, Number.MAX_SAFE_INTEGER);

const FACTS: ChecksOf<ProbeFacts> = {
  lossRatio: finite,
  lost: finite,
  expected: finite,
  lossEvents: finite,
  transport: word(['tcp', 'udp']),
  jitterMs: finite,
  longestGapMs: finite,
  duplicates: finite,
  reordered: finite,
  packets: finite,
  declaredFps: finite,
  measuredFps: finite,
  declaredSize: evidence,
  measuredSize: evidence,
  keyframeIntervalS: finite,
  keyframeIntervalFrames: finite,
  sampleWithoutSecondKeyframeS: finite,
  authScheme: word(AUTH_SCHEMES),
  loginInUrl: flag,
  loginInPath: flag,
  senderReports: flag,
  observedS: finite,
  clockErrorS: finite,
  sessionTimeoutS: finite,
  codec: evidence,
  declaresSize: flag,
  slowestAnswerMs: finite,
  parameterSets: word(PARAMETER_SETS_SEEN),
  parameterSetsAgree: flag,
  sourceChanges: finite,
  timestampJumps: finite,
  vuiFps: finite,
  bFrames: flag,
  closedKeyFrames: finite,
  openKeyFrames: finite,
  groupSpreadFrames: finite,
  clockRatio: finite,
  clockRatioError: finite,
  driftMsPerMin: finite,
  driftErrorMsPerMin: finite,
  soundTicksPerUnit: finite,
  soundUnitTicks: finite,
  soundUnreadPackets: finite,
  soundPackets: finite,
  refusedKeepAlive: evidence,
  isEncrypted: flag,
  tlsSubject: evidence,
  tlsProtocol: evidence,
  tlsSelfSigned: flag,
  tlsDaysLeft: finite,
  tlsDaysUntil: finite,
  tlsNamesHost: flag,
  tlsShortKey: flag,
  tlsWeakHash: evidence,
  tlsFingerprint: evidence,
};

const fitsIn =
  <T>(checks: ChecksOf<T>) =>
  (name: string, value: unknown): boolean =>
    hasOwn(checks, name) && checks[name as keyof T](value) === null; // a name of the table
/** Whether a fact is one that rules about a probe are judged by, with a value of its kind. */
export const isProbeFact = fitsIn<ProbeFacts>(FACTS);

const path: Check = (value) =>
  text(TEXT_LIMITS.path)(value) ?? (STREAM_PATH.test(String(value)) ? null : 'must be a path');
const FOUND: ChecksOf<FoundWay> = {
  path,
  port: whole(PORT_RANGE.min, PORT_RANGE.max),
  line: word(CAMERA_LINES),
  transport: word(['tcp', 'udp']),
};

/** The same of where a stream works. */
export const isFoundWay = fitsIn<FoundWay>(FOUND);

const SESSIONS: ChecksOf<SessionsReport> = {
  limit: orNull(count),
  opened: count,
  most: count,
  refusedWith: orNull(record<SessionRefusal>({ cause: word(PROBE_CAUSES), status: orNull(finite), note: evidence })),
  firstAlonePerS: orNull(finite),
  firstBesidePerS: orNull(finite),
  effectOnFirst: orNull(word(EFFECTS_ON_FIRST)),
  closed: count,
};

const HEARD: ChecksOf<Heard> = {
  seconds: number(0, Number.MAX_SAFE_INTEGER),
  changes: count,
  motions: count,
  firstMotionS: orNull(finite),
  kinds: listOf(word(EVENT_KINDS), EVENT_KINDS.length),
  lost: count,
  cause: orNull(word(ONVIF_CAUSES)),
  note: evidence,
};

/** Of one entry: what a sweep saw beyond it is another one. */
export const HOSTS_OF_SWEEP = 250;

const of = text(TEXT_LIMITS.subject, 1);
/** It was asked for by its name, which is right then. */
const kind: Check = () => null;

const CHECKS: { readonly [K in PayloadKind]: Check } = {
  probe: record<PayloadOf<'probe'>>({
    kind,
    of,
    url: evidence,
    verdict: word(['ok', 'warn', 'fail']),
    cause: orNull(word(PROBE_CAUSES)),
    note: evidence,
    reason: orNull(word(REASONS)),
    proof: evidence,
    found: part<FoundWay>(FOUND),
    facts: part<ProbeFacts>(FACTS),
  }),
  reading: record<PayloadOf<'reading'>>({ kind, of, reading: checkReading }),
  sessions: record<PayloadOf<'sessions'>>({ kind, of, host: evidence, report: record<SessionsReport>(SESSIONS) }),
  sweep: record<PayloadOf<'sweep'>>({
    kind,
    of,
    range: evidence,
    isWhole: flag,
    hosts: listOf(checkSeenHost, HOSTS_OF_SWEEP),
  }),
  heard: record<PayloadOf<'heard'>>({ kind, of, heard: record<Heard>(HEARD) }),
};

/** What is wrong with what an entry taught; `null` when nothing is. */
export const checkPayload: Check = (value) => {
  if (!isRecord(value)) return 'must be an object';
  const named = value.kind;
  return typeof named === 'string' && hasOwn(CHECKS, named)
    ? CHECKS[named as PayloadKind](value) // it is one of its own names
    : `.kind must be one of ${Object.keys(CHECKS).join(', ')}`;
};
