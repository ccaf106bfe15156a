import { LIVE_PROTOCOL } from '../../../contract/app-header.ts';
import { decodeLiveFrame, type LiveFrame } from '../../../contract/live-frame.ts';
import { JPEG_PICTURES, type LiveMessage, type LiveRequest, type PlayedSound } from '../../../contract/probe-api.ts';
import { serverToken } from '../../api/client.ts';
import { canPlay, SoundPlayer } from './sound-player.ts';

export type LiveState =
  | { readonly status: 'opening' }
  | {
      readonly status: 'playing';
      readonly behindS: number;
      readonly byCameraClock: boolean;
      /** `null` where the stream carries none. */
      readonly sound: LiveSound | null;
    }
  /** It will not play; `message` says plainly why. */
  | {
      readonly status: 'still';
      readonly message: string;
      /** The stream is well, and this browser cannot decode it. */
      readonly isBeyondBrowser: boolean;
    };

export interface LiveSound {
  readonly codec: string;
  readonly isPlayable: boolean;
  readonly isOn: boolean;
  readonly levelDbfs: number | null;
}

export interface LiveView {
  /** Plays its sound, or no more; from a press, which is what a browser asks for. */
  listen(isOn: boolean): void;
  close(): void;
}

/** Decoder queue above which pictures are skipped up to the next key frame: falling behind is worse than a gap. */
const MAX_QUEUED_PICTURES = 8;
/** A camera clock off by more than this says nothing about the delay; arrival does. */
const MAX_CLOCK_DELAY_S = 10;
const STATE_INTERVAL_MS = 250;
/** Pictures that come and are never decoded are told after this. */
const UNDECODED_MS = 5000;

const NO_DECODER =
  'This browser cannot decode video for a page (no WebCodecs). The stream itself is fine: see the measurements.';

interface Taken {
  readonly unixMs: number;
  readonly byCameraClock: boolean;
}

/** Draws a live stream on a canvas, its sound silent until asked for. */
export function openLiveView(
  request: LiveRequest,
  canvas: HTMLCanvasElement,
  onState: (state: LiveState) => void,
): LiveView {
  onState({ status: 'opening' });
  const scheme = location.protocol === 'https:' ? 'wss' : 'ws';
  const protocols = serverToken === null ? [LIVE_PROTOCOL] : [LIVE_PROTOCOL, serverToken];
  const socket = new WebSocket(`${scheme}://${location.host}/api/live`, protocols);
  socket.binaryType = 'arraybuffer';
  let decoder: VideoDecoder | null = null;
  let codec = '';
  let needsKeyFrame = true;
  let isOver = false;
  let lastStateMs = 0;
  /** Since when pictures come that no decoder made anything of. */
  let undecodedSinceMs: number | null = null;
  let hasDrawn = false;
  /** When each picture in the decoder was taken, by its time stamp there. */
  const taken = new Map<number, Taken>();
  let isJpeg = false;
  let played: PlayedSound | null = null;
  let sound: LiveSound | null = null;
  let player: SoundPlayer | null = null;

  const end = (message: string | null, isBeyondBrowser = false): void => {
    if (isOver) return;
    isOver = true;
    socket.close();
    if (decoder && decoder.state !== 'closed') decoder.close();
    player?.close();
    if (message !== null) onState({ status: 'still', message, isBeyondBrowser });
  };
  const draw = (picture: CanvasImageSource, width: number, height: number, when: Taken | undefined): void => {
    if (isOver) return;
    undecodedSinceMs = null;
    hasDrawn = true;
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
    canvas.getContext('2d')?.drawImage(picture, 0, 0, width, height);
    const now = Date.now();
    if (!when || now - lastStateMs < STATE_INTERVAL_MS) return;
    lastStateMs = now;
    const behindS = Math.max(0, (now - when.unixMs) / 1000);
    onState({
      status: 'playing',
      behindS,
      byCameraClock: when.byCameraClock,
      sound: sound && { ...sound, isOn: player !== null, levelDbfs: player?.levelDbfs ?? null },
    });
  };
  const paint = (frame: VideoFrame): void => {
    const when = taken.get(frame.timestamp);
    for (const key of taken.keys()) if (key <= frame.timestamp) taken.delete(key);
    draw(frame, frame.displayWidth, frame.displayHeight, when);
    frame.close();
  };
  let drawing = false;
  /** A picture that comes while one is being decoded is left out: the next is as whole as this one. */
  const paintJpeg = async (file: Uint8Array<ArrayBuffer>, when: Taken): Promise<void> => {
    if (drawing) return;
    drawing = true;
    try {
      const picture = await createImageBitmap(new Blob([file], { type: 'image/jpeg' }));
      draw(picture, picture.width, picture.height, when);
      picture.close();
    } catch {
      // damaged on the camera's side; the next picture stands by itself
    } finally {
      drawing = false;
    }
  };
  const startDecoder = (codecString: string): void => {
    if (decoder && decoder.state !== 'closed') decoder.close();
    codec = codecString;
    needsKeyFrame = true;
    decoder = new VideoDecoder({
      output: paint,
      error: () => {
        if (!isOver && codec !== '') startDecoder(codec); // damaged pictures can upset a decoder; the next key frame heals it
      },
    });
    decoder.configure({ codec: codecString, optimizeForLatency: true });
  };

  socket.onopen = () => socket.send(JSON.stringify(request));
  socket.onclose = () => end('The live picture stopped: Clear Tap’s own server or the camera went away.');
  socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
    if (isOver) return;
    if (typeof data === 'string') {
      const message: LiveMessage = JSON.parse(data);
      if (message.kind === 'ended') return end(message.message);
      if (message.kind === 'sound') {
        const { codec: name, format } = message;
        played = format;
        sound = { codec: name, isPlayable: false, isOn: false, levelDbfs: null };
        if (format)
          void canPlay(format).then((isPlayable) => {
            if (sound) sound = { ...sound, isPlayable };
          });
        return;
      }
      if (message.codecString === null)
        return end(
          `A ${message.codec} stream cannot be shown in a browser here. It was measured all the same; destinations that take ${message.codec} will show it.`,
          true,
        );
      const { codecString } = message;
      isJpeg = codecString === JPEG_PICTURES;
      if (isJpeg) return;
      if (!('VideoDecoder' in globalThis)) return end(NO_DECODER);
      void VideoDecoder.isConfigSupported({ codec: codecString }).then(({ supported }) => {
        if (isOver) return;
        if (supported) startDecoder(codecString);
        else
          end(
            `This browser cannot decode ${codecWords(message.codec)}. The stream is fine and was measured all the same: a recorder or viewer that takes it will show it.`,
            true,
          );
      });
      return;
    }
    const frame = decodeLiveFrame(data);
    if (!frame) return;
    if (frame.isSound) return player?.push(frame.accessUnit);
    const when = takenAt(frame);
    if (isJpeg) return void paintJpeg(frame.accessUnit, when);
    if (decoder?.state !== 'configured') return;
    if (decoder.decodeQueueSize > MAX_QUEUED_PICTURES) needsKeyFrame = true;
    const nowMs = performance.now();
    undecodedSinceMs ??= nowMs;
    if (nowMs - undecodedSinceMs > UNDECODED_MS)
      return end(
        `Frames arrive, but this browser cannot decode any${hasDrawn ? ' more' : ''}: they are damaged, or do not match the description.`,
        true,
      );
    if (needsKeyFrame && !frame.isKeyFrame) return;
    needsKeyFrame = false;
    const timestamp = Math.round(frame.arrivedUnixMs * 1000);
    taken.set(timestamp, when);
    decoder.decode(
      new EncodedVideoChunk({ type: frame.isKeyFrame ? 'key' : 'delta', timestamp, data: frame.accessUnit }),
    );
  };
  return {
    listen: (isOn) => {
      player?.close();
      player = isOn && played ? new SoundPlayer(played) : null;
      lastStateMs = 0; // the next picture tells it
    },
    close: () => end(null),
  };
}

const codecWords = (codec: string): string => (codec === 'H265' ? 'H.265' : codec === 'H264' ? 'this H.264' : codec);

/** When a picture was taken: by the camera's clock where that can be believed, else when it arrived. */
function takenAt({ takenUnixMs, arrivedUnixMs }: LiveFrame): Taken {
  const delayS = takenUnixMs === null ? null : (arrivedUnixMs - takenUnixMs) / 1000;
  const isPlausible = delayS !== null && delayS >= -0.5 && delayS <= MAX_CLOCK_DELAY_S;
  return { unixMs: isPlausible && takenUnixMs !== null ? takenUnixMs : arrivedUnixMs, byCameraClock: isPlausible };
}
