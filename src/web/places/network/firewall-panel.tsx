import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { INTERNET, PASSAGES, type Passage, type Reach } from '../../../core/document/chapters/reach/reach.ts';
import { transportOf } from '../../../core/evidence/best-known.ts';
import {
  endsOf,
  neededPassages,
  type Opening,
  openingsOf,
  passageBetween,
  sayOpeningPort,
  withPassage,
} from '../../../core/site/reach.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { CopyButton } from '../../ui/copy-button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { RemoteAccessPanel } from './remote-access-panel.tsx';
import { useReach } from './use-firewall.ts';

const PASSAGE_WORDS: Readonly<Record<Passage, string>> = {
  all: 'everything',
  listed: 'only what is needed',
  none: 'nothing',
};

/** Who may open what at whom, and how somebody looks in from outside. */
export function ReachPanel() {
  return (
    <>
      <PassagesPanel />
      <OpeningsPanel />
      <RemoteAccessPanel />
    </>
  );
}

/** One row for each network that opens, one column for each that is opened; what a tap needs is marked. */
function PassagesPanel() {
  const site = useAppSelector(selectSite);
  const { reach, setReach } = useReach();
  const ends = endsOf(site);
  const index = useAppSelector(selectIndex);
  const openings = openingsOf(site, (streamId) => transportOf(index, streamId));
  const needed = neededPassages(openings);
  const rows = ends.filter(({ subject }) => subject !== INTERNET);
  const set = (from: string, to: string, allowed: Passage | null, said: string): void =>
    setReach({ ...reach, rows: withPassage(reach.rows, from, to, allowed) }, said);
  /** Between networks: only what a tap needs is open. Whether a network needs the internet, only its people know. */
  const closed = (): Reach => {
    let { rows: table } = reach;
    for (const { subject: from } of rows)
      for (const { subject: to } of rows)
        if (from !== to && passageBetween(table, from, to) === null)
          table = withPassage(table, from, to, needed.has(`${from} ${to}`) ? 'listed' : 'none');
    return { ...reach, rows: table };
  };
  return (
    <Panel
      title="Firewall rules between networks"
      aside="empty is not known"
      actions={
        ends.length > 2 && (
          <Button onClick={() => setReach(closed(), 'Undecided rules set to blocked, except what taps need')}>
            Block what is not needed
          </Button>
        )
      }
    >
      <div className="overflow-x-auto">
        <table className="w-full min-w-[520px]">
          <thead>
            <tr className="border-b border-hair text-left text-small text-soft">
              <th className="py-1 pr-3 font-normal">from ↓ into →</th>
              {ends.map(({ subject, name }) => (
                <th key={subject} className="px-2 py-1 font-normal">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((from) => (
              <tr key={from.subject} className="border-b border-grid last:border-b-0">
                <th scope="row" className="py-1.5 pr-3 text-left">
                  {from.name}
                </th>
                {ends.map((to) => (
                  <td key={to.subject} className="px-2 py-1.5">
                    {from.subject === to.subject ? (
                      <span className="text-soft">neighbours</span>
                    ) : (
                      <PassageField
                        label={`From ${from.name} to ${to.name}`}
                        value={passageBetween(reach.rows, from.subject, to.subject)}
                        isNeeded={needed.has(`${from.subject} ${to.subject}`)}
                        onChange={(allowed) =>
                          set(
                            from.subject,
                            to.subject,
                            allowed,
                            `From ${from.name} to ${to.name}: ${allowed === null ? 'not known' : PASSAGE_WORDS[allowed]}`,
                          )
                        }
                      />
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-small text-soft">
        Block cameras from the internet unless something needs it. These then stop: time servers outside (use the
        router), the maker’s own app, and notifications through the maker’s cloud.
      </p>
    </Panel>
  );
}

interface PassageFieldProps {
  readonly label: string;
  readonly value: Passage | null;
  readonly isNeeded: boolean;
  readonly onChange: (value: Passage | null) => void;
}

function PassageField({ label, value, isNeeded, onChange }: PassageFieldProps) {
  const look = value === 'all' ? 'border-brass' : value === 'none' && isNeeded ? 'border-brick' : 'border-hair';
  return (
    <span className="flex flex-col gap-0.5">
      <select
        aria-label={label}
        value={value ?? ''}
        onChange={(event) => onChange(PASSAGES.find((one) => one === event.target.value) ?? null)}
        className={`min-h-8 rounded-control border bg-paper px-2 pointer-coarse:min-h-11 ${look} ${value === null ? 'text-soft' : ''}`}
      >
        <option value="">not known</option>
        {PASSAGES.map((one) => (
          <option key={one} value={one}>
            {PASSAGE_WORDS[one]}
          </option>
        ))}
      </select>
      {isNeeded && (
        <span className={`text-small ${value === 'none' ? 'text-brick' : 'text-verdigris'}`}>a tap needs it</span>
      )}
    </span>
  );
}

const asText = (openings: readonly Opening[]): string =>
  openings
    .map(
      ({ from, fromAddress, to, toAddress, protocol, port, isKnown, why }) =>
        `${isKnown ? 'allow' : '# perhaps: allow'} ${protocol} from ${fromAddress} (${from}) to ${toAddress} port ${port ?? 'any'} (${to}): ${why}`,
    )
    .join('\n');

/** Openings that a firewall needs, and no more. */
function OpeningsPanel() {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const openings = openingsOf(site, (streamId) => transportOf(index, streamId));
  const [isAll, setIsAll] = useState(false);
  const shown = isAll ? openings : openings.slice(0, 20);
  return (
    <Panel
      title="Firewall rules needed"
      aside={openings.length === 0 ? undefined : `${sayMany(openings.length, 'opening')}, no others`}
      actions={openings.length > 0 && <CopyButton label="Copy the rules" text={() => asText(openings)} />}
    >
      {openings.length === 0 ? (
        <p className="text-soft">
          {site.taps.length === 0
            ? 'No camera has a destination yet.'
            : 'None: every destination is in the network of its cameras, as far as it is known.'}
        </p>
      ) : (
        <ul>
          {shown.map((one) => (
            <li
              key={`${one.from} ${one.to} ${one.protocol} ${one.port}`}
              className="grid grid-cols-1 gap-x-3 border-b border-grid py-1 last:border-b-0 md:grid-cols-[minmax(0,2fr)_minmax(0,2fr)_90px_minmax(0,2fr)]"
            >
              <span>
                {one.from} <span className="font-mono text-small text-soft">{one.fromAddress}</span>
              </span>
              <span>
                → {one.to} <span className="font-mono text-small text-soft">{one.toAddress}</span>
              </span>
              <span className="font-mono">{sayOpeningPort(one)}</span>
              <span className="text-small text-soft">{one.why}</span>
            </li>
          ))}
        </ul>
      )}
      {openings.some(({ protocol, port }) => protocol === 'tcp' && port !== null) && (
        <p className="mt-2 text-small text-soft">
          A destination that is set to UDP also needs the camera’s RTP and RTCP, from the camera to its UDP ports: set
          it to TCP, or open those.
        </p>
      )}
      {openings.length > shown.length && (
        <Button kind="quiet" onClick={() => setIsAll(true)}>
          Show all {openings.length}
        </Button>
      )}
    </Panel>
  );
}
