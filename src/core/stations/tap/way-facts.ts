import type { TapUse } from '../../base/tap-uses.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import { type Destination, PROTOCOL_OF_LINE } from '../../document/chapters/destinations/destination.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { plainUrlOf } from '../../document/stream-address.ts';
import { cameraSubject } from '../../document/subject.ts';
import { lastPayload } from '../../evidence/evidence-index.ts';
import { keptPath } from '../../evidence/kept-path.ts';
import { isReadingCurrent, rememberedReading } from '../../evidence/onvif-evidence.ts';
import { rememberedProbe } from '../../evidence/remembered-probe.ts';
import { motionTopics } from '../../onvif/reading.ts';
import type { SiteView } from '../../site/site-view.ts';
import { ofChannel } from './onvif-plan-facts.ts';
import type { WayFacts } from './way-advice.ts';

/** Whether somebody wants to turn it: it was said in its need, or it comes back to places. */
export const wantsSteering = (camera: Camera, model: Model | undefined): boolean =>
  camera.need?.turns === true || camera.steering.presets.length > 0 || (model?.panRangeDeg ?? 0) > 0;

/** What is known for the advice about one camera, one destination and one use. */
export function wayFacts(
  view: SiteView,
  camera: Camera,
  stream: Stream,
  destination: Destination,
  use: TapUse,
): WayFacts {
  const { index } = view;
  const model = view.modelOf(camera);
  const probe = rememberedProbe(index, stream.id)?.payload;
  const isProbed = probe?.url === plainUrlOf(camera, stream);
  const remembered = rememberedReading(index, camera.id);
  const reading = remembered && isReadingCurrent(remembered, camera, model) ? remembered.reading : null;
  const isRead = reading === null ? null : reading.device !== null;
  const own = reading ? ofChannel(camera, reading.profiles) : [];
  const profile = own.find((one) => keptPath(one) === stream.path);
  const heard = lastPayload(index, cameraSubject(camera.id), 'heard')?.payload.heard;
  return {
    use,
    line: PROTOCOL_OF_LINE[camera.line],
    takes: destination.protocols.length > 0 ? destination.protocols : null,
    givesRtsp: isProbed ? probe.verdict !== 'fail' : null,
    givesOnvif: isRead,
    isAccountOnly: model?.localStream === 'account-only',
    skewS: reading?.clock?.skewS ?? null,
    givesElsewhere: [...(reading?.services ?? []), ...own.flatMap((one) => one.stream ?? [])].some(
      ({ elsewhere }) => elsewhere !== '',
    ),
    hasHead: isRead ? reading?.ptz !== null : null,
    wantsSteering: wantsSteering(camera, model),
    tellsMotion: isRead
      ? motionTopics(reading?.events?.topics ?? []).length > 0 && reading?.events?.canPull === true
      : null,
    forgetsListeners: heard !== undefined && heard.lost > 0,
    isHiddenChannel: isRead === true && camera.kind === 'channel' && own.length === 0,
    isHiddenCodec: profile?.via === 'media2',
  };
}
