import type { SdpSession } from '../sdp/sdp-types.ts';
import type { Track } from './client-types.ts';
import { parseTransport } from './transport.ts';

/** Cameras have a picture and a sound; a description with more is drawn up to here. */
const MAX_TRACKS = 4;

interface Wanted {
  readonly mediaIndex: number;
  readonly channel: number;
}

/**
 * Which tracks of a description are drawn, in which order they are set up, and on which channels they come.
 * Sound towards the camera and application tracks are left alone; the picture is asked for first, since a camera that
 * grants only one track must grant this one.
 */
export class TrackPlan {
  readonly #waiting: Wanted[];
  readonly #tracks: Track[] = [];
  readonly #byChannel = new Map<number, { readonly track: Track; readonly isRtcp: boolean }>();
  readonly hasVideo: boolean;

  constructor(private readonly session: SdpSession) {
    const drawn = session.media
      .map((media, mediaIndex) => ({ media, mediaIndex }))
      .filter(({ media }) => media.kind !== 'application' && !media.backchannel)
      .sort((a, b) => Number(b.media.kind === 'video') - Number(a.media.kind === 'video'));
    this.hasVideo = drawn[0]?.media.kind === 'video';
    this.#waiting = drawn.slice(0, MAX_TRACKS).map(({ mediaIndex }, index) => ({ mediaIndex, channel: 2 * index }));
  }

  get tracks(): readonly Track[] {
    return this.#tracks;
  }
  /** Tracks still to be set up, the one asked for now counted. */
  get waitingCount(): number {
    return this.#waiting.length;
  }

  /** What to ask SETUP for next, or `null` when all was asked. */
  next(): { readonly control: string; readonly transport: string } | null {
    const wanted = this.#waiting[0];
    const media = wanted && this.session.media[wanted.mediaIndex];
    if (!wanted || !media) return null;
    const transport = `RTP/AVP/TCP;unicast;interleaved=${wanted.channel}-${wanted.channel + 1}`;
    return { control: media.control, transport };
  }

  /** Takes the Transport header of a granted SETUP; a server may choose other channels than were asked for. */
  grant(transportHeader: string): void {
    const wanted = this.#waiting.shift();
    const media = wanted && this.session.media[wanted.mediaIndex];
    if (!wanted || !media) return;
    const { interleaved } = parseTransport(transportHeader);
    const [rtpChannel, rtcpChannel] = interleaved ?? [wanted.channel, wanted.channel + 1];
    const track: Track = { mediaIndex: wanted.mediaIndex, media, rtpChannel, rtcpChannel };
    this.#tracks.push(track);
    this.#byChannel.set(rtpChannel, { track, isRtcp: false });
    this.#byChannel.set(rtcpChannel, { track, isRtcp: true });
  }

  /** Gives up the track asked for now; its place in the description, counted from 1. */
  refuse(): number {
    return (this.#waiting.shift()?.mediaIndex ?? 0) + 1;
  }

  targetOf(channel: number): { readonly track: Track; readonly isRtcp: boolean } | undefined {
    return this.#byChannel.get(channel);
  }
}
