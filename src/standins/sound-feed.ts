import { packAac } from '../core/audio/aac-payload.ts';
import { encodeG711 } from '../core/audio/g711.ts';
import { bytesFromBase64 } from '../core/base/bytes.ts';
import { SOUND_LOOPS } from './loops/sound-loops.ts';

export const SOUND_KINDS = ['AAC', 'PCMU', 'PCMA', 'G726', 'OPUS'] as const;
/** What a simulated camera’s microphone is sent as. */
export type SoundKind = (typeof SOUND_KINDS)[number];

interface SoundTrack {
  readonly payloadType: number;
  /** Lines of its section of the description, after `m=`. */
  readonly lines: readonly string[];
  readonly clockHz: number;
  /** Samples of its clock that one packet lasts. */
  readonly ticks: number;
  readonly packets: readonly Uint8Array[];
}

const bytesOf = (base64: string): Uint8Array => {
  const bytes = bytesFromBase64(base64);
  if (!bytes.ok) throw new Error('A loop is damaged'); // ours: made by scripts/make-loops.mjs
  return bytes.value;
};
const cut = (bytes: Uint8Array, size: number): readonly Uint8Array[] =>
  Array.from({ length: Math.floor(bytes.length / size) }, (_, i) => bytes.subarray(i * size, (i + 1) * size));

const G711_HZ = 8000;
/** 20 ms, as RFC 3551 §4.2 has it. */
const G711_TICKS = 160;
/** Three notes and a rest in two seconds: an ear tells whether anything is missing. */
const tones = (): Int16Array =>
  Int16Array.from({ length: 2 * G711_HZ }, (_, i) => {
    const atS = i / G711_HZ;
    const within = (atS % 0.5) / 0.5;
    const note = [440, 554.37, 659.25, 0][Math.floor(atS * 2) % 4] ?? 0;
    return 8000 * Math.min(1, within * 20, (1 - within) * 20) * Math.sin(2 * Math.PI * note * atS);
  });

const MAKERS: Readonly<Record<SoundKind, () => SoundTrack>> = {
  AAC: () => ({
    payloadType: 97,
    lines: [
      'a=rtpmap:97 MPEG4-GENERIC/16000/1',
      'a=fmtp:97 streamtype=5;profile-level-id=1;mode=AAC-hbr;sizelength=13;indexlength=3;indexdeltalength=3;config=1408',
    ],
    clockHz: 16_000,
    ticks: 1024,
    packets: SOUND_LOOPS.AAC.split(' ').map((text) => packAac(bytesOf(text))),
  }),
  OPUS: () => ({
    payloadType: 98,
    lines: ['a=rtpmap:98 opus/48000/2'],
    clockHz: 48_000,
    ticks: 960,
    packets: SOUND_LOOPS.OPUS.split(' ').map(bytesOf),
  }),
  // four bits a sample: 80 bytes in 20 ms
  G726: () => ({
    payloadType: 99,
    lines: ['a=rtpmap:99 G726-32/8000'],
    clockHz: G711_HZ,
    ticks: G711_TICKS,
    packets: cut(bytesOf(SOUND_LOOPS.G726), G711_TICKS / 2),
  }),
  PCMU: () => ({
    payloadType: 0,
    lines: [],
    clockHz: G711_HZ,
    ticks: G711_TICKS,
    packets: cut(encodeG711('PCMU', tones()), G711_TICKS),
  }),
  PCMA: () => ({
    payloadType: 8,
    lines: [],
    clockHz: G711_HZ,
    ticks: G711_TICKS,
    packets: cut(encodeG711('PCMA', tones()), G711_TICKS),
  }),
};

const made = new Map<SoundKind, SoundTrack>();
export function soundTrack(kind: SoundKind): SoundTrack {
  const known = made.get(kind);
  if (known) return known;
  const track = MAKERS[kind]();
  made.set(kind, track);
  return track;
}

/** Sends packets of a track when they are due, from now on, until it is stopped. */
export function playSound(track: SoundTrack, send: (packet: Uint8Array, ticks: number) => void): () => void {
  const beganMs = performance.now();
  let sent = 0;
  let timer: NodeJS.Timeout | null = null;
  const step = (): void => {
    // a timer that was late sends what fell due meanwhile
    const due = Math.floor(((performance.now() - beganMs) * track.clockHz) / 1000 / track.ticks);
    for (; sent <= due; sent++) {
      const packet = track.packets[sent % track.packets.length];
      if (packet) send(packet, sent * track.ticks);
    }
    const nextMs = (sent * track.ticks * 1000) / track.clockHz;
    timer = setTimeout(step, Math.max(1, nextMs - (performance.now() - beganMs)));
  };
  step();
  return () => {
    if (timer) clearTimeout(timer);
  };
}
