import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ALDER_MILL_FLEET, type Fleet, fleetListing, startFleet } from '../../src/standins/fleet.ts';
import { probe } from '../support/test-camera.ts';

// A client that we did not write plays our stand-ins, and sees what our own probe sees.
const run = promisify(execFile);
const FFPROBE = process.env.FFPROBE ?? '/usr/bin/ffprobe';

let fleet: Fleet;
let devices: ReturnType<typeof fleetListing>['devices'];
beforeAll(async () => {
  fleet = await startFleet(ALDER_MILL_FLEET);
  devices = fleetListing(fleet).devices;
}, 60_000);
afterAll(() => fleet.close());

/** Frames a second as the other client says them: “12/1”. */
const rateOf = (text: string): number => {
  const [frames = 0, seconds = 1] = text.split('/').map(Number);
  return frames / seconds;
};

/** On a busy machine the prober sees too few pictures for an average and says 0/0: it is asked again then. */
async function askProber(args: readonly string[]) {
  for (let left = 3; ; left--) {
    const { stdout } = await run(FFPROBE, args, { timeout: 30_000 });
    const stream = JSON.parse(stdout).streams[0];
    if (left === 1 || stream.codec_name !== 'mjpeg' || stream.avg_frame_rate !== '0/0') return stream;
  }
}

test('codec, size and frames a second of every stream agree with a general media prober', async () => {
  expect(devices.flatMap(({ rtsp }) => rtsp)).toHaveLength(6);
  const compare = async ({ user, password, rtsp }: (typeof devices)[number]): Promise<void> => {
    // One stream after the other: the old box serves two clients at once, and here are two.
    for (const { url } of rtsp) {
      const args = ['-v', 'quiet', '-rtsp_transport', 'tcp', '-show_streams', '-of', 'json', url];
      const [theirs, { report }] = await Promise.all([
        askProber(args),
        probe(url, { credentials: { user: user ?? '', password: password ?? '' }, seconds: 3 }),
      ]);
      const ours = report.media[0];
      expect({
        codec: ours?.codec?.toLowerCase().replace('jpeg', 'mjpeg'), // the other client’s word for pictures one by one
        width: ours?.measured?.width,
        height: ours?.measured?.height,
      }).toEqual({
        codec: theirs.codec_name,
        width: theirs.width,
        height: theirs.height,
      });
      // JPEG has no rate of its own: the other client then says the finest clock that fits, and beside it the average.
      const rate = rateOf(theirs.codec_name === 'mjpeg' ? theirs.avg_frame_rate : theirs.r_frame_rate);
      expect(ours?.declared.fps).toBe(rate);
      expect(ours?.measured?.fps).toBeCloseTo(rate, 0);
    }
  };
  // And one camera after the other: six encoders at once starve the prober’s average on a busy machine.
  for (const device of devices) await compare(device);
}, 120_000);
