import type { ScanLine, ScanRequest } from '../../../contract/scan-api.ts';
import { sweepRecords } from '../../../core/evidence/measured-records.ts';
import { parseScanRange, sayRange } from '../../../core/net/scan-range.ts';
import type { ScanSummary } from '../../../core/scan/scan-types.ts';
import type { SeenHost } from '../../../core/scan/seen.ts';
import { sayBreak } from '../../api/client.ts';
import { streamLines } from '../../api/stream-lines.ts';
import { newId } from '../../store/new-id.ts';
import { noteSeen } from '../../store/seen-this-visit.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../store/store.ts';

/** A sweep as far as it got. */
export type SweepState =
  | { readonly status: 'none' }
  | {
      readonly status: 'running' | 'ended' | 'failed';
      readonly siteId: string;
      readonly networkId: string;
      readonly asked: number;
      readonly of: number;
      readonly impliedS: number;
      readonly hosts: readonly SeenHost[];
      readonly summary: ScanSummary | null;
      /** What went wrong with the sweep itself, the last of it. */
      readonly trouble: string | null;
    };

const openSite = (_: AppDispatch, getState: () => RootState) => selectSite(getState());

/** The one sweep of this page. It goes on while one looks at something else; sockets are no state for the store. */
class SweepRunner {
  #state: SweepState = { status: 'none' };
  readonly #listeners = new Set<() => void>();
  #controller: AbortController | null = null;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly state = (): SweepState => this.#state;
  #put(state: SweepState): void {
    this.#state = state;
    for (const listener of this.#listeners) listener();
  }

  cancel(): void {
    this.#controller?.abort();
  }

  /** What it saw is written down when it ends, also when it was cut short. */
  async start(networkId: string, request: ScanRequest, dispatch: AppDispatch): Promise<void> {
    this.cancel();
    const controller = new AbortController();
    this.#controller = controller;
    const siteId = dispatch(openSite).id;
    const hosts = new Map<string, SeenHost>();
    let now: Exclude<SweepState, { status: 'none' }> = {
      status: 'running',
      siteId,
      networkId,
      asked: 0,
      of: 0,
      impliedS: 0,
      hosts: [],
      summary: null,
      trouble: null,
    };
    const tell = (change: Partial<typeof now>): void => {
      if (this.#controller !== controller) return; // another one took its place
      now = { ...now, ...change };
      this.#put(now);
    };
    tell({});
    try {
      await streamLines<ScanLine>('/api/scan', request, controller.signal, (line) => {
        switch (line.kind) {
          case 'began':
            return tell({ of: line.calls, impliedS: line.impliedS });
          case 'seen':
            hosts.set(line.host.host, line.host);
            noteSeen(siteId, line.host);
            return tell({ hosts: [...hosts.values()] });
          case 'progress':
            return tell({ asked: line.asked });
          case 'trouble':
            return tell({ trouble: line.note });
          case 'refused':
            return tell({ status: 'failed', trouble: line.note });
          case 'ended':
            return tell({ summary: line.summary, asked: line.summary.asked });
        }
      });
      if (now.status === 'running') tell({ status: now.summary ? 'ended' : 'failed' });
    } catch (error) {
      if (controller.signal.aborted) tell({ status: 'ended' });
      else
        tell({
          status: 'failed',
          trouble: sayBreak(error, 'the scan'),
        });
    }
    if (hosts.size > 0 || now.summary) this.#record(now, request, [...hosts.values()], dispatch);
  }

  #record(
    sweep: Exclude<SweepState, { status: 'none' }>,
    request: ScanRequest,
    hosts: readonly SeenHost[],
    dispatch: AppDispatch,
  ): void {
    const site = dispatch(openSite);
    // meanwhile another site may have been opened, or the network removed
    if (site.id !== sweep.siteId || !site.networks.some(({ id }) => id === sweep.networkId)) return;
    const read = request.range === null ? null : parseScanRange(request.range);
    const range = read?.ok ? sayRange(read.value) : 'by WS-Discovery';
    const sweepId = newId('sweep');
    const { summary } = sweep;
    const records = sweepRecords({
      networkId: sweep.networkId,
      sweepId,
      range,
      isWhole: summary !== null && !summary.isCancelled && summary.asked === summary.of && request.range !== null,
      calls: summary?.asked ?? sweep.asked,
      seconds: summary?.seconds ?? 0,
      hosts,
    });
    for (const record of records) dispatch(commandIssued(record));
  }
}

export const sweepRunner = new SweepRunner();
