import { MOST_REFUSED_LOGINS } from '../auth/login-ledger.ts';
import type { ProbeReport } from '../probe/probe-types.ts';
import type { Diagnosis, Reason } from '../probe/reasons.ts';
import { again, type FailedProbe, isAdmitted, type Notebook, sayReport } from './notebook.ts';
import { askOnvif, type Trials } from './trials.ts';

const swapCase = (text: string): string =>
  [...text].map((sign) => (sign === sign.toLowerCase() ? sign.toUpperCase() : sign.toLowerCase())).join('');

/** Answers to a login that speak of a lock. Source: RFC 4918 §11.3 (423), RFC 6585 §4 (429). */
const LOCKED: ReadonlySet<number> = new Set([423, 429]);
/** Anything else, a slow answer, a closed line, 5xx, 453, 403 or 404, says nothing about the account. */
const isLocked = ({ steps }: ProbeReport): boolean =>
  steps.some(({ name, status }) => name === 'authenticate' && status !== null && LOCKED.has(status));

/**
 * The login was refused: each other explanation is tried, one login each, while the budget lasts. What was not tried, or was
 * answered by something else than a login is, stays possible, and is said to.
 */
export function* whyRefused(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const { report, credentials } = of;
  const { auth } = report;
  let refused = Math.max(1, auth.refusals);
  if (auth.staleEachTime) {
    notes.note('answered each fresh challenge at once', `${refused} times the camera called the answer stale`);
    return notes.conclude('nonces-stale');
  }
  if (!credentials) return notes.open();
  const variants: { did: string; reason: Reason; more: Parameters<typeof again>[1] }[] = [];
  if (auth.scheme !== 'basic' && auth.offered.includes('basic') && (of.mayGoReadable || report.tls !== null))
    variants.push({
      did: 'logged in by Basic, which the camera also offers',
      reason: 'scheme-broken',
      more: { loginBy: 'basic' },
    });
  const { user, password } = credentials;
  if (swapCase(password) !== password)
    variants.push({
      did: 'logged in with upper and lower case of the password swapped',
      reason: 'letter-case',
      more: { credentials: { user, password: swapCase(password) } },
    });
  if (user.toLowerCase() !== user)
    variants.push({
      did: 'logged in with the account name in lower case',
      reason: 'letter-case',
      more: { credentials: { user: user.toLowerCase(), password } },
    });
  const onvif = of.onvifPort === null ? null : yield* askOnvif(of.onvifPort, null);
  if (onvif?.isThere && onvif.skewS !== null)
    notes.note(
      'asked for its clock by ONVIF, which needs no login',
      Math.abs(onvif.skewS) < 300
        ? 'it is right within minutes'
        : `it is off by ${Math.round(Math.abs(onvif.skewS) / 3600)} hours`,
    );
  const untried: string[] = [];
  for (const { did, reason, more } of variants) {
    if (refused >= MOST_REFUSED_LOGINS) {
      untried.push(did);
      continue;
    }
    const tried = yield* again(of, more);
    if (tried.cause === 'login-held') {
      // somebody else spent the rest of it meanwhile: this was not tried, and says nothing
      refused = MOST_REFUSED_LOGINS;
      untried.push(did);
      continue;
    }
    refused += Math.max(tried.auth.refusals, tried.cause === 'auth-failed' ? 1 : 0);
    if (isAdmitted(tried)) {
      notes.note(did, 'the account was accepted');
      return notes.conclude(reason);
    }
    notes.note(did, sayReport(tried));
    if (isLocked(tried)) return notes.conclude('locked');
    if (tried.cause !== 'auth-failed') untried.push(did);
  }
  const byOnvif = 'logged in by ONVIF with the same account';
  if (onvif?.isThere && of.onvifPort !== null && refused >= MOST_REFUSED_LOGINS) untried.push(byOnvif);
  else if (onvif?.isThere && of.onvifPort !== null) {
    const told = yield* askOnvif(of.onvifPort, credentials);
    if (told.isAdmitted !== null) notes.note(byOnvif, told.isAdmitted ? 'it was accepted' : 'refused there too');
    else untried.push(byOnvif);
    if (told.isAdmitted) return notes.conclude('account-elsewhere');
    refused += 1;
  }
  if (notes.experiments.length === 0) notes.note('answered its challenge correctly', 'the account was refused');
  // a lock answers the right password as it answers a wrong one: the likeliest, and never settled
  if (untried.length === 0) {
    notes.note(
      'not tried: the same login after a pause',
      'a locked account is refused in the same way for some minutes',
    );
    return notes.open('secret-wrong');
  }
  const isSpent = refused >= MOST_REFUSED_LOGINS;
  notes.note(
    `not tried or not answered: ${untried.join('; ')}`,
    isSpent
      ? 'two logins were refused, and many devices lock an account after three'
      : 'what came back was about something else',
  );
  return notes.open('secret-wrong');
}
