import type { Facts } from '../findings/rule.ts';
import { type CertificateFacts, certificateFacts } from '../net/certificate-rules.ts';
import { asksForSecret } from '../net/path-places.ts';
import type { AuthScheme } from '../rtsp/exchange-types.ts';
import type { ProbeLimits } from './probe-limits.ts';
import type { ParameterSets, ProbeMedia, ProbeReport, ProbeStep } from './probe-types.ts';

/** What the rules about one probe may ask for. */
export interface ProbeFacts extends CertificateFacts {
  readonly lossRatio: number;
  readonly lost: number;
  readonly expected: number;
  /** Runs of lost packets: a burst is one. */
  readonly lossEvents: number;
  readonly transport: 'tcp' | 'udp';
  readonly jitterMs: number;
  readonly longestGapMs: number;
  readonly duplicates: number;
  readonly reordered: number;
  readonly packets: number;
  readonly declaredFps: number;
  readonly measuredFps: number;
  readonly declaredSize: string;
  readonly measuredSize: string;
  readonly keyframeIntervalS: number;
  readonly keyframeIntervalFrames: number;
  /** From the only key frame of the sample to its end. */
  readonly sampleWithoutSecondKeyframeS: number;
  readonly authScheme: AuthScheme;
  /** A login stands inside a URL: in the path that was asked for, or in one that the camera sent. */
  readonly loginInUrl: boolean;
  /** Its own path holds the login: that is one, whatever the server then asks for. */
  readonly loginInPath: boolean;
  readonly senderReports: boolean;
  readonly observedS: number;
  readonly clockErrorS: number;
  readonly sessionTimeoutS: number;
  readonly codec: string;
  readonly declaresSize: boolean;
  /** The longest that an answer took, the login apart. */
  readonly slowestAnswerMs: number;
  readonly parameterSets: ParameterSets['seen'];
  readonly parameterSetsAgree: boolean;
  readonly sourceChanges: number;
  readonly timestampJumps: number;
  readonly vuiFps: number;
  readonly bFrames: boolean;
  readonly closedKeyFrames: number;
  readonly openKeyFrames: number;
  readonly groupSpreadFrames: number;
  readonly clockRatio: number;
  readonly clockRatioError: number;
  /** By how much picture and sound, each by its own sender reports, come apart in a minute, and how well that is known. */
  readonly driftMsPerMin: number;
  readonly driftErrorMsPerMin: number;
  readonly soundTicksPerUnit: number;
  readonly soundUnitTicks: number;
  readonly soundUnreadPackets: number;
  readonly soundPackets: number;
  readonly refusedKeepAlive: string;
  readonly isEncrypted: boolean;
}

/** The same with what the site assumes: no fact of a probe, so that it is kept with none. */
export interface JudgedFacts extends ProbeFacts {
  readonly limits: ProbeLimits;
  /** How the camera is connected, where the site says so. */
  readonly isOnWifi: boolean;
}

const sizeOf = (of: { width: number | null; height: number | null } | null | undefined): string | undefined =>
  of?.width && of.height ? `${of.width}×${of.height}` : undefined;
const present = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

const ANSWERED: ReadonlySet<string> = new Set(['options', 'describe', 'authenticate', 'setup', 'play']);
function slowestAnswerMs(steps: readonly ProbeStep[]): number | undefined {
  const answers = steps.filter(({ name, ok, status }) => ANSWERED.has(name) && ok && status !== null);
  return answers.length > 0 ? Math.max(...answers.map(({ durationMs }) => durationMs)) : undefined;
}

/** A report has placeholders and masks where a login stood. */
const hidesLogin = (url: string): boolean => asksForSecret(url) || url.includes('=***');

/** AAC has 1024 samples a unit. Source: ISO/IEC 14496-3 §4.5.2.1.1. */
const AAC_SAMPLES = 1024;

/** A millionth is 0.06 ms in a minute. */
const PPM_AS_MS_PER_MIN = 0.06;
const finiteOr = (value: number): number | undefined => (Number.isFinite(value) ? value : undefined);

function soundFacts(media: readonly ProbeMedia[]): Facts<ProbeFacts> {
  const measuredOf = (kind: ProbeMedia['kind']) => media.find((one) => one.kind === kind)?.measured;
  const [picture, sound] = [measuredOf('video'), measuredOf('audio')];
  const apart = (a: number | null | undefined, b: number | null | undefined): number | undefined =>
    a == null || b == null ? undefined : (a - b) * PPM_AS_MS_PER_MIN;
  const errors = [picture?.clockPpmError, sound?.clockPpmError].map((error) => error ?? Number.NaN);
  const track = media.find(({ kind }) => kind === 'audio');
  const { measured, clockRate, declared } = track ?? {};
  const rate = declared?.sampleRate;
  return {
    driftMsPerMin: apart(picture?.clockPpm, sound?.clockPpm),
    driftErrorMsPerMin: finiteOr(Math.max(...errors) * PPM_AS_MS_PER_MIN),
    soundTicksPerUnit: present(measured?.ticksPerUnit),
    soundUnitTicks: rate && clockRate ? (AAC_SAMPLES * clockRate) / rate : undefined,
    soundUnreadPackets: measured?.unreadPackets,
    soundPackets: measured?.packets,
  };
}

/** Facts of a report: the first video track, the login and the session. */
export function probeFacts(report: Omit<ProbeReport, 'findings' | 'verdict' | 'diagnosis'>): Facts<ProbeFacts> {
  const video: ProbeMedia | undefined = report.media.find((media) => media.kind === 'video');
  const measured = video?.measured ?? undefined;
  const described = report.media.length > 0;
  const sampled = report.steps.some((step) => step.name === 'sample' && step.ok);
  return {
    lossRatio: measured?.lossRatio,
    lost: measured?.lost,
    expected: measured && measured.packets - measured.duplicates + measured.lost,
    lossEvents: measured?.lossEvents,
    transport: present(report.transport),
    jitterMs: present(measured?.jitterMs),
    longestGapMs: present(measured?.longestGapMs),
    duplicates: measured?.duplicates,
    reordered: measured?.reordered,
    packets: measured?.packets,
    declaredFps: present(video?.declared.fps),
    measuredFps: present(measured?.fps),
    declaredSize: sizeOf(video?.declared),
    measuredSize: sizeOf(measured),
    keyframeIntervalS: present(measured?.keyframeIntervalSeconds),
    keyframeIntervalFrames: present(measured?.keyframeIntervalFrames),
    sampleWithoutSecondKeyframeS:
      sampled && measured && measured.keyframeIntervalSeconds === null && video?.codec !== 'JPEG'
        ? present(measured.secondsSinceKeyFrame)
        : undefined,
    authScheme: described ? report.auth.scheme : undefined,
    loginInPath: described ? hidesLogin(report.target.path) : undefined,
    loginInUrl: described
      ? [report.target.path, ...report.media.map(({ control }) => control)].some(hidesLogin)
      : undefined,
    senderReports: measured ? report.hasSenderReports : undefined,
    observedS: measured?.seconds,
    clockErrorS: report.clockErrorMs === null ? undefined : report.clockErrorMs / 1000,
    sessionTimeoutS: present(report.sessionTimeoutS),
    codec: present(video?.codec),
    slowestAnswerMs: slowestAnswerMs(report.steps),
    parameterSets: video?.parameterSets?.seen,
    parameterSetsAgree: present(video?.parameterSets?.agree),
    sourceChanges: measured?.sourceChanges,
    timestampJumps: measured?.timestampJumps,
    vuiFps: present(measured?.vuiFps),
    bFrames: present(measured?.bFrames),
    closedKeyFrames: measured?.closedKeyFrames,
    openKeyFrames: measured?.openKeyFrames,
    groupSpreadFrames: present(measured?.groupSpreadFrames),
    clockRatio: present(measured?.clockRatio),
    clockRatioError: present(measured?.clockRatioError),
    ...soundFacts(report.media),
    isEncrypted: described ? report.tls !== null : undefined,
    refusedKeepAlive: present(report.refusedKeepAlive),
    ...(report.tls ? certificateFacts(report.tls, report.target.host) : {}),
    declaresSize: video ? sizeOf(video.declared) !== undefined : undefined,
  };
}
