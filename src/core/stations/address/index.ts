import { hasAddress } from '../../document/stream-address.ts';
import { findingsOf, judgeRows, mendsOf, openQuestions, verdictOf } from '../../findings/rule.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';
import { stopGate } from '../planned-gates.ts';
import { judgeAddress } from './address-judgement.ts';
import { addressOffers } from './address-offers.ts';
import { ADDRESS_RULES } from './address-rules.ts';
import { rowsOfNetworks } from './network-judgement.ts';
import { NETWORK_RULES } from './network-rules.ts';

export type { Way } from './address-facts.ts';
export { judgeAddress } from './address-judgement.ts';
export { networkFindings } from './network-judgement.ts';

interface GateFacts {
  readonly hasAddress: boolean;
  readonly isStopped: boolean;
  /** Without a network that is described nobody can say whether an address stays: then nobody is asked. */
  readonly isUndecided: boolean;
}

const GATES: readonly Gate<GateFacts>[] = [
  {
    id: 'address.said',
    condition: 'An address is entered',
    holds: (facts) => facts.hasAddress,
    next: () => 'Enter its address',
  },
  {
    id: 'address.stays',
    condition: 'Address assignment is decided',
    holds: ({ isUndecided }) => !isUndecided,
    next: () => 'Decide: DHCP reservation or static address',
  },
  stopGate('address.fits', 'No open findings about its address', 'Fix its address'),
];

export const ADDRESS: Station<'address'> = {
  id: 'address',
  name: 'Address',
  rules: [...ADDRESS_RULES, ...NETWORK_RULES],
  gates: GATES,
  judge: (camera, view) => {
    const { facts, network } = judgeAddress(camera, view);
    const ofNetwork = network ? (view.once(rowsOfNetworks).get(network.network.id) ?? []) : [];
    const rows = [...judgeRows(ADDRESS_RULES, facts), ...ofNetwork];
    const findings = findingsOf(rows);
    const gates = gateStates(GATES, {
      hasAddress: hasAddress(camera),
      isStopped: findings.some(({ severity }) => severity === 'stop'),
      isUndecided: network !== null && facts.notation === 'plain' && camera.keeping === null,
    });
    const isUnknown = !hasAddress(camera) || view.site.networks.length === 0;
    const verdict = verdictOf(rows);
    return {
      verdict: isUnknown && verdict === 'ok' ? 'unknown' : verdict,
      findings,
      // of an address that is not there the next step speaks
      open: hasAddress(camera) ? openQuestions(rows) : [],
      gates,
      idle: 'No address yet',
    };
  },
  mends: (camera, rule, view) => {
    if (rule.startsWith('address.'))
      return mendsOf(ADDRESS_RULES, rule, judgeAddress(camera, view).facts, addressOffers(view, camera));
    // of a network that is described wrong nobody here knows how it is right
    return [];
  },
};
