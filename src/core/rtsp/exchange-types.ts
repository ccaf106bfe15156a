/** Why a probe failed. Stable: rules, tests and callers key on these. */
export const PROBE_CAUSES = [
  'bad-url',
  'unresolved-host',
  'unreachable',
  'refused',
  'timeout',
  'closed',
  'not-rtsp',
  'tls-failed',
  'not-tls',
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'login-held',
  'certificate-changed',
  'forbidden',
  'not-found',
  'transport-refused',
  'too-many-sessions',
  'session-lost',
  'server-error',
  'redirect-loop',
  'protocol-error',
  'no-video',
  'no-packets',
  'unsupported-codec',
  'blocked-by-policy',
] as const;
export type ProbeCause = (typeof PROBE_CAUSES)[number];

/** Why a line to a device did not come about, or did not last: of every protocol the same. */
export const DIAL_CAUSES = [
  'unresolved-host',
  'unreachable',
  'refused',
  'timeout',
  'closed',
  'blocked-by-policy',
] as const satisfies readonly ProbeCause[];
export type DialCause = (typeof DIAL_CAUSES)[number];

/** The steps of a probe in the order in which they run; one that was not reached is missing from a report. */
export const PROBE_STEPS = [
  'resolve',
  'connect',
  'options',
  'describe',
  'authenticate',
  'setup',
  'play',
  'first-packet',
  'first-keyframe',
  'sample',
  'teardown',
] as const;
export type ProbeStepName = (typeof PROBE_STEPS)[number];

/** One line of the wire tape: what crossed the wire, redacted, with its time. */
export interface TapeEntry {
  readonly atMs: number;
  readonly step: ProbeStepName;
  readonly direction: 'sent' | 'received' | 'remark';
  readonly text: string;
}

export const AUTH_SCHEMES = ['none', 'basic', 'digest-md5', 'digest-sha-256', 'digest-sha-512-256'] as const;
export type AuthScheme = (typeof AUTH_SCHEMES)[number];
