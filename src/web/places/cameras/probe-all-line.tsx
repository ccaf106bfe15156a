import { useDeferredValue, useMemo } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { camerasToProbe } from '../../../core/site/to-probe.ts';
import { roundRead, selectProbeAll } from '../../store/probe-all-slice.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { cancelRound, probeRound } from '../../things/probe/index.ts';
import { Button } from '../../ui/button.tsx';
import { useVault } from '../../vault/vault-context.tsx';

/** The act that probes whatever was not probed at its address. */
export function ProbeAllButton() {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const site = useDeferredValue(useAppSelector(selectSite));
  const index = useDeferredValue(useAppSelector(selectIndex));
  const { status } = useAppSelector(selectProbeAll);
  const waiting = useMemo(() => camerasToProbe(site, index), [site, index]);
  if (waiting.length === 0 || status === 'running') return null;
  return (
    <Button onClick={() => void probeRound(waiting, vault, dispatch)}>
      Probe all that are not probed: {waiting.length}
    </Button>
  );
}

/** How far a round of probes got, and what it left out. */
export function ProbeAllLine() {
  const dispatch = useAppDispatch();
  const { status, total, done, at, leftOut, isCancelled } = useAppSelector(selectProbeAll);
  const site = useAppSelector(selectSite);
  if (status === 'none') return null;
  const names = at.flatMap((id) => site.cameras.find((camera) => camera.id === id)?.name ?? []);
  return (
    <section aria-label="Probing cameras" className="no-print mb-3 border border-hair bg-sheet px-3 py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <p role="status">
          {status === 'running'
            ? `${done} of ${sayMany(total, 'camera')} probed${names.length > 0 ? `, now ${names.join(', ')}` : ''}`
            : `${isCancelled ? 'Cancelled: ' : ''}${done} of ${sayMany(total, 'camera')} probed. The results are in the lanes.`}
        </p>
        {status === 'running' ? (
          <Button onClick={cancelRound}>Cancel</Button>
        ) : (
          <Button kind="quiet" onClick={() => dispatch(roundRead())}>
            Close
          </Button>
        )}
      </div>
      {total > 0 && (
        <div aria-hidden="true" className="mt-1 h-1 bg-hair">
          <div className="h-1 bg-verdigris" style={{ width: `${(100 * done) / total}%` }} />
        </div>
      )}
      {leftOut.length > 0 && (
        <p className="mt-1 text-small text-brass">
          Left out, their password is not known here: {leftOut.slice(0, 8).join(', ')}
          {leftOut.length > 8 && ` and ${leftOut.length - 8} more`}. Type it at the Tap station, or unlock the
          passwords.
        </p>
      )}
    </section>
  );
}
