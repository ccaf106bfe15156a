/** Beside the command, which is loaded only when it is asked for. */
export const ONVIF_USAGE =
  'cleartap onvif HOST:PORT [--user NAME] [--pass-env VAR | --pass-stdin] [--timeout 5] [--allow-public] [--json]';
