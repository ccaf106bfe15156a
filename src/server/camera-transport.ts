import type { CameraEffect, CameraInput } from '../core/machine/machine.ts';
import type { StreamUrl } from '../core/net/stream-url.ts';
import { isEncrypted, isTunnel } from '../core/rtsp/http-tunnel.ts';
import { CameraLine } from './camera-line.ts';
import { type Transport, type TransportContext, USER_AGENT } from './drive.ts';
import { DialFailure } from './ports.ts';

interface Target {
  /** Its scheme says whether the line is encrypted, and whether RTSP goes inside HTTP. */
  readonly url: StreamUrl;
  readonly timeoutMs: number;
}

const KINDS: ReadonlySet<string> = new Set([
  'send',
  'openUdp',
  'sendDatagram',
  'redial',
  'close',
] satisfies readonly CameraEffect['kind'][]);

/** The way to one camera: it is dialled once the machine has begun. */
export const toCamera =
  ({ url, timeoutMs }: Target) =>
  (context: TransportContext<CameraInput>): Transport<CameraEffect> => {
    const { world, signal, now, put, safely } = context;
    const { host, port } = url;
    const line = new CameraLine({
      dialer: world.dialer,
      limits: { timeoutMs, signal },
      now,
      put,
      safely,
      how: { tlsHost: isEncrypted(url) ? host : null, isReadAtOnce: !isTunnel(url) },
      // a login that the path asks for is none of what a tunnel is opened with
      tunnel: isTunnel(url)
        ? { path: url.path || '/', host, cookie: world.entropy.hex(11), userAgent: USER_AGENT }
        : null,
    });
    let isClosed = false;
    const failed = (error: unknown): void => {
      if (!(error instanceof DialFailure)) return context.broken(error);
      const { probeCause: cause, message: note } = error;
      safely(() => put({ kind: 'dialFailed', atMs: now(), cause, note }));
    };
    const connect = async (dial: () => Promise<boolean>): Promise<void> => {
      try {
        if (await dial()) safely(() => put({ kind: 'connected', atMs: now(), certificate: line.certificate }));
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
