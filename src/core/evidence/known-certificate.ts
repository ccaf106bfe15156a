import type { Camera, Stream } from '../document/chapters/cameras/camera.ts';
import { plainUrlOf } from '../document/stream-address.ts';
import { cameraSubject, streamSubject } from '../document/subject.ts';
import { readReading } from '../onvif/kept-reading.ts';
import type { EvidenceIndex } from './best-known.ts';

// A certificate that changed is a device that was reset, or somebody on the way: nothing is sent to it before a person looked.

interface Shown {
  readonly at: string;
  readonly fingerprint: string;
}

const originOf = (url: string): string => {
  try {
    return new URL(url.slice(0, 2048)).host;
  } catch {
    return '';
  }
};

/** What a person took for the camera's own, the newest of those that were shown here: RTSP and ONVIF may have one each. */
function trustedOf(index: EvidenceIndex, cameraId: string, shownHere: ReadonlySet<unknown>): Shown | null {
  const trusted = index.get(cameraSubject(cameraId))?.get('tls.trusted');
  const last = trusted?.findLast(({ value }) => shownHere.has(value));
  return last && typeof last.value === 'string' ? { at: last.takenAt ?? '', fingerprint: last.value } : null;
}

const newer = (a: Shown | null, b: Shown | null): string | null =>
  (a && b ? (a.at >= b.at ? a : b) : (a ?? b))?.fingerprint ?? null;

/**
 * The certificate that a stream's address is known by: the last that was trusted, or shown there by a probe that did not end for
 * its being another. SHA-256 with colons; `null` where none was seen at this address.
 */
export function knownFingerprint(index: EvidenceIndex, camera: Camera, stream: Stream): string | null {
  const known = index.get(streamSubject(stream.id));
  const origin = originOf(plainUrlOf(camera, stream));
  const of = (quantity: string, source: string | null): unknown =>
    known?.get(quantity)?.findLast((item) => item.source === source)?.value;
  const shown = known
    ?.get('fact.tlsFingerprint')
    ?.findLast(
      ({ source }) =>
        of('probe.cause', source) !== 'certificate-changed' &&
        originOf(String(of('probe.url', source) ?? '')) === origin,
    );
  const last = shown && typeof shown.value === 'string' ? { at: shown.takenAt ?? '', fingerprint: shown.value } : null;
  // what was trusted holds for what was seen at this address, and for nothing else
  const shownHere = new Set(known?.get('fact.tlsFingerprint')?.map(({ value }) => value));
  return last ? newer(trustedOf(index, camera.id, shownHere), last) : null;
}

/** The same for ONVIF of a camera. */
export function knownOnvifFingerprint(index: EvidenceIndex, camera: Camera): string | null {
  const items = index.get(cameraSubject(camera.id))?.get('onvif.device') ?? [];
  const readings = items.flatMap((item) => {
    const reading = readReading((quantity) => (quantity === 'onvif.device' ? [String(item.value)] : []));
    return reading?.tls && reading.host === camera.host
      ? [
          {
            at: item.takenAt ?? '',
            fingerprint: reading.tls.fingerprint,
            isOther: reading.cause === 'certificate-changed',
          },
        ]
      : [];
  });
  const last = readings.findLast(({ isOther }) => !isOther);
  const shownHere = new Set<unknown>(readings.map(({ fingerprint }) => fingerprint));
  return last ? newer(trustedOf(index, camera.id, shownHere), last) : null;
}

/** The certificate that the last probe of a stream was ended for; `null` where it was not. */
export function changedFingerprint(index: EvidenceIndex, streamId: string): string | null {
  const known = index.get(streamSubject(streamId));
  const cause = known?.get('probe.cause')?.at(-1);
  const verdict = known?.get('probe.verdict')?.at(-1);
  if (cause?.value !== 'certificate-changed' || cause.source !== verdict?.source) return null;
  const shown = known?.get('fact.tlsFingerprint')?.findLast(({ source }) => source === cause.source)?.value;
  return typeof shown === 'string' ? shown : null;
}
