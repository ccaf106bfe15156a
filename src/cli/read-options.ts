import type { TransportChoice } from '../core/rtsp/client-types.ts';
import { createRealFinder } from '../server/adapters/real-finder.ts';
import { systemClock, systemEntropy } from '../server/adapters/system.ts';
import { createTcpDialer } from '../server/adapters/tcp-dialer.ts';
import type { World } from '../server/drive.ts';
import { Logins } from '../server/logins.ts';
import { pinned } from '../server/pinned.ts';
import type { Finder } from '../server/ports.ts';
import { UsageError } from './usage-error.ts';

/** The network as it is. */
export const createWorld = (allowPublic: boolean, finder: Finder = createRealFinder()): World =>
  pinned({
    dialer: createTcpDialer({ allowPublic }),
    finder,
    clock: systemClock,
    entropy: systemEntropy,
    logins: new Logins(systemClock, systemEntropy),
  });

/** @throws UsageError when it is no number above 0 up to `max` */
export function readPositive(name: string, text: string, max: number): number {
  const value = Number(text);
  if (text.trim() === '' || !(value > 0 && value <= max))
    throw new UsageError(`--${name}: expected a number above 0 up to ${max}, got “${text}”.`);
  return value;
}

const TRANSPORTS = ['tcp', 'udp', 'auto'] as const satisfies readonly TransportChoice[];

/** @throws UsageError when it is none */
export function readTransport(text: string): TransportChoice {
  const transport = TRANSPORTS.find((one) => one === text);
  if (!transport) throw new UsageError(`--transport: expected tcp, udp or auto, got “${text}”.`);
  return transport;
}
