import { sayDays, sayFps, sayRate } from '../base/say.ts';
import type { KnownHow } from '../document/chapters/journal/entry.ts';
import type { Tap } from '../document/chapters/taps/tap.ts';
import type { Site } from '../document/site.ts';
import { streamUrlOf } from '../document/stream-address.ts';
import { streamSubject } from '../document/subject.ts';
import { bestKnown, streamFacts } from '../evidence/best-known.ts';
import type { EvidenceIndex } from '../evidence/evidence-index.ts';
import { fillPath } from '../net/path-places.ts';
import { buildStreamUrl, redactUrl, urlHost } from '../net/stream-url.ts';

export const SHEET_KEYS = [
  'name',
  'protocol',
  'address',
  'port',
  'user',
  'secret',
  'path',
  'url',
  'transport',
  'codec',
  'size',
  'fps',
  'keyframe',
  'rate',
  'use',
  'retention',
] as const;
export type SheetKey = (typeof SHEET_KEYS)[number];

export interface SheetField {
  readonly key: SheetKey;
  readonly label: string;
  /** As shown and exported: never the secret. */
  readonly value: string;
  readonly how: KnownHow | null;
  /** Address-like: set in the monospaced face. */
  readonly isCode: boolean;
}

export interface Sheet {
  readonly site: string;
  readonly camera: string;
  readonly destination: string;
  readonly stream: string;
  readonly fields: readonly SheetField[];
}

const MASK = '••••••••';

/** The sheet that a destination's form asks for, its fields in the order in which such forms ask. */
export function sheetFor(site: Site, index: EvidenceIndex, tap: Tap): Sheet | null {
  const camera = site.cameras.find(({ id }) => id === tap.cameraId);
  const stream = camera?.streams.find(({ id }) => id === tap.streamId);
  const destination = site.destinations.find(({ id }) => id === tap.destinationId);
  if (!camera || !stream || !destination) return null;
  const facts = streamFacts(index, stream);
  const keyframe = bestKnown(index, streamSubject(stream.id), 'keyframeIntervalSeconds');
  const transport = bestKnown(index, streamSubject(stream.id), 'transport');
  const url = streamUrlOf(camera, stream);
  // The mask stands in for the secret after encoding, or it would be encoded itself.
  const masked = (text: string): string => fillPath(text, camera.account?.user ?? '', MASK, (mask) => mask);
  const withUser = redactUrl(buildStreamUrl({ ...url, password: url.user === null ? null : '*' }));
  const maskedUrl = masked(withUser.replace(':***@', `:${MASK}@`));
  const field = (
    key: SheetKey,
    label: string,
    value: string | null | undefined,
    how: KnownHow | null = null,
    isCode = false,
  ): SheetField => ({
    key,
    label,
    value: value || '–',
    how: value ? how : null,
    isCode,
  });
  const size = facts.width && facts.height ? `${facts.width.value}×${facts.height.value}` : null;
  return {
    site: site.name,
    camera: camera.name,
    destination: destination.name,
    stream: stream.label,
    fields: [
      field('name', 'Name', camera.name),
      field('protocol', 'Protocol', tap.protocol.toUpperCase()),
      field('address', 'Address', urlHost(camera.host), null, true),
      field('port', 'Port', String(camera.ports.rtsp), null, true),
      field('user', 'User', camera.account?.user, null, true),
      field('secret', 'Password', camera.account ? MASK : 'none', null, true),
      field('path', 'Path', masked(stream.path), null, true),
      field('url', 'Full URL', maskedUrl, null, true),
      field('transport', 'Transport', transport ? String(transport.value).toUpperCase() : 'TCP', transport?.how),
      field('codec', 'Codec', facts.codec?.value, facts.codec?.how),
      field('size', 'Resolution', size, facts.width?.how),
      field('fps', 'Frame rate', facts.fps ? sayFps(facts.fps.value) : null, facts.fps?.how),
      field(
        'keyframe',
        'Key-frame interval',
        typeof keyframe?.value === 'number' ? `${keyframe.value.toFixed(2)} s` : null,
        keyframe?.how,
      ),
      field('rate', 'Bit rate', facts.bitrateKbps ? sayRate(facts.bitrateKbps.value) : null, facts.bitrateKbps?.how),
      field('use', 'Use', tap.use),
      field(
        'retention',
        'Retention',
        tap.use === 'record' && destination.retentionDays !== null ? sayDays(destination.retentionDays) : null,
      ),
    ],
  };
}
