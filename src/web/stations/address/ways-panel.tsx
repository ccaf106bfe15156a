import type { Verdict } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import type { Way } from '../../../core/stations/address/index.ts';
import { judgeAddress } from '../../../core/stations/address/index.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Drop } from '../../ui/drop.tsx';
import { Panel } from '../../ui/panel.tsx';

const verdictOf = ({ isSame, allowed }: Way): Verdict =>
  isSame || allowed === 'all' || allowed === 'listed' ? 'ok' : allowed === 'none' ? 'will-not-work' : 'unknown';

const said = ({ isSame, allowed, from, to, port }: Way): string => {
  if (isSame) return `same network, ${from}`;
  const across = `${from} → ${to}`;
  if (allowed === 'none') return `${across}: blocked by the firewall, port ${port} is needed`;
  if (allowed === null) return `${across}: firewall not known, port ${port} is needed`;
  return `${across}: ${allowed === 'all' ? 'all ports allowed' : `port ${port} allowed`}`;
};

/** Which destination may reach it, and over which networks. */
export function WaysPanel({ camera }: { camera: Camera }) {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const view = viewOf(site, index);
  const { ways = [] } = judgeAddress(camera, view).facts;
  const drawn = view.tapsOf(camera.id);
  const known = new Set(ways.map(({ destination }) => destination));
  const unknown = [...new Set(drawn.map(({ destinationId }) => view.destination(destinationId)?.name ?? ''))].filter(
    (name) => !known.has(name),
  );
  return (
    <Panel title="Destinations and firewall">
      {drawn.length === 0 ? (
        <p className="text-soft">No destination yet.</p>
      ) : (
        <ul>
          {ways.map((way) => (
            <li key={way.destination} className="flex items-start gap-2 border-b border-grid py-1 last:border-b-0">
              <Drop verdict={verdictOf(way)} />
              <span>
                <b>{way.destination}</b> <span className="text-soft">{said(way)}</span>
              </span>
            </li>
          ))}
          {unknown.map((name) => (
            <li key={name} className="flex items-start gap-2 border-b border-grid py-1 last:border-b-0">
              <Drop verdict="unknown" />
              <span>
                <b>{name}</b>{' '}
                <span className="text-soft">
                  {site.networks.length === 0 ? 'no network is entered' : 'the network of one of the two is not known'}
                </span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
