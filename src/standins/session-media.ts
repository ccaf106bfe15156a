import { randomBytes } from 'node:crypto';
import type { Oddities } from './oddities.ts';
import type { Personality, StreamPersonality } from './personality.ts';
import type { Feed } from './pictures/picture-feed.ts';
import { PICTURE_CLOCK_HZ, packetise, RtpSender } from './rtp-sender.ts';
import type { RtspLine } from './rtsp-line.ts';
import { playSound, soundTrack } from './sound-feed.ts';
import { PAYLOAD_TYPES } from './stream-description.ts';
import type { UdpSender } from './udp-sender.ts';

/** One track of a session: 0 the picture, 1 the sound. */
export interface Track {
  readonly number: number;
  /** Channels inside the connection, or the camera's end over UDP. */
  readonly path: { readonly channels: readonly [number, number] } | { readonly udp: UdpSender };
  sender: RtpSender | null;
  stop: (() => void) | null;
}

/** A client this far behind is gone or stuck: it is cut off rather than buffered for. */
const MAX_UNSENT_BYTES = 4 * 1024 * 1024;

/** Sends the tracks of one client: packets of pictures and of sound, the way that each was set up. */
export class SessionMedia {
  readonly #odd: Oddities;

  constructor(
    private readonly line: RtspLine,
    private readonly of: { readonly personality: Personality; readonly feeds: ReadonlyMap<string, Feed> },
    /** Whether others have all that it can give. */
    private readonly isStarved: () => boolean,
    private readonly onStuck: () => void,
  ) {
    this.#odd = of.personality.odd ?? {};
  }

  /** @returns what ends it */
  start(track: Track, stream: StreamPersonality): () => void {
    return track.number === 0 ? this.#pictures(track, stream) : this.#sound(track);
  }

  senderOf(track: Track, stream: StreamPersonality, firstSeq: number): RtpSender {
    const feed = this.of.feeds.get(stream.path);
    const sound = track.number === 1 && this.#odd.sound ? soundTrack(this.#odd.sound) : null;
    return new RtpSender({
      ssrc: randomBytes(4).readUInt32BE(),
      firstSeq,
      payloadType: sound?.payloadType ?? PAYLOAD_TYPES[feed?.format.codec ?? 'H264'],
      clockHz: sound?.clockHz ?? PICTURE_CLOCK_HZ,
      driftPpm: (sound ? this.#odd.soundDriftPpm : this.#odd.driftPpm) ?? 0,
      dropEvery: this.of.personality.dropEvery,
      ...this.#wayOf(track),
    });
  }

  #pictures(track: Track, stream: StreamPersonality): () => void {
    const feed = this.of.feeds.get(stream.path);
    const { stopsAfterMs, maxPayloadBytes } = this.of.personality;
    const startedMs = Date.now();
    if (!feed) return () => {};
    return feed.subscribe(({ units, unixMs, shownUnixMs = unixMs }) => {
      if (stopsAfterMs !== null && Date.now() - startedMs > stopsAfterMs) return;
      if (this.isStarved()) return;
      // From wherever the group stands, as cameras do: the first key frame comes later. A picture's packets leave as one
      // burst, which is also how a network card hands them over at the other end.
      this.line.inOneGo(() =>
        track.sender?.send(packetise(feed.format.codec, units, maxPayloadBytes), unixMs, shownUnixMs),
      );
    });
  }

  #sound(track: Track): () => void {
    if (!this.#odd.sound) return () => {};
    const sound = soundTrack(this.#odd.sound);
    const beganMs = Date.now() + this.of.personality.clockErrorMs;
    return playSound(sound, (payload, ticks) => {
      const atMs = beganMs + (ticks * 1000) / sound.clockHz;
      track.sender?.send([{ payload, marker: true }], atMs, atMs);
    });
  }

  #wayOf({ path }: Track): Pick<UdpSender, 'sendRtp' | 'sendRtcp'> {
    if ('udp' in path) return path.udp;
    return {
      sendRtp: (packet) => this.#sendInterleaved(path.channels[0], packet),
      sendRtcp: (packet) => this.#sendInterleaved(path.channels[1], packet),
    };
  }

  /** Source: RFC 2326 §10.12. */
  #sendInterleaved(channel: number, packet: Uint8Array): void {
    if (this.line.isGone) return;
    if (this.line.unsent > MAX_UNSENT_BYTES) return this.onStuck();
    const framed = Buffer.allocUnsafe(4 + packet.length);
    framed.set([0x24, channel, packet.length >> 8, packet.length & 0xff]);
    framed.set(packet, 4);
    this.line.write(framed);
  }
}
