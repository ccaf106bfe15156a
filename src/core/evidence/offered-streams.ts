import { type Camera, type Stream, UNKNOWN_STREAM } from '../document/chapters/cameras/camera.ts';
import type { Model, SubStream } from '../document/chapters/models/model-card.ts';
import type { Site } from '../document/site.ts';
import { CHANNEL_PLACE } from '../net/path-places.ts';

/** A stream as the card of a model has it, for one camera. */
export interface OfferedStream {
  readonly stream: Omit<Stream, 'id'>;
  /** Its path asks which channel the camera is, and nobody said. */
  readonly lacksChannel: boolean;
}

/** Names of small streams, in their order. */
const LABELS = ['sub', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'] as const;

/** Placeholders of a login stay: they are filled in on the wire alone. The channel is part of the address. */
const pathFor = (path: string, { channel }: Pick<Camera, 'channel'>): string =>
  channel === null ? path : path.replaceAll(CHANNEL_PLACE, String(channel));

function streamOf(
  label: string,
  { codecs, widthPx, heightPx, fps, path }: SubStream,
  camera: Pick<Camera, 'channel'>,
): OfferedStream {
  const filled = pathFor(path, camera);
  return {
    // Of several codecs one is set at the camera: which, nobody knows yet.
    stream: {
      ...UNKNOWN_STREAM,
      label,
      path: filled,
      codec: codecs.length === 1 ? (codecs[0] ?? null) : null,
      width: widthPx,
      height: heightPx,
      fps,
    },
    lacksChannel: filled.includes(CHANNEL_PLACE),
  };
}

/** All streams that a card knows of, main first. */
export function streamsOfCard(model: Model, camera: Pick<Camera, 'channel'>): readonly OfferedStream[] {
  const { lenses, codecs, fps, path, subs } = model;
  const [lens] = lenses;
  const main: SubStream = { codecs, widthPx: lens?.widthPx ?? null, heightPx: lens?.heightPx ?? null, fps, path };
  return [
    streamOf('main', main, camera),
    ...(subs ?? []).map((sub, at) => streamOf(LABELS[at] ?? `stream ${at + 2}`, sub, camera)),
  ];
}

/** Those that the camera does not have yet, by their name or by their path. */
export function offeredStreams(site: Site, camera: Camera): readonly OfferedStream[] {
  const model = site.models.find(({ id }) => id === camera.modelId);
  if (!model) return [];
  return streamsOfCard(model, camera).filter(
    ({ stream }) =>
      !camera.streams.some(({ label, path }) => label === stream.label || (path !== '' && path === stream.path)),
  );
}

/** Streams of a camera once another model hangs in its place, each with the one that it stands in for. */
export function streamsInstead(
  camera: Camera,
  model: Model,
  newId: () => string,
): readonly { readonly stream: Stream; readonly instead: string | null }[] {
  const before = new Map(camera.streams.map((stream) => [stream.label, stream]));
  const taken = streamsOfCard(model, camera).map(({ stream }, at) => {
    const old = before.get(stream.label) ?? (at === 0 ? camera.streams[0] : undefined);
    return { stream: { ...stream, id: newId(), path: stream.path || (old?.path ?? '') }, instead: old?.id ?? null };
  });
  // A card that knows of no small stream does not say that there is none.
  if (model.subs !== null) return taken;
  const known = new Set(taken.map(({ instead }) => instead));
  const rest = camera.streams.filter(({ id }) => !known.has(id));
  return [
    ...taken,
    ...rest.map(({ id, label, path }) => ({ stream: { ...UNKNOWN_STREAM, id: newId(), label, path }, instead: id })),
  ];
}
