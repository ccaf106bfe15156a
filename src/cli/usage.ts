import { MOST_SESSIONS, USUAL_SESSIONS } from '../core/sessions/sessions-types.ts';
import { PROBE_USAGE } from './probe-command.ts';

// Beside the commands, which are loaded only when they are asked for.

const SCAN_USAGE = `cleartap scan RANGE [--ports 554,8554,…] [--rate 100] [--timeout 1] [--discover] [--site FILE] [--allow-public] [--json]
  cleartap scan --discover [--site FILE] [--json]      only where you are the owner, or asked to work`;
const ONVIF_USAGE =
  'cleartap onvif HOST:PORT [--tls [--fingerprint SHA256]] [--user NAME] [--pass-env VAR | --pass-stdin] [--also PORT]... [--also-tls PORT]... [--timeout 5] [--allow-public] [--json]';
const SESSIONS_USAGE = `cleartap sessions rtsp://host:port/path [--user NAME] [--pass-env VAR | --pass-stdin] [--most ${USUAL_SESSIONS}, at most ${MOST_SESSIONS}]
               [--transport tcp|udp|auto] [--timeout 5] [--allow-public] [--json]`;

export const USAGE = `usage:
  ${PROBE_USAGE}
  cleartap check FILE.cleartap.json [--passwords FILE.json] [--apply RULE [--out FILE]] [--json]
  ${SCAN_USAGE}
  ${ONVIF_USAGE}
  ${SESSIONS_USAGE}
  cleartap card --size BYTES [--limit GIB] [--firmware FILE [--sha256 HEX] [--name NAME]] [--json]
  cleartap rehearse [SCRIPT.json] [--json]
  cleartap standins [--json]
`;
