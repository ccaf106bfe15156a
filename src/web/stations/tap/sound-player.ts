import type { PlayedSound } from '../../../contract/probe-api.ts';
import { decodeG711 } from '../../../core/audio/g711.ts';
import { levelDbfs } from '../../../core/audio/level.ts';

/** So far ahead sound is laid out: a hiccup of the line is not heard. */
const LEAD_S = 0.15;
/** Further ahead than this it lags behind its picture: what is over is left out. */
const MOST_AHEAD_S = 0.8;
const FULL_SCALE_16 = 32_768;
/** A level falls back slowly enough to be read. */
const FALL_DB = 3;

/** Whether this browser can play it; G.711 needs nothing of it but loudspeakers. */
export async function canPlay({ codec, codecString, rateHz, channels }: PlayedSound): Promise<boolean> {
  if (codec === 'PCMU' || codec === 'PCMA') return true;
  if (!('AudioDecoder' in globalThis)) return false;
  const config = { codec: codecString, sampleRate: rateHz, numberOfChannels: channels };
  const { supported } = await AudioDecoder.isConfigSupported(config).catch(() => ({ supported: false }));
  return supported === true;
}

/** Plays what comes, and tells how loud it is. Made when somebody asks to hear it: until then nothing is decoded. */
export class SoundPlayer {
  readonly #context = new AudioContext();
  readonly #out: GainNode;
  readonly #decoder: AudioDecoder | null;
  #nextS = 0;
  #units = 0;
  #level: number | null = null;

  constructor(private readonly format: PlayedSound) {
    this.#out = this.#context.createGain();
    this.#out.connect(this.#context.destination);
    this.#decoder = format.codec === 'AAC' || format.codec === 'OPUS' ? this.#createDecoder(format) : null;
    void this.#context.resume();
  }

  /** dB below full scale, the loudest of the last moments; `null` before anything was decoded. */
  get levelDbfs(): number | null {
    return this.#level;
  }

  push(unit: Uint8Array<ArrayBuffer>): void {
    const { codec, rateHz, channels } = this.format;
    if (codec === 'PCMU' || codec === 'PCMA') {
      const samples = Float32Array.from(decodeG711(codec, unit), (sample) => sample / FULL_SCALE_16);
      return this.#play([samples], rateHz);
    }
    if (this.#decoder?.state !== 'configured') return;
    this.#units += 1;
    // each unit stands alone, and its place in the row is all that a decoder wants of its time
    this.#decoder.decode(
      new EncodedAudioChunk({
        type: 'key',
        timestamp: Math.round((this.#units * 1024e6) / rateHz / channels),
        data: unit,
      }),
    );
  }

  close(): void {
    if (this.#decoder && this.#decoder.state !== 'closed') this.#decoder.close();
    void this.#context.close();
  }

  #createDecoder({ codecString, rateHz, channels, config }: PlayedSound): AudioDecoder {
    const decoder = new AudioDecoder({
      output: (data) => {
        const planes = Array.from({ length: data.numberOfChannels }, (_, planeIndex) => {
          const plane = new Float32Array(data.numberOfFrames);
          data.copyTo(plane, { planeIndex, format: 'f32-planar' });
          return plane;
        });
        this.#play(planes, data.sampleRate);
        data.close();
      },
      error: () => {}, // what is damaged is silent; the state says that nothing more comes
    });
    decoder.configure({
      codec: codecString,
      sampleRate: rateHz,
      numberOfChannels: channels,
      ...(config === '' ? {} : { description: Uint8Array.from(atob(config), (sign) => sign.charCodeAt(0)) }),
    });
    return decoder;
  }

  #play(planes: readonly Float32Array<ArrayBuffer>[], rateHz: number): void {
    const [first] = planes;
    if (!first || first.length === 0) return;
    this.#level = Math.max(levelDbfs(first, 1), (this.#level ?? Number.NEGATIVE_INFINITY) - FALL_DB);
    const now = this.#context.currentTime;
    if (this.#nextS > now + MOST_AHEAD_S) return;
    if (this.#nextS < now) this.#nextS = now + LEAD_S;
    const buffer = this.#context.createBuffer(planes.length, first.length, rateHz);
    for (const [channel, plane] of planes.entries()) buffer.copyToChannel(plane, channel);
    const source = this.#context.createBufferSource();
    source.buffer = buffer;
    source.connect(this.#out);
    source.start(this.#nextS);
    this.#nextS += first.length / rateHz;
  }
}
