import { expect, test } from '@jest/globals';
import { siteOf } from '../../../tests/support/planned-sites.ts';
import { apply, camera, probed, report } from '../../../tests/support/sites.ts';
import type { Site } from '../document/site.ts';
import { indexEvidence } from '../evidence/evidence-index.ts';
import { camerasToProbe } from './to-probe.ts';

test('a round probes what has an address and was not probed there, and nothing else unless it is asked to', () => {
  const base = siteOf();
  const site = { ...base, cameras: [...base.cameras, camera('d'), camera('e', { host: '' })] };
  const seen = apply(site, probed('c', report(), 'rtsp://10.77.4.21/live/main'));
  const of = (one: Site, again = false) =>
    camerasToProbe(one, indexEvidence(one.journal), again).map((found) => [
      found.camera.id,
      found.streams.map(({ id }) => id),
    ]);
  expect(of(seen)).toEqual([['d', ['d-main']]]);
  expect(of(seen, true)).toEqual([
    ['c', ['c-main']],
    ['d', ['d-main']],
  ]);
  const moved = apply(seen, { kind: 'setAddress', cameraId: 'c', host: '10.77.4.99', port: 554 });
  expect(of(moved)).toHaveLength(2);
});
