import { hexOf } from '../base/bytes.ts';

/** Begins an entry of the tape that shows a packet by its bytes. */
const TITLE = 'RTP packet of ';
/** Source: RFC 3550 §5.1. */
const FIELD_BYTES = [1, 1, 2, 4, 4] as const;
/** Source: RFC 2326 §10.12. */
const FRAME_BYTES = [1, 1, 2] as const;

const spaced = (hex: string): string => hex.replace(/(..)(?=.)/g, '$1 ');

function cut(bytes: Uint8Array, sizes: readonly number[]): readonly string[] {
  let at = 0;
  return sizes.flatMap((size) => {
    const part = bytes.subarray(at, at + size);
    at += size;
    return part.length === size ? [spaced(hexOf(part))] : [];
  });
}

/**
 * The head of a packet as the tape shows it: its bytes, a line for each field. @param channel inside the connection, where its four
 * bytes stand before it; `null` over UDP
 */
export function packetAsText(packet: Uint8Array, channel: number | null): string {
  const { length } = packet;
  const frame = channel === null ? [] : cut(Uint8Array.of(0x24, channel, length >> 8, length & 0xff), FRAME_BYTES);
  return [`${TITLE}${length} bytes`, ...frame, ...cut(packet, FIELD_BYTES)].join('\n');
}

export const isPacketText = (text: string): boolean => text.startsWith(TITLE);

const number = (hex: string): number => Number.parseInt(hex.replaceAll(' ', ''), 16);

const OF_FRAME: readonly ((hex: string) => string)[] = [
  () => '“$”: no message, but a packet inside the connection',
  (hex) => `on channel ${number(hex)}, as SETUP agreed; even ones carry media, odd ones reports`,
  (hex) => `${number(hex)} bytes of it follow`,
];
const OF_PACKET: readonly ((hex: string) => string)[] = [
  (hex) => {
    const first = number(hex);
    const more = [
      first & 0x20 ? 'padded at its end' : '',
      first & 0x10 ? 'with an extension header' : '',
      first & 0x0f ? `from ${first & 0x0f} more sources` : '',
    ];
    return [`version ${first >> 6} of RTP`, ...more].filter(Boolean).join(', ');
  },
  (hex) =>
    `type ${number(hex) & 0x7f}, as the description names it; ${number(hex) & 0x80 ? 'marked: the last of its picture' : 'not marked: its picture continues'}`,
  (hex) => `sequence number ${number(hex)}; the next is one more, and a gap is a loss`,
  (hex) => `time stamp ${number(hex)}, in ticks of its clock`,
  (hex) => `source (SSRC ${hex.replaceAll(' ', '')}), a number of the sender’s choice`,
];

/** What each line of such an entry says. */
export function explainPacket(text: string): readonly { readonly text: string; readonly words: string | null }[] {
  const [title = '', ...lines] = text.split('\n');
  const isFramed = lines.length > OF_PACKET.length;
  const meanings = isFramed ? [...OF_FRAME, ...OF_PACKET] : OF_PACKET;
  return [
    { text: title, words: 'the first one; its header, byte by byte' },
    ...lines.map((line, at) => ({ text: line, words: meanings[at]?.(line) ?? null })),
  ];
}
