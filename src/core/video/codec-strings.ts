import { removeEmulationPrevention } from './nal.ts';

const hex = (value: number): string => value.toString(16).toUpperCase();

/** `codecs` parameter of an H.264 stream from its SPS: avc1.PPCCLL. Source: RFC 6381 §3.3. */
export const h264CodecString = (sps: Uint8Array): string =>
  `avc1.${[1, 2, 3].map((i) => (sps[i] ?? 0).toString(16).padStart(2, '0')).join('')}`;

/**
 * The same of H.265: hev1, profile space and profile, compatibility flags read backwards, tier and level, constraints without
 * trailing noughts. `null` for an SPS that is cut short. Source: ISO/IEC 14496-15 §E.3; H.265 §7.3.3 (profile_tier_level).
 */
export function h265CodecString(sps: Uint8Array): string | null {
  const bytes = removeEmulationPrevention(sps).subarray(3); // past the header and the ids
  if (bytes.length < 12) return null;
  const first = bytes[0] ?? 0;
  const space = ['', 'A', 'B', 'C'][first >> 6] ?? '';
  let flags = 0;
  for (let bit = 0; bit < 32; bit++) if (((bytes[1 + (bit >> 3)] ?? 0) >> (7 - (bit & 7))) & 1) flags += 2 ** bit;
  const constraints = [...bytes.subarray(5, 11)];
  while (constraints.length > 0 && constraints.at(-1) === 0) constraints.pop();
  const parts = [
    `${space}${first & 0x1f}`,
    hex(flags),
    `${first & 0x20 ? 'H' : 'L'}${bytes[11] ?? 0}`,
    ...constraints.map(hex),
  ];
  return `hev1.${parts.join('.')}`;
}
