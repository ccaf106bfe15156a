import { Link } from 'react-router';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { CAUSE_WORDS } from '../../../../core/onvif/cause-words.ts';
import { stationPath } from '../../../store/station-path.ts';
import { useSiteId } from '../../../store/use-site-id.ts';
import { Panel } from '../../../ui/panel.tsx';
import { sayWhen } from '../../../ui/say-when.ts';
import { useSiteView } from '../../use-site-view.ts';
import { CardLessons } from './card-lessons.tsx';
import { nameOfDevice, sayClockError, sayEvents, sayHead } from './device-words.ts';
import { ProfileRows } from './profile-rows.tsx';
import { ReadAct, ReadProgress } from './read-act.tsx';
import { ReadingActs } from './reading-acts.tsx';
import { useDevice, useDeviceAccess } from './use-device.ts';

/** What its card can learn from what was read and probed, while there is something. */
export function QuietLessons({ camera }: { camera: Camera }) {
  const model = useSiteView().modelOf(camera);
  const { remembered, isCurrent } = useDevice(camera, model);
  return <CardLessons camera={camera} reading={isCurrent ? (remembered?.reading ?? null) : null} isQuiet />;
}

/** What the device itself offers, beside the stream: read in seconds, and taken with one press. */
export function OfferPanel({ camera, onTaken }: { camera: Camera; onTaken: (streamId: string) => void }) {
  const siteId = useSiteId();
  const view = useSiteView();
  const model = view.modelOf(camera);
  const access = useDeviceAccess(camera, model);
  const device = useDevice(camera, model);
  const { remembered, isCurrent } = device;
  const reading = isCurrent ? remembered?.reading : undefined;
  const to = stationPath(siteId, camera.id, 'tap');
  const linkLook =
    'inline-flex min-h-7 items-center font-strong text-verdigris hover:underline pointer-coarse:min-h-11';
  return (
    <Panel
      title="What it offers by ONVIF"
      aside={
        remembered
          ? isCurrent
            ? `read ${sayWhen(remembered.at)}`
            : 'read at another address; read this one'
          : `not read yet, port ${access.port}`
      }
      actions={
        <>
          <ReadAct camera={camera} access={access} device={device} />
          <Link to={`${to}/onvif`} className={linkLook}>
            Device report&nbsp;→
          </Link>
          {reading?.ptz && (
            <Link to={`${to}/steer`} className={linkLook}>
              PTZ controls&nbsp;→
            </Link>
          )}
        </>
      }
    >
      <ReadProgress device={device} />
      {reading?.cause && (
        <p>
          <b>{CAUSE_WORDS[reading.cause].title}.</b> <span className="text-soft">{reading.note}</span>
        </p>
      )}
      <ReadingActs camera={camera} access={access} reading={reading ?? null} />
      {reading?.device && (
        <>
          <p className="mb-2 text-small text-soft">
            <b className="text-ink">{nameOfDevice(reading)}</b>
            {reading.clock && ` · clock ${sayClockError(reading.clock.skewS)}`} · {sayHead(reading)} ·{' '}
            {sayEvents(reading)}
          </p>
          <ProfileRows camera={camera} reading={reading} onTaken={onTaken} />
        </>
      )}
      {!reading && device.run?.status !== 'running' && (
        <p className="text-small text-soft">
          Reading asks for its identity, its clock, its profiles with their addresses, its PTZ and its events. Nothing
          is changed at the device.
        </p>
      )}
    </Panel>
  );
}
