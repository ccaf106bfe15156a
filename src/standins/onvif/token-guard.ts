import { base64Of, bytesFromBase64 } from '../../core/base/bytes.ts';
import { childOf, textIn, type XmlNode } from '../../core/onvif/envelope.ts';
import { momentOf } from '../../core/onvif/read-values.ts';
import { passwordDigest } from '../../core/onvif/ws-security.ts';

export interface Account {
  readonly user: string;
  readonly password: string;
}

const MOST_NONCES = 2000;

/** Checks the proof in a header: its digest, its date by the device's own clock, and that it was not seen before. */
export class TokenGuard {
  readonly #seen = new Set<string>();

  constructor(
    private readonly accountOf: () => Account | null,
    private readonly clockMs: () => number,
    private readonly lifeS: number,
  ) {}

  /** `none` where there is no token at all. */
  judge(header: XmlNode): 'ok' | 'none' | 'refused' {
    const token = childOf(childOf(header, 'Security'), 'UsernameToken');
    const account = this.accountOf();
    if (!account) return 'ok';
    if (!token) return 'none';
    const nonce = bytesFromBase64(textIn(token, 'Nonce'));
    const created = textIn(token, 'Created');
    const at = momentOf(created);
    if (!nonce.ok || at === null || textIn(token, 'Username') !== account.user) return 'refused';
    const key = `${base64Of(nonce.value)} ${created}`;
    const isFresh = !this.#seen.has(key) && Math.abs(at - this.clockMs()) <= this.lifeS * 1000;
    if (!isFresh || textIn(token, 'Password') !== passwordDigest(nonce.value, created, account.password))
      return 'refused';
    if (this.#seen.size >= MOST_NONCES) this.#seen.clear();
    this.#seen.add(key);
    return 'ok';
  }
}
