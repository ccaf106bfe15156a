import type { TapUse } from '../../base/tap-uses.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { Evidence, FactValue } from '../../document/chapters/journal/entry.ts';
import { settingQuantity } from '../../document/chapters/journal/prepare-quantity.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import type { ProbePayload } from '../../document/payload/payload.ts';
import { plainUrlOf } from '../../document/stream-address.ts';
import { cameraSubject, streamSubject } from '../../document/subject.ts';
import type { Known } from '../../evidence/best-known.ts';
import { bestKnown } from '../../evidence/best-known.ts';
import { factsOf } from '../../evidence/evidence-index.ts';
import { lastProbeFact, rememberedProbe } from '../../evidence/remembered-probe.ts';
import { drawersOf } from '../../site/drawers.ts';
import type { SiteView } from '../../site/site-view.ts';
import { settingFor } from './use-settings.ts';

/** How a setting is told: by yes and no, by one of some words, by a number, or in words. */
export type SettingKind = 'flag' | 'choice' | 'number' | 'text';

/** Settings of a device that decide whether the later stations succeed, in the order of the work. */
export const CAMERA_SETTINGS = [
  'stream-on',
  'onvif-on',
  'login-on',
  'rtsp-port',
  'onvif-port',
  'clock-source',
  'clock-zone',
  'sound',
  'overlay',
  'rotation',
  'motion-source',
  'detection-zone',
  'tracking-limits',
] as const;
export const STREAM_SETTINGS = ['codec', 'size', 'fps', 'key-frame'] as const;
export type SettingId = (typeof CAMERA_SETTINGS)[number] | (typeof STREAM_SETTINGS)[number];

/** One setting of one device: what it should be and why, how it was ticked, and what the device was seen to do. */
export interface Setting {
  readonly id: SettingId;
  /** Whose it is: the camera’s, or one stream’s. */
  readonly subject: string;
  readonly label: string;
  readonly kind: SettingKind;
  readonly unit: string;
  readonly options: readonly string[];
  /** What it should be; `null` where nobody can say before somebody looked. */
  readonly wanted: FactValue | null;
  readonly why: string;
  /** As somebody ticked it. */
  readonly ticked: Known | null;
  /** As a probe saw it, at the address that it has now. */
  readonly seen: FactValue | null;
}

/** Streams of a camera with what they are used for: by their taps, else by what its need says. */
function usesOf(camera: Camera, view: SiteView): ReadonlyMap<Stream, readonly TapUse[]> {
  const uses = new Map<Stream, TapUse[]>();
  const add = (stream: Stream | undefined, use: TapUse): void => {
    if (stream) uses.set(stream, [...(uses.get(stream) ?? []), use]);
  };
  const taps = view.tapsOf(camera.id);
  for (const { streamId, use } of taps)
    add(
      camera.streams.find(({ id }) => id === streamId),
      use,
    );
  // The large one is kept, the small one is watched and searched.
  if (taps.length === 0)
    for (const { use } of camera.need?.draws ?? [])
      add(use === 'record' || use === 'still' ? camera.streams[0] : camera.streams.at(-1), use);
  return uses;
}

interface Seen {
  readonly stream: Stream;
  readonly probe: ProbePayload;
}

/** The last probe of a stream at the address that it has now, when it was one. */
function seenOf(camera: Camera, stream: Stream, { index }: SiteView): Seen | null {
  const probe = rememberedProbe(index, stream.id)?.payload;
  return probe?.url === plainUrlOf(camera, stream) ? { stream, probe } : null;
}

const isTold = ({ how }: Evidence): boolean => how === 'measured' || how === 'declared';
/** What a probe last told of a stream. */
const toldOf = ({ stream }: Seen, quantity: string, { index }: SiteView): FactValue | null =>
  factsOf(index, streamSubject(stream.id), quantity).findLast(isTold)?.value ?? null;

const isOnvifWanted = (camera: Camera, view: SiteView): boolean =>
  drawersOf(camera, view).some(({ protocols }) => protocols.length > 0 && !protocols.includes('rtsp'));

type Draft = Omit<Setting, 'ticked' | 'unit' | 'options'> & Partial<Pick<Setting, 'unit' | 'options'>>;

/** All settings that count for a camera, as they stand. */
export function settingsOf(camera: Camera, view: SiteView): readonly Setting[] {
  const model = view.modelOf(camera);
  const uses = usesOf(camera, view);
  const probes = camera.streams.flatMap((stream) => seenOf(camera, stream, view) ?? []);
  const works = probes.find(({ probe }) => probe.verdict !== 'fail');
  const drafts = [
    ...cameraSettings(camera, view, { model, probes, works, uses: [...uses.values()].flat() }),
    ...[...uses].flatMap(([stream, own]) => streamSettings(camera, stream, own, view)),
  ];
  return drafts.map((draft) => ({
    unit: '',
    options: [],
    ...draft,
    ticked: bestKnown(view.index, draft.subject, settingQuantity(draft.id)),
  }));
}

interface Around {
  readonly model: Model | undefined;
  readonly probes: readonly Seen[];
  readonly works: Seen | undefined;
  readonly uses: readonly TapUse[];
}

function cameraSettings(camera: Camera, view: SiteView, { model, probes, works, uses }: Around): readonly Draft[] {
  const subject = cameraSubject(camera.id);
  const one = (draft: Omit<Draft, 'subject'>): Draft => ({ subject, ...draft });
  // a refused connection shows that nothing listens: the stream is off, or on another port
  const isOff = !works && probes.some(({ probe }) => probe.cause === 'refused');
  const scheme = works ? (lastProbeFact(view.index, works.stream.id, 'authScheme') ?? null) : null;
  const onvifWanted = isOnvifWanted(camera, view);
  const wantsSound = camera.need !== null && camera.need.sound !== 'none';
  const sound = works ? toldOf(works, 'sound.codec', view) : null;
  const gateway = view.site.networks[0]?.gateway ?? null;
  const detects = uses.includes('detect');
  const isOnBattery = camera.feed?.way === 'solar';
  const turns = (model?.panRangeDeg ?? 0) > 0;
  const hasNoSound = model?.sound === 'none';
  return [
    one({
      id: 'stream-on',
      label: 'RTSP switched on',
      kind: 'flag',
      wanted: true,
      why: model?.streamSwitch || 'many are delivered with it off, behind a menu of their own',
      seen: works ? true : isOff ? false : null,
    }),
    one({
      id: 'onvif-on',
      label: 'ONVIF switched on',
      kind: 'flag',
      wanted: onvifWanted,
      why: onvifWanted ? 'a destination pulls by ONVIF alone' : 'what nobody uses stays closed',
      seen: null,
    }),
    one({
      id: 'login-on',
      label: 'Login required',
      kind: 'flag',
      wanted: true,
      why: 'otherwise everybody on the network sees its picture',
      seen: scheme === null ? null : scheme !== 'none',
    }),
    one({
      id: 'rtsp-port',
      label: 'RTSP port',
      kind: 'number',
      wanted: camera.ports.rtsp,
      why: 'as in its address',
      seen: works ? camera.ports.rtsp : null,
    }),
    ...(onvifWanted
      ? [
          one({
            id: 'onvif-port',
            label: 'ONVIF port',
            kind: 'number',
            wanted: model?.onvifPort ?? null,
            why: model?.onvifPort ? 'as in its model card' : 'often 80, 8000 or 8899',
            seen: null,
          }),
        ]
      : []),
    one({
      id: 'clock-source',
      label: 'Time server',
      kind: 'text',
      wanted: gateway,
      why: gateway
        ? 'the router knows the time, and is reachable without the internet'
        : 'a recording is found by its time',
      seen: null,
    }),
    one({
      id: 'clock-zone',
      label: 'Time zone, with daylight saving',
      kind: 'flag',
      wanted: true,
      why: 'an hour off is still the wrong hour',
      seen: null,
    }),
    ...(hasNoSound
      ? []
      : [
          one({
            id: 'sound',
            label: 'Audio sent',
            kind: 'flag',
            wanted: wantsSound,
            why: wantsSound ? 'the need asks for it' : 'the law is stricter about audio than about pictures',
            seen: works ? sound !== null : null,
          }),
        ]),
    one({
      id: 'overlay',
      label: 'On-screen display (name, time)',
      kind: 'flag',
      wanted: uses.length === 0 || uses.some((use) => use === 'record' || use === 'still'),
      why: uses.some((use) => use === 'record' || use === 'still')
        ? 'a recording then shows by itself when and where it was made'
        : 'changing digits look like motion to a detector',
      seen: null,
    }),
    one({
      id: 'rotation',
      label: 'Picture rotation',
      kind: 'choice',
      unit: '°',
      options: ['0', '90', '180', '270'],
      wanted: null,
      why: 'so that it stands upright; hung from a ceiling it is 180',
      seen: null,
    }),
    one({
      id: 'motion-source',
      label: 'Motion detection in',
      kind: 'choice',
      options: ['camera', 'recorder'],
      wanted: isOnBattery ? 'camera' : detects ? 'recorder' : 'camera',
      why: isOnBattery
        ? 'a recorder that detects motion itself pulls the stream without a break, and empties its battery'
        : detects
          ? 'one list of events for all cameras; it must decode the picture all day for it'
          : 'it detects where the picture is made; each camera has its own list of events',
      seen: null,
    }),
    one({
      id: 'detection-zone',
      label: 'Motion zone drawn',
      kind: 'flag',
      wanted: true,
      why: 'leaves, the street and the neighbour are excluded',
      seen: null,
    }),
    ...(turns
      ? [
          one({
            id: 'tracking-limits',
            label: 'Auto-tracking limits set',
            kind: 'flag',
            wanted: true,
            why: 'auto-tracking leaves its zone, and may look where it must not',
            seen: null,
          }),
        ]
      : []),
  ];
}

/** Codecs that everybody takes, the saving ones first. */
const COMMON_CODECS = ['H265', 'H264', 'JPEG'] as const;

function streamSettings(camera: Camera, stream: Stream, uses: readonly TapUse[], view: SiteView): readonly Draft[] {
  const subject = streamSubject(stream.id);
  const row = settingFor(uses);
  const seen = seenOf(camera, stream, view);
  const of = (quantity: string): FactValue | null =>
    seen && seen.probe.verdict !== 'fail' ? toldOf(seen, quantity, view) : null;
  const offered = view.modelOf(camera)?.codecs ?? [];
  const takers = drawersOf(camera, view).filter(({ codecs }) => codecs.length > 0);
  const isTaken = (codec: string): boolean => takers.every(({ codecs }) => codecs.includes(codec));
  const codec =
    COMMON_CODECS.find(
      (one) => (offered.length === 0 ? one === stream.codec : offered.includes(one)) && isTaken(one),
    ) ?? stream.codec;
  const [width, height] = [of('width'), of('height')];
  const one = (draft: Omit<Draft, 'subject'>): Draft => ({ subject, ...draft });
  const name = stream.label;
  return [
    one({
      id: 'codec',
      label: `Codec of ${name}`,
      kind: 'text',
      wanted: codec,
      why: codec === null ? 'nobody has said which one' : 'the most efficient one that all its destinations take',
      seen: of('codec'),
    }),
    one({
      id: 'size',
      label: `Resolution of ${name}`,
      kind: 'text',
      wanted: stream.width !== null && stream.height !== null ? `${stream.width}×${stream.height}` : null,
      why: 'as it is planned; detail and disk are worked out with it',
      seen: width !== null && height !== null ? `${width}×${height}` : null,
    }),
    one({
      id: 'fps',
      label: `Frame rate of ${name}`,
      kind: 'number',
      wanted: row && Math.min(row.fps, stream.fps ?? row.fps),
      why: row?.fpsWhy ?? '',
      seen: of('fps'),
    }),
    one({
      id: 'key-frame',
      label: `Key-frame interval of ${name}`,
      kind: 'number',
      unit: 's',
      wanted: row?.keyFrameS ?? null,
      why: row?.keyFrameWhy ?? '',
      seen: of('keyframeIntervalSeconds'),
    }),
  ];
}

/** [A] Frames and seconds that are as far apart as this are still the same setting. */
const SAME_WITHIN: Partial<Record<SettingId, number>> = { fps: 0.15, 'key-frame': 0.3 };

/** Whether what was ticked and what was seen are one and the same. */
export function agrees(id: SettingId, ticked: FactValue, seen: FactValue): boolean {
  if (typeof ticked === 'number' && typeof seen === 'number')
    return Math.abs(ticked - seen) <= (SAME_WITHIN[id] ?? 0) * Math.max(Math.abs(ticked), Math.abs(seen));
  const plain = (value: FactValue): string => String(value).toLowerCase().replace(/[\s.]/g, '').replace('x', '×');
  return plain(ticked) === plain(seen);
}

/** It is known: somebody ticked it, or a probe saw it as it should be. */
export const isKnown = ({ id, wanted, ticked, seen }: Setting): boolean =>
  ticked !== null || (seen !== null && (wanted === null || agrees(id, wanted, seen)));
