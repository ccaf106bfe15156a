/** One challenge of a WWW-Authenticate header. Parameter names are lower-case, values unquoted. */
export interface Challenge {
  readonly scheme: string;
  readonly params: ReadonlyMap<string, string>;
}

export type DigestAlgorithm = 'MD5' | 'MD5-SESS' | 'SHA-256' | 'SHA-256-SESS' | 'SHA-512-256' | 'SHA-512-256-SESS';
export type DigestQop = 'auth' | 'auth-int';

export type ChosenChallenge =
  | {
      readonly scheme: 'digest';
      readonly realm: string;
      readonly nonce: string;
      readonly algorithm: DigestAlgorithm;
      readonly qop: DigestQop | null;
      readonly opaque: string | null;
      readonly stale: boolean;
    }
  | { readonly scheme: 'basic'; readonly realm: string };

/** Weakest first. RFC 7616 §3.7: "the client SHOULD use the first challenge it supports", we take the strongest. */
const STRENGTH: readonly DigestAlgorithm[] = [
  'MD5',
  'MD5-SESS',
  'SHA-256',
  'SHA-256-SESS',
  'SHA-512-256',
  'SHA-512-256-SESS',
];
const strengthOf = (choice: ChosenChallenge): number =>
  choice.scheme === 'basic' ? 0 : 1 + Math.floor(STRENGTH.indexOf(choice.algorithm) / 2);
const isAlgorithm = (text: string): text is DigestAlgorithm => STRENGTH.some((known) => known === text);

const TOKEN = /[!#$%&'*+\-.^_`|~A-Za-z0-9]+/y;
const QUOTED = /"((?:[^"\\]|\\.)*)"/y;

/**
 * Splits one WWW-Authenticate header into its challenges; several may stand in one header, separated by commas.
 * Text that fits no challenge is passed over up to the next comma.
 * Source: RFC 9110 §11.3, §11.6.1; quoted-string RFC 9110 §5.6.4.
 */
export function parseChallenges(header: string): readonly Challenge[] {
  const challenges: { scheme: string; params: Map<string, string> }[] = [];
  let at = 0;
  const match = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at;
    const found = pattern.exec(header);
    if (found) at = pattern.lastIndex;
    return found;
  };
  while (at < header.length) {
    if (match(/[\s,]+/y)) continue;
    const token = match(TOKEN)?.[0];
    if (token === undefined) {
      at = header.indexOf(',', at) < 0 ? header.length : header.indexOf(',', at) + 1;
      continue;
    }
    if (match(/\s*=\s*/y)) {
      const quoted = match(QUOTED);
      const value = quoted ? (quoted[1] ?? '').replace(/\\(.)/g, '$1') : (match(TOKEN)?.[0] ?? '');
      challenges.at(-1)?.params.set(token.toLowerCase(), value);
    } else challenges.push({ scheme: token.toLowerCase(), params: new Map() });
  }
  return challenges;
}

/**
 * The challenge to answer: SHA-512-256 > SHA-256 > MD5 > Basic, the first listed wins a tie; unknown schemes and
 * algorithms are passed over. `null` when none can be answered.
 * Source: RFC 7616 §3.3, §3.7; qop `auth` is preferred to `auth-int`, no qop is the form of RFC 2069.
 */
export function chooseChallenge(headers: readonly string[]): ChosenChallenge | null {
  let best: ChosenChallenge | null = null;
  for (const challenge of headers.flatMap((header) => parseChallenges(header))) {
    const choice = answerable(challenge);
    if (choice && (!best || strengthOf(choice) > strengthOf(best))) best = choice;
  }
  return best;
}

function answerable({ scheme, params }: Challenge): ChosenChallenge | null {
  const realm = params.get('realm') ?? '';
  if (scheme === 'basic') return { scheme, realm };
  const algorithm = (params.get('algorithm') ?? 'MD5').toUpperCase();
  const nonce = params.get('nonce');
  if (scheme !== 'digest' || nonce === undefined || !isAlgorithm(algorithm)) return null;
  const offered = params
    .get('qop')
    ?.split(',')
    .map((qop) => qop.trim().toLowerCase());
  const qop = offered?.includes('auth') ? 'auth' : offered?.includes('auth-int') ? 'auth-int' : null;
  if (offered && qop === null) return null; // only qop values nobody defined
  return {
    scheme,
    realm,
    nonce,
    algorithm,
    qop,
    opaque: params.get('opaque') ?? null,
    stale: params.get('stale')?.toLowerCase() === 'true',
  };
}
