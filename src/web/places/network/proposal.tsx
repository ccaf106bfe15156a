import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import type { SeenHost } from '../../../core/scan/seen.ts';
import { movesAsCommands, proposeAddresses } from '../../../core/site/free-addresses.ts';
import { isPoolSaid, readNetwork } from '../../../core/site/networks.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';

/** A tidy block for all cameras of a network, looked over before it is taken; one undo takes all of it back. */
export function Proposal({ network, hosts }: { network: Network; hosts: readonly SeenHost[] }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [isOpen, setIsOpen] = useState(false);
  if (site.cameras.length === 0) return null;
  const moves = isOpen ? proposeAddresses(site, readNetwork(network), hosts) : [];
  const commands = movesAsCommands(moves ?? []);
  const take = (): void => {
    dispatch(
      commandIssued({
        kind: 'many',
        what: `${network.name}: a tidy block for ${sayMany(moves?.length ?? 0, 'device')}`,
        commands,
      }),
    );
    setIsOpen(false);
  };
  return (
    <>
      <Button onClick={() => setIsOpen(true)}>Propose a tidy block</Button>
      {isOpen && (
        <DialogFrame
          title="A tidy block"
          description="Outside the pool, in the order of the plan, reserved unless it is set on the device. Nothing changes before you take it."
          isOpen
          onOpenChange={setIsOpen}
        >
          {!isPoolSaid(network) && (
            <p className="mb-2 text-brass">
              Nobody said which addresses are handed out in {network.name}: look at the router’s page and enter its pool
              first, or one of these may be given to a phone too.
            </p>
          )}
          {moves === null ? (
            <p role="alert">
              Outside the pool of {network.name} is not enough room. Make the pool smaller, or the network larger.
            </p>
          ) : moves.length === 0 ? (
            <p>No camera is in this network, and none is without an address.</p>
          ) : (
            <ul className="mb-3 max-h-[50dvh] overflow-auto border border-hair">
              {moves.map(({ cameras, from, to }) => (
                <li
                  key={cameras[0]?.id}
                  className="grid grid-cols-[1fr_auto] gap-2 border-b border-grid px-2 py-1 last:border-b-0"
                >
                  <span>{cameras.map(({ name }) => name).join(', ')}</span>
                  <span className="font-mono text-small">
                    {from === to ? `${to} stays` : `${from || 'none'} → ${to}`}
                  </span>
                </li>
              ))}
            </ul>
          )}
          <p className="mb-3 text-small text-soft">
            Sheets that were handed over name the old addresses: those taps are to be handed over again.
          </p>
          <span className="flex justify-end gap-2">
            <Button onClick={() => setIsOpen(false)}>Leave it</Button>
            <Button kind="main" disabled={commands.length === 0} onClick={take}>
              Take it
            </Button>
          </span>
        </DialogFrame>
      )}
    </>
  );
}
