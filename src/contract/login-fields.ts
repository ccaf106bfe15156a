import { boolean, string } from 'yup';
import { hasControl } from '../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../core/base/limits.ts';

const oneLine = (most: number) =>
  string()
    .strict()
    .max(most)
    .test(
      'one-line',
      '${path} has a line end or another control character in it',
      (text) => text == null || !hasControl(text),
    );

/** A host, an account, a path: each on one line. */
export const hostField = () => oneLine(TEXT_LIMITS.host).required();
export const lineField = oneLine;

/** As whom, in whatever is asked of a device. */
export const accountFields = {
  user: oneLine(TEXT_LIMITS.user).nullable().defined(),
  secret: string().strict().nullable().defined().max(TEXT_LIMITS.secret),
};

/** What a person allowed for this one press, and what is known of the device. */
export const leaveFields = {
  /** One login more, though the account was refused before. */
  oneMore: boolean().strict(),
  /** The password may go readable (Basic without TLS), though the device offered a login that hides it. */
  mayGoReadable: boolean().strict(),
  /** By Basic at once, where it is offered. */
  byBasic: boolean().strict(),
  /** SHA-256 of the certificate that the device is known by: to another one no password is sent. */
  knownFingerprint: oneLine(200).nullable(),
};

export interface LoginLeaveFields {
  readonly oneMore?: boolean | undefined;
  readonly mayGoReadable?: boolean | undefined;
  readonly byBasic?: boolean | undefined;
}
