/** Beside the command, which is loaded only when it is asked for. */
export const ONVIF_USAGE =
  'cleartap onvif HOST:PORT [--tls [--fingerprint SHA256]] [--user NAME] [--pass-env VAR | --pass-stdin] [--also PORT]... [--also-tls PORT]... [--timeout 5] [--allow-public] [--json]';
