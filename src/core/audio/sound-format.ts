import { bytesFromHex } from '../base/bytes.ts';
import { sayCount, sayMany } from '../base/say.ts';
import type { SdpMedia } from '../sdp/sdp-types.ts';
import { type AacPacking, aacPackingOf } from './aac-payload.ts';

/** How sound comes that can be played; every other codec is measured by its packets alone. */
export type SoundFormat =
  | { readonly codec: 'PCMU' | 'PCMA'; readonly rateHz: number; readonly channels: number }
  | { readonly codec: 'OPUS'; readonly rateHz: number; readonly channels: number }
  | {
      readonly codec: 'AAC';
      readonly rateHz: number;
      readonly channels: number;
      readonly objectType: number;
      /** AudioSpecificConfig, which a decoder is set up with. */
      readonly config: Uint8Array;
      readonly packing: AacPacking;
    };

/** Rates that sound has: from 4 kHz of a telephone to 192 kHz. What a description says beyond them is no sound. */
const RATES = { min: 4000, max: 192_000 } as const;
const MOST_CHANNELS = 8;
const isSound = (format: SoundFormat): boolean =>
  format.rateHz >= RATES.min && format.rateHz <= RATES.max && format.channels >= 1 && format.channels <= MOST_CHANNELS;

/** The same, where its numbers are those of sound; `null` else. */
export function soundFormatOf(media: SdpMedia): SoundFormat | null {
  const format = describedFormat(media);
  return format && isSound(format) ? format : null;
}

/** AAC of the description, if it can be played. Source: RFC 3551 §4.5.14, RFC 3640 §4.1, RFC 7587 §4.1. */
function describedFormat({ codec, clockRate, channels, aac, fmtp }: SdpMedia): SoundFormat | null {
  switch (codec) {
    case 'PCMU':
    case 'PCMA':
      return { codec, rateHz: clockRate ?? 8000, channels: channels ?? 1 };
    case 'OPUS':
      return { codec, rateHz: 48_000, channels: /\bstereo\b/.test(Object.keys(fmtp).join(' ')) ? 2 : 1 };
    case 'MPEG4-GENERIC': {
      const config = bytesFromHex(fmtp.config ?? '');
      if (!aac || !config.ok) return null;
      const { objectType, sampleRate, channels: count } = aac;
      return {
        codec: 'AAC',
        rateHz: sampleRate,
        channels: count,
        objectType,
        config: config.value,
        packing: aacPackingOf(fmtp),
      };
    }
    default:
      return null;
  }
}

/** What a decoder of a page is named with. Source: RFC 6381 §3.3 (mp4a), WebCodecs AAC and Opus registrations. */
export const soundCodecString = (format: SoundFormat): string =>
  format.codec === 'AAC'
    ? `mp4a.40.${format.objectType}`
    : format.codec === 'OPUS'
      ? 'opus'
      : format.codec.toLowerCase();

/** As the trade calls it: RFC 3640 carries AAC under a name of its own. */
export function soundNameOf(media: SdpMedia): string {
  const { codec, aac } = media;
  const name = aac || codec === 'MP4A-LATM' ? 'AAC' : (codec ?? 'unknown');
  const format = describedFormat(media);
  return format && !isSound(format)
    ? `${name} is never like this (${sayCount(format.rateHz)} Hz, ${sayMany(format.channels, 'channel')})`
    : name;
}
