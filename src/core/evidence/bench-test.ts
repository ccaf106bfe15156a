import type { Camera } from '../document/chapters/cameras/camera.ts';
import { type BenchItem, benchQuantity } from '../document/chapters/journal/bench-items.ts';
import { cameraSubject, streamSubject } from '../document/subject.ts';
import { bestKnown, type Known } from './best-known.ts';
import { type EvidenceIndex, payloadsOf } from './evidence-index.ts';

/** When a step was done, as somebody said or as a probe showed; `null` while it was not. */
export function benchDone(index: EvidenceIndex, camera: Camera, { id, byProbe }: BenchItem): Known | null {
  const said = bestKnown(index, cameraSubject(camera.id), benchQuantity(id));
  if (said || !byProbe) return said;
  const worked = camera.streams
    .flatMap(({ id }) => payloadsOf(index, streamSubject(id), 'probe'))
    .findLast(({ payload }) => payload.verdict !== 'fail');
  return worked
    ? { value: worked.payload.verdict, how: 'measured', source: worked.source, takenAt: worked.takenAt }
    : null;
}
