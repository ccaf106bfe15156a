import { merged } from '../../base/merged.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { StreamFacts } from '../../evidence/best-known.ts';

/** What was measured of the main stream of a camera: it counts before what its card promises. */
export interface SeenStream {
  readonly codec: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly fps: number | null;
}

const IS_SEEN: ReadonlySet<string> = new Set(['measured', 'confirmed']);

/** By the facts of its first stream; `null` until a probe has measured its size. */
export function seenStreamOf(camera: Camera, factsOf: (stream: Stream) => StreamFacts): SeenStream | null {
  const [main] = camera.streams;
  return main ? seenIn(factsOf(main)) : null;
}

/** The same object for the same facts: what is judged by it is judged once. */
const kept = new WeakMap<StreamFacts, SeenStream | null>();
function seenIn(facts: StreamFacts): SeenStream | null {
  const known = kept.get(facts);
  if (known !== undefined) return known;
  const { codec, width, height, fps } = facts;
  const seen =
    codec && width && height && IS_SEEN.has(width.how) && IS_SEEN.has(height.how)
      ? {
          codec: codec.value,
          widthPx: width.value,
          heightPx: height.value,
          fps: fps && IS_SEEN.has(fps.how) ? fps.value : null,
        }
      : null;
  kept.set(facts, seen);
  return seen;
}

/**
 * The card as its camera really gives it. Two lenses that share one picture stay as the card says: which part of it each
 * of them fills, no probe tells.
 */
export function modelAsSeen(model: Model, seen: SeenStream | null): Model {
  if (!seen) return model;
  const { codec, widthPx, heightPx, fps } = seen;
  const [lens] = model.lenses;
  return merged({}, model, {
    // it was seen to give one: whatever was needed for it has been done
    localStream:
      model.localStream === 'after-reflash' || model.localStream === 'account-only' ? 'rtsp' : model.localStream,
    codecs: [codec],
    fps: fps ?? model.fps,
    lenses: lens && model.lenses.length === 1 ? [{ ...lens, widthPx, heightPx }] : model.lenses,
  });
}
