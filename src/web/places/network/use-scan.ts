import { useSyncExternalStore } from 'react';
import type { Network } from '../../../core/document/chapters/networks/network.ts';
import { lastSweepOf, type Sweep } from '../../../core/evidence/scans.ts';
import type { SeenHost } from '../../../core/scan/seen.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { type SweepState, sweepRunner } from './scan-runner.ts';

export interface SweepOfNetwork {
  /** The one that runs, or ended while this page was open. */
  readonly running: Exclude<SweepState, { status: 'none' }> | null;
  /** The last that was written down. */
  readonly last: Sweep | null;
  /** What is shown: as it comes in, else as it was. */
  readonly hosts: readonly SeenHost[];
}

const NONE: readonly SeenHost[] = [];

/** What is seen of a network: now, or when somebody last looked. */
export function useSweep(network: Network): SweepOfNetwork {
  const state = useSyncExternalStore(sweepRunner.subscribe, sweepRunner.state);
  const siteId = useAppSelector(selectSite).id;
  const index = useAppSelector(selectIndex);
  const last = lastSweepOf(index, network.id);
  const running = state.status !== 'none' && state.siteId === siteId && state.networkId === network.id ? state : null;
  return { running, last, hosts: running?.status === 'running' ? running.hosts : (last?.hosts ?? NONE) };
}
