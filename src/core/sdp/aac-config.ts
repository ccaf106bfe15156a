import { BitReader } from '../base/bit-reader.ts';
import { bytesFromHex, ShortRead } from '../base/bytes.ts';

export interface AacConfig {
  readonly objectType: number;
  readonly sampleRate: number;
  readonly channels: number;
}

/** ISO/IEC 14496-3 Table 1.18, samplingFrequencyIndex 0…12; 15 means the rate follows in 24 bits. */
const SAMPLE_RATES = [
  96_000, 88_200, 64_000, 48_000, 44_100, 32_000, 24_000, 22_050, 16_000, 12_000, 11_025, 8000, 7350,
];
const EXPLICIT_RATE = 15;

/**
 * Reads an AudioSpecificConfig in base16: 5 bits object type, 4 bits rate index, 4 bits channel configuration.
 * `null` when it is not base16, too short, or names a reserved rate.
 * Source: ISO/IEC 14496-3 §1.6.2.1; carried in RFC 3640 §4.1 `config`. `1408` → type 2, 16,000 Hz, 1 channel.
 */
export function parseAacConfig(hex: string): AacConfig | null {
  const bytes = bytesFromHex(hex);
  if (!bytes.ok) return null;
  const bits = new BitReader(bytes.value);
  try {
    const objectType = bits.u(5, 'audioObjectType');
    const index = bits.u(4, 'samplingFrequencyIndex');
    const sampleRate = index === EXPLICIT_RATE ? bits.u(24, 'samplingFrequency') : SAMPLE_RATES[index];
    const channels = bits.u(4, 'channelConfiguration');
    return sampleRate === undefined ? null : { objectType, sampleRate, channels };
  } catch (error) {
    if (error instanceof ShortRead) return null;
    throw error;
  }
}
