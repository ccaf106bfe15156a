import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import {
  asDnsmasq,
  asKea,
  asLeaseCsv,
  asRouterSheet,
  type Reservations,
  reservationsOf,
} from '../../../core/handover/router-files.ts';
import { selectServer } from '../../store/server-slice.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { CopyButton } from '../../ui/copy-button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import { Panel } from '../../ui/panel.tsx';
import { PickButton } from '../../ui/pick-button.tsx';
import { DemoRouter } from './demo-router.tsx';
import { LeaseImport } from './lease-import.tsx';

interface Format {
  readonly id: string;
  readonly name: string;
  readonly ending: string;
  readonly type: string;
  readonly write: (reservations: Reservations, network: Network, site: string) => string;
}

const FORMATS: readonly Format[] = [
  { id: 'dnsmasq', name: 'dnsmasq', ending: '.conf', type: 'text/plain', write: ({ ready }) => asDnsmasq(ready) },
  {
    id: 'kea',
    name: 'Kea',
    ending: '.json',
    type: 'application/json',
    write: ({ ready }, network) => asKea(ready, network),
  },
  { id: 'csv', name: 'CSV', ending: '.csv', type: 'text/csv', write: ({ ready }) => asLeaseCsv(ready) },
  { id: 'sheet', name: 'Sheet to type from', ending: '.txt', type: 'text/plain', write: asRouterSheet },
];

/** What the router is told, and what it tells. */
export function RouterPanel({ network }: { network: Network }) {
  const site = useAppSelector(selectSite);
  const { network: dialled } = useAppSelector(selectServer);
  const reservations = reservationsOf(site, network);
  return (
    <>
      <ReservationsOut reservations={reservations} network={network} />
      <LeaseImport />
      {dialled === 'simulated' && <DemoRouter reservations={reservations} />}
    </>
  );
}

function ReservationsOut({ reservations, network }: { reservations: Reservations; network: Network }) {
  const site = useAppSelector(selectSite);
  const [formatId, setFormatId] = useState('dnsmasq');
  const format = FORMATS.find(({ id }) => id === formatId) ?? FORMATS[0];
  if (!format) return null;
  const { ready, missing } = reservations;
  const text = format.write(reservations, network, site.name);
  return (
    <Panel
      title="Reservations for the router"
      aside={sayMany(ready.length, 'reservation')}
      actions={
        ready.length > 0 && (
          <>
            <CopyButton label={`Copy as ${format.name}`} text={() => text} />
            <Button
              onClick={() =>
                download(
                  `${fileNameOf(`${site.name} ${network.name} reservations`)}${format.ending}`,
                  format.type,
                  text,
                )
              }
            >
              Save {format.name}
            </Button>
          </>
        )
      }
    >
      {missing.length > 0 && (
        <ul className="mb-2 border-l-[3px] border-brass pl-3">
          {missing.map(({ camera, why }) => (
            <li key={camera}>
              <b>{camera}</b> is planned with a DHCP reservation, and {why}.
            </li>
          ))}
        </ul>
      )}
      {ready.length === 0 ? (
        <p className="text-soft">No camera of this network has a DHCP reservation planned. Plan it at its address.</p>
      ) : (
        <>
          <p className="mb-2 flex flex-wrap gap-1">
            {FORMATS.map(({ id, name }) => (
              <PickButton key={id} isPicked={id === format.id} onPick={() => setFormatId(id)}>
                {name}
              </PickButton>
            ))}
          </p>
          <section
            aria-label={`Reservations as ${format.name}`}
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a long text is scrolled by keys
            tabIndex={0}
            className="max-h-72 overflow-auto border border-hair bg-paper p-2"
          >
            <pre className="font-mono text-small">{text}</pre>
          </section>
        </>
      )}
    </Panel>
  );
}
