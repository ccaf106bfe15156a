/** Why a probe failed. Stable: rules, tests and callers key on these. */
export const PROBE_CAUSES = [
  'bad-url',
  'unresolved-host',
  'unreachable',
  'refused',
  'timeout',
  'closed',
  'not-rtsp',
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'not-found',
  'transport-refused',
  'too-many-sessions',
  'server-error',
  'redirect-loop',
  'protocol-error',
  'no-video',
  'no-packets',
  'unsupported-codec',
  'blocked-by-policy',
] as const;
export type ProbeCause = (typeof PROBE_CAUSES)[number];

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

/** Times are ms since the probe began, on a monotonic clock. */
export interface ProbeStep {
  readonly name: ProbeStepName;
  readonly startMs: number;
  readonly durationMs: number;
  readonly ok: boolean;
  /** RTSP status of the answer, when the step had one. */
  readonly status: number | null;
  readonly note: string | null;
}

/** One line of the wire tape: what crossed the wire, redacted, with its time. */
export interface TapeEntry {
  readonly atMs: number;
  readonly step: ProbeStepName;
  readonly direction: 'sent' | 'received' | 'remark';
  readonly text: string;
}

export interface DeclaredMedia {
  readonly width: number | null;
  readonly height: number | null;
  readonly fps: number | null;
  readonly profile: string | null;
  readonly level: string | null;
  readonly channels: number | null;
}

export interface MeasuredMedia {
  readonly seconds: number;
  readonly packets: number;
  readonly lost: number;
  readonly duplicates: number;
  readonly reordered: number;
  /** How often the source began anew: another SSRC, or numbers that start elsewhere. */
  readonly sourceChanges: number;
  /** Time stamps that leapt away from the clock. */
  readonly timestampJumps: number;
  readonly lossRatio: number;
  readonly jitterMs: number;
  readonly fps: number | null;
  readonly bitrateKbps: number;
  readonly keyframeIntervalFrames: number | null;
  readonly keyframeIntervalSeconds: number | null;
  readonly width: number | null;
  readonly height: number | null;
}

/** Where the parameter sets of a codec that needs them came from, and whether the two agree. */
export interface ParameterSets {
  readonly seen: 'both' | 'declared' | 'in-band' | 'none';
  readonly agree: boolean | null;
}

export interface ProbeMedia {
  readonly kind: 'video' | 'audio' | 'application';
  readonly codec: string | null;
  readonly payloadType: number | null;
  readonly clockRate: number | null;
  readonly control: string;
  readonly declared: DeclaredMedia & { readonly bitrateKbps: number | null };
  readonly measured: MeasuredMedia | null;
  /** `null` for codecs without them, and before a key frame was seen. */
  readonly parameterSets: ParameterSets | null;
}

export const AUTH_SCHEMES = ['none', 'basic', 'digest-md5', 'digest-sha-256', 'digest-sha-512-256'] as const;
export type AuthScheme = (typeof AUTH_SCHEMES)[number];

export type Severity = 'stop' | 'fix' | 'watch' | 'note';

/** A rule's result about something. */
export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly title: string;
  /** The evidence, with numbers. */
  readonly because: string;
  /** What to do, a step each. */
  readonly do: readonly string[];
  readonly why: string;
}

/** What a probe found: the one report that the screen, the server and the command line share. */
export interface ProbeReport {
  /** Credentials removed. */
  readonly target: { readonly url: string; readonly host: string; readonly port: number; readonly path: string };
  readonly verdict: 'ok' | 'warn' | 'fail';
  readonly cause: ProbeCause | null;
  readonly steps: readonly ProbeStep[];
  readonly auth: {
    readonly scheme: AuthScheme;
    readonly qop: 'auth' | 'auth-int' | null;
    readonly realm: string | null;
  };
  readonly server: string | null;
  /** How the packets came, and why that way; `null` when no track was set up. */
  readonly transport: 'tcp' | 'udp' | null;
  readonly transportReason: string | null;
  readonly sessionTimeoutS: number | null;
  /** Camera clock minus ours in ms, by an RTCP sender report; `null` when none came. */
  readonly clockErrorMs: number | null;
  readonly media: readonly ProbeMedia[];
  readonly findings: readonly Finding[];
}
