import { sayFps, sayShare } from '../base/say.ts';
import { rulesFor, tightIf } from '../findings/rule.ts';
import type { JudgedFacts } from './probe-facts.ts';

const rule = rulesFor<JudgedFacts>();

/** Share by which time stamps may run off the clock of arrival before that is no longer the line's doing [A]. */
const CLOCK_SHARE = 0.05;
/** Picture and sound that come apart by this much in a minute are heard to be apart within the hour [A]. */
const DRIFT_MS_PER_MIN = 2;
/** It takes half a minute to tell that there is none; one that is so many times its own error is there [A]. */
const DRIFT_TIMES_ERROR = 10;
const isDriftKnown = (driftMsPerMin: number, errorMsPerMin: number): boolean =>
  errorMsPerMin <= DRIFT_MS_PER_MIN || Math.abs(driftMsPerMin) > DRIFT_TIMES_ERROR * errorMsPerMin;
/** A unit of sound may last as long as it should, half or twice as much (SBR), or 960 samples; all else is no AAC of this configuration. */
const UNIT_RATIOS = [1, 2, 0.5, 0.9375, 1.875] as const;
const UNIT_SHARE = 0.03;

/** How a stream is made, beyond loss and rate. */
export const MEDIA_RULES = [
  rule({
    id: 'video.b-frames',
    question: 'Do pictures come in the order in which they are shown?',
    source: 'H.264 §7.4.3, H.265 §8.1.3: decoding order and output order; by RTP time stamps that go back',
    needs: ['bFrames'],
    asks: (f) => f.codec !== 'JPEG',
    isTight: (f) => f.bFrames,
    severity: 'caution',
    title: () => 'B-frames',
    because: () => 'Pictures come in another order than they are shown: time stamps go back and forth.',
    do: ['Switch B-frames off in the camera: the Baseline profile has none.'],
    why: 'A viewer must wait for later pictures before it may show one, and hubs that pass streams to browsers show them jerking or not at all.',
  }),
  rule({
    id: 'video.open-gop',
    question: 'Are its GOPs closed?',
    source: 'H.264 §D.2.8 (recovery point without IDR), H.265 §7.4.2.2 (CRA)',
    needs: ['openKeyFrames', 'closedKeyFrames'],
    isTight: (f) => f.openKeyFrames > 0 && f.closedKeyFrames === 0,
    severity: 'caution',
    title: () => 'Open GOP',
    because: (f) => `${f.openKeyFrames} key frames in the sample, and none of them closes its GOP (IDR).`,
    do: [
      'Set closed GOPs in the camera, where it has the choice.',
      'Let the recorder cut at whole minutes, not at events.',
    ],
    why: 'Some players wait for an IDR frame and stay black; a recording that starts there starts with a broken picture.',
  }),
  rule({
    id: 'video.gop-uneven',
    question: 'Is the key-frame interval steady?',
    source: 'key frames of the sample, counted in frames; a spread of more than a tenth [A]',
    needs: ['groupSpreadFrames', 'keyframeIntervalFrames'],
    isTight: (f) => f.groupSpreadFrames > Math.max(1, 0.1 * f.keyframeIntervalFrames),
    severity: 'note',
    title: () => 'Key-frame interval (GOP) uneven',
    because: (f) =>
      `${Math.round(f.keyframeIntervalFrames)} frames on average, with a spread of up to ${Math.round(f.groupSpreadFrames)} frames.`,
    do: ['Switch “smart” or “dynamic” GOP off where the recorder is to cut evenly.'],
    why: 'How long a viewer waits for its first picture, and where a recorder can cut, changes from one moment to the next.',
  }),
  rule({
    id: 'video.vui-fps',
    question: 'Do parameter sets and time stamps give one frame rate?',
    limits: ['stream.frames'],
    source:
      'H.264 §E.2.1, H.265 §E.3.1 (time_scale, num_units_in_tick) against RTP time stamps; share of the assumptions',
    needs: ['vuiFps', 'measuredFps', 'limits'],
    asks: (f) => f.vuiFps !== undefined,
    // fewer than were announced is another matter, and told as that
    isTight: (f) =>
      f.measuredFps >= f.limits.fpsShare * (f.declaredFps ?? 0) &&
      Math.min(f.vuiFps, f.measuredFps) < f.limits.fpsShare * Math.max(f.vuiFps, f.measuredFps),
    severity: 'note',
    title: (f) => `Frame rate: ${sayFps(f.vuiFps)} by the parameter sets, ${sayFps(f.measuredFps)} by time stamps`,
    because: (f) => `${sayFps(f.vuiFps)} by its parameter sets, ${sayFps(f.measuredFps)} by time stamps.`,
    do: ['Let recorder and viewer go by time stamps, where they have a choice.'],
    why: 'What goes by the parameter sets plays too fast or too slow, and its recordings run away from the clock.',
  }),
  rule({
    id: 'video.clock-rate',
    question: 'Do time stamps follow the announced clock?',
    source:
      'RFC 3550 §5.1 (time stamps count the clock of the payload), RFC 6184 §8.2.1 (90,000 a second); least squares after the first second; share 5 % [A]',
    needs: ['clockRatio', 'clockRatioError'],
    // it takes a longer sample to tell, and one without a jump
    asks: (f) => f.clockRatio !== undefined && f.clockRatioError !== undefined && f.clockRatioError < CLOCK_SHARE,
    judge: (f) => {
      const off = Math.abs(f.clockRatio - 1);
      if (off - f.clockRatioError > CLOCK_SHARE) return 'tight';
      return off + f.clockRatioError > CLOCK_SHARE ? 'unknown' : 'ok';
    },
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Time stamps run at another rate than announced',
        because: (f) =>
          `In one second they advance by ${f.clockRatio.toFixed(2)} s, ± ${f.clockRatioError.toFixed(2)} s.`,
        do: ['Update the camera’s firmware.', 'Let the recorder go by arrival time, where it has the choice.'],
      },
    },
    why: 'Players go by time stamps: they race ahead and stall, or fall behind for ever.',
  }),
  rule({
    id: 'media.drift',
    question: 'Do picture and audio stay together?',
    source: 'RFC 3550 §6.4.1: sender reports tie each track to one clock; 2 ms a minute [A]',
    needs: ['driftMsPerMin', 'driftErrorMsPerMin'],
    // below the span at which its stamps are good enough it is not known
    asks: (f) =>
      f.driftMsPerMin !== undefined &&
      f.driftErrorMsPerMin !== undefined &&
      isDriftKnown(f.driftMsPerMin, f.driftErrorMsPerMin),
    isTight: (f) => Math.abs(f.driftMsPerMin) - f.driftErrorMsPerMin > DRIFT_MS_PER_MIN,
    severity: 'caution',
    title: () => 'Picture and audio drift apart',
    because: (f) =>
      `By ${Math.abs(f.driftMsPerMin).toFixed(0)} ± ${Math.ceil(f.driftErrorMsPerMin)} ms in each minute, by its own sender reports.`,
    do: ['Choose destinations that go by sender reports.', 'Update the camera’s firmware.'],
    why: 'In a recorder that counts samples, lips and words are apart within the hour.',
  }),
  rule({
    id: 'sound.config-lies',
    question: 'Is the audio what the description says?',
    source: 'RFC 3640 §3.2.1, §4.1 (config, sizelength); ISO/IEC 14496-3 §4.5.2.1.1: 1024 samples a unit',
    needs: ['soundUnreadPackets', 'soundPackets'],
    // sound that is described and never came is no sound that is right
    asks: (f) => f.soundPackets !== undefined || f.soundUnitTicks !== undefined,
    judge: (f) => {
      const ratio = f.soundTicksPerUnit && f.soundUnitTicks ? f.soundTicksPerUnit / f.soundUnitTicks : 1;
      const isOff = UNIT_RATIOS.every((usual) => Math.abs(ratio / usual - 1) > UNIT_SHARE);
      return tightIf(f.soundUnreadPackets > f.soundPackets / 2 || isOff);
    },
    when: {
      tight: {
        severity: 'fix',
        title: () => 'Audio differs from its description',
        because: (f) =>
          f.soundUnreadPackets > f.soundPackets / 2
            ? `${sayShare(f.soundUnreadPackets / f.soundPackets)} of its packets cannot be unpacked as described.`
            : `One of its units lasts ${Math.round(f.soundTicksPerUnit ?? 0)} ticks; as described it would be ${Math.round(f.soundUnitTicks ?? 0)}.`,
        do: ['Choose another audio codec, such as G.711.', 'Update the camera’s firmware.'],
      },
    },
    why: 'Decoders are set up by the description: they give noise, a voice too high, or nothing.',
  }),
  rule({
    id: 'rtsp.keep-alive-refused',
    question: 'Does it accept the keep-alive that it offers?',
    source: 'RFC 2326 §10.8, §10.9, §12.28 (Public); §12.37 (Session timeout)',
    needs: ['refusedKeepAlive'],
    asks: (f) => f.refusedKeepAlive !== undefined,
    isTight: () => true,
    severity: 'caution',
    title: (f) => `Keep-alive by ${f.refusedKeepAlive} refused`,
    because: (f) => `It lists ${f.refusedKeepAlive} as supported. Sent as a keep-alive, it was refused.`,
    do: ['Choose destinations that keep sessions alive by OPTIONS.', 'Update the camera’s firmware.'],
    why: 'A destination that trusts the list loses its stream after each session timeout, and connects again.',
  }),
] as const;
