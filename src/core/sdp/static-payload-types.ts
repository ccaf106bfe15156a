/** Payload types with a fixed meaning. Source: RFC 3551 §6, tables 4 and 5. */
export const STATIC_PAYLOAD_TYPES: Readonly<
  Record<number, { codec: string; clockRate: number; channels: number | null }>
> = {
  0: { codec: 'PCMU', clockRate: 8000, channels: 1 },
  3: { codec: 'GSM', clockRate: 8000, channels: 1 },
  4: { codec: 'G723', clockRate: 8000, channels: 1 },
  8: { codec: 'PCMA', clockRate: 8000, channels: 1 },
  9: { codec: 'G722', clockRate: 8000, channels: 1 }, // samples at 16,000 Hz; the RTP clock says 8,000 (RFC 3551 §4.5.2)
  10: { codec: 'L16', clockRate: 44_100, channels: 2 },
  11: { codec: 'L16', clockRate: 44_100, channels: 1 },
  14: { codec: 'MPA', clockRate: 90_000, channels: 1 },
  18: { codec: 'G729', clockRate: 8000, channels: 1 },
  26: { codec: 'JPEG', clockRate: 90_000, channels: null },
  31: { codec: 'H261', clockRate: 90_000, channels: null },
  32: { codec: 'MPV', clockRate: 90_000, channels: null },
  33: { codec: 'MP2T', clockRate: 90_000, channels: null },
  34: { codec: 'H263', clockRate: 90_000, channels: null },
};
