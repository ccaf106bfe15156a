import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parseStreamUrl } from '../../src/core/net/stream-url.ts';
import { ALDER_MILL_FLEET, type Fleet, fleetListing, startFleet } from '../../src/standins/fleet.ts';
import { probe } from '../support/test-camera.ts';

// A client that we did not write plays our stand-ins, and sees what our own probe sees.
const run = promisify(execFile);
const FFPROBE = process.env.FFPROBE ?? '/usr/bin/ffprobe';

let fleet: Fleet;
let urls: { name: string; url: string }[];
beforeAll(async () => {
  fleet = await startFleet(ALDER_MILL_FLEET);
  urls = fleetListing(fleet).devices.flatMap(({ name, rtsp }) =>
    rtsp.map(({ label, url }) => ({ name: `${name} ${label}`, url })),
  );
}, 60_000);
afterAll(() => fleet.close());

test.each(['Sluice rail main', 'Sluice rail sub', 'Boot room main', 'Boot room sub'])(
  '%s: codec, size and frames a second agree with a general media prober',
  async (name) => {
    const url = urls.find((one) => one.name === name)?.url ?? '';
    const { stdout } = await run(
      FFPROBE,
      ['-v', 'quiet', '-rtsp_transport', 'tcp', '-show_streams', '-of', 'json', url],
      { timeout: 30_000 },
    );
    const theirs = JSON.parse(stdout).streams[0];
    const parsed = parseStreamUrl(url);
    const user = parsed.ok ? (parsed.value.url.user ?? '') : '';
    const password = parsed.ok ? (parsed.value.url.password ?? '') : '';
    const { report } = await probe(url, { credentials: { user, password }, seconds: 2.5 });
    const ours = report.media[0];
    expect(theirs.codec_name).toBe('h264');
    expect(ours?.codec).toBe('H264');
    expect(ours?.measured).toMatchObject({ width: theirs.width, height: theirs.height });
    const [frames, seconds] = String(theirs.avg_frame_rate).split('/').map(Number);
    expect(ours?.measured?.fps).toBeCloseTo((frames ?? 0) / (seconds ?? 1), 0);
    expect(ours?.declared.fps).toBe((frames ?? 0) / (seconds ?? 1));
  },
  60_000,
);
