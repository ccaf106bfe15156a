import type { Fault } from '../base/fault.ts';
import type { Result } from '../base/result.ts';
import type { HttpAnswer, HttpRequest } from '../http/http-message.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import type { Envelope, EnvelopeFaultCode } from '../onvif/envelope.ts';
import type { ClientEffect, ClientInput } from '../rtsp/client-types.ts';
import type { DialCause, ProbeCause } from '../rtsp/exchange-types.ts';

/** Something that talks to devices, sans-IO: what happens goes in, what is to be done comes out. It ends by itself. */
export interface Machine<Input, Effect> {
  begin(atMs: number): readonly Effect[];
  handle(input: Input): readonly Effect[];
}

/** What the one driver tells every machine. `atMs` is a monotonic clock from the machine's beginning. */
export type CommonInput<Timer extends string> =
  | { readonly kind: 'timer'; readonly timer: Timer; readonly atMs: number }
  /** Something of ours failed while an effect was carried out; `isLast` gives up the farewell too. */
  | { readonly kind: 'broken'; readonly atMs: number; readonly note: string; readonly isLast: boolean }
  /** Whoever asked went away: the device is told to let go, and its answer is not waited for long. */
  | { readonly kind: 'cancel'; readonly atMs: number };

/** What the driver does for every machine. */
export type CommonEffect<Timer extends string> =
  | { readonly kind: 'arm'; readonly timer: Timer; readonly afterMs: number }
  | { readonly kind: 'disarm'; readonly timer: Timer }
  /** It is over: sockets and timers go. */
  | { readonly kind: 'done' };

/** What the way to one camera tells a machine that talks to it. */
export type CameraInput =
  | { readonly kind: 'resolved'; readonly atMs: number; readonly note: string | null }
  | { readonly kind: 'dialFailed'; readonly atMs: number; readonly cause: ProbeCause; readonly note: string }
  | Extract<ClientInput, { kind: 'connected' }>
  | Extract<ClientInput, { kind: 'bytes' | 'closed' | 'udpOpened' | 'udpFailed' | 'datagram' }>;

/** What is done on that way. */
export type CameraEffect = Extract<ClientEffect, { kind: 'send' | 'openUdp' | 'sendDatagram' | 'redial' | 'close' }>;

/** Both, of a machine that talks to one camera. Whatever else it says is handed on. */
export type DriveInput<Timer extends string> = CommonInput<Timer> | CameraInput;
export type DriveEffect<Timer extends string> = CommonEffect<Timer> | CameraEffect;

/** Why an exchange over HTTP gave no whole answer. */
export type HttpCause = DialCause | 'tls-failed' | 'certificate-changed' | 'not-http' | 'too-large' | 'cut';

/** Exchanges by their number, over lines that are kept open: on one line one waits for the other. */
export type HttpEffect =
  | {
      readonly kind: 'ask';
      readonly exchange: number;
      readonly line: string;
      readonly request: HttpRequest;
      readonly timeoutMs: number;
      readonly mostBytes: number;
      /** It may go out again where a line that was kept turned out to be closed. */
      readonly mayRepeat: boolean;
      /** It goes out so much later: a device that answers at once is not asked without a pause. */
      readonly afterMs: number;
    }
  /** What is under way on it is given up; the next exchange dials anew. */
  | { readonly kind: 'dropLine'; readonly line: string };

export type HttpInput =
  | {
      readonly kind: 'responded';
      readonly exchange: number;
      readonly answer: HttpAnswer;
      /** Answers on this line that nobody had asked for. */
      readonly extra: number;
      /** What its body says as XML, where that was read elsewhere: of a long one, beside everything else. */
      readonly envelope?: Result<Envelope, Fault<EnvelopeFaultCode>>;
      /** What it showed, where the line is encrypted. */
      readonly certificate?: CertificateSeen | null;
      readonly atMs: number;
    }
  | {
      readonly kind: 'failed';
      readonly exchange: number;
      readonly cause: HttpCause;
      readonly note: string;
      /** What it showed before that ended, where the line is encrypted. */
      readonly certificate?: CertificateSeen | null;
      readonly atMs: number;
    };
