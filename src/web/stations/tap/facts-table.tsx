import type { ChangedAssumptions } from '../../../core/assumptions/assumptions.ts';
import { sayCount, sayFps, sayMs, sayRate, sayShare, sayStretch } from '../../../core/base/say.ts';
import { shareInterval } from '../../../core/base/wilson.ts';
import type { Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { sayQuantity } from '../../../core/document/chapters/journal/quantities.ts';
import { streamSubject } from '../../../core/document/subject.ts';
import { type Known, knownAs, streamFacts } from '../../../core/evidence/best-known.ts';
import type { EvidenceIndex } from '../../../core/evidence/evidence-index.ts';
import { judgeProbe, lastProbeWith } from '../../../core/evidence/remembered-probe.ts';
import type { Severity } from '../../../core/findings/finding.ts';
import type { ProbeFacts } from '../../../core/probe/probe-facts.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { KnownHowMark } from '../../ui/known-how.tsx';

interface FactRow {
  readonly name: string;
  readonly declared: string | null;
  readonly measured: string | null;
  /** How the value that is used elsewhere is known. */
  readonly best: Known | null;
  readonly tone?: 'brass' | 'brick';
}

const number = (known: Known | null): number | null => (known && typeof known.value === 'number' ? known.value : null);
const say = (known: Known | null, words: (value: number) => string): string | null => {
  const value = number(known);
  return value === null ? null : words(value);
};

/** What a count proves; none lost proves a share that may still be there. */
function sayLoss(lost: number, expected: number): string {
  const { low, high } = shareInterval(lost, expected);
  return lost === 0
    ? `none of ${sayCount(expected)}: at most ${sayShare(high)}`
    : `${sayCount(lost)} of ${sayCount(expected)}: ${sayShare(low)} to ${sayShare(high)}`;
}

/** As the finding about it says: one event is no red number. */
const LOSS_TONES: Readonly<Partial<Record<Severity, FactRow['tone']>>> = {
  stop: 'brick',
  fix: 'brass',
  caution: 'brass',
};

function rowsOf(index: EvidenceIndex, stream: Stream, assumptions: ChangedAssumptions): readonly FactRow[] {
  const subject = streamSubject(stream.id);
  const as = (quantity: string, how: 'declared' | 'measured') => knownAs(index, subject, quantity, how);
  const facts = streamFacts(index, stream);
  const size = (how: 'declared' | 'measured'): string | null => {
    const [width, height] = [number(as('width', how)), number(as('height', how))];
    return width && height ? `${width}×${height}` : null;
  };
  const profile = as('profile', 'declared');
  const loss = as('lossRatio', 'measured');
  const lossRatio = number(loss);
  const probed = (name: keyof ProbeFacts): Known | null => {
    const last = lastProbeWith(index, stream.id, name);
    const value = last?.payload.facts[name];
    return last && value !== undefined ? { value, how: 'measured', source: last.source, takenAt: last.takenAt } : null;
  };
  const [lost, expected] = [number(probed('lost')), number(probed('expected'))];
  const keyFrames = as('keyframeIntervalFrames', 'measured');
  const keySeconds = number(as('keyframeIntervalSeconds', 'measured'));
  const clock = probed('clockErrorS');
  const login = probed('authScheme');
  const counted = lastProbeWith(index, stream.id, 'lost');
  const ofLoss =
    counted && judgeProbe(counted, assumptions, undefined).findings.find(({ rule }) => rule === 'rtp.loss');
  const lossTone = ofLoss && LOSS_TONES[ofLoss.severity];
  const longestGap = number(as('longestGapMs', 'measured'));
  return [
    {
      name: 'codec',
      declared: profile ? `${facts.codec?.value ?? ''} ${profile.value}` : null,
      measured: as('codec', 'measured')?.value.toString() ?? null,
      best: facts.codec,
    },
    { name: 'resolution', declared: size('declared'), measured: size('measured'), best: facts.width },
    {
      name: 'frame rate',
      declared: say(as('fps', 'declared'), sayFps),
      measured: say(as('fps', 'measured'), sayFps),
      best: facts.fps,
    },
    {
      name: 'key-frame interval',
      declared: null,
      measured: say(keyFrames, (frames) => `${sayCount(frames)} · ${keySeconds?.toFixed(2) ?? '?'} s`),
      best: keyFrames,
    },
    ...groupRow(probed),
    {
      name: 'bit rate',
      declared: say(as('bitrateKbps', 'declared'), sayRate),
      measured: say(as('bitrateKbps', 'measured'), sayRate),
      best: facts.bitrateKbps,
    },
    {
      name: 'packet loss',
      declared: null,
      measured: lossRatio === null ? null : lost === null || !expected ? sayShare(lossRatio) : sayLoss(lost, expected),
      best: loss,
      ...(lossTone ? { tone: lossTone } : {}),
    },
    {
      name: 'jitter',
      declared: null,
      measured: say(
        as('jitterMs', 'measured'),
        (ms) => `${ms.toFixed(1)} ms${longestGap === null ? '' : ` · longest gap +${sayMs(longestGap)}`}`,
      ),
      best: as('jitterMs', 'measured'),
    },
    ...soundRows(as),
    {
      name: 'camera clock',
      declared: null,
      measured: say(clock, (s) => (Math.abs(s) < 0.05 ? 'right' : `${s < 0 ? '−' : '+'}${sayStretch(Math.abs(s))}`)),
      best: clock,
    },
    {
      name: 'login',
      declared: null,
      measured: sayLogin(login),
      best: login,
    },
  ];
}

/** How pictures lean on each other; nothing where no sample told it. */
function groupRow(probed: (name: keyof ProbeFacts) => Known | null): readonly FactRow[] {
  const bFrames = probed('bFrames');
  const open = number(probed('openKeyFrames'));
  const closed = number(probed('closedKeyFrames'));
  const words = [
    bFrames === null ? null : bFrames.value === true ? 'with B-frames' : 'no B-frames',
    open === null || closed === null || open + closed === 0 ? null : open > 0 && closed === 0 ? 'open' : 'closed',
  ].filter((part) => part !== null);
  return words.length === 0 ? [] : [{ name: 'GOP', declared: null, measured: words.join(' · '), best: bFrames }];
}

/** What was found of sound beside the picture; nothing where no track of it was described. */
function soundRows(as: (quantity: string, how: 'declared' | 'measured') => Known | null): readonly FactRow[] {
  const codec = as('sound.codec', 'declared');
  const said = (quantity: string, how: 'declared' | 'measured'): string | null => {
    const known = as(quantity, how);
    return known && sayQuantity(quantity, known.value);
  };
  const parts = (...all: readonly (string | null)[]): string | null => all.filter(Boolean).join(' · ') || null;
  const rate = as('sound.bitrateKbps', 'measured');
  const loss = as('sound.lossRatio', 'measured');
  if (!codec && !rate) return [];
  return [
    {
      name: 'audio',
      declared: parts(
        codec && String(codec.value),
        said('sound.clockHz', 'declared'),
        said('sound.channels', 'declared'),
      ),
      measured: loss ? `${sayShare(number(loss) ?? 0)} lost` : null,
      best: loss ?? codec,
    },
    {
      name: 'audio bit rate',
      declared: said('sound.bitrateKbps', 'declared'),
      measured: said('sound.bitrateKbps', 'measured'),
      best: rate,
    },
  ];
}

const LOGINS: Readonly<Record<string, string>> = {
  none: 'none',
  basic: 'Basic',
  'digest-md5': 'Digest MD5',
  'digest-sha-256': 'Digest SHA-256',
  'digest-sha-512-256': 'Digest SHA-512/256',
};
const sayLogin = (known: Known | null): string | null => (known ? (LOGINS[String(known.value)] ?? null) : null);

const TONES = { brass: 'text-brass font-strong', brick: 'text-brick font-strong' } as const;

/** The stream's facts: what the camera says beside what it does, and how the number that counts is known. */
export function FactsTable({ index, stream }: { index: EvidenceIndex; stream: Stream }) {
  const assumptions = useAppSelector((root) => selectSite(root).assumptions);
  return (
    <table className="w-full">
      <thead>
        <tr className="text-small text-soft">
          <th className="py-1 text-left">{stream.label} stream</th>
          <th className="py-1 text-right">declared</th>
          <th className="py-1 pl-3 text-right">measured</th>
          <th className="w-7">
            <span className="sr-only">known how</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rowsOf(index, stream, assumptions).map(({ name, declared, measured, best, tone }) => (
          <tr key={name} className="border-t border-grid">
            <th scope="row" className="py-1 text-left font-normal">
              {name}
            </th>
            <td className="py-1 text-right font-mono text-small">{declared ?? '–'}</td>
            <td className={`py-1 pl-3 text-right font-mono text-small ${tone ? TONES[tone] : ''}`}>
              {measured ?? '–'}
            </td>
            <td className="pl-2 text-right align-middle">
              {best && (declared !== null || measured !== null) && (
                <KnownHowMark how={best.how} detail={best.takenAt ? undefined : best.source} />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
