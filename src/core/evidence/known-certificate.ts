import type { Camera, Stream } from '../document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../document/stream-address.ts';
import { cameraSubject, streamSubject } from '../document/subject.ts';
import { type EvidenceIndex, factsOf, lastPayload, payloadsOf } from './evidence-index.ts';

// A certificate that changed is a device that was reset, or somebody on the way: nothing is sent to it before a person looked.

/** A certificate as a device showed it, or a person trusted it. */
interface Shown {
  readonly at: string;
  readonly fingerprint: string;
  /** It was shown in the place of a known one. */
  readonly isOther: boolean;
}

const originOf = (url: string): string => {
  try {
    return new URL(url.slice(0, 2048)).host;
  } catch {
    return '';
  }
};

/**
 * The certificate that an address is known by: the last that it showed in no other's place, or one that a person trusted since.
 * @param shownHere what was seen at this address: what was trusted holds for nothing else
 */
function knownOf(
  index: EvidenceIndex,
  camera: Camera,
  last: Shown | undefined,
  shownHere: readonly Shown[],
): string | null {
  if (!last) return null;
  const fingerprints = new Set<unknown>(shownHere.map(({ fingerprint }) => fingerprint));
  const trusted = factsOf(index, cameraSubject(camera.id), 'tls.trusted').findLast(({ value }) =>
    fingerprints.has(value),
  );
  return trusted && trusted.takenAt >= last.at ? String(trusted.value) : last.fingerprint;
}

/**
 * The certificate that a stream's address is known by: the last that was trusted, or shown there by a probe that did not end for
 * its being another. SHA-256 with colons; `null` where none was seen at this address.
 */
export function knownFingerprint(index: EvidenceIndex, camera: Camera, stream: Stream): string | null {
  const origin = originOf(plainUrlOf(camera, stream));
  const shown = payloadsOf(index, streamSubject(stream.id), 'probe').flatMap(
    ({ takenAt: at, payload: { url, cause, facts } }) =>
      facts.tlsFingerprint === undefined
        ? []
        : [{ at, fingerprint: facts.tlsFingerprint, isOther: cause === 'certificate-changed', origin: originOf(url) }],
  );
  const last = shown.findLast((one) => !one.isOther && one.origin === origin);
  return knownOf(index, camera, last, shown);
}

/** The same for ONVIF of a camera. */
export function knownOnvifFingerprint(index: EvidenceIndex, camera: Camera): string | null {
  const shown = payloadsOf(index, cameraSubject(camera.id), 'reading').flatMap(
    ({ takenAt: at, payload: { reading } }): readonly Shown[] =>
      reading.tls && reading.host === camera.host
        ? [{ at, fingerprint: reading.tls.fingerprint, isOther: reading.cause === 'certificate-changed' }]
        : [],
  );
  return knownOf(
    index,
    camera,
    shown.findLast(({ isOther }) => !isOther),
    shown,
  );
}

/** The certificate that the last probe of a stream was ended for; `null` where it was not. */
export function changedFingerprint(index: EvidenceIndex, streamId: string): string | null {
  const last = lastPayload(index, streamSubject(streamId), 'probe')?.payload;
  return last?.cause === 'certificate-changed' ? (last.facts.tlsFingerprint ?? null) : null;
}
