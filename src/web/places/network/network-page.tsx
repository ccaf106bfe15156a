import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { type RulerCounts, rulerOf } from '../../../core/places/network/ruler.ts';
import { isPoolSaid, readNetwork } from '../../../core/site/networks.ts';
import { networkFindings } from '../../../core/stations/address/index.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { FindingCard } from '../../ui/finding-card.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TabStrip } from '../../ui/tab-strip.tsx';
import { AddressList } from './address-list.tsx';
import { AddressRuler } from './address-ruler.tsx';
import { EmptyNetwork } from './empty-network.tsx';
import { ReachPanel } from './firewall-panel.tsx';
import { NetworkDialog } from './network-dialog.tsx';
import { Proposal } from './proposal.tsx';
import { RouterPanel } from './router-panel.tsx';
import { FindPanel } from './scan-panel.tsx';
import { useMoves } from './use-moves.ts';
import { type SweepOfNetwork, useSweep } from './use-scan.ts';

const VIEWS = [
  { value: 'addresses', label: 'Addresses' },
  { value: 'find', label: 'Scan' },
  { value: 'reach', label: 'Firewall' },
  { value: 'router', label: 'Router' },
] as const;

/** Addresses of a site, network by network: what is planned, what answers, who may reach what, what the router is told. */
export function NetworkPage() {
  const { networks } = useAppSelector(selectSite);
  const [search, setSearch] = useSearchParams();
  const [edited, setEdited] = useState<Network | 'new' | null>(null);
  const network = networks.find(({ id }) => id === search.get('network')) ?? networks[0];
  const view = VIEWS.find(({ value }) => value === search.get('view'))?.value ?? 'addresses';
  const go = (change: Readonly<Record<string, string>>): void =>
    setSearch({ ...Object.fromEntries(search), ...change }, { replace: true });
  const dialog = edited !== null && (
    <NetworkDialog
      before={edited === 'new' ? null : edited}
      onClose={() => setEdited(null)}
      onKept={(id) => go({ network: id })}
    />
  );
  if (!network)
    return (
      <>
        <EmptyNetwork onAdd={() => setEdited('new')} />
        {dialog}
      </>
    );
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-hair pb-3">
        <h1 tabIndex={-1} className="text-title outline-none">
          {network.name} <span className="font-mono text-name text-soft">{network.cidr}</span>
        </h1>
        <span className="ml-auto flex flex-wrap gap-2">
          {networks.length > 1 && (
            <label className="flex items-center gap-2 text-small text-soft">
              Network
              <select
                value={network.id}
                onChange={(event) => go({ network: event.target.value })}
                className="min-h-8 rounded-control border border-hair bg-paper px-2 text-base text-ink pointer-coarse:min-h-11"
              >
                {networks.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <Button onClick={() => setEdited(network)}>Change {network.name}</Button>
          <Button onClick={() => setEdited('new')}>Add a network</Button>
        </span>
      </header>
      <TabStrip label="Views of the network" value={view} onChange={(value) => go({ view: value })} tabs={VIEWS}>
        <div className="flex flex-col gap-4">
          {(view === 'addresses' || view === 'find') && (
            <div className={view === 'find' ? 'max-md:order-last' : ''}>
              <RulerPanel key={network.id} network={network} />
            </div>
          )}
          {view === 'addresses' && <AddressList network={network} />}
          {view === 'find' && <FindPanel key={network.id} network={network} />}
          {view === 'reach' && <ReachPanel />}
          {view === 'router' && <RouterPanel key={network.id} network={network} />}
        </div>
      </TabStrip>
      {dialog}
    </>
  );
}

/** What nobody said, or looked for, is not counted as none. */
function sayCounts(counts: RulerCounts, network: Network, { last, running }: SweepOfNetwork): string {
  const isLookedAt = last !== null || running !== null;
  const isWholeKnown = isPoolSaid(network) && isLookedAt;
  return [
    `${sayMany(counts.usable, 'address', 'addresses')}: ${isPoolSaid(network) ? `${counts.pool} in the DHCP range` : 'DHCP range not entered'}`,
    `${counts.planned} planned`,
    isLookedAt ? `${counts.unplanned} found that are not planned` : 'not scanned yet',
    `${isWholeKnown ? '' : 'at most '}${counts.free} free`,
  ].join(', ');
}

/** One look says what is wrong: findings of the network first, then its ruler. */
function RulerPanel({ network }: { network: Network }) {
  const site = useAppSelector(selectSite);
  const sweep = useSweep(network);
  const { hosts } = sweep;
  const move = useMoves();
  const ruler = useMemo(() => rulerOf(site, readNetwork(network), hosts), [site, network, hosts]);
  const findings = networkFindings(site.networks).filter(({ networkId }) => networkId === network.id);
  return (
    <Panel
      title="Addresses"
      aside={ruler && sayCounts(ruler.counts, network, sweep)}
      actions={<Proposal network={network} hosts={hosts} />}
    >
      {findings.length > 0 && (
        <div className="mb-3 flex flex-col gap-3">
          {findings.map(({ finding }) => (
            <FindingCard key={finding.rule} finding={finding} />
          ))}
        </div>
      )}
      {ruler ? (
        <>
          {!ruler.isWhole && (
            <p className="mb-1 text-small text-soft">It is large: only the part with planned addresses is shown.</p>
          )}
          <AddressRuler
            ruler={ruler}
            label={`Addresses of ${network.name}`}
            onMove={(pin, address) => move(pin.cameras, address)}
          />
          <RulerLegend />
        </>
      ) : (
        <p className="text-soft">Its address range is not valid, so it cannot be drawn.</p>
      )}
    </Panel>
  );
}

const LEGEND: readonly { readonly word: string; readonly draw: React.ReactNode }[] = [
  { word: 'reserved', draw: <circle cx="8" cy="8" r="4" fill="var(--verdigris)" /> },
  { word: 'static on the device', draw: <rect x="3" y="6.5" width="10" height="3" fill="var(--verdigris)" /> },
  {
    word: 'DHCP without a reservation',
    draw: <circle cx="8" cy="8" r="4" fill="none" stroke="var(--brass)" strokeWidth="1.6" />,
  },
  {
    word: 'destination',
    draw: <rect x="4.5" y="4.5" width="7" height="7" fill="none" stroke="var(--soft)" strokeWidth="1.4" />,
  },
  {
    word: 'DHCP range',
    draw: <path d="M1 13L9 3M5 14L13 4M9 14L15 6" stroke="var(--faint)" strokeWidth="1" />,
  },
  {
    word: 'answers',
    draw: <path d="M8 2c1 3 4 5 4 8.4a4 4 0 0 1 -8 0c0 -3.4 3 -5.4 4 -8.4z" fill="var(--verdigris)" />,
  },
  {
    word: 'found, unknown',
    draw: <path d="M8 2c1 3 4 5 4 8.4a4 4 0 0 1 -8 0c0 -3.4 3 -5.4 4 -8.4z" fill="none" stroke="var(--ink)" />,
  },
  { word: 'moved', draw: <path d="M1 8h14" stroke="var(--brass)" strokeWidth="1.6" strokeDasharray="4 3" /> },
];

const RulerLegend = () => (
  <p className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-small text-soft">
    {LEGEND.map(({ word, draw }) => (
      <span key={word} className="inline-flex items-center gap-1">
        <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
          {draw}
        </svg>
        {word}
      </span>
    ))}
  </p>
);
