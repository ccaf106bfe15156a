import { useState } from 'react';
import { Link } from 'react-router';
import { sayBytes, sayDays, sayRate } from '../../../core/base/say.ts';
import { TAP_USE_WORDS, TAP_USES, type TapUse } from '../../../core/base/tap-uses.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import type { Destination } from '../../../core/document/chapters/destinations/destination.ts';
import type { Tap } from '../../../core/document/chapters/taps/tap.ts';
import type { SiteMend } from '../../../core/lanes/mends.ts';
import { judgeTap, type TapJudgement } from '../../../core/stations/tap/index.ts';
import type { RecordingSchedule } from '../../../core/storage/schedule.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { DestinationDialog, LicenceLine } from '../../things/destination/index.ts';
import { CameraFindings } from '../../things/finding/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { FindingList } from '../../ui/finding-card.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { Panel } from '../../ui/panel.tsx';
import { useShortcut } from '../../ui/shortcut.ts';
import { SelectField } from '../../ui/text-field.tsx';
import { RetentionRule } from './retention-rule.tsx';
import { WayLine } from './way-line.tsx';

/** When a recording runs, as a person chooses it; the shares are assumptions and named as such. */
const SCHEDULES = {
  always: { label: 'all day', schedule: { mode: 'continuous' } },
  half: { label: '12 hours a day', schedule: { mode: 'window', hoursPerDay: 12 } },
  events: {
    label: 'on events, 40 a day (assumed)',
    schedule: { mode: 'events', eventsPerDay: 40, eventS: 30, preS: 5, postS: 10 },
  },
} as const satisfies Record<string, { label: string; schedule: RecordingSchedule }>;
type ScheduleName = keyof typeof SCHEDULES;
const isScheduleName = (text: string): text is ScheduleName => Object.hasOwn(SCHEDULES, text);
const isUse = (text: string): text is TapUse => TAP_USES.some((use) => use === text);

/** Who draws this stream: choose a destination and a use, see at once whether it fits, and keep it as a tap. */
export function GivePanel({ camera, stream }: { camera: Camera; stream: Stream }) {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const dispatch = useAppDispatch();
  const siteId = useSiteId();
  const taps = site.taps.filter((tap) => tap.cameraId === camera.id);
  const [chosenId, setDestinationId] = useState('');
  const destinationId = site.destinations.some(({ id }) => id === chosenId)
    ? chosenId
    : (site.destinations[0]?.id ?? '');
  const [use, setUse] = useState<TapUse>('record');
  const [scheduleName, setScheduleName] = useState<ScheduleName>('always');
  const [edited, setEdited] = useState<Destination | 'new' | null>(null);
  const destination = site.destinations.find(({ id }) => id === destinationId);
  const isTapped = taps.some(
    (tap) => tap.streamId === stream.id && tap.destinationId === destinationId && tap.use === use,
  );

  const draft: Tap | null = destination
    ? {
        id: 'draft',
        cameraId: camera.id,
        streamId: stream.id,
        destinationId: destination.id,
        use,
        protocol: 'rtsp',
        schedule: use === 'record' ? SCHEDULES[scheduleName].schedule : { mode: 'continuous' },
      }
    : null;
  const draftJudgement = draft && !isTapped ? judgeTap({ ...site, taps: [...site.taps, draft] }, index, draft) : null;

  const keep = (): void => {
    if (!draft || !draftJudgement) return;
    const tap = { ...draft, id: newId('tap') };
    dispatch(commandIssued({ kind: 'addTap', tap, judged: VERDICT_WORDS[draftJudgement.verdict] }));
  };
  useShortcut('t', keep);

  return (
    <Panel title="Where it goes" actions={<Button onClick={() => setEdited('new')}>New destination</Button>}>
      {taps.length > 0 && (
        <ul className="mb-3 flex flex-col gap-3">
          {taps.map((tap) => {
            const judgement = judgeTap(site, index, tap);
            const drawn = site.destinations.find(({ id }) => id === tap.destinationId);
            const tapped = camera.streams.find(({ id }) => id === tap.streamId);
            const label = tapped?.label;
            return (
              <li key={tap.id} className="border border-hair px-3 py-2">
                <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
                  <Drop verdict={judgement.verdict} />
                  <b className="text-name">{drawn?.name}</b>
                  <span className="text-soft">
                    {label} to {TAP_USE_WORDS[tap.use]} · {VERDICT_WORDS[judgement.verdict]}
                  </span>
                  <span className="ml-auto flex gap-2">
                    {drawn && <Button onClick={() => setEdited(drawn)}>Change {drawn.name}</Button>}
                    <Button
                      aria-label={`Remove the tap of ${drawn?.name} to ${TAP_USE_WORDS[tap.use]}`}
                      onClick={() => dispatch(commandIssued({ kind: 'removeTap', tapId: tap.id }))}
                    >
                      Remove
                    </Button>
                  </span>
                </div>
                {drawn?.seats && (
                  <p className="mt-1 text-small">
                    <LicenceLine destination={drawn} />
                  </p>
                )}
                {drawn && tapped && <WayLine camera={camera} stream={tapped} destination={drawn} use={tap.use} />}
                <Judgement judgement={judgement} tap={tap} />
                <Link
                  to={`${stationPath(siteId, camera.id, 'hand-over')}?tap=${tap.id}`}
                  className="mt-1 inline-flex min-h-8 items-center font-strong text-verdigris hover:underline"
                >
                  Its sheet for {drawn?.name}&nbsp;→
                </Link>
              </li>
            );
          })}
        </ul>
      )}
      {site.destinations.length === 0 ? (
        <p className="text-soft">No destination yet. Add the hub, recorder or viewer that is to pull this stream.</p>
      ) : (
        <>
          <div className="grid grid-cols-2 items-end gap-2 md:grid-cols-[1fr_1fr_1fr_auto]">
            <SelectField
              label="Destination"
              value={destinationId}
              onChange={setDestinationId}
              options={site.destinations.map(({ id, name }) => ({ value: id, label: name }))}
            />
            <SelectField
              label="Use"
              value={use}
              onChange={(value) => isUse(value) && setUse(value)}
              options={TAP_USES.map((value) => ({ value, label: TAP_USE_WORDS[value] }))}
            />
            {use === 'record' && (
              <SelectField
                label="When"
                value={scheduleName}
                onChange={(value) => isScheduleName(value) && setScheduleName(value)}
                options={Object.entries(SCHEDULES).map(([value, { label }]) => ({ value, label }))}
                className="col-span-2 md:col-span-1"
              />
            )}
            <Button
              kind="main"
              shortcut="T"
              className="col-span-2 min-h-8 md:col-span-1"
              disabled={!draftJudgement}
              onClick={keep}
            >
              Tap it
            </Button>
          </div>
          {isTapped && (
            <p className="mt-2 text-small text-soft">{destination?.name} pulls this stream for this use already.</p>
          )}
          {draftJudgement && (
            <div className="mt-2">
              <p className="flex items-center gap-2">
                <Drop verdict={draftJudgement.verdict} />
                <span>
                  <b>{VERDICT_WORDS[draftJudgement.verdict]}</b>
                  <span className="text-soft"> if {destination?.name} pulls it</span>
                </span>
              </p>
              {destination && <WayLine camera={camera} stream={stream} destination={destination} use={use} />}
              <Judgement judgement={draftJudgement} />
            </div>
          )}
        </>
      )}
      <DestinationDialog edited={edited} onClose={() => setEdited(null)} onCreated={setDestinationId} />
    </Panel>
  );
}

/** Of two taps of one camera, each card offers what changes its own. */
const isAbout = ({ command }: SiteMend, { id, destinationId }: Tap): boolean =>
  command.kind === 'changeTap'
    ? command.tap.id === id
    : command.kind !== 'changeDestination' || command.destination.id === destinationId;

/** The numbers behind a verdict, and what would change it. */
function Judgement({ judgement, tap }: { judgement: TapJudgement; tap?: Tap }) {
  const { rate, retention, findings, verdict, wanted } = judgement;
  // What one touch carries out stands with its finding.
  const levers = judgement.levers().filter(({ command }) => !tap || command === null);
  return (
    <div className="mt-1 flex flex-col gap-2">
      {rate && (
        <p className="flex flex-wrap items-center gap-x-1.5 text-small text-soft">
          <span className="font-mono text-ink">{sayRate(rate.value)}</span>{' '}
          <KnownHowMark how={rate.how} detail={rate.takenAt ? undefined : rate.source} />
          {retention && (
            <span>
              {sayBytes(retention.ownBytesPerDay)} a day
              {retention.recordings > 1
                ? `, ${sayBytes(retention.allBytesPerDay)} with ${retention.recordings === 2 ? 'both' : `all ${retention.recordings}`} recordings`
                : ''}{' '}
              on {sayBytes(retention.usableBytes)} usable = <b className="text-ink">{sayDays(retention.daysFit)}</b>
            </span>
          )}
        </p>
      )}
      {retention && <RetentionRule {...retention} />}
      {wanted.length > 0 && <p className="text-small text-soft">Missing for a verdict: {wanted.join('; ')}.</p>}
      {tap ? (
        <CameraFindings cameraId={tap.cameraId} findings={findings} isOffered={(mend) => isAbout(mend, tap)} />
      ) : (
        <FindingList findings={findings} />
      )}
      {levers.length > 0 && (
        <div className="text-small">
          <p className="text-soft">{verdict === 'ok' ? 'To spare' : 'What would change it'}</p>
          <ul>
            {levers.map((lever) => (
              <li key={lever.id + lever.text} className="flex items-center gap-1.5">
                <Drop verdict={lever.verdict} size={16} label={VERDICT_WORDS[lever.verdict]} />
                {lever.text}
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
