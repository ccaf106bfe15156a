import type { Finding } from '../findings/finding.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import type { AuthScheme, ProbeCause, ProbeStepName } from '../rtsp/exchange-types.ts';
import type { Diagnosis } from './reasons.ts';

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

export interface DeclaredMedia {
  readonly width: number | null;
  readonly height: number | null;
  readonly fps: number | null;
  readonly profile: string | null;
  readonly level: string | null;
  readonly channels: number | null;
  /** Of sound, as its configuration says; its clock may count otherwise. */
  readonly sampleRate: number | null;
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
  /** Runs of packets that never arrived: a burst is one. */
  readonly lossEvents: number;
  readonly lossRatio: number;
  /** Within so much of when they were due came 95 of 100 frames; `null` where too few came. */
  readonly jitterMs: number | null;
  /** The longest that no frame came beyond when the next was due. */
  readonly longestGapMs: number | null;
  readonly fps: number | null;
  /** `null` where the sample failed or was too short for a rate. */
  readonly bitrateKbps: number | null;
  readonly keyframeIntervalFrames: number | null;
  readonly keyframeIntervalSeconds: number | null;
  /** From the last key frame to the end of the sample. */
  readonly secondsSinceKeyFrame: number | null;
  readonly width: number | null;
  readonly height: number | null;
  /** By the SPS that came with the pictures, or was declared: what an encoder was set to. `null` where it says nothing. */
  readonly vuiFps: number | null;
  /** Pictures are sent in another order than they are shown; `null` where too few came to tell. */
  readonly bFrames: boolean | null;
  /** Key frames that a decoder may begin with, and those of open groups: pictures after them lean on the group before. */
  readonly closedKeyFrames: number;
  readonly openKeyFrames: number;
  /** Frames between the shortest and the longest group of pictures; `null` where fewer than two whole ones came. */
  readonly groupSpreadFrames: number | null;
  readonly kbpsBySecond: readonly number[];
  /** Seconds that the time stamps count in one second; `null` where too little came. */
  readonly clockRatio: number | null;
  /** How well that is known, up and down. */
  readonly clockRatioError: number | null;
  /** Millionths by which time stamps run ahead of the camera's own clock, by its sender reports; and how well that is known. */
  readonly clockPpm: number | null;
  readonly clockPpmError: number | null;
  /** Of AAC: ticks that one access unit lasts, and packets that could not be taken apart as the description says. */
  readonly ticksPerUnit: number | null;
  readonly unreadPackets: number;
}

export const PARAMETER_SETS_SEEN = ['both', 'declared', 'in-band', 'none'] as const;
/** Where the parameter sets of a codec that needs them came from, and whether the two agree. */
export interface ParameterSets {
  readonly seen: (typeof PARAMETER_SETS_SEEN)[number];
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

/** What a probe found: the one report that the screen, the server and the command line share. */
export interface ProbeReport {
  /** Credentials removed. */
  readonly target: { readonly url: string; readonly host: string; readonly port: number; readonly path: string };
  readonly verdict: 'ok' | 'warn' | 'fail';
  readonly cause: ProbeCause | null;
  /** What was seen of the cause; empty where it did not fail. */
  readonly note: string;
  readonly steps: readonly ProbeStep[];
  readonly auth: {
    readonly scheme: AuthScheme;
    readonly qop: 'auth' | 'auth-int' | null;
    readonly realm: string | null;
    /** Schemes that it asked for, in small letters, known here or not. */
    readonly offered: readonly string[];
    /** Logins that it refused in this probe. */
    readonly refusals: number;
    /** Each answer was called out of date, however fresh. */
    readonly staleEachTime: boolean;
  };
  readonly server: string | null;
  /** How the packets came, and why that way; `null` when no track was set up. */
  readonly transport: 'tcp' | 'udp' | null;
  readonly transportReason: string | null;
  readonly sessionTimeoutS: number | null;
  /** Camera clock minus ours in ms, by an RTCP sender report; `null` when none came. */
  readonly clockErrorMs: number | null;
  /** What it showed, where the line was encrypted. */
  readonly tls: CertificateSeen | null;
  /** A keep-alive that it offered and refused; `null` where none was refused. */
  readonly refusedKeepAlive: string | null;
  /** Sender reports came, with a clock or without. */
  readonly hasSenderReports: boolean;
  readonly media: readonly ProbeMedia[];
  /** Why it failed, as experiments told; `null` where it did not fail, or none were made. */
  readonly diagnosis: Diagnosis | null;
  readonly findings: readonly Finding[];
}
