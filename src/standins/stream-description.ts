import { base64Of, hexOf } from '../core/base/bytes.ts';
import type { Oddities } from './oddities.ts';
import type { ShownFormat } from './pictures/picture-feed.ts';
import { soundTrack } from './sound-feed.ts';

/** RFC 3551 §6: 26 is JPEG; H.264 and H.265 have a dynamic type. */
export const PAYLOAD_TYPES: Readonly<Record<ShownFormat['codec'], number>> = { H264: 96, H265: 96, JPEG: 26 };

interface Described {
  readonly host: string;
  readonly title: string;
  readonly format: ShownFormat;
  readonly parameterSets: readonly Uint8Array[];
  readonly odd: Oddities;
  /** Where the addresses of tracks are given whole, they begin with this. */
  readonly base: string;
}

function formatLine(payloadType: number, { codec }: ShownFormat, sets: readonly Uint8Array[]): readonly string[] {
  if (codec === 'JPEG') return [];
  const texts = sets.map(base64Of);
  if (codec === 'H265') {
    const [vps = '', sps = '', pps = ''] = texts;
    return [`a=fmtp:${payloadType} sprop-vps=${vps};sprop-sps=${sps};sprop-pps=${pps}`];
  }
  const profile = hexOf(sets[0]?.subarray(1, 4) ?? new Uint8Array()).toUpperCase();
  return [
    `a=fmtp:${payloadType} packetization-mode=1;profile-level-id=${profile};sprop-parameter-sets=${texts.join(',')}`,
  ];
}

/** Source: RFC 8866 §5; RFC 2326 §C.1. */
export function describeStream({ host, title, format, parameterSets, odd, base }: Described): string {
  const payloadType = PAYLOAD_TYPES[format.codec];
  const control = (track: number): string =>
    `a=control:${odd.controls === 'whole' ? `${base}/trackID=${track}` : `trackID=${track}`}`;
  const sound = odd.sound ? soundTrack(odd.sound) : null;
  return [
    'v=0',
    `o=- ${Math.floor(Date.now() / 1000)} 1 IN IP4 ${host}`,
    `s=${title}`,
    'c=IN IP4 0.0.0.0',
    't=0 0',
    'a=control:*',
    'a=range:npt=now-',
    `m=video 0 RTP/AVP ${payloadType}`,
    ...(odd.pictureLines ?? [
      `a=rtpmap:${payloadType} ${format.codec}/90000`,
      ...formatLine(payloadType, format, parameterSets),
    ]),
    `a=framerate:${format.fps}`,
    control(0),
    ...(sound ? [`m=audio 0 RTP/AVP ${sound.payloadType}`, ...(odd.soundLines ?? sound.lines), control(1)] : []),
    '',
  ].join('\r\n');
}
