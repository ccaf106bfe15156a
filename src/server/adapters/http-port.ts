import { HttpAnswerParser } from '../../core/http/http-answer-parser.ts';
import {
  type HttpAnswer,
  type HttpFaultCode,
  type HttpRequest,
  writeHttpRequest,
} from '../../core/http/http-message.ts';
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

/** What was wrong with the bytes, as a cause. */
const CAUSES: Readonly<Record<HttpFaultCode, HttpCause>> = {
  'http.not-http': 'not-http',
  'http.head-too-large': 'too-large',
  'http.body-too-large': 'too-large',
  'http.bad-length': 'not-http',
  'http.bad-chunk': 'not-http',
  'http.cut': 'cut',
};

const isDialled = (cause: string): cause is DialCause => DIAL_CAUSES.some((one) => one === cause);
const causeOfDial = (cause: string): HttpCause =>
  cause === 'tls-failed' || cause === 'not-tls' ? 'tls-failed' : isDialled(cause) ? cause : 'unreachable';

const leadsThere = (one: Kept, { host, port, isTls }: HttpRequest): boolean =>
  one.host === host && one.port === port && one.isTls === isTls;

interface Waiting {
  readonly resolve: (answer: HttpAnswer) => void;
  readonly reject: (failure: HttpFailure) => void;
}

/** A connection that is kept, with the answer that is waited for on it. */
interface Kept {
  readonly host: string;
  readonly port: number;
  readonly isTls: boolean;
  readonly connection: Connection;
  readonly parser: HttpAnswerParser;
  waiting: Waiting | null;
  hasHeard: boolean;
  isShut: boolean;
}

/**
 * Exchanges over connections of a dialer. A peer that answers twice is not spoken to twice over one connection: its second
 * answer would be taken for that to the next question.
 */
export function createHttpPort(dialer: Dialer): HttpPort {
  let kept: Kept | null = null;
  let extra = 0;
  let keepsNone = false;
  let lastCertificate: CertificateSeen | null = null;
  const shut = (one: Kept): void => {
    one.isShut = true;
    one.connection.close();
    if (kept === one) kept = null;
  };

  const open = async (
    { host, port, isTls, knownFingerprint }: HttpRequest,
    limits: Limits,
    mostBytes: number,
  ): Promise<Kept> => {
    const parser = new HttpAnswerParser(mostBytes);
    let one: Kept | null = null;
    let early: HttpFailure | null = null;
    const take = (events: ReturnType<HttpAnswerParser['push']>): void => {
      for (const event of events) {
        const waiting = one?.waiting ?? null;
        if (one) one.waiting = null;
        if (event.kind === 'malformed') {
          if (one) shut(one);
          const failure = new HttpFailure(CAUSES[event.fault.code], event.fault.message);
          if (waiting) waiting.reject(failure);
          else early = failure; // it spoke before it was asked
        } else if (waiting) {
          if (one && !event.answer.staysOpen) shut(one);
          waiting.resolve(event.answer);
        } else {
          extra += 1;
          keepsNone = true;
          if (one) shut(one);
        }
      }
    };
    const events = {
      onData: (chunk: Uint8Array) => {
        if (one?.isShut) return;
        if (one) one.hasHeard = true;
        take(parser.push(chunk));
      },
      onEnd: () => {
        take(parser.end());
        const waiting = one?.waiting ?? null;
        if (one) shut(one);
        waiting?.reject(new HttpFailure('closed', `${host}:${port} hung up before it answered.`));
      },
    };
    const address = await dialer.resolve(host, port, limits);
    const connection = await dialer.dial(address, events, limits, { tlsHost: isTls ? host : null });
    const shown = connection.certificate?.fingerprint ?? null;
    if (knownFingerprint !== null && shown !== null && shown !== knownFingerprint) {
      connection.close();
      throw new HttpFailure(
        'certificate-changed',
        `It showed a certificate with the SHA-256 fingerprint ${shown}, where ${knownFingerprint} is known. Nothing was asked there.`,
        connection.certificate ?? null,
      );
    }
    one = { host, port, isTls, connection, parser, waiting: null, hasHeard: false, isShut: false };
    lastCertificate = connection.certificate ?? null;
    if (early) {
      shut(one);
      throw early;
    }
    return one;
  };

  const answered = (one: Kept, request: HttpRequest, { timeoutMs, signal }: Limits): Promise<HttpAnswer> =>
    new Promise((resolve, reject) => {
      const done = (): void => {
        clearTimeout(timer);
        signal.removeEventListener('abort', abort);
      };
      const giveUp = (cause: HttpCause, note: string): void => {
        one.waiting = null;
        shut(one);
        done();
        reject(new HttpFailure(cause, note));
      };
      const guarded = guardedBy(signal);
      const abort = guarded(() => giveUp('closed', 'Cancelled.'));
      const late = guarded(() => giveUp('timeout', `${one.host}:${one.port} did not answer in ${timeoutMs / 1000} s.`));
      const timer = setTimeout(late, timeoutMs);
      signal.addEventListener('abort', abort, { once: true });
      if (one.isShut) return giveUp('closed', `${one.host}:${one.port} hung up before it was asked.`);
      one.hasHeard = false;
      one.waiting = {
        resolve: (answer) => {
          done();
          resolve(answer);
        },
        reject: (failure) => {
          done();
          reject(failure);
        },
      };
      one.connection.send(writeHttpRequest(request));
    });

  const exchangeOver = async (
    request: HttpRequest,
    limits: Parameters<HttpPort['exchange']>[1],
  ): Promise<HttpAnswer> => {
    const before = kept;
    if (before && (!leadsThere(before, request) || keepsNone)) shut(before);
    const again = kept;
    if (again) {
      try {
        return await answered(again, request, limits);
      } catch (error) {
        // it was closed while nobody spoke: that says nothing of this request
        const isStale = error instanceof HttpFailure && error.httpCause === 'closed' && !again.hasHeard;
        if (!isStale || !limits.mayRepeat || limits.signal.aborted) throw error;
      }
    }
    const one = await open(request, limits, limits.mostBytes);
    if (!keepsNone) kept = one;
    try {
      return await answered(one, request, limits);
    } finally {
      if (keepsNone) shut(one);
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
    close: () => {
      if (kept) shut(kept);
    },
  };
}
