import type { SdpMedia, SdpSession } from '../sdp/sdp-types.ts';
import type { Track, TrackPath, TransportChoice } from './client-types.ts';
import { parseTransport } from './transport.ts';

/** Cameras have a picture and a sound; a description with more is drawn up to here. */
const MAX_TRACKS = 4;

export type NextTrack =
  | { readonly kind: 'ask'; readonly control: string; readonly transport: string }
  | { readonly kind: 'openPorts'; readonly place: number };

/**
 * Which tracks of a description are drawn, in which order they are set up, and the way they come: inside the connection,
 * or to a pair of ports each. Sound towards the camera and application tracks are left alone; the picture is asked for
 * first, since a camera that grants only one track must grant this one.
 */
export class TrackPlan {
  /** Indices of media sections still to be set up. */
  readonly #waiting: number[];
  readonly #tracks: Track[] = [];
  readonly #byChannel = new Map<number, { readonly track: Track; readonly isRtcp: boolean }>();
  readonly hasVideo: boolean;
  #transport: 'tcp' | 'udp';
  #ports: readonly [number, number] | null = null;
  /** Media sections whose address is tried as the standard would put it together. */
  readonly #elsewhere = new Set<number>();
  #reason: string;

  constructor(
    private readonly session: SdpSession,
    private readonly choice: TransportChoice,
  ) {
    const drawn = session.media
      .map((media, mediaIndex) => ({ media, mediaIndex }))
      .filter(({ media }) => media.kind !== 'application' && !media.backchannel)
      .sort((a, b) => Number(b.media.kind === 'video') - Number(a.media.kind === 'video'));
    this.hasVideo = drawn[0]?.media.kind === 'video';
    this.#waiting = drawn.slice(0, MAX_TRACKS).map(({ mediaIndex }) => mediaIndex);
    this.#transport = choice === 'udp' ? 'udp' : 'tcp';
    this.#reason = choice === 'auto' ? 'TCP was granted; it passes firewalls' : `${choice.toUpperCase()} was requested`;
  }

  get tracks(): readonly Track[] {
    return this.#tracks;
  }
  /** Tracks still to be set up, the one asked for now counted. */
  get waitingCount(): number {
    return this.#waiting.length;
  }
  get transport(): 'tcp' | 'udp' {
    return this.#transport;
  }
  /** Why the packets come this way. */
  get reason(): string {
    return this.#reason;
  }

  /** “TCP, channels 0–1” or “UDP from port 6970”: the tracks granted before, and the one granted by this header. */
  describe(lastHeader: string): string {
    const { serverPorts, interleaved } = parseTransport(lastHeader);
    if (this.#transport === 'udp') return `UDP${serverPorts ? ` from port ${serverPorts[0]}` : ''}; ${this.#reason}`;
    const pairs = this.#tracks.map(({ path }) =>
      path.transport === 'tcp' ? `${path.rtpChannel}–${path.rtcpChannel}` : '',
    );
    return `TCP, channels ${[...pairs, interleaved ? interleaved.join('–') : ''].filter(Boolean).join(', ')}`;
  }

  /** What to do for the next track, or `null` when all was asked. */
  next(): NextTrack | null {
    const mediaIndex = this.#waiting[0];
    const media = mediaIndex === undefined ? undefined : this.session.media[mediaIndex];
    if (!media) return null;
    if (this.#transport === 'udp') {
      if (!this.#ports) return { kind: 'openPorts', place: this.#tracks.length };
      const transport = `RTP/AVP;unicast;client_port=${this.#ports.join('-')}`;
      return { kind: 'ask', control: this.#controlOf(media, mediaIndex), transport };
    }
    const [rtp, rtcp] = this.#wantedChannels;
    const transport = `RTP/AVP/TCP;unicast;interleaved=${rtp}-${rtcp}`;
    return { kind: 'ask', control: this.#controlOf(media, mediaIndex), transport };
  }

  #controlOf({ control, otherControl }: SdpMedia, mediaIndex: number | undefined): string {
    return (mediaIndex !== undefined && this.#elsewhere.has(mediaIndex) && otherControl) || control;
  }
  /** Nothing is where most devices have their tracks: the other reading of the address is next. `null` when there is none left. */
  tryOtherControl(): string | null {
    const [mediaIndex] = this.#waiting;
    const other = mediaIndex === undefined ? null : this.session.media[mediaIndex]?.otherControl;
    if (mediaIndex === undefined || !other || this.#elsewhere.has(mediaIndex)) return null;
    this.#elsewhere.add(mediaIndex);
    return other;
  }

  portsOpened(ports: readonly [number, number]): void {
    this.#ports = ports;
  }

  /** Takes the Transport header of a granted SETUP; `null` when it grants another transport than was asked for. */
  grant(transportHeader: string): Track | null {
    const [mediaIndex] = this.#waiting;
    const media = mediaIndex === undefined ? undefined : this.session.media[mediaIndex];
    const path = this.#pathOf(transportHeader);
    if (mediaIndex === undefined || !media || !path) return null;
    this.#waiting.shift();
    this.#ports = null;
    const track: Track = { mediaIndex, media, place: this.#tracks.length, path };
    this.#tracks.push(track);
    if (path.transport === 'tcp') {
      this.#byChannel.set(path.rtpChannel, { track, isRtcp: false });
      this.#byChannel.set(path.rtcpChannel, { track, isRtcp: true });
    }
    return track;
  }

  #pathOf(transportHeader: string): TrackPath | null {
    const { interleaved, serverPorts, lower } = parseTransport(transportHeader);
    if (this.#transport === 'udp')
      return lower === 'tcp' || !this.#ports ? null : { transport: 'udp', clientPorts: this.#ports, serverPorts };
    if (lower === 'udp' && !interleaved) return null;
    const [rtpChannel, rtcpChannel] = interleaved ?? this.#wantedChannels; // a server may choose other channels
    return { transport: 'tcp', rtpChannel, rtcpChannel };
  }
  get #wantedChannels(): readonly [number, number] {
    return [2 * this.#tracks.length, 2 * this.#tracks.length + 1];
  }

  /** Goes over to UDP when the person left the choice open and nothing was granted yet. */
  fallBackToUdp(why: string): boolean {
    if (this.choice !== 'auto' || this.#transport === 'udp' || this.#tracks.length > 0) return false;
    this.#transport = 'udp';
    this.#reason = why;
    return true;
  }

  /** Gives up the track asked for now; its place in the description, counted from 1. */
  refuse(): number {
    this.#ports = null;
    return (this.#waiting.shift() ?? 0) + 1;
  }

  targetOf(channel: number): { readonly track: Track; readonly isRtcp: boolean } | undefined {
    return this.#byChannel.get(channel);
  }
}
