import { percentEncode } from './percent.ts';

// Some cameras want the login inside the path (`?user=op&password=x`, `/user=op_password=x_channel=1`). A path stands in
// the site file, on the sheet and in the log; so the secret goes to the vault and a placeholder takes its place. RFC 3986
// allows no braces in a URL: no path can hold one by itself.

/** A path as a camera takes it, or nothing. */
export const STREAM_PATH = /^(\/[^\s#]*)?$/;

export const SECRET_PLACE = '{password}';
/** As files of before have it: filled in alike, written no more. */
const OLD_SECRET_PLACE = '{secret}';
export const USER_PLACE = '{user}';
/** Which channel of a box: it is filled in when a camera takes the path of a card, once for all. */
export const CHANNEL_PLACE = '{channel}';
/** Where something is left out that is not filled in again. */
export const MASK = '***';

export const asksForSecret = (path: string): boolean => path.includes(SECRET_PLACE) || path.includes(OLD_SECRET_PLACE);
export const isSecretPlace = (text: string | undefined): boolean => text === SECRET_PLACE || text === OLD_SECRET_PLACE;
/** A path without its placeholders: what is left must be written as a URL has it. */
export const withoutPlaces = (path: string): string =>
  [SECRET_PLACE, OLD_SECRET_PLACE, USER_PLACE].reduce((rest, place) => rest.replaceAll(place, ''), path);
export const asksForLogin = (path: string): boolean => asksForSecret(path) || path.includes(USER_PLACE);

/** A value of a path or query: everything stays that RFC 3986 §3.3 allows there and that does not end the value. */
export const encodeValue = (text: string): string =>
  percentEncode(text).replace(/%(?:24|2B|2C|3A|40)/g, (code) => decodeURIComponent(code));

/** The path as it must be sent: placeholders filled. `secret` may be text that only stands for it, on a sheet. */
export const fillPath = (path: string, user: string, secret: string, encode = encodeValue): string =>
  [SECRET_PLACE, OLD_SECRET_PLACE].reduce(
    (rest, place) => rest.replaceAll(place, () => encode(secret)),
    path.replaceAll(USER_PLACE, () => encodeValue(user)),
  );
