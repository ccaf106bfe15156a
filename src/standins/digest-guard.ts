import { randomBytes } from 'node:crypto';
import { digestResponse } from '../core/auth/authorization.ts';
import { parseChallenges } from '../core/auth/challenge.ts';
import type { Personality } from './personality.ts';

/** The login of one connection of a stand-in: gives the challenge and checks the answer. Source: RFC 7616 §3.3, §3.4. */
export class DigestGuard {
  readonly #nonce = randomBytes(12).toString('hex');

  constructor(private readonly personality: Pick<Personality, 'account' | 'realm' | 'digestQop'>) {}

  get challenge(): string {
    const { realm, digestQop } = this.personality;
    return `Digest realm="${realm}", nonce="${this.#nonce}"${digestQop ? `, qop="${digestQop}", algorithm=MD5` : ''}`;
  }

  admits(method: string, uri: string, authorization: string | undefined): boolean {
    const { account, realm, digestQop } = this.personality;
    if (!account) return true;
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
