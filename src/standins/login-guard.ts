import { randomBytes } from 'node:crypto';
import { basicAuthorization, digestResponse } from '../core/auth/authorization.ts';
import { parseChallenges } from '../core/auth/challenge.ts';
import type { Personality } from './personality.ts';

/** The login of one connection of a stand-in: gives the challenge and checks the answer. Source: RFC 7616 §3.3, §3.4; RFC 7617 §2. */
export class LoginGuard {
  readonly #nonce = randomBytes(12).toString('hex');

  constructor(private readonly personality: Pick<Personality, 'account' | 'realm' | 'login' | 'digestQop'>) {}

  get challenge(): string {
    const { realm, login, digestQop } = this.personality;
    if (login === 'basic') return `Basic realm="${realm}"`;
    return `Digest realm="${realm}", nonce="${this.#nonce}"${digestQop ? `, qop="${digestQop}", algorithm=MD5` : ''}`;
  }

  admits(method: string, uri: string, authorization: string | undefined): boolean {
    const { account, realm, login, digestQop } = this.personality;
    if (!account) return true;
    if (login === 'basic') return authorization === basicAuthorization(account);
    const [given] = parseChallenges(authorization ?? '');
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
