import { DIAL_CAUSES } from '../rtsp/exchange-types.ts';

/** Why an operation gave no answer. */
export const ONVIF_CAUSES = [
  ...DIAL_CAUSES,
  'tls-failed',
  'certificate-changed',
  'not-http',
  'too-large',
  'cut',
  'not-found',
  'not-soap',
  'hostile-xml',
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'login-held',
  'clock-ahead',
  'other-place',
  'not-allowed',
  'not-supported',
  'redirect-elsewhere',
  'wrong-answer',
  'fault',
] as const;
export type OnvifCause = (typeof ONVIF_CAUSES)[number];

/** After these nothing else is asked: there is nobody to ask, or asking on would cost the account. */
export const ENDS_ALL: ReadonlySet<OnvifCause> = new Set([
  'unresolved-host',
  'unreachable',
  'refused',
  'blocked-by-policy',
  'not-http',
  'auth-required',
  'auth-failed',
  'auth-unsupported',
  'login-held',
  'clock-ahead',
  'tls-failed',
  'certificate-changed',
  'redirect-elsewhere',
] satisfies readonly OnvifCause[]);
