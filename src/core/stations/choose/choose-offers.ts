import { isWorse, type Verdict } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { Mounting } from '../../document/chapters/cameras/mounting.ts';
import type { Need } from '../../document/chapters/cameras/need.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { nameOfModel } from '../../document/chapters/models/model-name.ts';
import type { Site } from '../../document/site.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import type { Mend } from '../../findings/finding.ts';
import type { Row } from '../../findings/rule.ts';
import { wholeLenses } from '../../optics/lens.ts';
import { zoomRange } from '../../optics/lens-view.ts';
import { mountingOf, usualMounting } from '../../site/needs.ts';
import { judgeChoice } from './choice-verdict.ts';
import type { ChooseOffers } from './choose-facts.ts';
import { chooseFacts } from './choose-facts.ts';
import type { SeenStream } from './seen-stream.ts';

/** More models than this are not read before one decides. */
const MOST_MODELS = 3;
const LEAST_HEIGHT_M = 2.2; // [A] below, a camera is knocked off, and hides nothing
const NO_OFFERS: ChooseOffers = { mountings: () => [], models: () => [] };

export function chooseOffers(site: Site, camera: Camera, seen: SeenStream | null): ChooseOffers {
  const { need, modelId } = camera;
  const model = site.models.find(({ id }) => id === modelId);
  if (!need || !model) return NO_OFFERS;
  const rowsWith = (one: Model, mounting: Mounting | null): readonly Row[] =>
    judgeChoice(chooseFacts(need, one, mounting, site, one === model ? seen : null)).rows;
  const before = rowsWith(model, camera.mounting);
  const mends = (rule: string, after: readonly Row[]): boolean => isMended(rule, before, after);
  return {
    mountings: (rule) => {
      const hung = mountingOf(camera, site.assumptions, model);
      const offers: Mend<SiteCommand>[] = [];
      for (const series of waysToHang(hung, need, model, site)) {
        const mounting = series.find((one) => mends(rule, rowsWith(model, one)));
        if (mounting)
          offers.push({
            text: sayChange(hung, mounting),
            command: { kind: 'setMounting', cameraId: camera.id, mounting },
          });
      }
      return offers;
    },
    models: (rule) => {
      const isWeighed = ({ id }: Model): boolean => camera.candidates.includes(id);
      const others = site.models.filter(({ id }) => id !== modelId);
      return [...others.filter(isWeighed), ...others.filter((one) => !isWeighed(one))]
        .filter((one) => mends(rule, rowsWith(one, camera.mounting)))
        .slice(0, MOST_MODELS)
        .map((one) => ({
          text: `Choose ${nameOfModel(one)}`,
          command: { kind: 'chooseModel', cameraId: camera.id, modelId: one.id },
        }));
    },
  };
}

const weighed = ({ verdict, weighs }: Row): Verdict => (weighs ? verdict : 'ok');

/** The rule finds nothing any more, and no other question fares worse than it did. */
function isMended(rule: string, before: readonly Row[], after: readonly Row[]): boolean {
  const own = after.find((row) => row.rule === rule);
  if (own && (own.finding || own.verdict === 'unknown')) return false;
  return after.every((row) => {
    const was = before.find((one) => one.rule === row.rule);
    return !isWorse(weighed(row), was ? weighed(was) : 'ok');
  });
}

/** Series of mountings, each from the smallest change to the largest: the first that mends is offered. */
function waysToHang(hung: Mounting, need: Need, model: Model, { assumptions }: Site): readonly (readonly Mounting[])[] {
  const tilts = Array.from({ length: 90 }, (_, at) => Math.ceil((at + 1) / 2) * (at % 2 === 0 ? 1 : -1))
    .map((by) => Math.round(hung.tiltDownDeg) + by)
    .filter((tiltDownDeg) => tiltDownDeg >= 0 && tiltDownDeg <= 90)
    .map((tiltDownDeg) => ({ ...hung, tiltDownDeg }));
  const longest = Math.max(1, ...wholeLenses(model).map(zoomRange));
  const steps = Array.from({ length: Math.floor((longest - 1) * 10 + 1e-9) + 1 }, (_, at) => 1 + at / 10);
  const zooms = [...(hung.zoom === null ? [] : [null]), ...steps].map((zoom) => ({ ...hung, zoom }));
  const aimed = usualMounting(need, assumptions, model);
  const drop = Math.max(0, Math.floor((hung.heightM - LEAST_HEIGHT_M) * 10 + 1e-9));
  const lower = Array.from({ length: drop }, (_, at) => {
    const heightM = Number((hung.heightM - (at + 1) / 10).toFixed(1));
    return [
      { ...hung, heightM },
      { ...hung, heightM, tiltDownDeg: aimedTiltDeg(heightM, aimed, need) },
    ];
  }).flat();
  return [zooms.length > 1 ? zooms : [], tilts, lower];
}

/** The tilt that looks at the same point from another height. */
function aimedTiltDeg(heightM: number, { heightM: usualM, tiltDownDeg }: Mounting, { distanceM }: Need): number {
  const lookM = usualM - Math.tan((tiltDownDeg * Math.PI) / 180) * distanceM;
  return Math.max(0, Math.round((Math.atan2(heightM - lookM, distanceM) * 180) / Math.PI));
}

function sayChange(before: Mounting, after: Mounting): string {
  if (after.heightM !== before.heightM)
    return after.tiltDownDeg === before.tiltDownDeg
      ? `Mount it at ${after.heightM} m`
      : `Mount it at ${after.heightM} m, tilted ${after.tiltDownDeg}°`;
  if (after.tiltDownDeg !== before.tiltDownDeg) return `Tilt it to ${after.tiltDownDeg}°`;
  return after.zoom === null ? 'Zoom as far as the zone stays in view' : `Zoom to ${after.zoom.toFixed(1)}×`;
}
