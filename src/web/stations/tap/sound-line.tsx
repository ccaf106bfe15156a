import { SILENCE_DBFS } from '../../../core/audio/level.ts';
import type { LiveSound } from './live-client.ts';

/** What is shown of a level: from here up it is something that one hears. */
const QUIET_DBFS = -60;
const share = (dbfs: number): number => Math.min(1, Math.max(0, (dbfs - QUIET_DBFS) / -QUIET_DBFS));

/** The sound beside a picture: silent until asked for, then with how loud it is. */
export function SoundLine({ sound, onListen }: { sound: LiveSound; onListen: (isOn: boolean) => void }) {
  const { codec, isPlayable, isOn, levelDbfs } = sound;
  if (!isPlayable)
    return <span className="rounded-control bg-sheet px-2 py-0.5">its audio, {codec}, cannot be played here</span>;
  return (
    <span className="flex items-center gap-2 rounded-control bg-sheet px-2 py-0.5">
      <button
        type="button"
        aria-pressed={isOn}
        onClick={() => onListen(!isOn)}
        className="underline decoration-hair underline-offset-2 pointer-coarse:min-h-9"
      >
        {isOn ? 'Mute it' : 'Listen'}
      </button>
      {isOn && (
        <>
          <meter className="sr-only" aria-label="Volume" min={SILENCE_DBFS} max={0} value={levelDbfs ?? SILENCE_DBFS} />
          <span aria-hidden="true" className="relative block h-2 w-20 border border-hair">
            <span
              className="absolute inset-y-0 left-0 bg-verdigris"
              style={{ width: `${100 * share(levelDbfs ?? SILENCE_DBFS)}%` }}
            />
          </span>
          <span className="w-14 text-right tabular-nums">
            {levelDbfs === null ? '…' : levelDbfs <= QUIET_DBFS ? 'silent' : `${Math.round(levelDbfs)} dB`}
          </span>
        </>
      )}
    </span>
  );
}
