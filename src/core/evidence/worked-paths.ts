import type { Camera } from '../document/chapters/cameras/camera.ts';
import { streamSubject } from '../document/subject.ts';
import { type EvidenceIndex, payloadsOf } from './evidence-index.ts';

/** Paths of a camera's streams, as probes that did not fail had them; the latest last. */
export const workedPaths = (index: EvidenceIndex, { streams }: Camera): readonly string[] =>
  streams.flatMap(({ id }) =>
    payloadsOf(index, streamSubject(id), 'probe').flatMap(({ payload: { verdict, url } }) =>
      verdict === 'fail' ? [] : url.replace(/^[a-z]+:\/\/[^/?]*/i, ''),
    ),
  );
