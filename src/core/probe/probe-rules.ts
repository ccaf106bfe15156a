import { sayCount, sayFps, sayMs, sayShare, sayStretch } from '../base/say.ts';
import type { Verdict } from '../base/verdict.ts';
import { type ShareInterval, shareInterval } from '../base/wilson.ts';
import { type Facts, rulesFor } from '../findings/rule.ts';
import { certificateRules } from '../net/certificate-rules.ts';
import { MEDIA_RULES } from './media-rules.ts';
import type { JudgedFacts } from './probe-facts.ts';

const rule = rulesFor<JudgedFacts>();

/** Three of the shortest report intervals. RFC 3550 §6.2: “a minimum of 5 seconds”. */
const SENDER_REPORT_S = 15;

/** “One packet in fifty”: a share people can picture. */
const oneIn = (ratio: number): string =>
  ratio > 0.4 ? `${sayShare(ratio)} of the packets` : `One packet in ${sayCount(1 / ratio)}`;
const isHeavyJitter = (f: Pick<JudgedFacts, 'jitterMs' | 'limits'>): boolean => f.jitterMs > f.limits.jitterTightMs;

type LossFacts = Pick<JudgedFacts, 'lost' | 'expected' | 'lossEvents' | 'limits'> & Facts<JudgedFacts>;
/** What the count proves of the line, 95 %. */
const provenLoss = (f: Pick<LossFacts, 'lost' | 'expected'>): ShareInterval => shareInterval(f.lost, f.expected);
/** One event says nothing of how often there is one, and a share that may be small is not yet a large one. */
const isLossUnproven = (f: LossFacts): boolean => f.lossEvents <= 1 || provenLoss(f).low <= f.limits.lossOk;
const lossRange = (f: LossFacts): string => {
  const { low, high } = provenLoss(f);
  return `${sayShare(low)} to ${sayShare(high)}`;
};
const lostOf = (f: LossFacts): string => `${sayCount(f.lost)} of ${sayCount(f.expected)} lost (${lossRange(f)})`;
function lossVerdict(f: LossFacts): Verdict {
  const { low, high } = provenLoss(f);
  if (f.lost === 0) return 'ok';
  if (!isLossUnproven(f)) return low > f.limits.lossTight ? 'will-not-work' : 'tight';
  return high <= f.limits.lossOk ? 'ok' : 'tight';
}
/** What else helps is known only where it is known how the camera is connected. */
const sayOnLink = ({ isOnWifi }: Facts<JudgedFacts>): string =>
  isOnWifi === undefined
    ? 'Check its link: by cable the plugs and the switch port, by Wi-Fi the signal.'
    : isOnWifi
      ? 'Connect it by cable, move the access point nearer, or use the 5 GHz band where it reaches.'
      : 'Check cable, plugs and switch port: both ends at the same speed and full duplex.';
const lossRemedies = (f: LossFacts): readonly string[] => [
  f.transport === 'tcp'
    ? 'Lower the bit rate of the stream, or close other clients: over TCP the camera itself drops what it cannot send.'
    : 'Choose TCP as the transport in each destination that offers it.',
  sayOnLink(f),
  'Probe again, for 60 s.',
];

/** From here on a gap counts as a new beginning. Source: RFC 3550 §A.1, MAX_DROPOUT. */
const GAP_PACKETS = 3000;

/** Once nothing came for longer than a viewer can wait: seldom enough to move no percentile. */
const isStall = (f: Pick<JudgedFacts, 'longestGapMs' | 'limits'>): boolean => f.longestGapMs > f.limits.jitterTightMs;

/** Every picture of JPEG stands alone: of key frames and parameter sets there is no question. */
const isPredicted = ({ codec }: Facts<JudgedFacts>): boolean => codec !== 'JPEG';

const STREAM_RULES = [
  rule({
    id: 'rtp.loss',
    question: 'Is there packet loss?',
    limits: ['stream.loss-ok', 'stream.loss-tight'],
    source:
      'RFC 3550 §A.3 for the count; by the lower end of its 95 % interval (Wilson 1927), more than one event; limits 0.1 % and 1 % [A]',
    needs: ['lossRatio', 'lost', 'expected', 'lossEvents', 'limits'],
    judge: lossVerdict,
    when: {
      'will-not-work': {
        severity: 'stop',
        title: (f) => `${oneIn(f.lossRatio)} ${f.lossRatio > 0.4 ? 'are' : 'is'} lost`,
        because: (f) => `${lostOf(f)}, usable up to ${sayShare(f.limits.lossTight)}.`,
        do: lossRemedies,
      },
      tight: {
        severity: (f) => (isLossUnproven(f) ? 'caution' : 'fix'),
        title: (f) =>
          f.lossEvents === 1
            ? f.lost === 1
              ? 'One packet lost'
              : `${sayCount(f.lost)} packets lost at once`
            : isLossUnproven(f)
              ? `${sayCount(f.lost)} packets lost: the sample is too short to judge`
              : `${oneIn(f.lossRatio)} is lost`,
        because: (f) =>
          f.lossEvents === 1
            ? `${lostOf(f)}: one event, which does not say how often there is one.`
            : `${lostOf(f)}, comfortable up to ${sayShare(f.limits.lossOk)}.`,
        do: (f) => (isLossUnproven(f) ? ['Probe again, for 60 s or until stopped.'] : lossRemedies(f)),
      },
    },
    why: 'One lost packet spoils its picture and every picture up to the next key frame.',
  }),
  rule({
    id: 'rtp.jitter',
    question: 'Do frames arrive evenly?',
    limits: ['stream.jitter-ok', 'stream.jitter-tight'],
    source:
      '95th percentile of the delay of each frame against its time stamp (RFC 3550 §5.1), in decoding order, the first second left out; limits 30 ms and 100 ms [A]',
    needs: ['jitterMs', 'longestGapMs', 'limits'],
    isTight: (f) => f.jitterMs > f.limits.jitterOkMs || isStall(f),
    severity: (f) => (isHeavyJitter(f) ? 'fix' : 'caution'),
    title: (f) =>
      f.jitterMs > f.limits.jitterOkMs
        ? `Jitter ${Math.round(f.jitterMs)} ms`
        : `A frame was held up for ${sayMs(f.longestGapMs)}`,
    because: (f) =>
      `95 of 100 frames came within ${f.jitterMs.toFixed(1)} ms, comfortable up to ${f.limits.jitterOkMs} ms; the longest gap was ${sayMs(f.longestGapMs)} longer than due.`,
    do: (f) =>
      isHeavyJitter(f)
        ? [sayOnLink(f), 'Look for a full uplink on the way.', 'Give the viewer a larger buffer.']
        : ['Probe again at a busy hour, for 60 s.'],
    why: 'A viewer must wait as long as the latest packet, so the picture lags or stutters; it is the first sign of a link that will lose packets.',
  }),
  rule({
    id: 'rtp.duplicates',
    question: 'Are packets duplicated?',
    source: 'RFC 3550 §A.1',
    needs: ['duplicates', 'packets'],
    isTight: (f) => f.duplicates > 0,
    severity: 'caution',
    title: () => 'Duplicate packets',
    because: (f) => `${sayCount(f.duplicates)} of ${sayCount(f.packets)} packets are duplicates.`,
    do: ['Look for a network loop or a camera reachable by cable and Wi-Fi at once.'],
    why: 'Duplicates cost airtime and hide losses in the usual loss count.',
  }),
  rule({
    id: 'rtp.source-changed',
    question: 'Did the stream restart in the sample?',
    source: 'RFC 3550 §8.2 (a new SSRC is a new source), §A.1 (restart of the sequence)',
    needs: ['sourceChanges'],
    isTight: (f) => f.sourceChanges > 0,
    severity: 'fix',
    title: () => 'Stream restarted during the sample',
    because: (f) =>
      `${f.sourceChanges === 1 ? 'Once' : `${f.sourceChanges} times`} in the sample the packets went on under another source or with other numbers. A gap of ${sayCount(GAP_PACKETS)} packets or more looks the same: then that many are lost and in no count.`,
    do: ['Update the camera’s firmware.', 'Check whether another client changes its encoder settings.', 'Probe again.'],
    why: 'Recorders start a new file, and some stop, when a stream restarts.',
  }),
  rule({
    id: 'rtp.timestamps-jump',
    question: 'Are its time stamps steady?',
    source: 'RFC 3550 §5.1: the time stamp rises with the sampling clock; limit 2 s [A]',
    needs: ['timestampJumps'],
    isTight: (f) => f.timestampJumps > 0,
    severity: 'fix',
    title: () => 'Time stamps jump',
    because: (f) =>
      `${f.timestampJumps === 1 ? 'Once' : `${f.timestampJumps} times`} in the sample a time stamp was more than 2 s off the time that had passed.`,
    do: [
      'Switch off clock setting by viewer or recorder; let one time server set it.',
      'Update the camera’s firmware.',
    ],
    why: 'Players freeze or race, and recordings get gaps, at every jump.',
  }),
  rule({
    id: 'rtsp.answers-slow',
    question: 'Does it respond quickly?',
    limits: ['stream.answer'],
    source: 'limit 300 ms an answer [A]',
    needs: ['slowestAnswerMs', 'limits'],
    isTight: (f) => f.slowestAnswerMs > f.limits.answerSlowMs,
    severity: 'caution',
    title: (f) => `Response time ${sayMs(f.slowestAnswerMs)}`,
    because: (f) => `The slowest answer took ${sayMs(f.slowestAnswerMs)}; opening a stream needs four or five.`,
    do: ['Pull it once and share it through a relay.', 'Lengthen the connection timeout of each destination.'],
    why: 'A destination with a short timeout gives up before the stream is open, and connects again.',
  }),
  rule({
    id: 'video.fps-below-declared',
    question: 'Does the measured frame rate match the announced one?',
    limits: ['stream.frames'],
    source: 'H.264 §E.2.1 or RFC 8866 §6.13 declares; RTP time stamps measure; share 0.9 [A]',
    needs: ['declaredFps', 'measuredFps', 'limits'],
    asks: (f) => f.declaredFps !== undefined,
    isTight: (f) => f.measuredFps < f.declaredFps * f.limits.fpsShare,
    severity: 'caution',
    title: (f) => `Frame rate ${sayFps(f.measuredFps)} instead of ${sayFps(f.declaredFps)} fps`,
    because: (f) => `Announced ${sayFps(f.declaredFps)} fps, measured ${sayFps(f.measuredFps)}.`,
    do: ['Check the shutter limit at night.', 'Check whether the camera is serving too many clients.'],
    why: 'A long exposure at night, or a processor at its limit, lowers the frame rate silently.',
  }),
  rule({
    id: 'video.size-differs',
    question: 'Is the resolution as described?',
    source: 'RFC 6184 §8.1: in-band parameter sets are what the decoder uses',
    needs: ['declaredSize', 'measuredSize'],
    asks: (f) => f.declaredSize !== undefined,
    isTight: (f) => f.declaredSize !== f.measuredSize,
    severity: 'caution',
    title: (f) => `Resolution ${f.measuredSize}, not ${f.declaredSize}`,
    because: (f) => `Described as ${f.declaredSize}; the stream itself carries ${f.measuredSize}.`,
    do: [
      'Plan with the measured resolution.',
      'Save the encoder setting again; some cameras describe the old one until then.',
    ],
    why: 'Detail at a distance and decode load follow from the pixels that really come.',
  }),
  rule({
    id: 'video.keyframe-interval-long',
    question: 'Is the key-frame interval short enough?',
    limits: ['stream.key-frame'],
    source: 'limit 4 s [A]',
    needs: ['keyframeIntervalS', 'keyframeIntervalFrames', 'limits'],
    asks: isPredicted,
    isTight: (f) => f.keyframeIntervalS > f.limits.keyframeTightS,
    severity: 'fix',
    title: (f) => `Key-frame interval (GOP) ${f.keyframeIntervalS.toFixed(1)} s`,
    because: (f) =>
      `${sayCount(f.keyframeIntervalFrames)} frames between key frames; a viewer waits up to ${f.keyframeIntervalS.toFixed(1)} s.`,
    do: ['Set the key-frame interval (GOP) to 2 s.', 'Switch “smart” coding off where pictures must open at once.'],
    why: 'A picture can only start at a key frame, and damage lasts until the next.',
  }),
  rule({
    id: 'video.keyframe-not-repeated',
    question: 'Did a second key frame come in the sample?',
    source: 'limit 4 s [A]',
    needs: ['sampleWithoutSecondKeyframeS'],
    asks: (f) => f.sampleWithoutSecondKeyframeS !== undefined,
    isTight: () => true,
    severity: 'caution',
    title: () => 'No second key frame in the sample',
    because: (f) =>
      `None came in the ${f.sampleWithoutSecondKeyframeS.toFixed(1)} s after the first, so the interval is at least that long.`,
    do: ['Probe again, for 10 s.', 'Set the key-frame interval (GOP) to 2 s.'],
    why: 'A picture can only start at a key frame, and damage lasts until the next.',
  }),
  rule({
    id: 'video.parameters-missing',
    question: 'Can a decoder start at all?',
    source: 'H.264 §7.4.1.2.1, RFC 6184 §8.4: a decoder needs them before the first picture',
    needs: ['parameterSets'],
    asks: isPredicted,
    fails: (f) => f.parameterSets === 'none',
    severity: 'stop',
    title: () => 'No parameter sets: no decoder can start',
    because: () => 'Parameter sets are neither in the description nor before the key frame.',
    do: [
      'Save the encoder settings again and restart the camera.',
      'Update the camera’s firmware.',
      'Choose another stream.',
    ],
    why: 'Without them nothing says how large the picture is or how it is coded.',
  }),
  rule({
    id: 'video.parameters-declared-only',
    question: 'Do parameter sets come with the key frame?',
    source: 'RFC 6184 §8.4: parameter sets in the description alone',
    needs: ['parameterSets'],
    asks: isPredicted,
    isTight: (f) => f.parameterSets === 'declared',
    severity: 'caution',
    title: () => 'Parameter sets in the description only',
    because: () => 'None came with the key frame; they stand in the description alone.',
    do: ['Probe again after each change of the encoder.', 'Restart destinations after a change.'],
    why: 'A recorder that joins through a relay, or after a change, decodes with old ones or not at all.',
  }),
  rule({
    id: 'video.parameters-in-band-only',
    question: 'Do parameter sets stand in the description?',
    source: 'RFC 6184 §8.1: sprop-parameter-sets is optional',
    needs: ['parameterSets'],
    asks: isPredicted,
    isTight: (f) => f.parameterSets === 'in-band',
    severity: 'note',
    title: () => 'Parameter sets with the key frame only',
    because: () => 'The description has none; they came with the key frame.',
    do: ['Nothing, unless a destination refuses the description.'],
    why: 'Some recorders want to know the picture’s size before they start.',
  }),
  rule({
    id: 'video.parameters-differ',
    question: 'Does its description match the picture?',
    source: 'RFC 6184 §8.4: what arrives in band is what the decoder uses',
    needs: ['parameterSetsAgree'],
    asks: (f) => f.parameterSetsAgree !== undefined,
    isTight: (f) => !f.parameterSetsAgree,
    severity: 'caution',
    title: () => 'Description differs from the picture',
    because: () => 'The parameter sets in the description and in the stream differ; those in the stream were used.',
    do: ['Save the encoder settings again; some cameras describe the old ones until then.'],
    why: 'A destination that trusts the description shows green or nothing.',
  }),
  rule({
    id: 'auth.none',
    question: 'Does it ask for a login?',
    source: 'RFC 2326 §12.44: a server asks with 401; this one did not',
    needs: ['authScheme'],
    asks: (f) => f.loginInPath !== true,
    isTight: (f) => f.authScheme === 'none',
    severity: 'fix',
    title: () => 'Stream open without a login',
    because: () => 'The camera gave its stream without asking for an account.',
    do: ['Switch RTSP login on in the camera.', 'Give each destination its own account.'],
    why: 'Guests’ phones and televisions share networks more often than planned.',
  }),
  rule({
    id: 'auth.login-in-url',
    question: 'Is there a login in its URL?',
    source: 'RFC 3986 §7.5 (sensitive information in URIs)',
    needs: ['loginInUrl'],
    isTight: (f) => f.loginInUrl,
    severity: 'caution',
    title: () => 'Login in the URL',
    because: () =>
      'The path contains an account and a password, or the camera sends URLs that do. Here they are masked.',
    do: [
      'Use an account that may only view.',
      'Where the camera offers a path without them, use that one, and log in by Digest.',
    ],
    why: 'A URL is stored where no password should be: in the log of every recorder and viewer, on screens, in exported lists.',
  }),
  rule({
    id: 'auth.basic',
    question: 'Is the password protected on the network?',
    source: 'RFC 7617 §4: Basic is not secure without a protected channel',
    needs: ['authScheme'],
    isTight: (f) => f.authScheme === 'basic' && f.isEncrypted !== true,
    severity: 'fix',
    title: () => 'Password sent readable',
    because: () => 'The camera offers Basic login only, without encryption.',
    do: [
      'Switch Digest login on, or update the camera’s firmware.',
      'Otherwise keep it on a network of its own and use the password nowhere else.',
    ],
    why: 'Basic is account and password in Base64: anyone on the wire can read them.',
  }),
  rule({
    id: 'rtcp.no-sender-report',
    question: 'Does it send sender reports?',
    source: 'RFC 3550 §6.2 (report interval, 5 s at least), §6.4.1',
    needs: ['senderReports', 'observedS'],
    isTight: (f) => f.observedS >= SENDER_REPORT_S && !f.senderReports,
    severity: 'caution',
    title: () => 'No sender reports',
    because: (f) => `No RTCP sender report in ${Math.round(f.observedS)} s.`,
    do: ['Switch RTCP on in the camera.'],
    why: 'Without them picture and audio cannot be aligned to one clock.',
  }),
  rule({
    id: 'camera.clock-wrong',
    question: 'Is its clock right?',
    limits: ['stream.clock'],
    source: 'RFC 3550 §6.4.1 (NTP time stamp); limit 5 s [A]',
    needs: ['clockErrorS', 'limits'],
    // its reports tell; a sample that is too short for one has not asked
    asks: (f) => f.clockErrorS !== undefined || (f.observedS ?? 0) >= SENDER_REPORT_S,
    isTight: (f) => Math.abs(f.clockErrorS) > f.limits.clockOkS,
    severity: 'fix',
    title: (f) => `Clock is ${sayStretch(f.clockErrorS)} ${f.clockErrorS > 0 ? 'fast' : 'slow'}`,
    because: (f) => `Camera clock minus this computer’s: ${f.clockErrorS > 0 ? '+' : '−'}${sayStretch(f.clockErrorS)}.`,
    do: ['Set the camera’s time server to the one of the site.', 'Set its time zone, then probe again.'],
    why: 'Recordings are found and proven by their time.',
  }),
  rule({
    id: 'rtsp.session-timeout-short',
    question: 'Is the session timeout long enough?',
    limits: ['stream.session'],
    source: 'RFC 2326 §12.37 (default 60 s); limit 30 s [A]',
    needs: ['sessionTimeoutS', 'limits'],
    asks: (f) => f.sessionTimeoutS !== undefined,
    isTight: (f) => f.sessionTimeoutS < f.limits.sessionTimeoutS,
    severity: 'caution',
    title: (f) => `Session timeout ${f.sessionTimeoutS} s`,
    because: (f) => `The camera ends a session after ${f.sessionTimeoutS} s without a request.`,
    do: ['Choose destinations that keep the session alive.'],
    why: 'A destination that sends no keep-alive within the timeout loses the stream and connects again.',
  }),
] as const;

/**
 * What a probe's numbers mean. Each rule states a fact about the stream on its own; what a destination makes of it is
 * judged by the tap rules.
 */
export const PROBE_RULES = [...STREAM_RULES, ...MEDIA_RULES, ...certificateRules('')] as const;
