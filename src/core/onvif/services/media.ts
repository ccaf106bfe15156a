import { clipText } from '../../base/clip.ts';
import { STREAM_LIMITS, TEXT_LIMITS } from '../../base/limits.ts';
import { below, childOf, childrenOf, textIn, type XmlNode } from '../envelope.ts';
import { MOST_URI } from '../onvif-limits.ts';
import { element, operation } from '../operation.ts';
import { flagIn, numberIn, saidIn, tokenIn, tokenOf, wholeIn } from '../read-values.ts';

// Source: ONVIF Media §5 (version 1), ONVIF Media2 §5.

/** A profile as the device made it: what it looks through, how it is coded, whether it can be steered. */
export interface MediaProfile {
  readonly token: string;
  readonly name: string;
  /** Token of the picture that it looks at: a box has one for each channel. */
  readonly source: string;
  /** As streams are named: “H264”, “H265”, “JPEG”, “MPEG4”; `null` without an encoder. */
  readonly codec: string | null;
  readonly width: number | null;
  readonly height: number | null;
  readonly fps: number | null;
  readonly gopFrames: number | null;
  readonly bitrateKbps: number | null;
  /** Sound that goes along. */
  readonly sound: string | null;
  readonly hasPtz: boolean;
}

/** A box of 64 channels with two each has fewer. */
export const MOST_PROFILES = 160;

const CODECS: Readonly<Record<string, string>> = {
  jpeg: 'JPEG',
  mpeg4: 'MPEG4',
  h264: 'H264',
  h265: 'H265',
  hevc: 'H265',
  'mpv4-es': 'MPEG4',
};
function codecOf(text: string): string | null {
  const name = text.toLowerCase();
  if (name === '') return null;
  return (Object.hasOwn(CODECS, name) ? CODECS[name] : undefined) ?? clipText(text.toUpperCase(), TEXT_LIMITS.codec);
}

/** A figure that a stream can have; what lies beyond is not believed. */
const upTo = (most: number, value: number | null): number | null =>
  value !== null && value > 0 && value <= most ? value : null;

function encoderOf(
  encoder: XmlNode | null,
): Pick<MediaProfile, 'codec' | 'width' | 'height' | 'fps' | 'gopFrames' | 'bitrateKbps'> {
  const size = childOf(encoder, 'Resolution');
  const rate = childOf(encoder, 'RateControl');
  // Media 1 has it below the codec, Media2 as an attribute of the encoder.
  const gop = wholeIn(childOf(encoder, 'H264'), 'GovLength') ?? wholeIn(childOf(encoder, 'MPEG4'), 'GovLength');
  const own = Number(tokenOf(encoder, 'GovLength') || Number.NaN);
  return {
    codec: codecOf(saidIn(encoder, 'Encoding')),
    width: upTo(STREAM_LIMITS.sidePx, wholeIn(size, 'Width')),
    height: upTo(STREAM_LIMITS.sidePx, wholeIn(size, 'Height')),
    fps: upTo(STREAM_LIMITS.fps, numberIn(rate, 'FrameRateLimit')),
    gopFrames: upTo(STREAM_LIMITS.gopFrames, gop ?? (Number.isSafeInteger(own) ? own : null)),
    bitrateKbps: upTo(STREAM_LIMITS.bitrateKbps, numberIn(rate, 'BitrateLimit')),
  };
}

interface Places {
  readonly source: XmlNode | null;
  readonly encoder: XmlNode | null;
  readonly sound: XmlNode | null;
  readonly ptz: XmlNode | null;
}

const readProfiles = (answer: XmlNode, placesOf: (profile: XmlNode) => Places): readonly MediaProfile[] =>
  childrenOf(answer, 'Profiles')
    .slice(0, MOST_PROFILES)
    .flatMap((profile): readonly MediaProfile[] => {
      const token = tokenOf(profile);
      if (token === '') return [];
      const { source, encoder, sound, ptz } = placesOf(profile);
      return [
        {
          token,
          name: saidIn(profile, 'Name'),
          source: tokenIn(source, 'SourceToken'),
          ...encoderOf(encoder),
          sound: sound ? saidIn(sound, 'Encoding') || null : null,
          hasPtz: ptz !== null,
        },
      ];
    });

export const GET_PROFILES = operation({
  service: 'media',
  name: 'GetProfiles',
  write: () => '',
  read: (answer) =>
    readProfiles(answer, (profile) => ({
      source: childOf(profile, 'VideoSourceConfiguration'),
      encoder: childOf(profile, 'VideoEncoderConfiguration'),
      sound: childOf(profile, 'AudioEncoderConfiguration'),
      ptz: childOf(profile, 'PTZConfiguration'),
    })),
});

export const GET_PROFILES_2 = operation({
  service: 'media2',
  name: 'GetProfiles',
  write: () => '<Type>All</Type>',
  read: (answer) =>
    readProfiles(answer, (profile) => {
      const all = childOf(profile, 'Configurations');
      return {
        source: childOf(all, 'VideoSource'),
        encoder: childOf(all, 'VideoEncoder'),
        sound: childOf(all, 'AudioEncoder'),
        ptz: childOf(all, 'PTZ'),
      };
    }),
});

/** What an answer calls the address: Media 1 wraps it. */
const uriIn = (answer: XmlNode): string =>
  saidIn(below(answer, 'MediaUri'), 'Uri', MOST_URI) || saidIn(answer, 'Uri', MOST_URI);

export const GET_STREAM_URI = operation({
  service: 'media',
  name: 'GetStreamUri',
  write: (token: string) =>
    '<StreamSetup><tt:Stream>RTP-Unicast</tt:Stream><tt:Transport><tt:Protocol>RTSP</tt:Protocol></tt:Transport></StreamSetup>' +
    element('ProfileToken', token),
  read: uriIn,
});
export const GET_STREAM_URI_2 = operation({
  service: 'media2',
  name: 'GetStreamUri',
  write: (token: string) => `<Protocol>RTSP</Protocol>${element('ProfileToken', token)}`,
  read: uriIn,
});
export const GET_SNAPSHOT_URI = operation({
  service: 'media',
  name: 'GetSnapshotUri',
  write: (token: string) => element('ProfileToken', token),
  read: uriIn,
});
export const GET_SNAPSHOT_URI_2 = operation({
  service: 'media2',
  name: 'GetSnapshotUri',
  write: (token: string) => element('ProfileToken', token),
  read: uriIn,
});

/** Pictures that the device takes in, whatever profiles show of them. */
export const GET_VIDEO_SOURCES = operation({
  service: 'media',
  name: 'GetVideoSources',
  write: () => '',
  read: (answer): readonly string[] =>
    childrenOf(answer, 'VideoSources')
      .slice(0, MOST_PROFILES)
      .map((source) => tokenOf(source))
      .filter((token) => token !== ''),
});

/** Light and focus of one picture. */
export interface ImagingSettings {
  readonly infraredCut: string;
  readonly focus: string;
  readonly wideRange: boolean | null;
}

export const GET_IMAGING = operation({
  service: 'imaging',
  name: 'GetImagingSettings',
  write: (source: string) => element('VideoSourceToken', source),
  read: (answer): ImagingSettings => {
    const all = childOf(answer, 'ImagingSettings');
    const wide = textIn(childOf(all, 'WideDynamicRange'), 'Mode').toLowerCase();
    return {
      infraredCut: saidIn(all, 'IrCutFilter').toLowerCase(),
      focus: saidIn(childOf(all, 'Focus'), 'AutoFocusMode').toLowerCase(),
      wideRange: wide === 'on' ? true : wide === 'off' ? false : flagIn(all, 'WideDynamicRange'),
    };
  },
});
