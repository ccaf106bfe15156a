/** Signs that end a line, steer a terminal or turn the direction of reading: Unicode Cc, Cf, Zl, Zp. */
const STEERING = /[\p{Cc}\p{Cf}\u2028\u2029]/u;
const ALL_STEERING = /[\p{Cc}\p{Cf}\u2028\u2029]/gu;
/** Unicode Cc alone: what may stand in no name, host, account or path. */
const CONTROL = /\p{Cc}/u;

export const hasControl = (text: string): boolean => CONTROL.test(text);

/** Text of somebody else on one line: control signs become blanks. */
export const oneLine = (text: string): string => (STEERING.test(text) ? text.replace(ALL_STEERING, ' ') : text);

const escaped = (sign: string): string => {
  const code = (sign.codePointAt(0) ?? 0).toString(16).padStart(4, '0');
  return code.length > 4 ? `\\u{${code}}` : `\\u${code}`;
};

/** Text for a terminal: control signs stand as `\u001b`, so that they are seen and steer nothing. Line ends stay. */
export const visibleText = (text: string): string =>
  text.replace(ALL_STEERING, (sign) => (sign === '\n' ? sign : escaped(sign)));

/** JSON for a terminal: the same signs as escapes of JSON itself (RFC 8259 §7), so that it stays the same value. */
export const visibleJson = (value: unknown): string =>
  JSON.stringify(value).replace(ALL_STEERING, (sign) =>
    Array.from({ length: sign.length }, (_, at) => `\\u${sign.charCodeAt(at).toString(16).padStart(4, '0')}`).join(''),
  );
