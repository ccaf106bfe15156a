import type { SessionsRequest } from '../../../../contract/probe-api.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { sessionsRecord } from '../../../../core/evidence/measured-records.ts';
import type { SessionRefusal, SessionsReport } from '../../../../core/sessions/sessions-types.ts';
import { sayBreak } from '../../../api/client.ts';
import { countSessions } from '../../../api/count-sessions.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued, selectSite } from '../../../store/site-slice.ts';
import type { AppDispatch, RootState } from '../../../store/store.ts';

export interface CountState {
  readonly status: 'running' | 'over' | 'broken';
  readonly sessions: readonly { readonly session: number; readonly refusal: SessionRefusal | null }[];
  readonly isWatching: boolean;
  readonly message: string | null;
}

const openSite = (_: AppDispatch, getState: () => RootState) => selectSite(getState());

/** Counts; what came of it is written down when it ends. Returns what stops it. */
export function startCount(
  { id: cameraId, host }: Pick<Camera, 'id' | 'host'>,
  request: SessionsRequest,
  dispatch: AppDispatch,
  onState: (state: CountState) => void,
): () => void {
  const controller = new AbortController();
  const siteId = dispatch(openSite).id;
  let state: CountState = { status: 'running', sessions: [], isWatching: false, message: null };
  const tell = (change: Partial<CountState>): void => {
    state = { ...state, ...change };
    onState(state);
  };
  const record = (report: SessionsReport): void => {
    const site = dispatch(openSite);
    if (site.id !== siteId || !site.cameras.some(({ id }) => id === cameraId)) return;
    dispatch(commandIssued(sessionsRecord({ cameraId, countId: newId('count'), host, report })));
  };
  tell({});
  countSessions(request, controller.signal, (line) => {
    switch (line.kind) {
      case 'session':
        return tell({
          isWatching: false,
          sessions: [...state.sessions, { session: line.session, refusal: line.refusal }],
        });
      case 'watching':
        return tell({ isWatching: true });
      case 'counted':
        record(line.report);
        return tell({ status: 'over' });
    }
  }).then(
    () => state.status === 'running' && tell({ status: 'broken', message: 'Counting stopped early.' }),
    (error: unknown) => {
      if (controller.signal.aborted)
        return tell({ status: 'over', message: 'Stopped; every session was ended. Nothing was recorded.' });
      tell({ status: 'broken', message: sayBreak(error, 'the session count') });
    },
  );
  return () => controller.abort();
}
