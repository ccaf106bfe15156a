import { MOST_REFUSED_LOGINS, type ProofEnd } from '../auth/login-ledger.ts';
import { NO_GATE, OpenProof, proofEndOf, sayHeld } from '../auth/proof-gate.ts';
import { textOf } from '../base/bytes.ts';
import { headerOf, headersOf } from '../http/headers.ts';
import type { HttpAnswer } from '../http/http-message.ts';
import type { HttpInput } from '../machine/machine.ts';
import type { CertificateSeen } from '../net/certificate.ts';
import { childOf, parseEnvelope } from '../onvif/envelope.ts';
import type { ServiceName } from '../onvif/namespaces.ts';
import { MAX_ANSWER_BYTES } from '../onvif/onvif-limits.ts';
import { asked, type OtherDoor, placeFrom, type ServicePlace, sameDoor, sayDoor } from '../onvif/service-place.ts';
import { type SoapFault, soapFaultIn } from '../onvif/soap-fault.ts';
import { createdAt, usernameToken } from '../onvif/ws-security.ts';
import { Login } from '../rtsp/login.ts';
import { notSoap, resolvedLocation, writeCall } from './call-request.ts';
import type { Call } from './onvif-script.ts';
import { failed, type Judged, type ProofWay, type SessionOptions } from './session-types.ts';

/** Answers to another question than the one that was asked, before that is given up. */
const MAX_STRAYS = 2;
/** Asked of an account that may do other things, before nothing more is asked as that account [A]. */
const MAX_NOT_ALLOWED = 8;
/**
 * A token is good for as long as its date is near the device's clock: one that is dated years ahead could be kept by whoever
 * asked for it, and used then. A clock that is set wrong by hand is off by hours [A].
 */
const MOST_AHEAD_S = 86_400;
/** Doors of a device beyond the one that was called; more are no device’s. */
const MOST_DOORS = 8;

interface Tried {
  readonly proof: ProofWay;
  readonly place: ServicePlace;
  readonly redirects: number;
  readonly strays: number;
  readonly open: OpenProof;
}

type Responded = Extract<HttpInput, { kind: 'responded' }>;

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
  /** What it showed, where it was asked over TLS. */
  certificate: CertificateSeen | null = null;
  /** The device refused without a login what it gave with one: then what it refuses later is a matter of rights. */
  checksLogins = false;
  #proof: ProofWay = 'token';
  #held = false;
  #refused = 0;
  #notAllowed = 0;
  #openNeedsProof = false;
  #heldDoors: OtherDoor[] = [];
  readonly #login: Login;
  /** Those that nobody knows the end of. */
  readonly #proofs = new Set<OpenProof>();
  readonly #tried = new WeakMap<Call, Tried>();

  constructor(private readonly options: SessionOptions) {
    const { credentials, cnonce, gate, target } = options;
    if (gate.takesDigest()) this.#proof = 'digest';
    this.places.set('device', target);
    // each proof is counted here, with the call that it belongs to
    this.#login = new Login({
      credentials,
      cnonce,
      gate: { ...NO_GATE, noteBetter: gate.noteBetter },
      isEncrypted: target.isTls,
    });
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
    return this.#refused >= MOST_REFUSED_LOGINS || this.#notAllowed >= MAX_NOT_ALLOWED;
  }
  /** Doors of the same host where the account was not told: nobody allowed it there. */
  get heldDoors(): readonly OtherDoor[] {
    return this.#heldDoors;
  }

  /** The first request of a call; an outcome where it need not be sent. */
  begin(call: Call, atMs: number): Judged {
    const place = call.at ?? this.places.get(call.operation.service);
    if (!place) return failed('not-supported', `It offers no ${call.operation.service} service.`);
    const needsProof = !call.isBare && (!call.operation.isOpen || this.#openNeedsProof);
    if (needsProof && this.isLockedOut)
      return failed('auth-failed', `Not asked: account “${this.#user}” was refused before.`);
    // a device that a token cannot be dated for is asked what else it takes
    const isDated = this.#proof !== 'token' || !this.#isTooFarAhead;
    // a digest answers a challenge: without one it is asked for first
    const isReady = this.#proof !== 'digest' || this.#login.isArmed;
    const proof = needsProof && this.options.credentials && isDated && isReady ? this.#proof : 'none';
    return this.#ask(call, { proof, place, redirects: 0, strays: 0, open: this.#newProof() }, atMs);
  }

  get #isTooFarAhead(): boolean {
    return (this.skewS ?? 0) > MOST_AHEAD_S;
  }
  get #user(): string {
    return this.options.credentials?.user ?? '';
  }
  #newProof(): OpenProof {
    const open = new OpenProof(this.options.gate);
    this.#proofs.add(open);
    return open;
  }

  /** No whole answer came. */
  unanswered(call: Call, certificate: CertificateSeen | null = null): void {
    this.certificate ??= certificate;
    const tried = this.#tried.get(call);
    if (tried) this.#settle(call, tried, 'unanswered');
  }
  /** Whoever talks goes: what is still under way is not answered any more. */
  close(): void {
    for (const open of this.#proofs) open.end('unanswered', '');
    this.#proofs.clear();
  }

  /** What an answer makes of a call. */
  judge(call: Call, { answer, envelope, certificate = null }: Responded, atMs: number): Judged {
    const tried = this.#tried.get(call);
    if (!tried) throw new RangeError('call: it was never begun');
    this.certificate ??= certificate;
    const judged = this.#judged(call, tried, answer, envelope, atMs);
    // what was not settled by what it says is settled by its status
    this.#settle(call, tried, proofEndOf(answer.status));
    return judged;
  }

  #settle(call: Call, tried: Tried, how: ProofEnd): void {
    // what is given to everybody says nothing of an account
    tried.open.end(how === 'accepted' && call.operation.isOpen ? 'passed' : how, call.operation.name);
    this.#proofs.delete(tried.open);
  }

  #judged(call: Call, tried: Tried, answer: HttpAnswer, envelope: Responded['envelope'], atMs: number): Judged {
    if (answer.status >= 300 && answer.status < 400 && answer.status !== 304)
      return this.#redirected(call, tried, answer, atMs);
    if (answer.status === 401) return this.#challenged(call, tried, answer, atMs);
    const text = textOf(answer.body);
    const type = headerOf(answer, 'content-type')?.toLowerCase() ?? '';
    const read = envelope ?? parseEnvelope(text, MAX_ANSWER_BYTES);
    if (!read.ok) {
      const how = proofEndOf(answer.status);
      if (tried.proof !== 'none' && !this.#held && how !== 'passed') this.#countRefusal();
      this.#settle(call, tried, how === 'accepted' ? 'unanswered' : how);
      return notSoap(answer, type, read.error.code, text);
    }
    if (!type.includes('xml')) this.oddTypes += 1;
    const fault = soapFaultIn(read.value);
    if (fault) return this.#refusedBy(call, tried, fault, answer, atMs);
    const name = `${call.operation.name}Response`;
    if (!Object.hasOwn(read.value.body, name))
      return this.#stray(call, tried, Object.keys(read.value.body)[0] ?? '', atMs);
    if (tried.proof !== 'none') {
      this.#settle(call, tried, 'accepted');
      this.#held = true;
      this.#refused = 0;
      this.#login.accepted();
      if (tried.proof === 'digest') this.options.gate.noteDigest();
    }
    return { kind: 'over', outcome: { ok: true, value: call.read(childOf(read.value.body, name) ?? {}, text) } };
  }

  /** Writes a request, with its proof where one is to go along and may. */
  #ask(call: Call, tried: Tried, atMs: number, isFresh = false): Judged {
    this.#tried.set(call, tried);
    const { place, proof } = tried;
    const { credentials, userAgent, nonce, unixMs, knownFingerprint } = this.options;
    let security = '';
    let authorization: string | null = null;
    if (proof !== 'none' && credentials) {
      const door = this.#mayProveAt(place);
      if (door) return door;
      if (proof === 'token' && this.#isTooFarAhead)
        return failed(
          'clock-ahead',
          `Login not sent: the device’s clock is ${Math.round((this.skewS ?? 0) / 86_400)} days ahead, and a time-stamped login dated then could be replayed until that day.`,
        );
      const held = tried.open.begin();
      if (held) return failed('login-held', sayHeld(held, credentials.user));
      if (proof === 'token')
        security = usernameToken(credentials, nonce(), createdAt(unixMs(atMs) + (this.skewS ?? 0) * 1000));
      else authorization = this.#login.authorizationFor('POST', place.path);
    }
    const request = writeCall(call, place, { userAgent, knownFingerprint, security, authorization });
    return { kind: 'again', request, isFresh, mayRepeat: !call.operation.isOnce && (proof === 'none' || this.#held) };
  }

  /** A proof goes to the door that was called, and to others only where a person allowed it. */
  #mayProveAt(place: ServicePlace): Judged | null {
    const { target, alsoProve } = this.options;
    if (sameDoor(place, target) || alsoProve.some((door) => sameDoor(door, place))) return null;
    if (!this.#heldDoors.some((door) => sameDoor(door, place)) && this.#heldDoors.length < MOST_DOORS)
      this.#heldDoors.push({ port: place.port, isTls: place.isTls });
    return failed(
      'other-place',
      `The device names ${sayDoor(place)} for this, and ${sayDoor(target)} was asked: the password was not sent there.`,
    );
  }

  /** Followed once, and never to another host: whoever waits there would be given a proof of the account. */
  #redirected(call: Call, tried: Tried, answer: HttpAnswer, atMs: number): Judged {
    const location = headerOf(answer, 'location') ?? '';
    const { place } = tried;
    const led = placeFrom(resolvedLocation(location, place), place);
    if (!led)
      return failed('redirect-elsewhere', `It redirects (${answer.status}) to an address that is not followed.`);
    if (led.isElsewhere)
      return failed(
        'redirect-elsewhere',
        `It redirects to another host, ${led.saidHost}: the account was not sent there.`,
      );
    if (tried.redirects > 0) return failed('redirect-elsewhere', 'It redirects again and again.');
    const moved = asked(led);
    if (!call.at) this.places.set(call.operation.service, moved);
    this.#settle(call, tried, 'passed');
    return this.#ask(call, { ...tried, place: moved, redirects: 1, open: this.#newProof() }, atMs);
  }

  #challenged(call: Call, tried: Tried, answer: HttpAnswer, atMs: number): Judged {
    const challenges = headersOf(answer, 'www-authenticate');
    if (!this.options.credentials) return failed('auth-required', 'It asks for an account, and none was given.');
    if (challenges.length === 0) {
      if (tried.proof === 'none') return this.#proveOpen(call, tried, atMs);
      return this.#refusedProof(call, tried, 'It refused the account (401), and offers no other way to log in.');
    }
    if (tried.proof !== 'none') {
      this.#countRefusal();
      this.#settle(call, tried, 'refused');
    }
    if (this.isLockedOut) return failed('auth-failed', `It refused account “${this.#user}” twice.`);
    const failure = this.#login.refused(challenges, tried.proof === 'digest');
    if (failure) {
      return failed(failure.cause === 'auth-unsupported' ? 'auth-unsupported' : 'auth-failed', failure.note);
    }
    if (this.#login.challenge?.scheme === 'basic')
      return failed('auth-unsupported', 'It accepts only Basic, which sends the password readable. It was not sent.');
    if (call.isBare) return failed('auth-required', 'It needs an account.');
    this.#proof = 'digest';
    if (call.operation.isOpen) this.#openNeedsProof = true;
    return this.#ask(call, { ...tried, proof: 'digest', open: this.#newProof() }, atMs);
  }

  /** Some devices want a login for what the standard gives to everybody. */
  #proveOpen(call: Call, tried: Tried, atMs: number): Judged {
    if (!this.options.credentials) return failed('auth-required', 'It asks for an account, and none was given.');
    if (call.isBare) return failed('auth-required', 'It needs an account.');
    if (this.isLockedOut) return failed('auth-failed', `Not asked: account “${this.#user}” was refused before.`);
    this.#openNeedsProof = true;
    if (!this.#login.isArmed) this.#proof = 'token'; // nothing that a digest could answer
    return this.#ask(call, { ...tried, proof: this.#proof, open: this.#newProof() }, atMs);
  }

  #countRefusal(): void {
    this.#refused += 1;
  }

  /** Where the device was seen to look at logins and took this one, a refusal is a matter of rights, and counts for little. */
  #refusedProof(call: Call, tried: Tried, note: string): Judged {
    if (this.#held && this.checksLogins) {
      this.#settle(call, tried, 'passed');
      this.#notAllowed += 1;
      return failed('not-allowed', note);
    }
    if (tried.proof !== 'none') {
      this.#countRefusal();
      this.#settle(call, tried, 'refused');
    }
    return failed(this.#held && !this.isLockedOut ? 'not-allowed' : 'auth-failed', note);
  }

  #refusedBy(call: Call, tried: Tried, fault: SoapFault, answer: HttpAnswer, atMs: number): Judged {
    const said = [fault.code, fault.reason].filter((text) => text !== '').join(': ') || 'no reason given';
    switch (fault.kind) {
      case 'not-authorized': {
        if (tried.proof === 'none') return this.#proveOpen(call, tried, atMs);
        if (tried.proof === 'token' && headersOf(answer, 'www-authenticate').length > 0)
          return this.#challenged(call, tried, answer, atMs);
        return this.#refusedProof(
          call,
          tried,
          this.#held
            ? `Account “${this.#user}” may not do this (${said}).`
            : `It refused account “${this.#user}” (${said}).`,
        );
      }
      case 'locked':
        if (tried.proof === 'none') return failed('auth-failed', `It accepts no logins now (${said}).`);
        this.#settle(call, tried, 'locked');
        this.#refused = MOST_REFUSED_LOGINS;
        return failed('auth-failed', `It answered account “${this.#user}” as one that is locked (${said}).`);
      case 'not-supported':
        this.#settle(call, tried, 'passed');
        return failed('not-supported', `It does not support this request (${said}).`);
      case 'bad-argument':
        this.#settle(call, tried, 'passed');
        return failed('fault', `It refused (${said}).`);
      case 'other':
        return this.#unclear(call, tried, answer, said);
    }
  }

  /** A refusal that says nothing of the login; of an account that nobody knows to be right it may be one all the same. */
  #unclear(call: Call, tried: Tried, { status }: HttpAnswer, said: string): Judged {
    const how = proofEndOf(status);
    if (tried.proof === 'none' || this.#held) {
      this.#settle(call, tried, how === 'locked' ? how : 'passed');
      return failed('fault', `It refused (${said}).`);
    }
    this.#countRefusal();
    this.#settle(call, tried, how === 'locked' ? how : 'refused');
    if (how === 'locked') this.#refused = MOST_REFUSED_LOGINS;
    return this.isLockedOut
      ? failed('auth-failed', `It refused (${said}), and more logins may lock account “${this.#user}”.`)
      : failed('fault', `It refused (${said}).`);
  }

  #stray(call: Call, tried: Tried, name: string, atMs: number): Judged {
    this.#settle(call, tried, 'passed');
    this.extraAnswers += 1;
    if (tried.strays >= MAX_STRAYS || call.operation.isOnce)
      return failed('wrong-answer', `Unexpected answer (${name.slice(0, 60) || 'nothing'}).`);
    return this.#ask(call, { ...tried, strays: tried.strays + 1, open: this.#newProof() }, atMs, true);
  }
}
