import { redactAuthorization } from '../auth/authorization.ts';
import { redactLogins } from './path-login.ts';
import { redactUrl } from './stream-url.ts';

const isSchemeSign = (code: number): boolean =>
  (code >= 0x41 && code <= 0x5a) ||
  (code >= 0x61 && code <= 0x7a) ||
  (code >= 0x30 && code <= 0x39) ||
  code === 0x2b ||
  code === 0x2d ||
  code === 0x2e;
const endsUrl = (text: string, at: number): boolean => text.charCodeAt(at) <= 0x20 || '"<>'.includes(text.charAt(at));

/** Passwords of every URL in a line masked. Goes over the line a fixed number of times, whatever stands in it. */
function redactUrls(line: string): string {
  let out = '';
  let done = 0;
  for (let mark = line.indexOf('://'); mark >= 0; mark = line.indexOf('://', Math.max(mark + 3, done))) {
    let from = mark;
    while (from > done && isSchemeSign(line.charCodeAt(from - 1))) from -= 1;
    let to = mark + 3;
    while (to < line.length && !endsUrl(line, to)) to += 1;
    // A URL may stand in the query of another: each part up to the next is looked at by itself as well.
    const [head = '', ...inner] = redactUrl(line.slice(from, to)).split(/(?=[A-Za-z0-9+.-]:\/\/)/);
    out += line.slice(done, from) + head + inner.map(redactUrl).join('');
    done = to;
  }
  return out + line.slice(done);
}

const AUTHORIZATION = /^(?:proxy-)?authorization:/i;

/**
 * Text of a wire as it may be kept and shown: proofs of a password, passwords in URLs and those behind a key masked, all
 * else as it came. Clip before: it looks at every sign.
 */
export function redactText(text: string): string {
  return text
    .split('\n')
    .map((line) => {
      const head = AUTHORIZATION.exec(line)?.[0];
      if (head === undefined) return redactLogins(redactUrls(line));
      const value = line.slice(head.length);
      return `${head}${value.startsWith(' ') ? ' ' : ''}${redactAuthorization(value.trim())}`;
    })
    .join('\n');
}
