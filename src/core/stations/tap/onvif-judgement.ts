import { assumed } from '../../assumptions/assumptions.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import type { HandQuantity } from '../../document/chapters/journal/hand-quantities.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { cameraSubject } from '../../document/subject.ts';
import { lastFact, lastPayload } from '../../evidence/evidence-index.ts';
import { isReadingCurrent, rememberedReading } from '../../evidence/onvif-evidence.ts';
import type { Finding, Mend } from '../../findings/finding.ts';
import { type Facts, findingsOf, judgeRows, mendsOf, type Row } from '../../findings/rule.ts';
import { onvifFacts } from '../../onvif/onvif-facts.ts';
import { ONVIF_RULES } from '../../onvif/onvif-rules.ts';
import type { SiteView } from '../../site/site-view.ts';
import { onvifPlanOffers, onvifPortsSeen } from './onvif-offers.ts';
import { onvifPlanFacts } from './onvif-plan-facts.ts';
import { ONVIF_PLAN_RULES } from './onvif-plan-rules.ts';
import { HEAD_RULES, type HeadFacts } from './ptz-rules.ts';

export const ONVIF_STATION_RULES = [...ONVIF_RULES, ...ONVIF_PLAN_RULES, ...HEAD_RULES] as const;

const NONE: readonly never[] = [];

/** What else the site knows of the address of a camera. */
const besides = (view: SiteView, camera: Camera) => ({
  channelsOnSite: view.site.cameras.filter(
    ({ host, kind }) => kind === 'channel' && host !== '' && host === camera.host,
  ).length,
  seenPorts: onvifPortsSeen(view, camera),
});

const numberOf = (value: unknown): number | undefined => (typeof value === 'number' ? value : undefined);

function headFacts(camera: Camera, { index }: SiteView, tells: HeadFacts['tells'] | undefined): Facts<HeadFacts> {
  const subject = cameraSubject(camera.id);
  const last = (quantity: HandQuantity) => lastFact(index, subject, quantity)?.value;
  const keeps = last('head.keepsTimeout');
  const heard = lastPayload(index, subject, 'heard')?.payload.heard;
  return {
    stopsLost: numberOf(last('head.stopsLost')),
    keepsTimeout: typeof keeps === 'boolean' ? keeps : undefined,
    hasRounds: camera.steering.tours.length > 0,
    tells,
    presetsKept: camera.steering.presets.length,
    residualDeg: numberOf(last('head.panResidualDeg')),
    heardSeconds: heard?.seconds,
    heardChanges: heard?.changes,
    heardLost: heard?.lost,
  };
}

/** What ONVIF adds to a camera at Tap: nothing, as long as it was neither read nor steered nor listened to. */
export function onvifRows(camera: Camera, view: SiteView): readonly Row[] {
  if (!view.index.has(cameraSubject(camera.id))) return NONE;
  const remembered = rememberedReading(view.index, camera.id);
  const model = view.modelOf(camera);
  const current = remembered && isReadingCurrent(remembered, camera, model) ? remembered : null;
  const head = judgeRows(HEAD_RULES, headFacts(camera, view, current?.reading.ptz?.tells));
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
