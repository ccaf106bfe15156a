import { Link } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import type { Lane } from '../../../core/lanes/lane-types.ts';
import { selectProbeAll } from '../../store/probe-all-slice.ts';
import { loginLineOf, selectServer } from '../../store/server-slice.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { MendAct } from '../../things/finding/index.ts';
import { SEVERITY_TEXT, SEVERITY_WORDS } from '../../ui/finding-card.tsx';

/** One camera of the Round. */
export interface LaneRow {
  readonly lane: Lane;
  readonly name: string;
  readonly model: string;
  readonly place: string;
  /** Where its next step is done. */
  readonly to: string;
}

/** Which lanes are chosen for what is done to several at once. */
export interface Choosing {
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (cameraId: string, isChosen: boolean) => void;
}

export const ChooseBox = ({ lane, name, chosen, onChoose }: Pick<LaneRow, 'lane' | 'name'> & Choosing) => (
  <input
    type="checkbox"
    aria-label={`Choose ${name}`}
    checked={chosen.has(lane.cameraId)}
    onChange={(event) => onChoose(lane.cameraId, event.target.checked)}
    className="no-print size-4 shrink-0 accent-verdigris pointer-coarse:size-6"
  />
);

/** px for all stations, and at most for one: as many as there are fit. */
export const stepOf = ({ all, one }: { readonly all: number; readonly one: number }, stations: number): number =>
  Math.min(one, Math.floor(all / Math.max(1, stations)));

/** Logins that its device refused in the last ten minutes, by whatever and whoever asked: the next may lock the account. */
function RefusedLogins({ cameraId }: { cameraId: string }) {
  const { logins } = useAppSelector(selectServer);
  const camera = useAppSelector(selectSite).cameras.find(({ id }) => id === cameraId);
  if (!camera || logins.length === 0) return null;
  const lines = [camera.account, camera.adminAccount].flatMap((account) =>
    account ? (loginLineOf(logins, camera.host, account.user) ?? []) : [],
  );
  return lines.map(({ user, refused, isLocked, isHeld }) => (
    <span key={user} className="block text-small text-brass">
      {sayMany(refused, 'refused login')} of “{user}” in ten minutes
      {isLocked ? ': it may be locked' : isHeld ? ': no more is sent without your consent' : ''}
    </span>
  ));
}

export function InTheWay({ lane, name, isBrief = false }: { lane: Lane; name: string; isBrief?: boolean }) {
  const isProbed = useAppSelector(selectProbeAll).at.includes(lane.cameraId);
  if (isProbed) return <p className="text-blue">Probing …</p>;
  if (lane.worst)
    return (
      <p>
        {!isBrief && (
          <b className={`mr-1.5 ${SEVERITY_TEXT[lane.worst.severity]}`}>{SEVERITY_WORDS[lane.worst.severity]}</b>
        )}
        {lane.worst.title}
        <RefusedLogins cameraId={lane.cameraId} />
        <span className="block">
          <MendAct cameraId={lane.cameraId} name={name} finding={lane.worst} />
        </span>
      </p>
    );
  return <p className="text-soft">{lane.idle}</p>;
}

export function standName({ stations, standsAt }: Lane): string {
  const stand = stations.find(({ station }) => station === standsAt);
  return stand ? `at ${stand.name}` : 'done';
}

export function NextStep({ lane, name, to }: { lane: Lane; name: string; to: string }) {
  return (
    <Link
      to={to}
      aria-label={`${lane.next ?? 'Open its sheet'}: ${name}`}
      className="inline-flex min-h-8 items-center font-strong text-verdigris hover:underline pointer-coarse:min-h-11"
    >
      {lane.next ?? 'Open its sheet'}&nbsp;→
    </Link>
  );
}
