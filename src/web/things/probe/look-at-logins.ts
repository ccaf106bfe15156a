import { fetchInfo } from '../../api/client.ts';
import { serverAnswered } from '../../store/server-slice.ts';
import type { AppDispatch } from '../../store/store.ts';

/** Asks the server which accounts were refused: a login was just spent, perhaps on nothing. */
export async function lookAtLogins(dispatch: AppDispatch): Promise<void> {
  try {
    dispatch(serverAnswered(await fetchInfo()));
  } catch {
    // whether it answers is watched elsewhere
  }
}
