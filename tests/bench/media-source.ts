// A camera in a process of its own that costs next to nothing: one group of real pictures, encoded once and sent over
// and over, at about 4 Mbit/s.
import { ORDINARY } from '../../src/standins/personality.ts';
import { GroupEncoder } from '../../src/standins/pictures/group-encoder.ts';
import type { EncodedGroup } from '../../src/standins/pictures/mp4-samples.ts';
import { startRtspStandIn } from '../../src/standins/rtsp-standin.ts';

const WANTED_KBPS = 4000;
const FORMAT = {
  codec: 'H264',
  scene: 'boot-room',
  label: 'Bench',
  width: 960,
  height: 540,
  fps: 25,
  groupFrames: 25,
} as const;

const encoder = new GroupEncoder();
const kbpsOf = ({ pictures }: EncodedGroup): number =>
  (pictures.flat().reduce((sum, { length }) => sum + length, 0) * 8 * FORMAT.fps) / FORMAT.groupFrames / 1000;

/** The finest quantiser that stays nearest to the wanted rate. */
async function groupNear(wanted: number): Promise<{ group: EncodedGroup; quantiser: number }> {
  let best: { group: EncodedGroup; quantiser: number } | null = null;
  for (let quantiser = 12; quantiser <= 32; quantiser += 1) {
    const group = await encoder.encode({ ...FORMAT, quantiser, frames: FORMAT.groupFrames, startUnixMs: 0 });
    if (!best || Math.abs(kbpsOf(group) - wanted) < Math.abs(kbpsOf(best.group) - wanted)) best = { group, quantiser };
    if (kbpsOf(group) < wanted) break;
  }
  if (!best) throw new Error('no group was encoded');
  return best;
}

const { group, quantiser } = await groupNear(WANTED_KBPS);
const camera = await startRtspStandIn(
  {
    ...ORDINARY,
    name: 'Bench',
    host: '127.0.0.1',
    port: 554,
    server: 'bench',
    realm: 'bench',
    account: null,
    digestQop: null,
    sessionTimeoutS: 60,
    maxSessions: 32,
    dropEvery: null,
    maxPayloadBytes: 1400,
    stopsAfterMs: null,
    streams: [{ label: 'main', path: '/live', format: { ...FORMAT, quantiser } }],
  },
  async () => group,
);
console.log(JSON.stringify({ url: `rtsp://127.0.0.1:${camera.port}/live`, kbps: kbpsOf(group) }));
process.once('SIGTERM', () => void camera.close().then(() => process.exit(0)));
