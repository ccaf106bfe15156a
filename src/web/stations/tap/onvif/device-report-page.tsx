import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { sayMany } from '../../../../core/base/say.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { CAUSE_WORDS } from '../../../../core/onvif/cause-words.ts';
import type { OnvifReading } from '../../../../core/onvif/reading.ts';
import { sayDoor } from '../../../../core/onvif/service-place.ts';
import type { RecordingSummary } from '../../../../core/onvif/services/recording.ts';
import { onvifFindings } from '../../../../core/stations/tap/index.ts';
import { stationPath } from '../../../store/station-path.ts';
import { useSiteId } from '../../../store/use-site-id.ts';
import { CameraFindings } from '../../../things/finding/index.ts';
import { Button } from '../../../ui/button.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { sayWhen } from '../../../ui/say-when.ts';
import { useSiteView } from '../../use-site-view.ts';
import { CardLessons } from './card-lessons.tsx';
import { ChannelsPanel } from './channels-panel.tsx';
import { ClockHands } from './clock-hands.tsx';
import { deviceRunner } from './device-runner.ts';
import { nameOfDevice, sayEvents, sayHead } from './device-words.ts';
import { ListenPanel } from './listen-panel.tsx';
import { ProfileRows } from './profile-rows.tsx';
import { OnvifFields, ReadAct, ReadProgress } from './read-act.tsx';
import { ReadingActs } from './reading-acts.tsx';
import { ServiceStamps } from './service-stamps.tsx';
import { TwoWays } from './two-ways.tsx';
import { useDevice, useDeviceAccess } from './use-device.ts';

/** A device as ONVIF shows it: who it is, its clock, its services, what it offers, and what is to be said of it. */
export function DeviceReport({ camera }: { camera: Camera }) {
  const siteId = useSiteId();
  const view = useSiteView();
  const model = view.modelOf(camera);
  const access = useDeviceAccess(camera, model);
  const device = useDevice(camera, model);
  const { remembered, isCurrent } = device;
  const reading = isCurrent ? (remembered?.reading ?? null) : null;
  const findings = onvifFindings(camera, view);
  const to = stationPath(siteId, camera.id, 'tap');
  const isBox = camera.kind === 'channel' || (model?.channels ?? 1) > 1;
  return (
    <>
      <nav aria-label="Of this camera" className="mb-3 flex flex-wrap gap-4">
        <Link to={to} className="font-strong text-verdigris hover:underline">
          ← Its streams
        </Link>
        {reading?.ptz && (
          <Link to={`${to}/steer`} className="font-strong text-verdigris hover:underline">
            PTZ controls →
          </Link>
        )}
      </nav>
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
        <div className="flex min-w-0 flex-col gap-4">
          <Panel
            title="ONVIF device report"
            aside={
              remembered
                ? isCurrent
                  ? `read ${sayWhen(remembered.at)}, ${sayMany(remembered.reading.answers, 'answer')}`
                  : 'read at another address; read this one'
                : 'not read yet'
            }
            actions={<ReadAct camera={camera} access={access} device={device} isMain />}
          >
            <OnvifFields camera={camera} access={access} />
            <div className="mt-2">
              <ReadProgress device={device} />
            </div>
            {device.run?.offered && (
              <p className="mt-2 flex flex-wrap items-center gap-2 border-l-[3px] border-brass pl-3">
                The device wrote a login into its stream addresses: account “{device.run.offered.user}”. It was removed,
                and is saved nowhere yet.
                <Button
                  onClick={() => {
                    if (device.run?.offered) access.keepOffered(device.run.offered);
                    deviceRunner.forgetOffered(camera.id);
                  }}
                >
                  Save it as its account
                </Button>
              </p>
            )}
            {reading && reading.heldDoors.length > 0 && (
              <ul className="mt-2 border-l-[3px] border-brass pl-3">
                {reading.heldDoors.map((door) => (
                  <li key={sayDoor(door)} className="flex flex-wrap items-center gap-2 py-0.5">
                    Services at {sayDoor(door)} were not read.
                    <Button onClick={() => void access.allowDoor(door)}>Allow the password there</Button>
                  </li>
                ))}
              </ul>
            )}
            {reading && <Identity reading={reading} at={remembered?.at ?? ''} />}
            <ReadingActs camera={camera} access={access} reading={reading} />
          </Panel>
          {reading && reading.profiles.length > 0 && (
            <Panel title="What it offers" aside={`${sayHead(reading)}; ${sayEvents(reading)}`}>
              <ProfileRows camera={camera} reading={reading} />
            </Panel>
          )}
          {isBox && <ChannelsPanel camera={camera} />}
          {isBox && <TwoWays camera={camera} />}
          {reading?.events?.canPull && <ListenPanel camera={camera} access={access} />}
        </div>
        <div className="flex min-w-0 flex-col gap-4">
          {(reading || findings.length > 0) && (
            <Panel title="Findings">
              {findings.length > 0 ? (
                <CameraFindings cameraId={camera.id} findings={findings} />
              ) : (
                <p className="text-soft">No findings from this reading.</p>
              )}
            </Panel>
          )}
          <CardLessons camera={camera} reading={reading} />
        </div>
      </div>
    </>
  );
}

function Identity({ reading, at }: { reading: OnvifReading; at: string }) {
  const { device, clock, network, imaging, recordings } = reading;
  if (!device)
    return (
      <p className="mt-2">
        <b>{reading.cause ? CAUSE_WORDS[reading.cause].title : 'Nothing read'}.</b>{' '}
        <span className="text-soft">{reading.note}</span>
      </p>
    );
  return (
    <div className="mt-3 flex flex-col gap-3 border-t border-grid pt-3">
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-3">
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
          <Line term="Model">
            <b>{nameOfDevice(reading)}</b>
          </Line>
          <Line term="Firmware">{device.firmware}</Line>
          <Line term="Serial">{device.serial}</Line>
          <Line term="Hardware">{device.hardware}</Line>
          {network && <Line term="MAC address">{network.mac}</Line>}
          {network && network.dhcp !== null && (
            <Line term="Its address">{network.dhcp ? 'by DHCP' : 'static on the device'}</Line>
          )}
          {network?.timeServers && <Line term="Time server">{network.timeServers.join(', ') || 'none'}</Line>}
          {imaging && <Line term="IR-cut filter">{imaging.infraredCut}</Line>}
          {recordings?.recordings != null && <Line term="Recordings on the device">{sayRecordings(recordings)}</Line>}
          <Line term="Login">
            {{ none: 'none required', token: 'WS-UsernameToken', digest: 'HTTP Digest' }[reading.login]}
          </Line>
        </dl>
        {clock ? <ClockHands skewS={clock.skewS} at={at} /> : <p className="text-soft">It did not report the time.</p>}
      </div>
      <ServiceStamps reading={reading} />
      {reading.cause && (
        <p>
          <b>{CAUSE_WORDS[reading.cause].title}.</b> <span className="text-soft">{reading.note}</span>
        </p>
      )}
    </div>
  );
}

const DAY_MS = 86_400_000;
/** “2, of 9 days”. */
function sayRecordings({ recordings, fromUnixMs, toUnixMs }: RecordingSummary): string {
  const days = fromUnixMs === null || toUnixMs === null ? null : Math.round((toUnixMs - fromUnixMs) / DAY_MS);
  return `${recordings}${days === null ? '' : `, of ${sayMany(days, 'day')}`}`;
}

const Line = ({ term, children }: { term: string; children: ReactNode }) => (
  <>
    <dt className="text-soft">{term}</dt>
    <dd className="font-mono break-all">
      {children === '' ? <span className="text-soft">not reported</span> : children}
    </dd>
  </>
);
