import { useEffect, useState } from 'react';
import type { SiteMend } from '../../../core/lanes/mends.ts';
import { judge } from '../../store/judge.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';

/** Remedies of findings that one touch carries out, by rule. */
export type MendsByRule = ReadonlyMap<string, readonly SiteMend[]>;
const NONE: MendsByRule = new Map();

/** What would mend findings of a camera. Each is tried on a copy of the site, beside the page. */
export function useMends(cameraId: string, rules: readonly string[]): MendsByRule {
  const site = useAppSelector(selectSite);
  const [found, setFound] = useState<{ readonly site: unknown; readonly mends: MendsByRule }>({ site, mends: NONE });
  const asked = rules.join(' ');
  useEffect(() => {
    let isWanted = true;
    const work = async (): Promise<void> => {
      const mends = new Map<string, readonly SiteMend[]>();
      for (const rule of asked === '' ? [] : asked.split(' ')) {
        if (!isWanted) return;
        mends.set(rule, await judge.mends(cameraId, rule, () => isWanted));
      }
      if (isWanted) setFound({ site, mends });
    };
    work().catch(() => {}); // a finding without its mend still says what to do
    return () => {
      isWanted = false;
    };
  }, [site, cameraId, asked]);
  // What was found for the document before may no longer do: it is not offered.
  return found.site === site ? found.mends : NONE;
}

/** Carries a mend out; the log tells it, undo takes it back. */
export function useCarryOut(): (mend: SiteMend) => void {
  const dispatch = useAppDispatch();
  return ({ command }) => void dispatch(commandIssued(command));
}
