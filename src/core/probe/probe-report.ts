import type { ChosenChallenge } from '../auth/challenge.ts';
import { clipText } from '../base/clip.ts';
import { STREAM_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import type { Finding } from '../findings/finding.ts';
import { findingsOf, judgeRows } from '../findings/rule.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import { redactText } from '../net/redact-text.ts';
import type { TargetFault } from '../net/target.ts';
import { type AuthScheme, PROBE_STEPS, type ProbeCause } from '../rtsp/exchange-types.ts';
import { declaredParameterSets } from '../sdp/sdp-parser.ts';
import type { SdpMedia, SdpSession } from '../sdp/sdp-types.ts';
import { parseSps } from '../video/sps.ts';
import { findingOfCause } from './cause-findings.ts';
import { probeFacts } from './probe-facts.ts';
import { USUAL_LIMITS } from './probe-limits.ts';
import { PROBE_RULES } from './probe-rules.ts';
import type { MeasuredMedia, ProbeMedia, ProbeReport, ProbeStep } from './probe-types.ts';
import { proofOf } from './proof.ts';
import type { Diagnosis } from './reasons.ts';
import type { TrackMeter } from './track-meter.ts';

export interface ReportInput {
  readonly target: ProbeReport['target'];
  readonly failure: { readonly cause: ProbeCause; readonly note: string } | null;
  readonly steps: readonly ProbeStep[];
  readonly challenge: ChosenChallenge | null;
  readonly login: {
    readonly offered: readonly string[];
    readonly refusedInAll: number;
    readonly staleEachTime: boolean;
  };
  readonly server: string | null;
  readonly sessionTimeoutS: number | null;
  readonly clockErrorMs: number | null;
  readonly hasSenderReports: boolean;
  readonly tls: CertificateSeen | null;
  readonly refusedKeepAlive: string | null;
  /** The sample ran to its end. */
  readonly isSampled: boolean;
  readonly transport: ProbeReport['transport'];
  readonly transportReason: string | null;
  readonly session: SdpSession | null;
  readonly meters: ReadonlyMap<number, TrackMeter>;
  /** Tells a camera's own URLs without the login that a path may hold. */
  readonly hide: (text: string) => string;
}

/** Puts what a probe saw into the one report, and judges it. */
export function composeReport(input: ReportInput): ProbeReport {
  const media = (input.session?.media ?? []).map((section, index) => ({
    ...reportMedia(section, input.meters.get(index), input.isSampled),
    control: fromCamera(redactText(input.hide(section.control.slice(0, TEXT_LIMITS.evidence)))),
  }));
  const unjudged: Omit<ProbeReport, 'findings' | 'verdict' | 'diagnosis'> = {
    target: input.target,
    cause: input.failure?.cause ?? null,
    note: input.failure?.note ?? '',
    steps: [...input.steps].sort(
      (a, b) => a.startMs - b.startMs || PROBE_STEPS.indexOf(a.name) - PROBE_STEPS.indexOf(b.name),
    ),
    auth: {
      scheme: schemeOf(input.challenge),
      qop: input.challenge?.scheme === 'digest' ? input.challenge.qop : null,
      realm: input.challenge ? fromCamera(input.challenge.realm) : null,
      offered: input.login.offered,
      refusals: input.login.refusedInAll,
      staleEachTime: input.login.staleEachTime,
    },
    server: input.server,
    transport: input.transport,
    transportReason: input.transportReason,
    sessionTimeoutS: input.sessionTimeoutS,
    clockErrorMs: input.clockErrorMs,
    hasSenderReports: input.hasSenderReports,
    tls: input.tls,
    refusedKeepAlive: input.refusedKeepAlive,
    media,
  };
  const judged = findingsOf(judgeRows(PROBE_RULES, { ...probeFacts(unjudged), limits: USUAL_LIMITS }));
  const findings: readonly Finding[] = input.failure
    ? [findingOfCause(input.failure.cause, input.failure.note), ...judged]
    : judged;
  const isWorthFixing = judged.some(({ severity }) => severity === 'stop' || severity === 'fix');
  return { ...unjudged, diagnosis: null, verdict: input.failure ? 'fail' : isWorthFixing ? 'warn' : 'ok', findings };
}

/** The same report, its first finding put as experiments told it. */
export function withDiagnosis(report: ProbeReport, diagnosis: Diagnosis): ProbeReport {
  const { cause, note, findings } = report;
  if (cause === null) return { ...report, diagnosis };
  return { ...report, diagnosis, findings: [findingOfCause(cause, note, proofOf(diagnosis)), ...findings.slice(1)] };
}

/** The report of a URL that cannot be dialled: nothing was sent. */
export function reportOfBadTarget({ cause, note }: TargetFault): ProbeReport {
  return composeReport({
    target: { url: '', host: '', port: 0, path: '' },
    failure: { cause, note },
    steps: [],
    challenge: null,
    login: { offered: [], refusedInAll: 0, staleEachTime: false },
    server: null,
    sessionTimeoutS: null,
    clockErrorMs: null,
    hasSenderReports: false,
    tls: null,
    refusedKeepAlive: null,
    isSampled: false,
    transport: null,
    transportReason: null,
    session: null,
    meters: new Map(),
    hide: (text) => text,
  });
}

function schemeOf(challenge: ChosenChallenge | null): AuthScheme {
  if (!challenge) return 'none';
  if (challenge.scheme === 'basic') return 'basic';
  if (challenge.algorithm.startsWith('SHA-512')) return 'digest-sha-512-256';
  return challenge.algorithm.startsWith('SHA-256') ? 'digest-sha-256' : 'digest-md5';
}

/** RFC 3640 carries AAC under the name MPEG4-GENERIC; the trade calls it AAC. */
const codecOf = (media: SdpMedia): string | null => (media.aac || media.codec === 'MP4A-LATM' ? 'AAC' : media.codec);

/** What a camera may say of itself at most; where it is longer, a site could not keep it. */
const MAX_CAMERA_CHARS = 400;
const fromCamera = (text: string): string => clipText(text, MAX_CAMERA_CHARS);

/** A number nobody believes is none. */
const believed = (fps: number | null): number | null =>
  fps !== null && fps > 0 && fps <= STREAM_LIMITS.fps ? Number(fps.toFixed(3)) : null;

function reportMedia(media: SdpMedia, meter: TrackMeter | undefined, isSampled: boolean): Omit<ProbeMedia, 'control'> {
  const sps = media.codec === 'H264' || media.codec === 'H265' ? firstSps(media) : null;
  const fps = media.framerate ?? (sps?.fps ? sps.fps[0] / sps.fps[1] : null);
  return {
    kind: media.kind,
    codec: codecOf(media),
    payloadType: media.payloadType,
    clockRate: media.clockRate,
    declared: {
      width: sps?.width ?? media.dimensions?.[0] ?? null,
      height: sps?.height ?? media.dimensions?.[1] ?? null,
      fps: believed(fps),
      profile: sps?.profile ?? null,
      level: sps?.level ?? null,
      channels: media.aac?.channels ?? media.channels,
      sampleRate: media.aac?.sampleRate ?? null,
      bitrateKbps: media.bandwidthKbps,
    },
    measured: measuredOf(meter?.measured() ?? null, media, isSampled),
    parameterSets: parameterSetsOf(media, meter),
  };
}

/** Blocks of a JPEG are eight pixels wide; its header over RTP counts them whole. Source: RFC 2435 §3.1.5. */
const JPEG_BLOCK_PX = 8;

/** What a sample measured that did not come to its end is no rate; a last block that is padded is no other size. */
function measuredOf(measured: MeasuredMedia | null, media: SdpMedia, isSampled: boolean): MeasuredMedia | null {
  if (!measured) return null;
  const rate = isSampled
    ? {}
    : {
        bitrateKbps: null,
        fps: null,
        keyframeIntervalFrames: null,
        keyframeIntervalSeconds: null,
        jitterMs: null,
        longestGapMs: null,
        groupSpreadFrames: null,
        clockRatio: null,
        clockRatioError: null,
      };
  const [width, height] = media.dimensions ?? [];
  const isPadded = (coded: number | null, said: number | undefined): boolean =>
    coded !== null && said !== undefined && coded >= said && coded - said < JPEG_BLOCK_PX;
  const size =
    media.codec === 'JPEG' && isPadded(measured.width, width) && isPadded(measured.height, height)
      ? { width: width ?? null, height: height ?? null }
      : {};
  return { ...measured, ...rate, ...size };
}

/** Only the SPS is compared: a camera that sends it sends the rest with it. Source: RFC 6184 §8.1, §8.4. */
function parameterSetsOf(media: SdpMedia, meter: TrackMeter | undefined): ProbeMedia['parameterSets'] {
  const codec = media.codec === 'H264' ? 'h264' : media.codec === 'H265' ? 'h265' : null;
  if (!codec || !meter?.hasKeyFrame) return null;
  const declared = declaredParameterSets(media).find((nal) => parseSps(codec, nal).ok);
  const inBand = meter.sps;
  if (declared && inBand)
    return {
      seen: 'both',
      agree: declared.length === inBand.length && declared.every((byte, i) => byte === inBand[i]),
    };
  return { seen: declared ? 'declared' : inBand ? 'in-band' : 'none', agree: null };
}

function firstSps(media: SdpMedia) {
  for (const nal of declaredParameterSets(media)) {
    const sps = parseSps(media.codec === 'H265' ? 'h265' : 'h264', nal);
    if (sps.ok) return sps.value;
  }
  return null;
}
