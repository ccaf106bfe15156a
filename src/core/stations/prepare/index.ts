import { findingsOf, judgeRows, mendsOf, openQuestions, verdictOf } from '../../findings/rule.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';
import { type PlannedFacts, plannedFacts, saidGate, stopGate } from '../planned-gates.ts';
import { judgePrepare } from './prepare-judgement.ts';
import { prepareOffers } from './prepare-offers.ts';
import { PREPARE_RULES } from './prepare-rules.ts';

export { strengthWords } from './account-rules.ts';
export { decisionOf, hasGuide } from './firmware-facts.ts';
export { heatOfOldPhone, loadOf, readingUnder } from './old-phone-heat.ts';
export { sayMinutes } from './old-phone-rules.ts';
export { ownUser } from './own-user.ts';
export { runOf, type ToldStep } from './reflash-run.ts';
export { agrees, isKnown, type Setting, settingsOf } from './settings.ts';

interface GateFacts extends PlannedFacts {
  readonly hasAccount: boolean;
  readonly openSettings: readonly string[];
  /** What is next about its firmware; `null` where nothing is. */
  readonly firmwareNext: string | null;
}

const GATES: readonly Gate<GateFacts>[] = [
  saidGate({
    id: 'prepare.account',
    condition: 'It has a streaming account',
    holds: ({ hasAccount }) => hasAccount,
    next: () => 'Create its streaming account',
  }),
  saidGate({
    id: 'prepare.firmware',
    condition: 'Its firmware has a local stream',
    holds: ({ firmwareNext }) => firmwareNext === null,
    next: ({ firmwareNext }) => firmwareNext ?? '',
  }),
  saidGate({
    id: 'prepare.settings',
    condition: 'The settings that matter are confirmed',
    holds: ({ openSettings }) => openSettings.length === 0,
    next: ({ openSettings }) => `Check its settings: ${openSettings[0]}`,
  }),
  stopGate('prepare.fits', 'No open findings about its preparation', 'Fix its preparation'),
];

/** What is to be done about its firmware, from what was decided and how far it got. */
function firmwareNext({
  needsFirmware,
  decision,
  writes,
  phase,
}: ReturnType<typeof judgePrepare>['facts']): string | null {
  if (phase !== undefined && phase !== 'stopped') return phase === 'done' ? null : 'Continue its reflash';
  if (writes) return 'Write its firmware';
  if (decision === 'replace') return 'Replace it';
  return needsFirmware ? 'Decide its firmware' : null;
}

export const PREPARE: Station<'prepare'> = {
  id: 'prepare',
  name: 'Prepare',
  rules: PREPARE_RULES,
  gates: GATES,
  judge: (camera, view) => {
    const { facts } = judgePrepare(camera, view);
    const rows = judgeRows(PREPARE_RULES, facts);
    const findings = findingsOf(rows);
    const gates = gateStates(GATES, {
      hasAccount: facts.hasAccount ?? false,
      openSettings: facts.openSettings ?? [],
      firmwareNext: firmwareNext(facts),
      ...plannedFacts(camera, findings),
    });
    return { verdict: verdictOf(rows), findings, open: openQuestions(rows), gates, idle: 'Nothing is prepared yet' };
  },
  mends: (camera, rule, view) =>
    rule.startsWith('prepare.')
      ? mendsOf(PREPARE_RULES, rule, judgePrepare(camera, view).facts, prepareOffers(view, camera))
      : [],
};
