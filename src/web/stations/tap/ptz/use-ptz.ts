import { useEffect, useRef, useState } from 'react';
import type { OnvifRequest } from '../../../../contract/onvif-api.ts';
import type { PtzVelocity } from '../../../../core/onvif/services/ptz.ts';
import type { PtzOrder } from '../../../../core/onvif-client/ptz-types.ts';
import { type Did, PtzClient, type PtzState, UNOPENED } from './ptz-client.ts';

/** A head in hand, for as long as the bench is open. */
export interface Hand {
  readonly state: PtzState;
  readonly ask: (order: PtzOrder) => Promise<Did>;
  readonly hold: (velocity: PtzVelocity) => void;
  readonly release: () => void;
  readonly stop: () => void;
  readonly reopen: () => void;
}

const GONE: Did = {
  kind: 'did',
  number: 0,
  ok: false,
  note: 'PTZ is not connected.',
  ranMs: null,
  from: null,
  to: null,
  token: null,
  keptTimeout: null,
};

/** How the head is, as far as it tells. */
export function sayHand({ status, isMoving, ability }: PtzState): string {
  if (status === 'opening') return 'connecting';
  if (status === 'ended') return 'released';
  if (isMoving !== null) return isMoving ? 'moving' : 'at rest';
  return ability?.tells === 'nothing' ? 'connected; it does not report movement' : 'connected';
}

/** @param request `null` while its secret is out of reach */
export function usePtz(request: OnvifRequest | null): Hand {
  const [state, setState] = useState<PtzState>(UNOPENED);
  const [attempt, setAttempt] = useState(0);
  const client = useRef<PtzClient | null>(null);
  const key = request === null ? null : JSON.stringify(request);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new attempt opens it anew
  useEffect(() => {
    if (key === null) return;
    setState(UNOPENED);
    const one = new PtzClient(JSON.parse(key), setState);
    client.current = one;
    return () => {
      client.current = null;
      one.close();
    };
  }, [key, attempt]);
  // a hand that looks elsewhere holds no key
  useEffect(() => {
    const letGo = (): void => client.current?.release();
    window.addEventListener('blur', letGo);
    document.addEventListener('visibilitychange', letGo);
    return () => {
      window.removeEventListener('blur', letGo);
      document.removeEventListener('visibilitychange', letGo);
    };
  }, []);
  return {
    state,
    ask: (order) => client.current?.ask(order) ?? Promise.resolve(GONE),
    hold: (velocity) => client.current?.hold(velocity),
    release: () => client.current?.release(),
    stop: () => client.current?.stop(),
    reopen: () => setAttempt((count) => count + 1),
  };
}
