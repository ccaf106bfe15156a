import { clipText } from '../base/clip.ts';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { sayStretch } from '../base/say.ts';
import type { Camera, Stream } from '../document/chapters/cameras/camera.ts';
import { type Learnt, MOST_LEARNT, type Model, type SubStream } from '../document/chapters/models/model-card.ts';
import { MODEL_RANGES } from '../document/chapters/models/model-fields.ts';
import { CHANNEL_PLACE } from '../net/path-places.ts';
import type { OnvifReading, ReadProfile } from '../onvif/reading.ts';
import type { SessionsReport } from '../sessions/sessions-types.ts';
import { keptPath } from './kept-path.ts';

/** One thing that a device proved and its card does not know. */
export interface Lesson {
  readonly field: string;
  readonly said: string;
  readonly learn: (card: Model) => Model;
}

/** What a probe of a stream measured. */
export interface ProvenStream {
  readonly stream: Stream;
  readonly codec: string | null;
  readonly width: number | null;
  readonly height: number | null;
  readonly fps: number | null;
}

/** A path as another camera of the model has it: its own channel stands there as a place. */
export function pathOnCard(path: string, channel: number | null): string {
  if (channel === null) return path;
  // the number alone, not one inside another: “/ch2/main” of channel 2
  const whole = new RegExp(`(^|[^0-9])${channel}(?![0-9])`);
  const place = path.replace(whole, (_, before: string) => `${before}${CHANNEL_PLACE}`);
  return place.length <= TEXT_LIMITS.path ? place : path;
}

const first = (profiles: readonly ReadProfile[]): ReadProfile | undefined =>
  profiles.reduce<ReadProfile | undefined>(
    (most, one) =>
      (most?.width ?? 0) * (most?.height ?? 0) >= (one.width ?? 0) * (one.height ?? 0) && most ? most : one,
    undefined,
  );

/** As small as a card takes. */
const pixels = (side: number | null): number | null => (side !== null && side >= MODEL_RANGES.sidePx.min ? side : null);

const subOf = ({ codec, width, height, fps, stream }: ReadProfile, channel: number | null): SubStream => ({
  codecs: codec === null ? [] : [codec],
  widthPx: pixels(width),
  heightPx: pixels(height),
  fps,
  path: stream && keptPath({ stream }) !== null ? pathOnCard(stream.path, channel) : '',
});

/** What a device told by ONVIF that its card does not know. */
export function lessonsOfReading(
  card: Model,
  camera: Pick<Camera, 'channel'>,
  reading: OnvifReading,
): readonly Lesson[] {
  const lessons: Lesson[] = [];
  const teach = (field: string, said: string, learn: Lesson['learn']): void =>
    void lessons.push({ field, said, learn });
  // profiles of one picture: a box shows its first channel
  const [source] = reading.profiles.map((profile) => profile.source);
  const own = reading.profiles.filter((profile) => profile.source === source);
  const main = first(own);
  if (!reading.device) return [];
  if (card.onvifPort === null) teach('ONVIF port', String(reading.port), (to) => ({ ...to, onvifPort: reading.port }));
  if (card.localStream === null && main?.stream)
    teach('stream', 'RTSP, ONVIF', (to) => ({ ...to, localStream: 'both' }));
  const stream = main && keptPath(main) !== null ? main.stream : null;
  if (stream && card.rtspPort === null)
    teach('RTSP port', String(stream.port), (to) => ({ ...to, rtspPort: stream.port }));
  if (stream && card.path === '') {
    const path = pathOnCard(stream.path, camera.channel);
    teach('path', path, (to) => ({ ...to, path }));
  }
  const codec = main?.codec;
  if (codec && !card.codecs.includes(codec) && card.codecs.length < LIST_LIMITS.codecs)
    teach('codec', codec, (to) => ({ ...to, codecs: [...to.codecs, codec] }));
  if (main?.fps && card.fps === null) teach('frame rate', String(main.fps), (to) => ({ ...to, fps: main.fps }));
  // what no field of a card holds stands among what it has learnt
  const hasLearnt = (field: string): boolean => card.learnedFrom.some((one) => one.field === field);
  if (reading.clock?.kept === 'manual' && !hasLearnt('clock'))
    teach(
      'clock',
      `set by hand, ${Math.abs(reading.clock.skewS) > 5 ? `off by ${sayStretch(reading.clock.skewS)} when read` : 'right when read'}`,
      (to) => to,
    );
  if (reading.login === 'digest' && !hasLearnt('login')) teach('login', 'ONVIF by HTTP Digest alone', (to) => to);
  const subs = own.filter((profile) => profile !== main).slice(0, 8);
  if (card.subs === null && subs.length > 0)
    teach('sub streams', subs.map(({ name, token }) => name || token).join(', '), (to) => ({
      ...to,
      subs: subs.map((sub) => subOf(sub, camera.channel)),
    }));
  return lessons;
}

/** What a probe proved of the main stream that its card does not know. */
export function lessonsOfProbe(
  card: Model,
  camera: Pick<Camera, 'channel' | 'ports'>,
  { stream, codec, fps }: ProvenStream,
): readonly Lesson[] {
  const lessons: Lesson[] = [];
  const path = pathOnCard(stream.path, camera.channel);
  if (card.rtspPort === null)
    lessons.push({
      field: 'RTSP port',
      said: String(camera.ports.rtsp),
      learn: (to) => ({ ...to, rtspPort: camera.ports.rtsp }),
    });
  if (card.path === '' && path !== '') lessons.push({ field: 'path', said: path, learn: (to) => ({ ...to, path }) });
  if (
    codec !== null &&
    codec.length <= TEXT_LIMITS.codec &&
    !card.codecs.includes(codec) &&
    card.codecs.length < LIST_LIMITS.codecs
  )
    lessons.push({ field: 'codec', said: codec, learn: (to) => ({ ...to, codecs: [...to.codecs, codec] }) });
  if (fps !== null && card.fps === null) {
    const rounded = Math.round(fps);
    if (rounded > 0)
      lessons.push({ field: 'frame rate', said: String(rounded), learn: (to) => ({ ...to, fps: rounded }) });
  }
  return lessons;
}

/** What a count of its sessions proved. */
export const lessonsOfCount = (card: Model, { limit }: Pick<SessionsReport, 'limit'>): readonly Lesson[] =>
  card.sessions === null && limit !== null && limit > 0
    ? [{ field: 'sessions at once', said: String(limit), learn: (to) => ({ ...to, sessions: limit }) }]
    : [];

/** The card with all of it, and where it is from. */
export function cardAfter(
  card: Model,
  lessons: readonly Lesson[],
  source: { readonly from: string; readonly at: string },
): Model {
  const learnt = lessons.map(
    ({ field, said }): Learnt => ({
      field: clipText(field, TEXT_LIMITS.label),
      said: clipText(said, TEXT_LIMITS.place),
      at: source.at,
      from: clipText(source.from, TEXT_LIMITS.place),
    }),
  );
  const taught = lessons.reduce((to, { learn }) => learn(to), card);
  const fields = new Set(learnt.map(({ field }) => field));
  const kept = card.learnedFrom.filter(({ field }) => !fields.has(field));
  return { ...taught, learnedFrom: [...kept, ...learnt].slice(-MOST_LEARNT) };
}
