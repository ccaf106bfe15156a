import { capital } from '../../../core/base/say.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { KEEPINGS } from '../../../core/document/chapters/cameras/identity.ts';
import type { Keeping } from '../../../core/net/address-plan.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { KEEPING_WORDS } from '../../things/address/index.ts';
import { Panel } from '../../ui/panel.tsx';

interface School {
  readonly good: string;
  readonly fails: string;
}

/** What speaks for each, and where it fails. */
const SCHOOLS: Readonly<Record<Keeping, School>> = {
  reservation: {
    good: 'The usual way: the camera asks by DHCP, the router knows its MAC address and always assigns the same address. All addresses are managed in one place, and a new router imports them as a file.',
    fails: 'Fails with a random or unknown MAC address, or when a second DHCP server answers first.',
  },
  static: {
    good: 'Works without a DHCP server, also while the router is off.',
    fails:
      'Fails after a reset, with another router or another mask, and inside the DHCP range: then two devices share it one day.',
  },
  dynamic: {
    good: 'Nothing to do today.',
    fails: 'Fails after the next power failure or router restart: the address changes, and the recording stops.',
  },
};

/** How its address stays: three schools, with why one is the default and where each fails. */
export function KeepingPanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const choose = (keeping: Keeping | null): void =>
    void dispatch(commandIssued({ kind: 'setKeeping', cameraId: camera.id, keeping }));
  return (
    <Panel title="Address assignment">
      <fieldset className="flex flex-col gap-2">
        <legend className="sr-only">Address assignment</legend>
        {KEEPINGS.map((keeping) => {
          const { good, fails } = SCHOOLS[keeping];
          const isChosen = camera.keeping === keeping;
          return (
            <label
              key={keeping}
              className={`grid cursor-pointer grid-cols-[20px_1fr] gap-x-2 border px-2.5 py-1.5 rounded-sheet ${isChosen ? 'border-ink bg-paper' : 'border-hair'}`}
            >
              <input
                type="radio"
                name={`keeping-${camera.id}`}
                className="mt-0.5 size-4 accent-verdigris"
                checked={isChosen}
                onChange={() => choose(keeping)}
              />
              <span>
                <b>{capital(KEEPING_WORDS[keeping])}</b>
                <span className="block text-small">{good}</span>
                <span className="block text-small text-soft">{fails}</span>
              </span>
            </label>
          );
        })}
      </fieldset>
      {camera.keeping !== null && (
        <button
          type="button"
          className="mt-1 min-h-7 text-small text-verdigris hover:underline pointer-coarse:min-h-11"
          onClick={() => choose(null)}
        >
          Not decided
        </button>
      )}
    </Panel>
  );
}
