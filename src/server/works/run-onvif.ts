import type { Credentials } from '../../core/auth/authorization.ts';
import { bytesFromHex } from '../../core/base/bytes.ts';
import type { OnvifReading } from '../../core/onvif/reading.ts';
import { DEVICE_PATH, type OnvifEvent, OnvifMachine, type OnvifOptions } from '../../core/talk/onvif-machine.ts';
import type { SessionOptions } from '../../core/talk/onvif-session.ts';
import { drive, USER_AGENT, type World } from '../drive.ts';
import { toHttp } from '../http-way.ts';

export interface OnvifTarget {
  readonly host: string;
  readonly port: number;
  readonly credentials: Credentials | null;
}

const NONCE_BYTES = 16;

/** What every talk over ONVIF needs of this machine. */
export function talkOptions(
  { host, port, credentials }: OnvifTarget,
  { entropy }: World,
): Omit<SessionOptions, 'unixMs'> {
  return {
    target: { host, port, path: DEVICE_PATH },
    credentials,
    userAgent: USER_AGENT,
    nonce: () => {
      const bytes = bytesFromHex(entropy.hex(NONCE_BYTES));
      if (!bytes.ok) throw new TypeError('entropy: expected hex digits');
      return bytes.value;
    },
    cnonce: () => entropy.hex(8),
  };
}

export const accountOf = (user: string | null, secret: string | null): Credentials | null =>
  user === null ? null : { user, password: secret ?? '' };

/** Reads a device once. Resolves with all that it told, also when it was cut short. */
export async function runOnvif(
  target: OnvifTarget & Pick<OnvifOptions, 'timeoutMs' | 'depth' | 'enoughMs'>,
  world: World,
  signal: AbortSignal,
  onEvent: (event: OnvifEvent) => void = () => {},
): Promise<OnvifReading> {
  signal.throwIfAborted();
  const machine = new OnvifMachine({
    ...talkOptions(target, world),
    timeoutMs: target.timeoutMs,
    ...(target.depth ? { depth: target.depth } : {}),
    ...(target.enoughMs === undefined ? {} : { enoughMs: target.enoughMs }),
    startedAtUnixMs: world.clock.unixMs(),
  });
  let reading: OnvifReading | null = null;
  await drive({
    machine,
    way: toHttp,
    world,
    signal,
    what: 'the reading',
    onEffect: (event: OnvifEvent) => {
      if (event.kind === 'reading') reading = event.reading;
      if (event.kind !== 'reading' || !signal.aborted) onEvent(event);
    },
  });
  signal.throwIfAborted();
  if (!reading) throw new Error('The reading ended without a report.');
  return reading;
}
