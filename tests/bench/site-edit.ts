import { performance } from 'node:perf_hooks';
import { indexEvidence } from '../../src/core/site/best-known.ts';
import { laneOf } from '../../src/core/site/lane.ts';
import { applyCommand } from '../../src/core/site/site-commands.ts';
import type { Site, Tap } from '../../src/core/site/site-types.ts';
import { camera, mill, probed, report, stamps } from '../support/sites.ts';
import { type Figure, median } from './measure.ts';

const FRAME_MS = 16;

/** A site where every camera was probed, with three taps a camera spread over twelve destinations. */
function siteOf(cameras: number): Site {
  const base = mill();
  const destinations = Array.from({ length: 12 }, (_, i) => ({
    ...(base.destinations[0] as Site['destinations'][number]),
    id: `d${i}`,
    name: `Store ${i}`,
  }));
  let site: Site = { ...base, destinations, cameras: Array.from({ length: cameras }, (_, i) => camera(`c${i}`)) };
  const taps: Tap[] = [];
  for (let i = 0; i < cameras; i++) {
    site = applyCommand(site, probed(`c${i}`, report()), {
      ...stamps(),
      newId: () => `e${site.evidence.length}-${i}-${Math.random()}`,
    });
    for (let k = 0; k < 3; k++)
      taps.push({
        id: `t${i}-${k}`,
        cameraId: `c${i}`,
        streamId: `c${i}-main`,
        destinationId: `d${(i + k) % 12}`,
        use: 'record',
        protocol: 'rtsp',
        schedule: { mode: 'continuous' },
      });
  }
  return { ...site, taps };
}

/** One edit, then everything that follows from the document: index, lanes, findings and budgets of every camera. */
function editMs(cameras: number): number {
  const site = siteOf(cameras);
  const times = Array.from({ length: 7 }, (_, i) => {
    const startedMs = performance.now();
    const edited = applyCommand(
      site,
      { kind: 'setAddress', cameraId: 'c0', host: `10.77.4.${i + 30}`, port: 554 },
      { ...stamps(), newId: () => `x${i}` },
    );
    const index = indexEvidence(edited.evidence);
    for (const one of edited.cameras) laneOf(edited, index, one);
    return performance.now() - startedMs;
  });
  return median(times);
}

export function editFigures(): Figure[] {
  const at200 = editMs(200);
  const at2000 = editMs(2000);
  return [
    {
      what: 'one edit: 200 cameras, 12 destinations, 600 taps',
      value: at200,
      unit: 'ms',
      against: FRAME_MS,
      peer: 'one frame',
      limit: 1,
    },
    {
      what: 'the same at 2,000 cameras',
      value: at2000,
      unit: 'ms',
      against: 10 * at200,
      peer: 'ten times 200',
      limit: 1.15,
    },
  ];
}
