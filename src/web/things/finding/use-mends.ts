import { useEffect, useState } from 'react';
import type { SiteMend } from '../../../core/lanes/mends.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';

/** Remedies of findings that one touch carries out, by rule. */
export type MendsByRule = ReadonlyMap<string, readonly SiteMend[]>;
const NONE: MendsByRule = new Map();

/** What would mend findings of a camera. Each is tried on a copy of the site, after the view is drawn. */
export function useMends(cameraId: string, rules: readonly string[]): MendsByRule {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const [found, setFound] = useState<{ readonly site: unknown; readonly mends: MendsByRule }>({ site, mends: NONE });
  const asked = rules.join(' ');
  useEffect(() => {
    let isWanted = true;
    const work = async (): Promise<void> => {
      const { mendsOf } = await import('../../../core/lanes/mends.ts');
      const mends = new Map<string, readonly SiteMend[]>();
      for (const rule of asked === '' ? [] : asked.split(' ')) {
        await whenIdle();
        if (!isWanted) return;
        if (site.cameras.some(({ id }) => id === cameraId)) mends.set(rule, mendsOf(site, index, cameraId, rule));
      }
      if (isWanted) setFound({ site, mends });
    };
    void work();
    return () => {
      isWanted = false;
    };
  }, [site, index, cameraId, asked]);
  // What was found for the document before may no longer do: it is not offered.
  return found.site === site ? found.mends : NONE;
}

/** Carries a mend out; the log tells it, undo takes it back. */
export function useCarryOut(): (mend: SiteMend) => void {
  const dispatch = useAppDispatch();
  return ({ command }) => void dispatch(commandIssued(command));
}

const whenIdle = (): Promise<void> =>
  new Promise((resolve) => {
    if ('requestIdleCallback' in globalThis) requestIdleCallback(() => resolve(), { timeout: 500 });
    else setTimeout(resolve, 0);
  });
