import { type ReactNode, useState } from 'react';
import {
  type Forward,
  LOOK_INS,
  REACH_RANGES,
  type RemoteAccess,
} from '../../../core/document/chapters/reach/reach.ts';
import { classify, parseIpv4 } from '../../../core/net/ipv4.ts';
import { newId } from '../../store/new-id.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { KeptText } from '../../ui/kept-text.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { useReach } from './use-firewall.ts';

interface School {
  readonly name: string;
  readonly how: string;
  readonly caution: string;
  readonly draw: ReactNode;
}

const WALL = (
  <>
    <path d="M52 4v20M52 52v24M68 4v20M68 52v24" stroke="var(--ink)" strokeWidth="1.4" />
    <path d="M52 24h16M52 14h16M52 62h16M52 72h16" stroke="var(--faint)" />
  </>
);

/** Three cross-sections of a wall: a tunnel, a messenger at the gate, a hole. */
const SCHOOLS: Readonly<Record<RemoteAccess, School>> = {
  none: {
    name: 'No remote access',
    how: 'What happens in the house stays there.',
    caution: 'Tell the customer: the app will not show it on the way home.',
    draw: (
      <>
        <path d="M52 4v72M68 4v72" stroke="var(--ink)" strokeWidth="1.4" />
        <path d="M52 14h16M52 28h16M52 42h16M52 56h16M52 70h16" stroke="var(--faint)" />
      </>
    ),
  },
  tunnel: {
    name: 'VPN',
    how: 'The phone joins the house over an encrypted VPN, and then works as at home.',
    caution: 'Each device has its own key; revoke it when a phone is lost.',
    draw: (
      <>
        {WALL}
        <path d="M10 32h100M10 46h100" stroke="var(--verdigris)" strokeWidth="2" />
        <path d="M16 39h84l-6 -4m6 4l-6 4" stroke="var(--verdigris)" fill="none" />
      </>
    ),
  },
  relay: {
    name: 'A maker’s relay',
    how: 'The camera connects to its maker’s cloud relay, and whoever has the account gets the picture there.',
    caution: 'The picture leaves the house, and stops when the maker does. It needs internet access.',
    draw: (
      <>
        {WALL}
        <circle cx="26" cy="39" r="9" fill="none" stroke="var(--brass)" strokeWidth="1.6" />
        <path d="M108 39h-72l6 -4m-6 4l6 4" stroke="var(--brass)" strokeWidth="1.6" fill="none" />
      </>
    ),
  },
  forward: {
    name: 'Port forward',
    how: 'A port of the router leads directly to a camera or a recorder.',
    caution: 'The whole internet can try its login. Always a finding here: remove it, and use a VPN.',
    draw: (
      <>
        {WALL}
        <path d="M10 30h100M10 48h100" stroke="var(--brick)" strokeDasharray="3 4" />
        <path d="M10 39h90l-6 -4m6 4l-6 4M10 34l80 0M10 44l80 0" stroke="var(--brick)" strokeWidth="1.6" fill="none" />
      </>
    ),
  },
};

const OUTSIDE_WORDS: Readonly<Record<string, string>> = {
  public: 'Public: a port forward would work.',
  'shared-cgnat': 'Carrier-grade NAT: no port forward can work.',
  'ds-lite': 'DS-Lite: no port forward can work.',
  private: 'Private, double NAT: another router is in front of it, and needs the port forward too.',
};

/** How somebody looks in from outside, what is open to the world, and what belongs to each. */
export function RemoteAccessPanel() {
  const { reach, setReach } = useReach();
  const address = parseIpv4(reach.outsideAddress);
  return (
    <Panel title="Remote access">
      <fieldset className="grid grid-cols-1 gap-3 md:grid-cols-4">
        <legend className="sr-only">Kind of remote access</legend>
        {LOOK_INS.map((lookIn) => {
          const { name, how, caution, draw } = SCHOOLS[lookIn];
          const isChosen = reach.lookIn === lookIn;
          return (
            <label
              key={lookIn}
              className={`flex cursor-pointer flex-col border p-2.5 rounded-sheet ${isChosen ? 'border-ink bg-paper' : 'border-hair'}`}
            >
              <span className="flex items-center gap-2 font-strong">
                <input
                  type="radio"
                  name="look-in"
                  className="size-4 accent-verdigris"
                  checked={isChosen}
                  onChange={() => setReach({ ...reach, lookIn }, `Remote access: ${name.toLowerCase()}`)}
                />
                {name}
              </span>
              <svg viewBox="0 0 120 80" className="my-1 h-20 w-full" aria-hidden="true">
                {draw}
                <text x="4" y="76" className="fill-soft text-[9px]">
                  outside
                </text>
                <text x="116" y="76" textAnchor="end" className="fill-soft text-[9px]">
                  house
                </text>
              </svg>
              <span className="text-small">{how}</span>
              <span className={`mt-1 text-small ${lookIn === 'forward' ? 'text-brick' : 'text-soft'}`}>{caution}</span>
            </label>
          );
        })}
      </fieldset>
      <div className="mt-3 grid grid-cols-1 items-start gap-3 md:grid-cols-3">
        <KeptText
          label="WAN address of the router"
          placeholder="as its status page shows it"
          value={reach.outsideAddress}
          remarkOf={(text) =>
            text === '' || parseIpv4(text) !== null
              ? null
              : { stops: true, text: 'Four plain decimal numbers, as the router shows them.' }
          }
          hint={address === null ? undefined : (OUTSIDE_WORDS[classify(address)] ?? 'Not a usable WAN address.')}
          onKeep={(text) =>
            setReach({ ...reach, outsideAddress: text }, `WAN address of the router: ${text || 'not known'}`)
          }
        />
        <SelectField
          label="UPnP port mapping"
          value={reach.opensByItself === null ? '' : reach.opensByItself ? 'yes' : 'no'}
          onChange={(value) =>
            setReach(
              { ...reach, opensByItself: value === '' ? null : value === 'yes' },
              `UPnP port mapping: ${value || 'not known'}`,
            )
          }
          options={[
            { value: '', label: 'not known' },
            { value: 'no', label: 'off' },
            { value: 'yes', label: 'on' },
          ]}
        />
      </div>
      <Forwards />
    </Panel>
  );
}

/** Ports of the router that lead inside, as its page shows them. */
function Forwards() {
  const { reach, setReach } = useReach();
  const { cameras, destinations } = useAppSelector(selectSite);
  const [draft, setDraft] = useState<{ outsidePort: number | null; host: string; port: number | null }>({
    outsidePort: null,
    host: '',
    port: 554,
  });
  const host = draft.host.trim();
  const isReady = draft.outsidePort !== null && draft.port !== null && parseIpv4(host) !== null;
  const nameAt = (at: string): string =>
    [...cameras, ...destinations]
      .filter((one) => one.host !== '' && one.host === at)
      .map(({ name }) => name)
      .join(', ') || 'an unknown device';
  const add = (): void => {
    if (draft.outsidePort === null || draft.port === null || !isReady) return;
    const forward: Forward = { id: newId('forward'), outsidePort: draft.outsidePort, host, port: draft.port };
    setReach(
      { ...reach, forwards: [...reach.forwards, forward] },
      `Port forward: ${forward.outsidePort} to ${host}:${forward.port}`,
    );
    setDraft({ outsidePort: null, host: '', port: 554 });
  };
  return (
    <section aria-label="Port forwards" className="mt-3 border-t border-hair pt-3">
      <h3 className="mb-1 text-small">Port forwards of the router</h3>
      {reach.forwards.length > 0 && (
        <ul className="mb-2">
          {reach.forwards.map((forward) => (
            <li
              key={forward.id}
              className="flex flex-wrap items-center gap-2 border-b border-grid py-1 last:border-b-0"
            >
              <span className="font-mono text-brick">
                {forward.outsidePort} → {forward.host}:{forward.port}
              </span>
              <span>{nameAt(forward.host)}</span>
              <Button
                className="ml-auto"
                aria-label={`Remove port forward ${forward.outsidePort}`}
                onClick={() =>
                  setReach(
                    { ...reach, forwards: reach.forwards.filter(({ id }) => id !== forward.id) },
                    `Port forward ${forward.outsidePort} removed`,
                  )
                }
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="grid grid-cols-6 items-end gap-2 md:max-w-xl">
        <NumberField
          label="Outside port"
          className="col-span-2"
          isOptional
          value={draft.outsidePort}
          range={REACH_RANGES.port}
          onKeep={(outsidePort) => setDraft({ ...draft, outsidePort })}
        />
        <TextField
          label="forwards to"
          isCode
          className="col-span-2"
          value={draft.host}
          onChange={(event) => setDraft({ ...draft, host: event.target.value })}
        />
        <NumberField
          label="port"
          className="col-span-1"
          isOptional
          value={draft.port}
          range={REACH_RANGES.port}
          onKeep={(port) => setDraft({ ...draft, port })}
        />
        <Button disabled={!isReady} onClick={add}>
          Add
        </Button>
      </div>
    </section>
  );
}
