import { join } from 'node:path';
import { ALDER_MILL_FLEET, type Fleet, startFleet } from '../../src/standins/fleet.ts';
import { dragFigures } from './drag.ts';
import { firstLoadBytes } from './first-load.ts';
import { imageHashFigures } from './image-hash.ts';
import { isDisturbed, type Machine, measureMachine, sayMachine } from './machine.ts';
import { type Figure, holds, printTable } from './measure.ts';
import { onvifFigures } from './onvif.ts';
import { AT_ONCE, manyFigures, verdictFigures } from './probes.ts';
import { leakFigures, receiveFigures } from './receive-cost.ts';
import { editFigures } from './site-edit.ts';
import { stopFigure } from './stop-beside.ts';
import { sweepFigure } from './sweep.ts';

const BENCH = import.meta.dirname;
const ROOT = join(BENCH, '../..');

/** Every camera is asked by many at once; a stand-in's own session limit is not what is measured. */
async function amongCameras(measure: (fleet: Fleet) => Promise<readonly Figure[]>): Promise<readonly Figure[]> {
  const fleet = await startFleet(ALDER_MILL_FLEET.map((one) => ({ ...one, maxSessions: 2 * AT_ONCE })));
  try {
    return await measure(fleet);
  } finally {
    await fleet.close();
  }
}

const PARTS: Readonly<Record<string, () => Promise<readonly Figure[]>>> = {
  receive: () => receiveFigures(BENCH),
  leaks: () => leakFigures(BENCH),
  verdict: () => amongCameras((fleet) => verdictFigures(fleet, ROOT)),
  many: () => amongCameras(manyFigures),
  sweep: () => amongCameras(async (fleet) => [await sweepFigure(fleet)]),
  stop: () => amongCameras(async (fleet) => [await stopFigure(fleet)]),
  onvif: () => onvifFigures(BENCH),
  edit: () => editFigures(BENCH),
  drag: () => dragFigures(ROOT),
  image: () => imageHashFigures(ROOT),
  'first-load': async () => [
    {
      what: 'first load, script compressed',
      value: (await firstLoadBytes(join(ROOT, 'dist/web'))) / 1000,
      unit: 'kB',
      against: 135,
      peer: 'budget',
      limit: 1,
    },
  ],
};

/** A fixed time is as much longer as the machine is slower than usual. */
const scaled =
  (machine: Machine) =>
  (figure: Figure): Figure =>
    figure.isFixedTime ? { ...figure, against: figure.against * Math.max(1, machine.slowness) } : figure;

/** Measures a part between two looks at the machine; once more where somebody else was at work meanwhile. */
async function measured(name: string, part: () => Promise<readonly Figure[]>): Promise<readonly Figure[]> {
  for (let attempt = 1; ; attempt++) {
    const startedMs = performance.now();
    const before = await measureMachine(ROOT);
    const figures = await part();
    const after = await measureMachine(ROOT);
    const isOver = attempt === 2 || !isDisturbed(before, after);
    const seconds = ((performance.now() - startedMs) / 1000).toFixed(0);
    const what = isOver ? '' : '; disturbed, once more';
    console.log(`${name}, ${seconds} s: before ${sayMachine(before)}, after ${sayMachine(after)}${what}`);
    const slowness = (before.slowness + after.slowness) / 2;
    if (isOver) return figures.map(scaled({ ...after, slowness }));
  }
}

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !Object.hasOwn(PARTS, name));
if (unknown.length > 0) {
  console.error(`No part of the bench is called ${unknown.join(' or ')}. Parts: ${Object.keys(PARTS).join(', ')}.`);
  process.exit(2);
}
const figures: Figure[] = [];
for (const [name, part] of Object.entries(PARTS))
  if (asked.length === 0 || asked.includes(name)) figures.push(...(await measured(name, part)));
printTable(figures);
process.exitCode = figures.every(holds) ? 0 : 1;
