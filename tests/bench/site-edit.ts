import { performance } from 'node:perf_hooks';
import { createEvidenceIndexer } from '../../src/core/site/best-known.ts';
import { createLaneReckoner } from '../../src/core/site/lane.ts';
import { evidenceOfReport } from '../../src/core/site/probe-evidence.ts';
import { applyCommand, type SiteCommand } from '../../src/core/site/site-commands.ts';
import { readSiteFile, writeSiteFile } from '../../src/core/site/site-file.ts';
import type { Evidence, Site, Tap } from '../../src/core/site/site-types.ts';
import { AT, camera, mill, probed, report, stamps } from '../support/sites.ts';
import { type Figure, lowerQuartile, median } from './measure.ts';

const FRAME_MS = 16;

/** A site where every camera was probed, with three taps a camera spread over twelve destinations. */
function siteOf(cameras: number): Site {
  const base = mill();
  const destinations = Array.from({ length: 12 }, (_, i) => ({
    ...(base.destinations[0] as Site['destinations'][number]),
    id: `d${i}`,
    name: `Store ${i}`,
  }));
  const site: Site = { ...base, destinations, cameras: Array.from({ length: cameras }, (_, i) => camera(`c${i}`)) };
  const taps: Tap[] = [];
  const evidence: Evidence[] = [];
  for (let i = 0; i < cameras; i++) {
    for (const found of evidenceOfReport(report(), `c${i}-main`, 'rtsp://10.77.4.21/live/main'))
      evidence.push({ ...found, id: `e${evidence.length}`, takenAt: AT, source: `probe-${i}` });
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
  return { ...site, taps, evidence };
}

/** An edit of each kind in turn: an address, a probe with another rate, a smaller disk; each touches more than the last. */
const editOf = (i: number): SiteCommand => {
  if (i % 3 === 0) return { kind: 'setAddress', cameraId: `c${i}`, host: `10.77.4.${i + 30}`, port: 554 };
  if (i % 3 === 1) return probed(`c${i}`, report({ kbps: 900 + i }));
  const [store] = mill().destinations;
  if (!store) throw new Error('no destination');
  return {
    kind: 'changeDestination',
    destination: { ...store, id: `d${i % 12}`, name: `Store ${i}`, retentionDays: i },
  };
};

/**
 * One edit, then everything that follows from the document: index, lanes, findings and budgets of every camera, as the
 * page works them out. The dearest kind of edit counts.
 */
function editMs(cameras: number): number {
  let site = siteOf(cameras);
  const index = createEvidenceIndexer();
  const lanes = createLaneReckoner();
  lanes(site, index(site.evidence)); // as it stands when the site was opened
  const kinds: number[][] = [[], [], []];
  for (let i = 0; i < 45; i++) {
    const startedMs = performance.now();
    site = applyCommand(site, editOf(i), stamps(`2026-11-25T09:00:00.${String(i).padStart(3, '0')}Z`));
    lanes(site, index(site.evidence));
    kinds[i % 3]?.push(performance.now() - startedMs);
  }
  return Math.max(...kinds.map(lowerQuartile));
}

/** Opening a site as the page does: the stored text is parsed, checked, indexed and judged whole. */
function openMs(cameras: number): number {
  const text = writeSiteFile(siteOf(cameras));
  const times = Array.from({ length: 5 }, () => {
    const startedMs = performance.now();
    const read = readSiteFile(text);
    if (!read.ok) throw new Error(read.error.message);
    createLaneReckoner()(read.value, createEvidenceIndexer()(read.value.evidence));
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
    {
      what: 'opening a site of 200 cameras: read, checked, judged',
      value: openMs(200),
      unit: 'ms',
      against: 1000,
      peer: 'one second',
      limit: 1,
    },
  ];
}
