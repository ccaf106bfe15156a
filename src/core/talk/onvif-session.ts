import type { Credentials } from '../auth/authorization.ts';
import { textOf } from '../base/bytes.ts';
import { type HttpAnswer, type HttpHeader, type HttpRequest, headerIn, headersOf } from '../http/http-message.ts';
import { childOf, parseEnvelope } from '../onvif/envelope.ts';
import type { ServiceName } from '../onvif/namespaces.ts';
import type { OnvifCause } from '../onvif/onvif-cause.ts';
import { writeEnvelope } from '../onvif/operation.ts';
import { placeFrom, type ServicePlace } from '../onvif/service-place.ts';
import { type SoapFault, soapFaultIn } from '../onvif/soap-fault.ts';
import { createdAt, usernameToken } from '../onvif/ws-security.ts';
import { Login } from '../rtsp/login.ts';
import type { Call, Outcome } from './onvif-script.ts';

/** Refusals in a row of requests that proved the account, so that no device locks it. */
const MAX_REFUSED_PROOFS = 3;
/** A box of 64 channels needs most of it; more is no answer. */
export const MAX_ANSWER_BYTES = 512 * 1024;
/** Answers to another question than the one that was asked, before that is given up. */
const MAX_STRAYS = 2;

export interface SessionOptions {
  readonly target: ServicePlace;
  readonly credentials: Credentials | null;
  readonly userAgent: string;
  /** Fresh bytes for each token: a device may remember those that it saw. */
  readonly nonce: () => Uint8Array;
  readonly cnonce: () => string;
  /** Local time at a moment of the machine. */
  readonly unixMs: (atMs: number) => number;
}

/** How the account is proven. */
export type ProofWay = 'none' | 'token' | 'digest';

interface Tried {
  readonly proof: ProofWay;
  readonly place: ServicePlace;
  readonly redirects: number;
  readonly strays: number;
}

export type Judged =
  | { readonly kind: 'again'; readonly request: HttpRequest; readonly isFresh: boolean }
  | { readonly kind: 'over'; readonly outcome: Outcome<unknown> };

const failed = (cause: OnvifCause, note: string): Judged => ({ kind: 'over', outcome: { ok: false, cause, note } });

/**
 * What is known of a device while one talks with it, on however many lines: its services, how far its clock is off, how the
 * account is proven. Sans-IO: it writes requests and judges answers.
 */
export class OnvifSession {
  readonly places = new Map<ServiceName, ServicePlace>();
  /** Device minus local, once it told; proofs are dated by the device's own clock. */
  skewS: number | null = null;
  /** Answers that nobody had asked for, or that answered another question. */
  extraAnswers = 0;
  /** An answer that is not called XML of SOAP by its own head. */
  oddTypes = 0;
  #proof: ProofWay = 'token';
  #held = false;
  #refused = 0;
  #openNeedsProof = false;
  readonly #login: Login;
  readonly #tried = new WeakMap<Call, Tried>();

  constructor(private readonly options: SessionOptions) {
    this.places.set('device', options.target);
    this.#login = new Login(options.credentials, options.cnonce);
  }

  get target(): ServicePlace {
    return this.options.target;
  }
  /** How the account was proven, once that held. */
  get provenBy(): ProofWay {
    return this.#held ? this.#proof : 'none';
  }
  /** The account is not tried any more. */
  get isLockedOut(): boolean {
    return this.#refused >= MAX_REFUSED_PROOFS;
  }

  /** The first request of a call; an outcome where it need not be sent. */
  begin(call: Call, atMs: number): Judged {
    const place = call.at ?? this.places.get(call.operation.service);
    if (!place) return failed('not-supported', `It names no ${call.operation.service} service.`);
    const needsProof = !call.operation.isOpen || this.#openNeedsProof;
    if (needsProof && this.isLockedOut) return failed('auth-failed', 'Not asked: the account was refused three times.');
    const proof = needsProof && this.options.credentials ? this.#proof : 'none';
    const tried = { proof, place, redirects: 0, strays: 0 };
    return { kind: 'again', request: this.#write(call, tried, atMs), isFresh: false };
  }

  /** What an answer makes of a call. */
  judge(call: Call, answer: HttpAnswer, atMs: number): Judged {
    const tried = this.#tried.get(call);
    if (!tried) throw new RangeError('call: it was never begun');
    if (answer.status >= 300 && answer.status < 400 && answer.status !== 304)
      return this.#redirected(call, tried, answer, atMs);
    if (answer.status === 401) return this.#challenged(call, tried, answer, atMs);
    const text = textOf(answer.body);
    const type = headerIn(answer, 'content-type')?.toLowerCase() ?? '';
    const read = parseEnvelope(text, MAX_ANSWER_BYTES);
    if (!read.ok) return this.#notSoap(answer, type, read.error.code, text);
    if (!type.includes('xml')) this.oddTypes += 1;
    const fault = soapFaultIn(read.value);
    if (fault) return this.#refusedBy(call, tried, fault, answer, atMs);
    const name = `${call.operation.name}Response`;
    if (!Object.hasOwn(read.value.body, name))
      return this.#stray(call, tried, Object.keys(read.value.body)[0] ?? '', atMs);
    if (tried.proof !== 'none') {
      this.#held = true;
      this.#refused = 0;
      this.#login.accepted();
    }
    return { kind: 'over', outcome: { ok: true, value: call.read(childOf(read.value.body, name) ?? {}, text) } };
  }

  #write(call: Call, tried: Tried, atMs: number): HttpRequest {
    this.#tried.set(call, tried);
    const { place, proof } = tried;
    const { credentials, userAgent, nonce, unixMs } = this.options;
    const security =
      proof === 'token' && credentials
        ? usernameToken(credentials, nonce(), createdAt(unixMs(atMs) + (this.skewS ?? 0) * 1000))
        : '';
    const authorization = proof === 'digest' ? this.#login.authorizationFor('POST', place.path) : null;
    const { operation, inner, echo } = call;
    const to = `http://${place.host}${place.port === 80 ? '' : `:${place.port}`}${place.path}`;
    const headers: HttpHeader[] = [
      { name: 'User-Agent', value: userAgent },
      { name: 'Content-Type', value: 'application/soap+xml; charset=utf-8' },
      ...(authorization === null ? [] : [{ name: 'Authorization', value: authorization }]),
    ];
    return { method: 'POST', ...place, headers, body: writeEnvelope({ operation, inner, to, security, echo }) };
  }

  #again(call: Call, tried: Tried, atMs: number, isFresh = false): Judged {
    return { kind: 'again', request: this.#write(call, tried, atMs), isFresh };
  }

  /** Followed once, and never to another host: whoever waits there would be given a proof of the account. */
  #redirected(call: Call, tried: Tried, answer: HttpAnswer, atMs: number): Judged {
    const location = headerIn(answer, 'location') ?? '';
    const { place } = tried;
    const led = placeFrom(resolved(location, place), place);
    if (!led || led.isTls)
      return failed('redirect-elsewhere', `It sends on (${answer.status}) to where this tool does not go.`);
    if (led.isElsewhere)
      return failed(
        'redirect-elsewhere',
        `It sends on to another host, ${led.saidHost}: nobody was told the account there.`,
      );
    if (tried.redirects > 0) return failed('redirect-elsewhere', 'It sends on again and again.');
    const moved = { host: led.host, port: led.port, path: led.path };
    if (!call.at) this.places.set(call.operation.service, moved);
    return this.#again(call, { ...tried, place: moved, redirects: 1 }, atMs);
  }

  #challenged(call: Call, tried: Tried, answer: HttpAnswer, atMs: number): Judged {
    const challenges = headersOf(answer, 'www-authenticate');
    if (!this.options.credentials) return failed('auth-required', 'It asks for an account, and none was given.');
    if (challenges.length === 0) {
      if (tried.proof === 'none') return this.#proveOpen(call, tried, atMs);
      return this.#refusedProof(tried, 'It refused the account (401), and does not say how else to prove it.');
    }
    if (tried.proof === 'token') this.#countRefusal();
    if (this.isLockedOut)
      return failed('auth-failed', `It refused the account “${this.options.credentials.user}” three times.`);
    const failure = this.#login.refused(challenges, tried.proof === 'digest');
    if (failure) {
      if (tried.proof === 'digest') this.#countRefusal();
      return failed(failure.cause === 'auth-unsupported' ? 'auth-unsupported' : 'auth-failed', failure.note);
    }
    if (this.#login.challenge?.scheme === 'basic')
      return failed('auth-unsupported', 'It wants the secret readable (Basic), and takes no token. It was not sent.');
    if (tried.proof === 'digest') this.#countRefusal();
    this.#proof = 'digest';
    if (call.operation.isOpen) this.#openNeedsProof = true;
    return this.#again(call, { ...tried, proof: 'digest' }, atMs);
  }

  /** Some devices want a login for what the standard gives to everybody. */
  #proveOpen(call: Call, tried: Tried, atMs: number): Judged {
    if (!this.options.credentials) return failed('auth-required', 'It asks for an account, and none was given.');
    if (this.isLockedOut) return failed('auth-failed', 'Not asked: the account was refused three times.');
    this.#openNeedsProof = true;
    return this.#again(call, { ...tried, proof: this.#proof }, atMs);
  }

  #countRefusal(): void {
    this.#refused += 1;
  }

  #refusedProof(tried: Tried, note: string): Judged {
    if (tried.proof !== 'none') this.#countRefusal();
    if (this.#held && !this.isLockedOut) return failed('not-allowed', note);
    return failed('auth-failed', note);
  }

  #refusedBy(call: Call, tried: Tried, fault: SoapFault, answer: HttpAnswer, atMs: number): Judged {
    const said = [fault.code, fault.reason].filter((text) => text !== '').join(': ') || 'no reason given';
    switch (fault.kind) {
      case 'not-authorized': {
        if (tried.proof === 'none') return this.#proveOpen(call, tried, atMs);
        if (tried.proof === 'token' && headersOf(answer, 'www-authenticate').length > 0)
          return this.#challenged(call, tried, answer, atMs);
        const user = this.options.credentials?.user ?? '';
        return this.#refusedProof(
          tried,
          this.#held
            ? `The account “${user}” may not do this (${said}).`
            : `It refused the account “${user}” (${said}).`,
        );
      }
      case 'not-supported':
        return failed('not-supported', `It does not know this question (${said}).`);
      case 'bad-argument':
      case 'other':
        return failed('fault', `It refused (${said}).`);
    }
  }

  #stray(call: Call, tried: Tried, name: string, atMs: number): Judged {
    this.extraAnswers += 1;
    if (tried.strays >= MAX_STRAYS || call.operation.isOnce)
      return failed('wrong-answer', `It answered something else (${name.slice(0, 60) || 'nothing'}).`);
    return this.#again(call, { ...tried, strays: tried.strays + 1 }, atMs, true);
  }

  #notSoap({ status }: HttpAnswer, type: string, code: string, text: string): Judged {
    if (code === 'onvif.doctype' && !/^\s*<!doctype html/i.test(text.slice(0, 200)))
      return failed(
        'hostile-xml',
        'Its answer holds a document type, which SOAP forbids and attacks begin with: it was not read.',
      );
    if (code === 'onvif.too-large')
      return failed('too-large', `Its answer is larger than ${MAX_ANSWER_BYTES / 1024} KiB.`);
    if (status === 404 || status === 405) return failed('not-found', `No ONVIF service lies there (${status}).`);
    const what =
      type.includes('html') || /^\s*<(?:!doctype )?html/i.test(text.slice(0, 200)) ? 'a web page' : 'no SOAP';
    return failed('not-soap', `It answered with ${what} (${status}).`);
  }
}

/** A Location that names no host leads to the one that sent it. Source: RFC 9110 §10.2.2. */
function resolved(location: string, { host, port, path }: ServicePlace): string {
  try {
    return new URL(location.slice(0, 1024), `http://${host.includes(':') ? `[${host}]` : host}:${port}${path}`).href;
  } catch {
    return '';
  }
}
