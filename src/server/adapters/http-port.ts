import { type HttpAnswer, type HttpRequest, writeHttpRequest } from '../../core/http/http-message.ts';
import { HttpLine, type HttpLineEvent } from '../../core/machine/http-line.ts';
import type { HttpCause } from '../../core/machine/machine.ts';
import type { CertificateSeen } from '../../core/net/certificate.ts';
import { DIAL_CAUSES, type DialCause } from '../../core/rtsp/exchange-types.ts';
import { guardedBy } from '../last-guard.ts';
import {
  type Connection,
  type Dialer,
  DialFailure,
  HttpFailure,
  type HttpPort,
  type HttpTold,
  type Limits,
} from '../ports.ts';

const isDialled = (cause: string): cause is DialCause => DIAL_CAUSES.some((one) => one === cause);
const causeOfDial = (cause: string): HttpCause =>
  cause === 'tls-failed' || cause === 'not-tls' ? 'tls-failed' : isDialled(cause) ? cause : 'unreachable';

type Heard = (event: Exclude<HttpLineEvent, { kind: 'extra' }>) => void;

/** A connection with its line, and who waits for its answer. */
class OpenLine {
  readonly #line: HttpLine;
  #connection: Connection | null = null;
  #heard: Heard | null = null;

  constructor(
    request: HttpRequest,
    mostBytes: number,
    private readonly onExtra: () => void,
  ) {
    this.#line = new HttpLine(request, mostBytes);
  }

  get isShut(): boolean {
    return this.#line.isShut;
  }
  get isUnheard(): boolean {
    return this.#line.isUnheard;
  }
  get certificate(): CertificateSeen | null {
    return this.#connection?.certificate ?? null;
  }
  carries(request: HttpRequest): boolean {
    return this.#line.carries(request);
  }

  async dial({ host, port, isTls }: HttpRequest, dialer: Dialer, limits: Limits): Promise<void> {
    const events = {
      onData: (chunk: Uint8Array) => this.#take(this.#line.push(chunk)),
      onEnd: () => this.#take(this.#line.end()),
    };
    const address = await dialer.resolve(host, port, limits);
    this.#connection = await dialer.dial(address, events, limits, { tlsHost: isTls ? host : null });
    if (this.isShut) this.shut(); // it ended while it was dialled
  }
  shut(): void {
    this.#line.shut();
    this.#connection?.close();
  }

  #take(events: readonly HttpLineEvent[]): void {
    for (const event of events)
      if (event.kind === 'extra') this.onExtra();
      else this.#heard?.(event);
    if (this.isShut) this.shut();
  }

  exchange(request: HttpRequest, { timeoutMs, signal }: Limits): Promise<HttpAnswer> {
    return new Promise((resolve, reject) => {
      const done = (end: () => void): void => {
        this.#heard = null;
        clearTimeout(timer);
        signal.removeEventListener('abort', abort);
        end();
      };
      const giveUp = (cause: HttpCause, note: string): void => {
        this.shut();
        done(() => reject(new HttpFailure(cause, note)));
      };
      const guarded = guardedBy(signal);
      const abort = guarded(() => giveUp('closed', 'Cancelled.'));
      const late = guarded(() =>
        giveUp('timeout', `${request.host}:${request.port} did not respond in ${timeoutMs / 1000} s.`),
      );
      const timer = setTimeout(late, timeoutMs);
      signal.addEventListener('abort', abort, { once: true });
      const refusal = this.#line.ask();
      if (refusal) return giveUp(refusal.cause, refusal.note);
      this.#heard = (event) =>
        event.kind === 'answer' ? done(() => resolve(event.answer)) : giveUp(event.cause, event.note);
      this.#connection?.send(writeHttpRequest(request));
    });
  }
}

/** Exchanges over connections of a dialer: the last one is kept, unless its peer answers what nobody asked. */
export function createHttpPort(dialer: Dialer): HttpPort {
  let kept: OpenLine | null = null;
  let extra = 0;
  let keepsNone = false;
  let lastCertificate: CertificateSeen | null = null;
  const onExtra = (): void => {
    extra += 1;
    keepsNone = true;
  };

  const opened = async (request: HttpRequest, limits: Limits, mostBytes: number): Promise<OpenLine> => {
    const { knownFingerprint } = request;
    const line = new OpenLine(request, mostBytes, onExtra);
    await line.dial(request, dialer, limits);
    const shown = line.certificate?.fingerprint ?? null;
    if (knownFingerprint !== null && shown !== null && shown !== knownFingerprint) {
      line.shut();
      throw new HttpFailure(
        'certificate-changed',
        `It showed a certificate with the SHA-256 fingerprint ${shown}, where ${knownFingerprint} is known. No request was sent.`,
        line.certificate,
      );
    }
    lastCertificate = line.certificate;
    return line;
  };

  const exchangeOver = async (
    request: HttpRequest,
    limits: Parameters<HttpPort['exchange']>[1],
  ): Promise<HttpAnswer> => {
    const again = kept?.carries(request) && !keepsNone ? kept : null;
    if (!again) kept?.shut();
    kept = again;
    if (again) {
      try {
        return await again.exchange(request, limits);
      } catch (error) {
        const isStale = error instanceof HttpFailure && error.httpCause === 'closed' && again.isUnheard;
        if (!isStale || !limits.mayRepeat || limits.signal.aborted) throw error;
      }
    }
    const line = await opened(request, limits, limits.mostBytes);
    if (!keepsNone) kept = line;
    try {
      return await line.exchange(request, limits);
    } finally {
      if (keepsNone) line.shut();
    }
  };

  return {
    exchange: async (request, limits): Promise<HttpTold> => {
      try {
        const answer = await exchangeOver(request, limits);
        const told = { answer, extra, certificate: lastCertificate };
        extra = 0;
        return told;
      } catch (error) {
        if (!(error instanceof DialFailure)) throw error;
        throw new HttpFailure(causeOfDial(error.probeCause), error.message);
      }
    },
    close: () => kept?.shut(),
  };
}
