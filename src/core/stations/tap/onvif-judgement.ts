import { assumed } from '../../assumptions/assumptions.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { cameraSubject } from '../../document/subject.ts';
import type { QuantitiesOf } from '../../evidence/best-known.ts';
import { isReadingCurrent, rememberedReading } from '../../evidence/onvif-evidence.ts';
import type { Finding, Mend } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, mendsOf, type Row } from '../../findings/rule.ts';
import { onvifFacts } from '../../onvif/onvif-facts.ts';
import { ONVIF_RULES } from '../../onvif/onvif-rules.ts';
import type { SiteView } from '../../site/site-view.ts';
import { HEAD_RULES, type HeadFacts } from './head-rules.ts';
import { onvifPlanOffers, onvifPortsSeen } from './onvif-offers.ts';
import { onvifPlanFacts } from './onvif-plan-facts.ts';
import { ONVIF_PLAN_RULES } from './onvif-plan-rules.ts';

export const ONVIF_STATION_RULES = [...ONVIF_RULES, ...ONVIF_PLAN_RULES, ...HEAD_RULES] as const;

const NONE: readonly never[] = [];

/** What else the site knows of the address of a camera. */
const besides = (view: SiteView, camera: Camera) => ({
  channelsOnSite: view.site.cameras.filter(
    ({ host, kind }) => kind === 'channel' && host !== '' && host === camera.host,
  ).length,
  seenPorts: onvifPortsSeen(view, camera),
});

const last = (quantities: QuantitiesOf | undefined, quantity: string) => quantities?.get(quantity)?.at(-1)?.value;
const numberOf = (value: unknown): number | undefined => (typeof value === 'number' ? value : undefined);

function headFacts(
  camera: Camera,
  quantities: QuantitiesOf | undefined,
  tells: HeadFacts['tells'] | undefined,
): Facts<HeadFacts> {
  const keeps = last(quantities, 'head.keepsTimeout');
  return {
    stopsLost: numberOf(last(quantities, 'head.stopsLost')),
    keepsTimeout: typeof keeps === 'boolean' ? keeps : undefined,
    hasRounds: camera.steering.tours.length > 0,
    tells,
    presetsKept: camera.steering.presets.length,
    residualDeg: numberOf(last(quantities, 'head.panResidualDeg')),
    heardSeconds: numberOf(last(quantities, 'heard.seconds')),
    heardChanges: numberOf(last(quantities, 'heard.changes')),
    heardLost: numberOf(last(quantities, 'heard.lost')),
  };
}

/** What ONVIF adds to a camera at Tap: nothing, as long as it was neither read nor steered nor listened to. */
export function onvifRows(camera: Camera, view: SiteView): readonly Row[] {
  const quantities = view.index.get(cameraSubject(camera.id));
  if (!quantities) return NONE;
  const remembered = rememberedReading(view.index, camera.id);
  const model = view.modelOf(camera);
  const current = remembered && isReadingCurrent(remembered, camera, model) ? remembered : null;
  const head = judgeRows(HEAD_RULES, headFacts(camera, quantities, current?.reading.ptz?.tells));
  if (!current) return head;
  const { reading } = current;
  return [
    ...judgeRows(ONVIF_RULES, onvifFacts(reading, assumed(view.site.assumptions, 'stream.clock'))),
    ...judgeRows(ONVIF_PLAN_RULES, onvifPlanFacts(camera, model, reading, besides(view, camera))),
    ...head,
  ];
}

export const onvifFindings = (camera: Camera, view: SiteView): readonly Finding[] =>
  findingsOf(onvifRows(camera, view));

/** Remedies of these that core can carry out. */
export function onvifMends(camera: Camera, ruleId: string, view: SiteView): readonly Mend<SiteCommand>[] {
  const remembered = rememberedReading(view.index, camera.id);
  const model = view.modelOf(camera);
  if (!remembered || !isReadingCurrent(remembered, camera, model)) return NONE;
  const facts = onvifPlanFacts(camera, model, remembered.reading, besides(view, camera));
  return mendsOf(ONVIF_PLAN_RULES, ruleId, facts, onvifPlanOffers(view, camera, remembered));
}
