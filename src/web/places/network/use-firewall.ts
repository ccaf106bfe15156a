import type { Reach } from '../../../core/document/chapters/reach/reach.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';

/** Who may reach what, and how it is said anew; `what` tells it in the logbook. */
export function useReach() {
  const dispatch = useAppDispatch();
  const { reach } = useAppSelector(selectSite);
  return {
    reach,
    setReach: (next: Reach, what: string): void =>
      void dispatch(commandIssued({ kind: 'setReach', reach: next, what })),
  };
}
