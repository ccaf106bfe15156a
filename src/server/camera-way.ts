import type { CameraDoing, CameraInput } from '../core/machine/machine.ts';
import { CameraLine } from './camera-line.ts';
import type { Hub, Way } from './drive.ts';
import { DialFailure } from './ports.ts';

interface Target {
  readonly host: string;
  readonly port: number;
  readonly timeoutMs: number;
}

const KINDS: ReadonlySet<string> = new Set([
  'send',
  'openUdp',
  'sendDatagram',
  'redial',
  'close',
] satisfies readonly CameraDoing['kind'][]);

/** The way to one camera: it is dialled once the machine has begun. */
export const toCamera =
  ({ host, port, timeoutMs }: Target) =>
  (hub: Hub<CameraInput>): Way<CameraDoing> => {
    const { world, signal, now, put, safely } = hub;
    const line = new CameraLine({ dialer: world.dialer, limits: { timeoutMs, signal }, now, put, safely });
    let isClosed = false;
    const failed = (error: unknown): void => {
      if (!(error instanceof DialFailure)) return hub.broken(error);
      const { probeCause: cause, message: note } = error;
      safely(() => put({ kind: 'dialFailed', atMs: now(), cause, note }));
    };
    const connect = async (dial: () => Promise<boolean>): Promise<void> => {
      try {
        if (await dial()) safely(() => put({ kind: 'connected', atMs: now() }));
      } catch (error) {
        failed(error);
      }
    };
    const dialFirst = async (): Promise<void> => {
      try {
        const address = await line.resolve(host, port);
        safely(() => put({ kind: 'resolved', atMs: now(), note: address.note }));
        if (!isClosed) await connect(() => line.dial(address));
      } catch (error) {
        failed(error);
      }
    };
    return {
      kinds: KINDS,
      start: () => void dialFirst(),
      carryOut: (doing) => (doing.kind === 'redial' ? void connect(() => line.redial()) : line.carryOut(doing)),
      close: () => {
        isClosed = true;
        line.close();
      },
    };
  };
