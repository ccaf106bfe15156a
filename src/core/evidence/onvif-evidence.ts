import type { Camera } from '../document/chapters/cameras/camera.ts';
import type { Model } from '../document/chapters/models/model-card.ts';
import { cameraSubject } from '../document/subject.ts';
import type { OnvifReading } from '../onvif/reading.ts';
import { bestKnown } from './best-known.ts';
import { type EvidenceIndex, factsOf, lastPayload } from './evidence-index.ts';
import { onvifPortOf } from './onvif-port.ts';

/** The last reading of a camera by ONVIF, as the site remembers it. */
export interface RememberedReading {
  readonly at: string;
  readonly reading: OnvifReading;
}

export function rememberedReading(index: EvidenceIndex, cameraId: string): RememberedReading | null {
  const last = lastPayload(index, cameraSubject(cameraId), 'reading');
  return last ? { at: last.takenAt, reading: last.payload.reading } : null;
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
  const subject = cameraSubject(cameraId);
  const last = bestKnown(index, subject, 'head.panDegPerS');
  if (!last || typeof last.value !== 'number') return null;
  const of = (quantity: string): number | null => {
    const value = factsOf(index, subject, quantity).findLast(({ source }) => source === last.source)?.value;
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
