import { decodeLiveFrame } from '../../../contract/live-frame.ts';
import { LIVE_PROTOCOL, type LiveMessage, type LiveRequest } from '../../../contract/probe-api.ts';
import { serverToken } from '../../api/client.ts';

export type LiveState =
  | { readonly status: 'opening' }
  | { readonly status: 'playing'; readonly behindS: number; readonly byCameraClock: boolean }
  /** It will not play; `message` says plainly why. */
  | { readonly status: 'still'; readonly message: string };

/** Decoder queue above which pictures are skipped up to the next key frame: falling behind is worse than a gap. */
const MAX_QUEUED_PICTURES = 8;
/** A camera clock off by more than this says nothing about the delay; arrival does. */
const MAX_CLOCK_DELAY_S = 10;
const STATE_INTERVAL_MS = 250;

const NO_DECODER =
  'This browser cannot decode video for a page (no WebCodecs). The stream itself is fine: see what was measured.';

/** Draws a live stream on a canvas. Returns what ends it. */
export function openLiveView(
  request: LiveRequest,
  canvas: HTMLCanvasElement,
  onState: (state: LiveState) => void,
): () => void {
  if (!('VideoDecoder' in globalThis)) {
    onState({ status: 'still', message: NO_DECODER });
    return () => {};
  }
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
  /** When each picture in the decoder was taken, by its time stamp there. */
  const taken = new Map<number, { unixMs: number; byCameraClock: boolean }>();

  const end = (message: string | null): void => {
    if (isOver) return;
    isOver = true;
    socket.close();
    if (decoder && decoder.state !== 'closed') decoder.close();
    if (message !== null) onState({ status: 'still', message });
  };
  const paint = (frame: VideoFrame): void => {
    const when = taken.get(frame.timestamp);
    for (const key of taken.keys()) if (key <= frame.timestamp) taken.delete(key);
    if (!isOver) {
      if (canvas.width !== frame.displayWidth) canvas.width = frame.displayWidth;
      if (canvas.height !== frame.displayHeight) canvas.height = frame.displayHeight;
      canvas.getContext('2d')?.drawImage(frame, 0, 0, frame.displayWidth, frame.displayHeight);
      const now = Date.now();
      if (when && now - lastStateMs >= STATE_INTERVAL_MS) {
        lastStateMs = now;
        onState({
          status: 'playing',
          behindS: Math.max(0, (now - when.unixMs) / 1000),
          byCameraClock: when.byCameraClock,
        });
      }
    }
    frame.close();
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
  socket.onclose = () => end('The picture broke off: Clear Tap’s own server or the camera went away.');
  socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
    if (isOver) return;
    if (typeof data === 'string') {
      const message: LiveMessage = JSON.parse(data);
      if (message.kind === 'ended') return end(message.message);
      if (message.codecString === null)
        return end(
          `A ${message.codec} stream cannot be shown in a browser here. It was measured all the same; destinations that take ${message.codec} will show it.`,
        );
      const { codecString } = message;
      void VideoDecoder.isConfigSupported({ codec: codecString }).then(({ supported }) => {
        if (isOver) return;
        if (supported) startDecoder(codecString);
        else end(`This browser cannot decode ${codecString}. The stream was measured all the same.`);
      });
      return;
    }
    const frame = decodeLiveFrame(data);
    if (!frame || !decoder || decoder.state !== 'configured') return;
    if (decoder.decodeQueueSize > MAX_QUEUED_PICTURES) needsKeyFrame = true;
    if (needsKeyFrame && !frame.isKeyFrame) return;
    needsKeyFrame = false;
    const timestamp = Math.round(frame.arrivedUnixMs * 1000);
    const cameraDelayS = frame.takenUnixMs === null ? null : (frame.arrivedUnixMs - frame.takenUnixMs) / 1000;
    const isPlausible = cameraDelayS !== null && cameraDelayS >= -0.5 && cameraDelayS <= MAX_CLOCK_DELAY_S;
    taken.set(timestamp, {
      unixMs: isPlausible && frame.takenUnixMs !== null ? frame.takenUnixMs : frame.arrivedUnixMs,
      byCameraClock: isPlausible,
    });
    decoder.decode(
      new EncodedVideoChunk({ type: frame.isKeyFrame ? 'key' : 'delta', timestamp, data: frame.accessUnit }),
    );
  };
  return () => end(null);
}
