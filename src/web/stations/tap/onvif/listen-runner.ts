import type { HearRequest } from '../../../../contract/onvif-api.ts';
import { heardRecord } from '../../../../core/evidence/measured-records.ts';
import type { DeviceEvent } from '../../../../core/onvif/services/events.ts';
import type { Heard } from '../../../../core/onvif-client/hear-machine.ts';
import { sayBreak } from '../../../api/client.ts';
import { hearDevice } from '../../../api/onvif.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued, selectSite } from '../../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../../store/store.ts';

export interface HeardEvent {
  readonly event: DeviceEvent;
  readonly atS: number;
}

export type ListenState =
  | { readonly status: 'none' }
  | {
      readonly status: 'opening' | 'listening' | 'over' | 'broken';
      /** On the clock of this page, once it listens. */
      readonly sinceMs: number | null;
      readonly seconds: number;
      readonly events: readonly HeardEvent[];
      readonly heard: Heard | null;
      readonly message: string | null;
    };

const openSite = (_: AppDispatch, getState: () => RootState) => selectSite(getState());

/** Listens for a camera; what was heard is written down when it ends. Returns what stops it. */
export function listenTo(
  cameraId: string,
  request: HearRequest,
  dispatch: AppDispatch,
  onState: (state: ListenState) => void,
): () => void {
  const controller = new AbortController();
  const siteId = dispatch(openSite).id;
  let state: Exclude<ListenState, { status: 'none' }> = {
    status: 'opening',
    sinceMs: null,
    seconds: request.seconds,
    events: [],
    heard: null,
    message: null,
  };
  const tell = (change: Partial<typeof state>): void => {
    state = { ...state, ...change };
    onState(state);
  };
  const record = (heard: Heard): void => {
    const site = dispatch(openSite);
    if (site.id !== siteId || !site.cameras.some(({ id }) => id === cameraId) || heard.seconds === 0) return;
    dispatch(commandIssued(heardRecord(cameraId, newId('heard'), heard)));
  };
  tell({});
  hearDevice(request, controller.signal, (line) => {
    switch (line.kind) {
      case 'listening':
        return tell({ status: 'listening', sinceMs: performance.now() });
      case 'event':
        return tell({ events: [...state.events, { event: line.event, atS: line.atS }] });
      case 'lost':
        return tell({ message: line.note });
      case 'heard':
        record(line.heard);
        return tell({ status: 'over', heard: line.heard, message: line.heard.cause ? line.heard.note : state.message });
    }
  }).then(
    () => state.status !== 'over' && tell({ status: 'broken', message: 'Listening stopped early.' }),
    (error: unknown) => {
      if (controller.signal.aborted) return tell({ status: 'over', message: 'Stopped; the subscription was ended.' });
      const message = sayBreak(error, 'the listening');
      tell({ status: 'broken', message });
    },
  );
  return () => controller.abort();
}
