import type { Camera } from '../document/chapters/cameras/camera.ts';
import { streamSubject } from '../document/subject.ts';
import type { EvidenceIndex } from './best-known.ts';

/** Paths of a camera's streams, as probes that did not fail had them; the latest last. */
export function workedPaths(index: EvidenceIndex, camera: Camera): readonly string[] {
  const paths: string[] = [];
  for (const { id } of camera.streams) {
    const quantities = index.get(streamSubject(id));
    const failed = new Set(
      quantities?.get('probe.verdict')?.flatMap(({ value, source }) => (value === 'fail' ? [source] : [])),
    );
    for (const { value, source } of quantities?.get('probe.url') ?? [])
      if (!failed.has(source)) paths.push(String(value).replace(/^[a-z]+:\/\/[^/?]*/i, ''));
  }
  return paths;
}
