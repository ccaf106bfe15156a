import type { Camera, Stream } from '../../../../core/document/chapters/cameras/camera.ts';
import { keptPath } from '../../../../core/evidence/kept-path.ts';
import { streamOfProfile, takeProfile } from '../../../../core/evidence/take-profile.ts';
import { type OnvifReading, type ReadProfile, sizeOf } from '../../../../core/onvif/reading.ts';
import { ofChannel, profileFor } from '../../../../core/stations/tap/index.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { Button } from '../../../ui/button.tsx';

/** Told by the second service alone: who knows the first does not find it. */
const VIA_WORDS = { media: 'Media 1', media2: 'Media 2 only', both: '' } as const;

/** The stream that a profile is meant for: one whose path the device does not offer. */
function strayFor(camera: Camera, profile: ReadProfile, reading: OnvifReading): Stream | null {
  const paths = reading.profiles.flatMap((one) => keptPath(one) ?? []);
  const strays = camera.streams.filter(({ path }) => !paths.includes(path));
  return strays.find((stream) => profileFor(stream, camera, reading.profiles) === profile) ?? null;
}

interface ProfileRowsProps {
  readonly camera: Camera;
  readonly reading: OnvifReading;
  readonly onTaken?: (streamId: string) => void;
}

/** Profiles as rows that can be taken: each is a stream here, or becomes one. */
export function ProfileRows({ camera, reading, onTaken }: ProfileRowsProps) {
  const dispatch = useAppDispatch();
  const own = ofChannel(camera, reading.profiles);
  const take = (profile: ReadProfile, into: Stream | null): void => {
    const taken = takeProfile(camera, profile, into, () => newId('stream'));
    if (!taken) return;
    dispatch(commandIssued(taken.command));
    dispatch(commandIssued({ kind: 'recordProfile', cameraId: camera.id, streamId: taken.streamId, profile }));
    onTaken?.(taken.streamId);
  };
  if (own.length === 0)
    return (
      <p className="text-soft">
        {reading.profiles.length === 0
          ? 'It offers no profile.'
          : 'It offers no profile of this channel: pull it by its path.'}
      </p>
    );
  return (
    <ul aria-label="Profiles" className="divide-y divide-grid border-y border-grid">
      {own.map((profile) => {
        const is = streamOfProfile(camera, profile);
        const into = is ? null : strayFor(camera, profile, reading);
        const path = keptPath(profile);
        const name = profile.name || profile.token;
        return (
          <li key={profile.token} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
            <b className="min-w-14">{name}</b>
            <span className="font-mono text-small">
              {[profile.codec, sizeOf(profile), profile.fps === null ? null : `${profile.fps}/s`]
                .filter((part) => part !== null)
                .join(' ')}
            </span>
            <span className="min-w-0 truncate font-mono text-small text-soft" title={path ?? undefined}>
              {path ?? 'no address'}
              {profile.stream?.elsewhere && ` at ${profile.stream.elsewhere}`}
            </span>
            {VIA_WORDS[profile.via] && <span className="text-small text-soft">{VIA_WORDS[profile.via]}</span>}
            <span className="ml-auto">
              {is ? (
                <span className="text-small text-soft">
                  is stream <b className="text-ink">{is.label}</b>
                </span>
              ) : path === null ? null : (
                <Button aria-label={`Use profile ${name}`} onClick={() => take(profile, into)}>
                  {into ? `Use it as ${into.label}` : 'Use it'}
                </Button>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
