import { useEffect, useRef, useState } from 'react';
import { CAMERA_RANGES, type Camera, UNPLANNED } from '../../../../core/document/chapters/cameras/camera.ts';
import { freeName } from '../../../../core/document/things.ts';
import { streamsOfCard } from '../../../../core/evidence/offered-streams.ts';
import { SCHEMES_OF_LINES } from '../../../../core/net/camera-line.ts';
import { buildStreamUrl } from '../../../../core/net/stream-url.ts';
import type { ProbeReport } from '../../../../core/probe/probe-types.ts';
import { sayBreak } from '../../../api/client.ts';
import { streamProbe } from '../../../api/probe-stream.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { loginOf, mayGo } from '../../../things/account/index.ts';
import { Button } from '../../../ui/button.tsx';
import { Drop } from '../../../ui/drop.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { rtspPlace } from '../../../vault/camera-places.ts';
import { useVault } from '../../../vault/vault-context.tsx';
import { useSiteView } from '../../use-site-view.ts';
import { AccessWanted } from './access-wanted.tsx';
import { useDeviceAccess } from './use-device.ts';

/** How a channel answered by its path. */
interface Tried {
  readonly channel: number;
  readonly path: string;
  readonly outcome: 'trying' | 'there' | 'not there' | 'failed';
  readonly note: string;
}

/** Where a card does not say how many there are, so many are tried. */
const TRIED_UNKNOWN = 4;
const STEP_TIMEOUT_MS = 5000;

const outcomeOf = ({ verdict, cause, media, findings }: ProbeReport): Pick<Tried, 'outcome' | 'note'> => {
  if (verdict !== 'fail') {
    const video = media.find(({ kind }) => kind === 'video');
    const size = video?.declared.width ? ` ${video.declared.width}×${video.declared.height}` : '';
    return { outcome: 'there', note: `${video?.codec ?? ''}${size}`.trim() };
  }
  return { outcome: cause === 'not-found' ? 'not there' : 'failed', note: findings[0]?.title ?? '' };
};

/** The channels of a box, each tried by its path from the card, whatever its ONVIF shows; what is there can be brought in. */
export function ChannelsPanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const view = useSiteView();
  const { site } = view;
  const model = view.modelOf(camera);
  const [tried, setTried] = useState<readonly Tried[]>([]);
  const [isRunning, setIsRunning] = useState(false);
  const [isAsked, setIsAsked] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const vault = useVault();
  const access = useDeviceAccess(camera, model);
  const controller = useRef<AbortController | null>(null);
  useEffect(() => () => controller.current?.abort(), []);
  const hasPath = model?.path.includes('{channel}') === true;
  const of = model?.channels ?? TRIED_UNKNOWN;
  const cameraOf = (channel: number): Camera | undefined =>
    site.cameras.find((one) => one.kind === 'channel' && one.host === camera.host && one.channel === channel);
  const pathFor = (channel: number): string => (model ? (streamsOfCard(model, { channel })[0]?.stream.path ?? '') : '');

  const tryAll = async (): Promise<void> => {
    setIsAsked(access.request === null);
    if (access.request === null) return;
    const use = { site, camera, account: camera.account, place: rtspPlace(camera) };
    if ((await mayGo([use], vault)).length === 0) return;
    setTrouble(null);
    const abort = new AbortController();
    controller.current = abort;
    setIsRunning(true);
    const login = loginOf(use, vault);
    let seen: readonly Tried[] = [];
    const put = (one: Tried): void => {
      seen = [...seen.filter(({ channel }) => channel !== one.channel), one];
      setTried(seen);
    };
    try {
      // one after the other: a box has few sessions
      for (let channel = 1; channel <= of && !abort.signal.aborted; channel++) {
        const path = pathFor(channel);
        put({ channel, path, outcome: 'trying', note: '' });
        const [pathname = '', query] = path.split('?', 2);
        const url = buildStreamUrl({
          scheme: SCHEMES_OF_LINES[camera.line],
          user: null,
          password: null,
          host: camera.host,
          port: camera.ports.rtsp,
          path: pathname,
          query: query ?? null,
        });
        const request = {
          url,
          ...login,
          tunnel: camera.line === 'tunnel',
          seconds: 1,
          timeoutMs: STEP_TIMEOUT_MS,
          media: false,
          transport: 'auto' as const,
        };
        let stops = false;
        await streamProbe(request, abort.signal, (event) => {
          if (event.kind !== 'report') return;
          put({ channel, path, ...outcomeOf(event.report) });
          stops =
            event.report.cause === 'auth-failed' ||
            event.report.cause === 'auth-required' ||
            event.report.cause === 'login-held';
        });
        if (stops) break; // asking on would lock the account
      }
    } catch (error) {
      // what was seen stays, and nothing is said to be there that was not
      setTried(seen.filter(({ outcome }) => outcome !== 'trying'));
      if (!abort.signal.aborted) setTrouble(sayBreak(error, 'the tries'));
    } finally {
      setIsRunning(false);
    }
  };

  const bringIn = (channel: number): void => {
    if (!model) return;
    const id = newId('camera');
    const stem = camera.name.replace(/ [A-Z]$| \d+$/, '');
    const isLettered = / [A-Z]$/.test(camera.name);
    const wanted = isLettered && channel <= 26 ? `${stem} ${String.fromCharCode(64 + channel)}` : `${stem} ${channel}`;
    const names = site.cameras.map(({ name }) => name);
    const brought: Camera = {
      ...UNPLANNED,
      id,
      name: names.includes(wanted) ? freeName(wanted, names) : wanted,
      place: '',
      kind: 'channel',
      modelId: model.id,
      channel,
      host: camera.host,
      ports: camera.ports,
      onvifPort: camera.onvifPort,
      onvifTls: camera.onvifTls,
      identity: camera.identity,
      keeping: camera.keeping,
      // the box has one account for all of them
      account: camera.account,
      streams: streamsOfCard(model, { channel }).map(({ stream }) => ({ ...stream, id: newId('stream') })),
    };
    dispatch(commandIssued({ kind: 'addCamera', camera: brought }));
  };

  return (
    <Panel
      title="Channels of the recorder"
      aside={model?.channels ? `its model card says ${model.channels}` : 'its model card does not say how many'}
      actions={
        isRunning ? (
          <Button onClick={() => controller.current?.abort()}>Stop trying</Button>
        ) : (
          <Button disabled={!hasPath || camera.host === ''} onClick={() => void tryAll()}>
            Try {of} channels
          </Button>
        )
      }
    >
      {isAsked && <AccessWanted camera={camera} access={access} />}
      {trouble && <p role="alert">{trouble}</p>}
      {camera.kind !== 'channel' || camera.channel === null ? (
        <div className="flex flex-wrap items-end gap-3">
          <NumberField
            label="Which channel is this camera?"
            className="w-48"
            value={camera.channel}
            range={CAMERA_RANGES.channel}
            isOptional
            onKeep={(channel) =>
              void dispatch(
                commandIssued({ kind: 'changeCamera', cameraId: camera.id, changed: { channel, kind: 'channel' } }),
              )
            }
          />
        </div>
      ) : (
        <p className="text-small text-soft">
          This is channel {camera.channel}. Each channel is requested by its path{hasPath ? `, ${model?.path}` : ''},
          one after the other.
        </p>
      )}
      {!hasPath && (
        <p className="mt-1 text-small text-brass">
          The model card has no path with {'{channel}'} in it: enter one there, or add it from channel 1.
        </p>
      )}
      {tried.length > 0 && (
        <ul aria-label="Channels tried" className="mt-2 divide-y divide-grid border-y border-grid">
          {tried.map(({ channel, path, outcome, note }) => {
            const known = cameraOf(channel);
            return (
              <li key={channel} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
                <Drop
                  verdict={outcome === 'there' ? 'ok' : outcome === 'trying' ? 'unknown' : 'will-not-work'}
                  label={outcome}
                  size={18}
                />
                <b>Channel {channel}</b>
                <span className="font-mono text-small text-soft">{path}</span>
                <span className="text-small text-soft">
                  {outcome === 'trying' ? 'being tried' : outcome === 'there' ? note : note || outcome}
                </span>
                <span className="ml-auto">
                  {known ? (
                    <span className="text-small text-soft">
                      is <b className="text-ink">{known.name}</b>
                    </span>
                  ) : (
                    outcome === 'there' && (
                      <Button aria-label={`Add channel ${channel}`} onClick={() => bringIn(channel)}>
                        Add it
                      </Button>
                    )
                  )}
                </span>
              </li>
            );
          })}
        </ul>
      )}
    </Panel>
  );
}
