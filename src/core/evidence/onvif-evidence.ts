import { weakMapMemoize } from 'reselect';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { cameraSubject } from '../document/subject.ts';
import { readReading } from '../onvif/kept-reading.ts';
import type { OnvifReading } from '../onvif/reading.ts';
import type { KeptFact } from '../onvif/write-reading.ts';
import { bestOf, type EvidenceIndex, type QuantitiesOf } from './best-known.ts';
import { onvifPortOf } from './onvif-port.ts';

/** The last reading of a camera by ONVIF, as the site remembers it. */
export interface RememberedReading {
  readonly at: string;
  readonly reading: OnvifReading;
}

/** Told again only when something was written about the camera. */
const rememberedOf = weakMapMemoize((quantities: QuantitiesOf): RememberedReading | null => {
  const last = quantities.get('onvif.device')?.at(-1);
  if (!last) return null;
  const textsOf = (quantity: KeptFact['quantity']): readonly string[] =>
    (quantities.get(quantity) ?? []).flatMap(({ value, source }) => (source === last.source ? [String(value)] : []));
  const reading = readReading(textsOf);
  return reading && { at: last.takenAt, reading };
});

export function rememberedReading(index: EvidenceIndex, cameraId: string): RememberedReading | null {
  const quantities = index.get(cameraSubject(cameraId));
  return quantities?.has('onvif.device') ? rememberedOf(quantities) : null;
}

/** Whether a reading is of the camera as it is addressed now. */
export const isReadingCurrent = ({ reading }: RememberedReading, camera: Camera, model: Model | undefined): boolean =>
  reading.host === camera.host && reading.port === onvifPortOf(camera, model) && reading.isTls === camera.onvifTls;

/** How a head turns by time, as it was measured. */
export interface HeadTurn {
  readonly degPerS: number;
  readonly offsetDeg: number;
  readonly residualDeg: number | null;
  /** The share of its top speed that this holds for. */
  readonly velocity: number;
  readonly at: string;
}

export function headTurnOf(index: EvidenceIndex, cameraId: string): HeadTurn | null {
  const quantities = index.get(cameraSubject(cameraId));
  const last = bestOf(quantities?.get('head.panDegPerS'));
  if (!last || typeof last.value !== 'number') return null;
  const of = (quantity: string): number | null => {
    const value = quantities?.get(quantity)?.findLast(({ source }) => source === last.source)?.value;
    return typeof value === 'number' ? value : null;
  };
  return {
    degPerS: last.value,
    offsetDeg: of('head.panOffsetDeg') ?? 0,
    residualDeg: of('head.panResidualDeg'),
    velocity: of('head.velocity') ?? 1,
    at: last.takenAt ?? '',
  };
}
