import { type Verdict, worstVerdict } from '../../base/verdict.ts';
import type { Camera, Stream } from '../../document/chapters/cameras/camera.ts';
import type { SiteCommand } from '../../document/site-commands.ts';
import { hasAddress, plainUrlOf } from '../../document/stream-address.ts';
import { judgeProbe, type RememberedProbe, rememberedProbe } from '../../evidence/remembered-probe.ts';
import { bySeverity, type Mend } from '../../findings/finding.ts';
import { findingsOf, mendsOf, openQuestions, type Row, verdictOf } from '../../findings/rule.ts';
import { PROBE_RULES } from '../../probe/probe-rules.ts';
import { SESSIONS_RULES } from '../../sessions/sessions-rules.ts';
import { isOnWifi } from '../../site/connected-by.ts';
import type { SiteView } from '../../site/site-view.ts';
import { streamsInUse } from '../../site/to-probe.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';
import { countRows } from './count-findings.ts';
import { ONVIF_STATION_RULES, onvifMends, onvifRows } from './onvif-judgement.ts';
import { createTapJudge, type TapJudge } from './tap-judgement.ts';
import { foundOffers, pathOffers, tapOffers } from './tap-offers.ts';
import { TAP_RULES } from './tap-rules.ts';

export { countFindings } from './count-findings.ts';
export { onvifFindings } from './onvif-judgement.ts';
export { ofChannel, profileFor } from './onvif-plan-facts.ts';
export { judgeTap, type TapJudgement } from './tap-judgement.ts';
export { compareWays, type MeasuredWay } from './two-ways.ts';
export { WAY_WORDS, wayFor } from './way-advice.ts';
export { wayFacts } from './way-facts.ts';

interface GateFacts {
  readonly hasAddress: boolean;
  /** Of the streams in use, at their present addresses. */
  readonly probe: 'none' | 'outdated' | 'failed' | 'answered';
  readonly taps: readonly {
    readonly destination: string;
    readonly verdict: Verdict;
    readonly wanted: readonly string[];
  }[];
}

const unfit = ({ taps }: GateFacts) => taps.find(({ verdict }) => verdict === 'will-not-work');

/** What is still to be entered of a tap that nobody has seen working. */
const wantedOf = ({ taps }: GateFacts): string | undefined => taps.flatMap(({ wanted }) => wanted)[0];

const GATES: readonly Gate<GateFacts>[] = [
  {
    id: 'tap.address',
    condition: 'An address is entered',
    holds: (facts) => facts.hasAddress,
    next: () => 'Enter its address',
  },
  {
    id: 'tap.probed',
    condition: 'It was probed at this address',
    holds: ({ probe }) => probe === 'answered' || probe === 'failed',
    next: ({ probe }) => (probe === 'outdated' ? 'Probe the new address' : 'Probe it'),
  },
  {
    id: 'tap.answers',
    condition: 'Its stream plays',
    holds: ({ probe }) => probe === 'answered',
    next: () => 'Fix the stream and probe again',
  },
  {
    id: 'tap.given',
    condition: 'Its stream goes to a destination',
    holds: ({ taps }) => taps.length > 0,
    next: () => 'Choose where it goes',
  },
  {
    id: 'tap.fits',
    condition: 'It fits every destination',
    holds: (facts) => unfit(facts) === undefined,
    next: (facts) => `Make it fit ${unfit(facts)?.destination ?? ''}`,
  },
  {
    id: 'tap.known',
    condition: 'Whether it fits is known, or its picture was seen there',
    holds: (facts) => wantedOf(facts) === undefined,
    next: (facts) => `Enter ${wantedOf(facts)}`,
  },
];

/** The one judge of a document: what is recorded on a disk is added up once. */
export const tapJudgeOf = (view: SiteView): TapJudge => view.once(judgeOfView);
const judgeOfView = (view: SiteView): TapJudge => createTapJudge(view);

interface Probed {
  readonly stream: Stream;
  readonly probe: RememberedProbe | undefined;
}

/** The last probe of each stream in use, and of these the ones at their present address. */
function probesOf(
  camera: Camera,
  { index, tapsOf }: SiteView,
): { readonly all: readonly Probed[]; readonly current: readonly Probed[] } {
  const all = streamsInUse(camera, tapsOf(camera.id)).map((stream) => ({
    stream,
    probe: rememberedProbe(index, stream.id),
  }));
  return { all, current: all.filter(({ stream, probe }) => probe?.payload.url === plainUrlOf(camera, stream)) };
}

function probeState({ all, current }: ReturnType<typeof probesOf>): GateFacts['probe'] {
  if (current.some(({ probe }) => probe?.payload.verdict === 'fail')) return 'failed';
  if (current.length === all.length && all.length > 0) return 'answered';
  return all.some(({ probe }) => probe !== undefined) ? 'outdated' : 'none';
}

function verdictAt(facts: GateFacts, rows: readonly Row[]): Verdict {
  if (facts.probe === 'none' || facts.probe === 'outdated') return 'unknown';
  // A stream that nobody draws yet is judged by what was measured; that somebody is to draw it stands as the next step.
  return worstVerdict([verdictOf(rows), ...facts.taps.map(({ verdict }) => verdict)]);
}

export const TAP: Station<'tap'> = {
  id: 'tap',
  name: 'Tap',
  rules: [...PROBE_RULES, ...SESSIONS_RULES, ...TAP_RULES, ...ONVIF_STATION_RULES],
  gates: GATES,
  judge: (camera, view) => {
    const probes = probesOf(camera, view);
    const judge = tapJudgeOf(view);
    const judged = view.tapsOf(camera.id).map((tap) => ({ tap, judgement: judge.judge(tap) }));
    const rows = [
      ...probes.current.flatMap(({ probe }) =>
        probe ? judgeProbe(probe, view.site.assumptions, isOnWifi(view, camera.id)).rows : [],
      ),
      ...countRows(camera, view),
      ...onvifRows(camera, view),
    ];
    const facts: GateFacts = {
      hasAddress: hasAddress(camera),
      probe: probeState(probes),
      taps: judged.map(({ tap, judgement }) => ({
        destination: view.destination(tap.destinationId)?.name ?? tap.destinationId,
        verdict: judgement.verdict,
        wanted: judgement.isShown ? [] : judgement.wanted,
      })),
    };
    const at = probes.all[0]?.probe?.takenAt;
    return {
      verdict: verdictAt(facts, rows),
      findings: [...findingsOf(rows), ...judged.flatMap(({ judgement }) => judgement.findings)].sort(bySeverity),
      open: facts.probe === 'answered' ? openQuestions(rows) : [],
      gates: gateStates(GATES, facts),
      idle: at === undefined ? 'Not measured yet' : 'Nothing',
      measured: at === undefined ? null : { at, isOutdated: facts.probe === 'outdated' },
    };
  },
  mends: (camera, rule, view) => {
    if (rule.startsWith('probe.'))
      return probesOf(camera, view).current.flatMap(({ stream, probe }) => {
        const { cause, found: way } = probe?.payload ?? { cause: null, found: {} };
        if (cause === null || `probe.${cause}` !== rule) return [];
        const found = foundOffers(camera, stream, way);
        return found.length > 0 || cause !== 'not-found' ? found : pathOffers(view, camera, stream);
      });
    if (ONVIF_STATION_RULES.some(({ id }) => id === rule)) return onvifMends(camera, rule, view);
    const judge = tapJudgeOf(view);
    return view.tapsOf(camera.id).flatMap((tap): readonly Mend<SiteCommand>[] => {
      const destination = view.destination(tap.destinationId);
      const { facts, levers } = judge.judge(tap);
      return destination ? mendsOf(TAP_RULES, rule, facts, tapOffers(view, camera, destination, tap, levers)) : [];
    });
  },
};
