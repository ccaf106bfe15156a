import type { CameraEffect } from '../core/machine/machine.ts';
import type { OneSessionEffect, OneSessionInput } from '../core/sessions/sessions-types.ts';
import { toCamera } from './camera-transport.ts';
import type { Transport, TransportContext } from './drive.ts';

const KINDS: ReadonlySet<string> = new Set(['openSession', 'toSession'] satisfies readonly OneSessionEffect['kind'][]);

/** Many transports to one camera, each with a connection of its own, dialled when its session is taken. */
export const toSessions =
  (target: Parameters<typeof toCamera>[0]) =>
  (context: TransportContext<OneSessionInput>): Transport<OneSessionEffect> => {
    const transports = new Map<number, Transport<CameraEffect>>();
    return {
      kinds: KINDS,
      start: () => {},
      carryOut: (effect) => {
        const { session } = effect;
        if (effect.kind === 'toSession') return transports.get(session)?.carryOut(effect.effect);
        const transport = toCamera(target)({
          ...context,
          put: (input) => context.put({ kind: 'fromSession', session, input }),
        });
        transports.set(session, transport);
        transport.start();
      },
      close: () => {
        for (const transport of transports.values()) transport.close();
      },
    };
  };
