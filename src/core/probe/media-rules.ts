import { sayFps, sayShare } from '../base/say.ts';
import { rulesFor, tightIf } from '../findings/rule.ts';
import type { JudgedFacts } from './probe-facts.ts';

const rule = rulesFor<JudgedFacts>();

/** Share by which time stamps may run off the clock of arrival before that is no longer the line's doing [A]. */
const CLOCK_SHARE = 0.05;
/** Picture and sound that come apart by this much in a minute are heard to be apart within the hour [A]. */
const DRIFT_MS_PER_MIN = 2;
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
    severity: 'watch',
    title: () => 'It sends B-frames',
    because: () => 'Pictures come in another order than they are shown: time stamps go back and forth.',
    do: ['Turn B-frames off in the camera: a profile without them is “Baseline”.'],
    why: 'A viewer must wait for later pictures before it may show one, and hubs that hand on to browsers show such streams jerking or not at all.',
  }),
  rule({
    id: 'video.open-groups',
    question: 'Does a key frame cut off what came before?',
    source: 'H.264 §D.2.8 (recovery point without IDR), H.265 §7.4.2.2 (CRA)',
    needs: ['openKeyFrames', 'closedKeyFrames'],
    isTight: (f) => f.openKeyFrames > 0 && f.closedKeyFrames === 0,
    severity: 'watch',
    title: () => 'Its groups of pictures are open',
    because: (f) => `${f.openKeyFrames} key frames in the sample, and none of them cuts off what came before (IDR).`,
    do: [
      'Set closed groups in the camera, where it has a choice.',
      'Let the recorder cut at whole minutes, not at events.',
    ],
    why: 'Some players wait for an IDR and stay black; a recording that begins there begins with torn pictures.',
  }),
  rule({
    id: 'video.groups-uneven',
    question: 'Do key frames come evenly?',
    source: 'key frames of the sample, counted in frames; a spread of more than a tenth [A]',
    needs: ['groupSpreadFrames', 'keyframeIntervalFrames'],
    isTight: (f) => f.groupSpreadFrames > Math.max(1, 0.1 * f.keyframeIntervalFrames),
    severity: 'note',
    title: () => 'Key frames do not come evenly',
    because: (f) =>
      `Every ${Math.round(f.keyframeIntervalFrames)} frames on the average, and up to ${Math.round(f.groupSpreadFrames)} frames apart from that.`,
    do: ['Turn off “smart” or “dynamic” groups where the recorder is to cut evenly.'],
    why: 'How long a viewer waits for its first picture, and where a recorder can cut, changes from one moment to the next.',
  }),
  rule({
    id: 'video.vui-fps',
    question: 'Do parameter sets and time stamps tell one rate?',
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
    title: (f) => `Its pictures say ${sayFps(f.vuiFps)} a second, their time stamps ${sayFps(f.measuredFps)}`,
    because: (f) => `${sayFps(f.vuiFps)} by its parameter sets, ${sayFps(f.measuredFps)} by time stamps.`,
    do: ['Let recorder and viewer go by time stamps, where they have a choice.'],
    why: 'What goes by the parameter sets plays too fast or too slow, and its recordings run away from the clock.',
  }),
  rule({
    id: 'video.clock-rate',
    question: 'Do time stamps count the clock that it names?',
    source:
      'RFC 3550 §5.1 (time stamps count the clock of the payload), RFC 6184 §8.2.1 (90,000 a second); share 5 % [A]',
    needs: ['clockRatio'],
    // it takes a longer sample to tell, and one without a jump
    asks: (f) => f.clockRatio !== undefined,
    isTight: (f) => Math.abs(f.clockRatio - 1) > CLOCK_SHARE,
    severity: 'fix',
    title: () => 'Its time stamps run by another clock than it says',
    because: (f) => `In one second they count ${f.clockRatio.toFixed(2)} s.`,
    do: ['Update the camera.', 'Let the recorder go by the time of arrival, where it has a choice.'],
    why: 'Players go by time stamps: they race ahead and stall, or fall behind for ever.',
  }),
  rule({
    id: 'media.drift',
    question: 'Do picture and sound stay together?',
    source: 'RFC 3550 §6.4.1: sender reports tie each track to one clock; 2 ms a minute [A]',
    needs: ['driftMsPerMin'],
    asks: (f) => f.driftMsPerMin !== undefined,
    isTight: (f) => Math.abs(f.driftMsPerMin) > DRIFT_MS_PER_MIN,
    severity: 'watch',
    title: () => 'Picture and sound come apart',
    because: (f) => `By ${Math.abs(f.driftMsPerMin).toFixed(0)} ms in each minute, by its own sender reports.`,
    do: ['Choose destinations that go by sender reports.', 'Update the camera.'],
    why: 'A recorder that counts samples has lips and words apart within the hour.',
  }),
  rule({
    id: 'sound.config-lies',
    question: 'Is the sound what the description says?',
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
        title: () => 'Its sound is not what its description says',
        because: (f) =>
          f.soundUnreadPackets > f.soundPackets / 2
            ? `${sayShare(f.soundUnreadPackets / f.soundPackets)} of its packets cannot be taken apart as described.`
            : `A unit of it lasts ${Math.round(f.soundTicksPerUnit ?? 0)} ticks; as described it would be ${Math.round(f.soundUnitTicks ?? 0)}.`,
        do: ['Choose another codec for the sound, such as G.711.', 'Update the camera.'],
      },
    },
    why: 'Decoders are set up by the description: they give noise, too high a voice, or nothing.',
  }),
  rule({
    id: 'rtsp.keep-alive-refused',
    question: 'Does it take the sign of life that it offers?',
    source: 'RFC 2326 §10.8, §10.9, §12.28 (Public); §12.37 (Session timeout)',
    needs: ['refusedKeepAlive'],
    asks: (f) => f.refusedKeepAlive !== undefined,
    isTight: () => true,
    severity: 'watch',
    title: (f) => `It offers ${f.refusedKeepAlive} and refuses it`,
    because: (f) =>
      `${f.refusedKeepAlive} stands among the requests that it takes. Sent as a sign of life, it was refused.`,
    do: ['Choose destinations that keep sessions alive by OPTIONS.', 'Update the camera.'],
    why: 'A destination that trusts the list loses its picture after each session timeout, and dials again.',
  }),
] as const;
