import type { OnvifRequest } from '../../../../contract/onvif-api.ts';
import { readingRecord } from '../../../../core/evidence/measured-records.ts';
import type { OnvifReading } from '../../../../core/onvif/reading.ts';
import type { OnvifStep } from '../../../../core/onvif-client/onvif-line.ts';
import { sayBreak } from '../../../api/client.ts';
import { readDevice } from '../../../api/onvif.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued, selectSite } from '../../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../../store/store.ts';

/** A reading as far as it got. */
export interface DeviceRun {
  readonly status: 'running' | 'read' | 'cancelled' | 'broken';
  readonly siteId: string;
  readonly steps: readonly OnvifStep[];
  readonly message: string | null;
  /** A login that stood in an address of the device: it is offered for the vault, and kept nowhere else. */
  readonly offered: { readonly user: string; readonly secret: string } | null;
}

const openSite = (_: AppDispatch, getState: () => RootState) => selectSite(getState());

/** Readings of this page by camera. They go on while one looks at something else; sockets are no state for the store. */
class DeviceRunner {
  readonly #runs = new Map<string, DeviceRun>();
  readonly #controllers = new Map<string, AbortController>();
  readonly #listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly runOf = (cameraId: string): DeviceRun | null => this.#runs.get(cameraId) ?? null;

  cancel(cameraId: string): void {
    this.#controllers.get(cameraId)?.abort();
  }

  /** A login that the device gave was taken, or is not wanted. */
  forgetOffered(cameraId: string): void {
    const run = this.#runs.get(cameraId);
    if (run) this.#runs.set(cameraId, { ...run, offered: null });
    for (const listener of this.#listeners) listener();
  }

  /** What it told is written down when it ends, also where it ended early. */
  async start(cameraId: string, request: OnvifRequest, dispatch: AppDispatch): Promise<void> {
    this.cancel(cameraId);
    const controller = new AbortController();
    this.#controllers.set(cameraId, controller);
    const siteId = dispatch(openSite).id;
    const put = (change: Partial<DeviceRun>): void => {
      if (this.#controllers.get(cameraId) !== controller) return; // another one took its place
      const before = this.#runs.get(cameraId);
      this.#runs.set(cameraId, {
        siteId,
        steps: [],
        message: null,
        offered: null,
        status: 'running',
        ...before,
        ...change,
      });
      for (const listener of this.#listeners) listener();
    };
    put({ siteId, status: 'running', steps: [], message: null, offered: null });
    try {
      await readDevice(request, controller.signal, (line) => {
        if (line.kind === 'step') return put({ steps: [...(this.#runs.get(cameraId)?.steps ?? []), line.step] });
        if (line.kind === 'offeredLogin') return put({ offered: { user: line.user, secret: line.secret } });
        this.#record(siteId, cameraId, line.reading, dispatch);
        put({ status: 'read' });
      });
      if (this.#runs.get(cameraId)?.status === 'running') throw new Error('The reading ended without a report.');
    } catch (error) {
      if (controller.signal.aborted) return put({ status: 'cancelled' });
      const message = sayBreak(error, 'the reading');
      put({ status: 'broken', message });
    }
  }

  #record(siteId: string, cameraId: string, reading: OnvifReading, dispatch: AppDispatch): void {
    const site = dispatch(openSite);
    // meanwhile another site may have been opened, or the camera removed
    if (site.id !== siteId || !site.cameras.some(({ id }) => id === cameraId)) return;
    dispatch(commandIssued(readingRecord(cameraId, newId('reading'), reading)));
  }
}

export const deviceRunner = new DeviceRunner();
