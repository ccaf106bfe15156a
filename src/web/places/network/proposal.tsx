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
        what: `${network.name}: consecutive addresses for ${sayMany(moves?.length ?? 0, 'device')}`,
        commands,
      }),
    );
    setIsOpen(false);
  };
  return (
    <>
      <Button onClick={() => setIsOpen(true)}>Propose consecutive addresses</Button>
      {isOpen && (
        <DialogFrame
          title="Consecutive addresses"
          description="Outside the DHCP range, in the order of the plan, as DHCP reservations unless static on the device. Nothing changes before you apply it."
          isOpen
          onOpenChange={setIsOpen}
        >
          {!isPoolSaid(network) && (
            <p className="mb-2 text-brass">
              The DHCP range is not entered for {network.name}: enter it as the router’s page shows it first, or one of
              these addresses may be assigned to a phone too.
            </p>
          )}
          {moves === null ? (
            <p role="alert">
              Outside the DHCP range of {network.name} there are not enough addresses. Make the range smaller, or the
              network larger.
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
                    {from === to ? `${to} unchanged` : `${from || 'none'} → ${to}`}
                  </span>
                </li>
              ))}
            </ul>
          )}
          <p className="mb-3 text-small text-soft">
            Sheets already handed over have the old addresses: hand those taps over again.
          </p>
          <span className="flex justify-end gap-2">
            <Button onClick={() => setIsOpen(false)}>Cancel</Button>
            <Button kind="main" disabled={commands.length === 0} onClick={take}>
              Apply
            </Button>
          </span>
        </DialogFrame>
      )}
    </>
  );
}
