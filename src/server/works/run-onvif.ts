import type { OnvifRequest } from '../../contract/onvif-api.ts';
import type { Credentials } from '../../core/auth/authorization.ts';
import type { ProofGate } from '../../core/auth/proof-gate.ts';
import { bytesFromHex } from '../../core/base/bytes.ts';
import type { OnvifReading } from '../../core/onvif/reading.ts';
import type { OtherDoor } from '../../core/onvif/service-place.ts';
import {
  DEVICE_PATH,
  ONVIF_TIMEOUT_MS,
  type OnvifEvent,
  OnvifMachine,
  type OnvifOptions,
} from '../../core/onvif-client/onvif-machine.ts';
import type { PtzOptions } from '../../core/onvif-client/ptz-machine.ts';
import type { SessionOptions } from '../../core/onvif-client/session-types.ts';
import { driveToReport, USER_AGENT, type World } from '../drive.ts';
import { toHttp } from '../http-transport.ts';
import type { LoginLeave } from '../logins.ts';
import { leaveOf } from './work.ts';

export interface OnvifTarget {
  readonly host: string;
  readonly port: number;
  readonly isTls?: boolean;
  readonly credentials: Credentials | null;
  readonly alsoProve?: readonly OtherDoor[];
  readonly knownFingerprint?: string | null;
  /** Of the press that it belongs to; its own unless experiments share one. */
  readonly gate?: ProofGate;
  readonly leave?: LoginLeave;
}

/** The same, of what a page asks. */
export const targetOf = (request: OnvifRequest): OnvifTarget => ({
  host: request.host,
  port: request.port,
  isTls: request.tls ?? false,
  credentials: accountOf(request.user, request.secret),
  alsoProve: request.alsoProve ?? [],
  knownFingerprint: request.knownFingerprint ?? null,
  leave: leaveOf(request),
});

const NONCE_BYTES = 16;
/** Told as they are, for the vault of whoever asked, and kept nowhere. */
const OFFERED_LOGINS: ReadonlySet<string> = new Set(['offeredLogin'] satisfies readonly OnvifEvent['kind'][]);

/** What every talk over ONVIF needs of this machine. */
export function talkOptions(
  { host, port, isTls = false, credentials, alsoProve = [], knownFingerprint = null, gate, leave }: OnvifTarget,
  { entropy, logins }: World,
): Omit<SessionOptions, 'unixMs'> {
  return {
    target: { host, port, path: DEVICE_PATH, isTls },
    credentials,
    gate: gate ?? logins.gateFor(host, credentials, leave),
    alsoProve,
    knownFingerprint,
    userAgent: USER_AGENT,
    nonce: () => {
      const bytes = bytesFromHex(entropy.hex(NONCE_BYTES));
      if (!bytes.ok) throw new TypeError('entropy: expected hex digits');
      return bytes.value;
    },
    cnonce: () => entropy.hex(8),
  };
}

/** The same for a talk of a page that goes on: it begins when it is its turn to log in with this account. */
export const talkOfPage = (
  target: OnvifTarget,
  world: World,
  signal: AbortSignal,
  talk: (options: PtzOptions) => Promise<void>,
): Promise<void> =>
  world.logins.inTurn(target, signal, (gate) =>
    talk({
      ...talkOptions({ ...target, gate }, world),
      timeoutMs: ONVIF_TIMEOUT_MS,
      startedAtUnixMs: world.clock.unixMs(),
    }),
  );

export const accountOf = (user: string | null, secret: string | null): Credentials | null =>
  user === null ? null : { user, password: secret ?? '' };

/** Reads a device once. Resolves with all that it told, also when it was cut short. */
export async function runOnvif(
  target: ReadTarget,
  world: World,
  signal: AbortSignal,
  onEvent: (event: OnvifEvent) => void = () => {},
): Promise<OnvifReading> {
  signal.throwIfAborted();
  return target.gate
    ? read(target, world, signal, onEvent)
    : world.logins.inTurn(target, signal, (gate) => read({ ...target, gate }, world, signal, onEvent));
}
type ReadTarget = OnvifTarget & Pick<OnvifOptions, 'timeoutMs' | 'depth' | 'enoughMs'>;

async function read(
  target: ReadTarget,
  world: World,
  signal: AbortSignal,
  onEvent: (event: OnvifEvent) => void,
): Promise<OnvifReading> {
  const machine = new OnvifMachine({
    ...talkOptions(target, world),
    timeoutMs: target.timeoutMs,
    ...(target.depth ? { depth: target.depth } : {}),
    ...(target.enoughMs === undefined ? {} : { enoughMs: target.enoughMs }),
    startedAtUnixMs: world.clock.unixMs(),
  });
  return driveToReport({
    machine,
    transport: toHttp,
    world,
    signal,
    credentials: target.credentials,
    openly: OFFERED_LOGINS,
    what: 'the reading',
    reportIn: (event: OnvifEvent) => (event.kind === 'reading' ? event.reading : null),
    onEffect: onEvent,
  });
}
