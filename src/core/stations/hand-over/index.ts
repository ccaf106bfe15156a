import type { Tap } from '../../document/chapters/taps/tap.ts';
import { plainUrlOf } from '../../document/stream-address.ts';
import { tapSubject } from '../../document/subject.ts';
import { bestKnown } from '../../evidence/best-known.ts';
import type { EvidenceIndex } from '../../evidence/evidence-index.ts';
import { type Gate, gateStates, type Station } from '../contract.ts';

type HandedOver = 'yes' | 'no' | 'outdated';

interface GateFacts {
  readonly taps: readonly { readonly destination: string; readonly handedOver: HandedOver }[];
}

const open = ({ taps }: GateFacts) => taps.find(({ handedOver }) => handedOver !== 'yes');

const GATES: readonly Gate<GateFacts>[] = [
  {
    id: 'hand-over.entered',
    condition: 'Its sheet is entered at every destination',
    holds: (facts) => facts.taps.length > 0 && open(facts) === undefined,
    next: (facts) =>
      open(facts)?.handedOver === 'outdated'
        ? `Hand over again to ${open(facts)?.destination}`
        : `Hand over to ${open(facts)?.destination ?? 'its destination'}`,
  },
];

/** Whether what somebody entered at the destination is what the plan says now. */
export function handOverState(index: EvidenceIndex, tap: Tap, url: string): HandedOver {
  const entered = bestKnown(index, tapSubject(tap.id), 'handedOver');
  if (!entered) return 'no';
  return entered.value === url ? 'yes' : 'outdated';
}

export const HAND_OVER: Station<'hand-over'> = {
  id: 'hand-over',
  name: 'Hand over',
  done: 'Handed over',
  rules: [],
  gates: GATES,
  judge: (camera, view) => {
    const taps = view.tapsOf(camera.id).map((tap) => {
      const stream = camera.streams.find(({ id }) => id === tap.streamId);
      return {
        destination: view.destination(tap.destinationId)?.name ?? tap.destinationId,
        handedOver: stream ? handOverState(view.index, tap, plainUrlOf(camera, stream)) : ('no' as const),
      };
    });
    const gates = gateStates(GATES, { taps });
    return {
      verdict: gates.every(({ holds }) => holds) ? 'ok' : 'unknown',
      findings: [],
      open: [],
      gates,
      idle: 'Nothing',
    };
  },
  mends: () => [],
};
