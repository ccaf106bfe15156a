import { useState } from 'react';
import { sayCount, sayMany } from '../../../core/base/say.ts';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { liesWithin, parseScanRange } from '../../../core/net/scan-range.ts';
import { USUAL_PORTS } from '../../../core/scan/greetings.ts';
import {
  atOnceOf,
  callsOf,
  impliedSeconds,
  MOST_PORTS,
  readPorts,
  SCAN_RANGES,
  USUAL_PACE,
} from '../../../core/scan/scan-plan.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { CheckField } from '../../ui/check-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { TextField } from '../../ui/text-field.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { CatchPanel } from './catch-panel.tsx';
import { sweepRunner } from './scan-runner.ts';
import { useSweep } from './use-scan.ts';

/** What looks for cameras in a network, gently, where somebody said that one may. */
export function FindPanel({ network }: { network: Network }) {
  const sweep = useSweep(network);
  return (
    <>
      {network.permit === '' ? <PermitPanel network={network} /> : <SweepPanel network={network} />}
      {(sweep.hosts.length > 0 || sweep.running) && <CatchPanel network={network} sweep={sweep} />}
    </>
  );
}

/** Said once, and kept in the logbook: only networks that one owns, or is asked to work on. */
function PermitPanel({ network }: { network: Network }) {
  const dispatch = useAppDispatch();
  const [who, setWho] = useState('');
  const permit = who.trim();
  return (
    <Panel title="Who permits the scan?">
      <p className="mb-2">
        Scan only networks that you own, or are asked to work on. Enter who permits it; it is recorded once.
      </p>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (permit !== '') dispatch(commandIssued({ kind: 'putNetwork', network: { ...network, permit } }));
        }}
      >
        <TextField
          label="Owner, or who asked you"
          className="w-72"
          maxLength={80}
          value={who}
          onChange={(event) => setWho(event.target.value)}
        />
        <Button kind="main" type="submit" disabled={permit === ''}>
          I may scan {network.name}
        </Button>
      </form>
    </Panel>
  );
}

/** What will be done is said before it is: how many calls, how fast, how long. */
function SweepPanel({ network }: { network: Network }) {
  const dispatch = useAppDispatch();
  const { running, last } = useSweep(network);
  const [rangeText, setRangeText] = useState(network.cidr);
  const [portsText, setPortsText] = useState(USUAL_PORTS.join(', '));
  const [rate, setRate] = useState(USUAL_PACE.rate);
  const [asksAll, setAsksAll] = useState(true);
  const read = parseScanRange(rangeText);
  // the permission is for this network, and for no other
  const range =
    read.ok && !liesWithin(read.value, network.cidr)
      ? ({
          ok: false,
          error: { message: `Outside of ${network.cidr}: the permission for ${network.name} covers no other network.` },
        } as const)
      : read;
  const ports = readPorts(portsText);
  const pace = { ...USUAL_PACE, rate };
  const calls = range.ok && ports ? callsOf(range.value, ports) : 0;
  const isRunning = running?.status === 'running';
  const start = (): void => {
    if (range.ok && ports)
      void sweepRunner.start(
        network.id,
        {
          range: rangeText,
          within: network.cidr,
          ports: [...ports],
          rate,
          timeoutMs: pace.timeoutMs,
          discover: asksAll,
        },
        dispatch,
      );
  };
  return (
    <Panel
      title="Scan it"
      aside={`${network.permit} permits it`}
      actions={
        <ThumbBar>
          {isRunning ? (
            <Button onClick={() => sweepRunner.cancel()}>Cancel</Button>
          ) : (
            <Button kind="main" disabled={!range.ok || !ports} onClick={start}>
              Scan it
            </Button>
          )}
        </ThumbBar>
      }
    >
      <div className="grid grid-cols-6 items-start gap-x-3 gap-y-2">
        <TextField
          label="Range"
          isCode
          className="col-span-6 md:col-span-2"
          value={rangeText}
          error={range.ok ? null : range.error.message}
          onChange={(event) => setRangeText(event.target.value)}
        />
        <TextField
          label="Ports"
          isCode
          className="col-span-6 md:col-span-2"
          value={portsText}
          error={ports ? null : `Up to ${MOST_PORTS} ports from 1 to 65535, separated by commas.`}
          onChange={(event) => setPortsText(event.target.value)}
        />
        <NumberField
          label="Connections a second"
          className="col-span-3 md:col-span-1"
          value={rate}
          range={SCAN_RANGES.rate}
          onKeep={(value) => setRate(value ?? USUAL_PACE.rate)}
        />
        <CheckField
          className="col-span-6"
          label="Discovery by WS-Discovery too: ONVIF devices answer with their identity"
          checked={asksAll}
          onChange={(event) => setAsksAll(event.target.checked)}
        />
      </div>
      {isRunning || running?.status === 'failed' ? (
        <Progress running={running} />
      ) : (
        <p className="mt-1 text-soft">
          {range.ok && ports
            ? `${sayCount(calls)} connections, at most ${atOnceOf(pace)} at once, no login tried: about ${Math.ceil(impliedSeconds(calls, pace))} s.`
            : 'Enter a valid range and valid ports first.'}
          {last && ` Last scanned ${sayWhen(last.at)}${last.isWhole ? '' : ', not completely'}.`}
        </p>
      )}
    </Panel>
  );
}

function Progress({ running }: { running: NonNullable<ReturnType<typeof useSweep>['running']> }) {
  const { asked, of, hosts, trouble, status } = running;
  const share = of === 0 ? 0 : asked / of;
  return (
    <div className="mt-2">
      {status === 'running' && (
        <>
          <div
            role="progressbar"
            aria-label="Connections made"
            aria-valuemin={0}
            aria-valuemax={of}
            aria-valuenow={asked}
            className="h-2 border border-hair bg-paper"
          >
            <div className="h-full bg-verdigris" style={{ width: `${100 * share}%` }} />
          </div>
          <p className="mt-1">
            {sayCount(asked)} of {sayMany(of, 'call')} made, {sayMany(hosts.length, 'address', 'addresses')} answered
          </p>
        </>
      )}
      {trouble && (
        <p role="alert" className="mt-1 border-l-[3px] border-brass pl-3">
          {trouble}
        </p>
      )}
    </div>
  );
}
