import type { Camera } from '../document/chapters/cameras/camera.ts';
import { type BenchItem, benchQuantity } from '../document/chapters/journal/bench-items.ts';
import { cameraSubject, streamSubject } from '../document/subject.ts';
import { bestKnown, type EvidenceIndex, type Known } from './best-known.ts';

/** When a step was done, as somebody said or as a probe showed; `null` while it was not. */
export function benchDone(index: EvidenceIndex, camera: Camera, { id, byProbe }: BenchItem): Known | null {
  const said = bestKnown(index, cameraSubject(camera.id), benchQuantity(id));
  if (said || !byProbe) return said;
  const verdicts = camera.streams.flatMap(
    (stream) =>
      index
        .get(streamSubject(stream.id))
        ?.get('probe.verdict')
        ?.filter(({ value }) => value !== 'fail') ?? [],
  );
  return verdicts.at(-1) ?? null;
}
