import { useEffect } from 'react';
import { fetchInfo } from '../api/client.ts';
import { selectServer, serverAnswered, serverMissed } from '../store/server-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { useVault } from '../vault/vault-context.tsx';
import { takeDemoSecrets } from './boot.ts';

const WHILE_UP_MS = 10_000;
const WHILE_DOWN_MS = 1500;

/** Asks now and then whether the server on this computer still answers, oftener while it does not. */
export function useServerWatch(): void {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const { status } = useAppSelector(selectServer);
  useEffect(() => {
    const timer = setInterval(
      async () => {
        if (document.visibilityState === 'hidden') return;
        try {
          const info = await fetchInfo();
          if (status === 'down' && info.network === 'simulated') await takeDemoSecrets(vault);
          dispatch(serverAnswered(info));
        } catch {
          dispatch(serverMissed());
        }
      },
      status === 'up' ? WHILE_UP_MS : WHILE_DOWN_MS,
    );
    return () => clearInterval(timer);
  }, [status, dispatch, vault]);
}
