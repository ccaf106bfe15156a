import { randomBytes } from 'node:crypto';
import { basicAuthorization, digestResponse } from '../core/auth/authorization.ts';
import { parseChallenges } from '../core/auth/challenge.ts';
import type { Personality } from './personality.ts';

/** Logins that a camera has refused, over all its connections. */
export interface Refusals {
  count: number;
}

/** The login of one connection of a stand-in: gives the challenge and checks the answer. Source: RFC 7616 §3.3, §3.4; RFC 7617 §2. */
export class LoginGuard {
  #nonce: string;

  constructor(
    private readonly personality: Pick<Personality, 'account' | 'realm' | 'login' | 'digestQop' | 'odd'>,
    private readonly refusals: Refusals = { count: 0 },
  ) {
    // one that closes after its question knows the answer to it on the next connection
    this.#nonce = personality.odd?.closesAfter401 ? 'c1'.repeat(12) : randomBytes(12).toString('hex');
  }

  get challenges(): readonly string[] {
    const { realm, login, digestQop, odd } = this.personality;
    const basic = `Basic realm="${realm}"`;
    if (login === 'basic') return [basic];
    const stale = odd?.nonces === 'stale' ? ', stale=true' : '';
    const digest = `Digest realm="${realm}", nonce="${this.#nonce}"${digestQop ? `, qop="${digestQop}", algorithm=MD5` : ''}${stale}`;
    return odd?.digest === 'broken' ? [digest, basic] : [digest];
  }

  admits(method: string, uri: string, authorization: string | undefined): 'admitted' | 'refused' | 'locked' {
    const { account, odd } = this.personality;
    if (!account) return 'admitted';
    const isLocked = odd?.locksAfter !== undefined && this.refusals.count >= odd.locksAfter;
    if (authorization === undefined) return 'refused';
    if (isLocked) return 'locked';
    const isRight = this.#isRight(account, method, uri, authorization);
    if (!isRight) this.refusals.count += 1;
    return isRight ? 'admitted' : 'refused';
  }

  #isRight(account: NonNullable<Personality['account']>, method: string, uri: string, authorization: string): boolean {
    const { realm, login, digestQop, odd } = this.personality;
    if (login === 'basic' || odd?.digest === 'broken') return authorization === basicAuthorization(account);
    if (odd?.nonces === 'stale') {
      this.#nonce = randomBytes(12).toString('hex');
      return false;
    }
    const [given] = parseChallenges(authorization);
    if (given?.scheme !== 'digest') return false;
    const param = (name: string): string => given.params.get(name) ?? '';
    if (param('nonce') !== this.#nonce || param('username') !== account.user || param('uri') !== uri) return false;
    const { response } = digestResponse({
      ...account,
      realm,
      nonce: this.#nonce,
      method,
      uri,
      algorithm: 'MD5',
      qop: digestQop,
      nc: param('nc'),
      cnonce: param('cnonce'),
      body: '',
    });
    return param('response') === response;
  }
}
