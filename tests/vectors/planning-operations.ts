import { cheapestPacks, type LicencePack } from '../../src/core/cost/licence-packs.ts';
import { breakEvenMonth, energyOfYear, totalCost } from '../../src/core/cost/total-cost.ts';
import { levelAt, pxPerMOf, readText } from '../../src/core/optics/detail-levels.ts';
import * as optics from '../../src/core/optics/picture-geometry.ts';
import * as dc from '../../src/core/power/dc-run.ts';
import * as poe from '../../src/core/power/poe.ts';
import * as solar from '../../src/core/power/solar.ts';
import { backupHours, solarYear } from '../../src/core/reference/sun-year.ts';
import { awgWire, dropAtCurrent } from '../../src/core/reference/wires.ts';

// The arguments of a vector are JSON of a known shape per `op`; this is the JSON boundary where `as` is allowed.
// biome-ignore lint/suspicious/noExplicitAny: each operation names the fields it reads
type Input = any;
type Operation = (input: Input) => unknown;

export const geometry: Record<string, Operation> = {
  density: ({ hPixels, hfovDeg, distanceM }) => {
    const pxPerM = optics.density(hPixels, hfovDeg, distanceM);
    return { pxPerM, level: levelAt(pxPerM) };
  },
  density_tilted: ({ hPixels, hfovDeg, ...where }) => {
    const view = optics.densityTilted(where, { hPixels, hfovDeg }, where);
    return { ...view, level: levelAt(view.pxPerM) };
  },
  max_distance: ({ hPixels, hfovDeg, level }) => ({ distanceM: optics.reach(hPixels, hfovDeg, pxPerMOf(level)) }),
  focal_for: ({ sensorWidthMm, hPixels, distanceM, level }) => ({
    focalMm: optics.focalFor(sensorWidthMm, distanceM, pxPerMOf(level), hPixels),
  }),
  scene_width: ({ hfovDeg, distanceM }) => ({ widthM: optics.sceneWidth(hfovDeg, distanceM) }),
  fov: ({ sensorWidthMm, sensorHeightMm, focalMm }) => ({
    hfovDeg: optics.fieldOfView(sensorWidthMm, focalMm),
    vfovDeg: optics.fieldOfView(sensorHeightMm, focalMm),
  }),
  fov_equidistant: ({ sensorWidthMm, focalMm }) => ({
    hfovDeg: optics.equidistantFieldOfView(sensorWidthMm, focalMm),
  }),
  blind: (input) => optics.blindZone(input, input.vfovDeg, input.targetHeightM),
  zoom: (input) => optics.zoomGain(input),
  pan_coverage: ({ panRangeDeg, hfovDeg }) => optics.panCoverage(panRangeDeg, hfovDeg),
  dual_lens: ({ hfovADeg, hfovBDeg, axisSeparationDeg }) => optics.dualLens(hfovADeg, hfovBDeg, axisSeparationDeg),
  ir_range: ({ ratedRangeM, lightFactor }) => ({ rangeM: optics.infraredRange(ratedRangeM, lightFactor) }),
  text: ({ pxPerM, charHeightMm }) => readText(pxPerM, charHeightMm),
};

export const poePower: Record<string, Operation> = {
  class_power: (input) => {
    const { pseW, pdW, pairs, minPseType } = poe.poeClass(input.class);
    return { pseW, pdW, pairs, minPseType };
  },
  class_for: ({ pdW }) => {
    const found = poe.poeClassFor(pdW);
    return { class: found?.class ?? null, pseW: found?.pseW ?? null };
  },
  draw: (input) => {
    const { loadVolts, ...rest } = poe.poeDraw(input);
    return { ...rest, pdVolts: loadVolts };
  },
  budget: (input) => poe.poeBudget(input),
};

const runOf = ({ lengthM, awg, areaMm2, conductorC, contactOhm = 0 }: Input): dc.DcRun => ({
  lengthM,
  areaMm2: areaMm2 ?? awgWire(awg).areaMm2,
  conductorC,
  contactOhm,
});

export const dcdrop: Record<string, Operation> = {
  awg: ({ awg }) => awgWire(awg),
  drop_current: ({ supplyVolts, loadA, minVolts, ...run }) => {
    const drop = dropAtCurrent(supplyVolts, loadA, runOf(run));
    return { ...drop, verdict: dc.judgeVolts(drop.loadVolts, supplyVolts, minVolts) };
  },
  drop_power: ({ supplyVolts, loadW, minVolts, ...run }) => {
    const drop = dc.dropAtPower(supplyVolts, loadW, runOf(run));
    return { ...drop, verdict: dc.judgeVolts(drop.loadVolts, supplyVolts, minVolts) };
  },
  max_length: (input) => ({ lengthM: dc.longestRun(input, input.areaMm2 ?? awgWire(input.awg).areaMm2) }),
  min_area: ({ lengthM, sizesMm2, ...demand }) => dc.thinnestWire(demand, lengthM, sizesMm2),
};

export const solarPower: Record<string, Operation> = {
  h0: ({ latitudeDeg, month }) => {
    const { h0MJ, h0KWh, ...rest } = solar.extraterrestrialDay(latitudeDeg, month);
    return { ...rest, H0MJ: h0MJ, H0kWh: h0KWh };
  },
  tilted: (input) => {
    const { horizontalKWh, diffuseShare, beamFactor, factor, tiltedKWh } = solar.tiltedDay(input);
    return { Hkwh: horizontalKWh, Hd_H: diffuseShare, Rb: beamFactor, R: factor, tiltedKWh };
  },
  system: (input) => solarYear(input),
  backup: ({ batteryWh, depthOfDischarge, efficiency, loadW }) => ({
    hours: backupHours(batteryWh, { depthOfDischarge, efficiency }, loadW),
  }),
};

export const licence: Record<string, Operation> = {
  packs: ({ cameras, included, packs }) => {
    const found = cheapestPacks(cameras, included, packs);
    if (!found) return { error: 'no-pack' };
    const { counts, cost, licencesBought: seatsBought, spareLicences: spareSeats } = found;
    return {
      cost,
      seatsBought,
      spareSeats,
      packs: Object.fromEntries(packs.map(({ seats }: LicencePack, at: number) => [String(seats), counts[at]])),
    };
  },
  total_cost: (input) => {
    const { seats: _, ...cost } = totalCost(input);
    return cost;
  },
  energy: ({ loadW, pricePerKWh }) => energyOfYear(loadW, pricePerKWh),
  break_even: ({ a, b, horizonMonths }) => ({ month: breakEvenMonth(a, b, horizonMonths) }),
};
