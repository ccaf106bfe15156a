import { fakePackets } from '../support/fake-media.ts';
import { startFaultyCamera } from '../support/faulty-camera.ts';
import { startServer } from '../support/running-server.ts';
import { healthy } from '../support/scripted-server.ts';
import { beginWith } from '../support/thief.ts';
import { expect, apart as test } from './browser.ts';

test('pictures that come and that no decoder makes anything of are told as that', async ({ page }) => {
  // what a slice of them carries is filled with one byte: well packed, and no picture
  const packets = fakePackets({ fps: 15, groupFrames: 15, frames: 600 });
  const [server, camera] = await Promise.all([startServer(), startFaultyCamera({ script: healthy, packets })]);
  try {
    await beginWith(page, `http://127.0.0.1:${server.port}/`, `rtsp://127.0.0.1:${camera.port}/live`);
    await page.getByRole('button', { name: 'Probe', exact: true }).click();
    await expect(page.getByText('Frames arrive, but this browser cannot decode any')).toBeVisible({
      timeout: 30_000,
    });
    await expect.poll(camera.open).toBe(0);
  } finally {
    server.process.kill('SIGTERM');
    await camera.close();
  }
});
