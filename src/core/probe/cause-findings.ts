import type { Finding } from '../findings/finding.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';
import { NO_PROOF, type Proof } from './proof.ts';
import { REASON_TEXTS } from './reasons.ts';

interface CauseText {
  readonly title: string;
  readonly do: readonly string[];
  readonly why: string;
}

/** What each cause of a failed probe means and what to do next. */
const CAUSES: Readonly<Record<ProbeCause, CauseText>> = {
  'bad-url': {
    title: 'Not a stream URL',
    do: [
      'Type it as rtsp://host:port/path.',
      'Encode spaces and special characters in the password; the fields do it for you.',
    ],
    why: 'A URL that one program accepts may be refused by another.',
  },
  'unresolved-host': {
    title: 'Host name not found',
    do: ['Check the spelling.', 'Use the IPv4 address.', 'Check which DNS server this computer uses.'],
    why: 'Camera names are often known to one router only.',
  },
  unreachable: {
    title: 'No route to this address',
    do: [
      'Check that camera and computer are on the same network.',
      'Look the address up in the router: it may have changed.',
      'Check power and cable.',
    ],
    why: 'Nothing at that address answered, not even to refuse.',
  },
  refused: {
    title: 'Port closed',
    do: [
      'Switch RTSP on in the camera.',
      'Try 554, 8554 and 10554.',
      'Make sure that this is the camera and not another device.',
    ],
    why: 'The device is there and refused the connection at once.',
  },
  timeout: {
    title: 'No answer in time',
    do: [
      'Check for a firewall or a VLAN between here and there.',
      'Restart the camera.',
      'Probe again with a longer timeout.',
    ],
    why: 'Silence is a dropped packet, a firewall or a camera that hangs.',
  },
  closed: {
    title: 'Connection closed by the camera',
    do: [
      'Close other viewers and wait five minutes: it may have no session left or have locked the account.',
      'If it offers its streams encrypted only (rtsps), set the connection to RTSP over TLS.',
    ],
    why: 'A camera that closes the connection without an answer often has no session left.',
  },
  'not-rtsp': {
    title: 'Another service responds on this port',
    do: ['Look up the RTSP port in the camera; 80 and 443 are its web page.'],
    why: 'The first bytes are not those of an RTSP server.',
  },
  'not-tls': {
    title: 'No TLS on this port',
    do: [
      'Look up the port of rtsps in the camera; 322 is the usual one.',
      'If the camera offers no TLS at all, use plain RTSP on a network of its own.',
    ],
    why: 'What responded is not TLS: the port accepts connections and speaks something else.',
  },
  'tls-failed': {
    title: 'TLS handshake failed',
    do: [
      'Look up the port of rtsps in the camera; 322 is the usual one.',
      'Update the camera’s firmware: its TLS may be older than any in use.',
    ],
    why: 'The port accepted the connection, and no TLS version both sides support was found.',
  },
  'auth-required': {
    title: 'ONVIF needs an account',
    do: ['Enter account and password, then probe again.'],
    why: 'The camera answered 401, and no account was given.',
  },
  'auth-failed': {
    title: 'Account or password refused',
    do: [
      'Check both letter by letter.',
      'Check whether RTSP has separate accounts in this camera.',
      'Wait five minutes before the next attempt: it may lock the account.',
    ],
    why: 'The camera’s challenge was answered correctly and it refused the login.',
  },
  'auth-unsupported': {
    title: 'Login method not supported',
    do: ['Choose Digest login in the camera.', 'Update its firmware.'],
    why: 'It asks for a scheme or an algorithm that no standard used here knows.',
  },
  'login-held': {
    title: 'Login not tried',
    do: [
      'Check account and password letter by letter, then probe again: a changed password begins a new count.',
      'Wait ten minutes, or allow one more login where you know that the account is not locked.',
    ],
    why: 'Many devices lock an account at three or five refused logins, for minutes or until somebody resets them.',
  },
  'certificate-changed': {
    title: 'Certificate changed since the last probe',
    do: [
      'Compare the fingerprint with the one on the camera’s own page.',
      'If the camera created a new certificate, trust the new one; until then no password is sent there.',
    ],
    why: 'A new certificate means a camera that was reset or renewed, or somebody on the way who shows their own.',
  },
  forbidden: {
    title: 'Access to this stream forbidden',
    do: [
      'Give the account the right to view; RTSP accounts may be separate from ONVIF accounts.',
      'Check whether the camera allows only certain addresses.',
      'Without an account, enter one and probe again.',
    ],
    why: 'It understood the request and refuses it: from here, or to this account.',
  },
  'not-found': {
    title: 'No stream at this path',
    do: [
      'Check the path letter by letter; upper and lower case differ.',
      'Read its paths by ONVIF, or look at its model card.',
    ],
    why: 'The camera answered, so address and port are right; there is no stream at this path.',
  },
  'transport-refused': {
    title: 'Transport refused',
    do: ['Choose the other transport, TCP or UDP.'],
    why: 'The camera refused the transport that was asked for.',
  },
  'too-many-sessions': {
    title: 'No session left',
    do: ['Close another viewer.', 'Pull the sub stream.', 'Pull it once and share it through a relay.'],
    why: 'Cameras serve only a few clients at once.',
  },
  'session-lost': {
    title: 'Session lost between SETUP and PLAY',
    do: [
      'Probe again: it may have restarted just now.',
      'If it happens each time, close other viewers: some cameras make room by dropping the newest.',
      'Update the camera’s firmware.',
    ],
    why: 'SETUP opened a session, and the camera no longer knew it at PLAY.',
  },
  'server-error': {
    title: 'Camera error',
    do: ['Wait a minute and probe again.', 'Restart it.', 'Pull fewer streams at once.'],
    why: 'It answered that it could not do what was asked.',
  },
  'redirect-loop': {
    title: 'Redirect loop',
    do: ['Use the address that it names last.'],
    why: 'Each answer redirected to another path.',
  },
  'protocol-error': {
    title: 'Answer breaks the protocol',
    do: ['Open the exchange in the connection log.', 'Update the camera’s firmware.'],
    why: 'Another client may fail at this answer too.',
  },
  'no-video': {
    title: 'No picture in this stream',
    do: ['Choose another path.', 'Switch the video encoder on in the camera.'],
    why: 'The stream was found, but it carries no picture that could start.',
  },
  'no-packets': {
    title: 'No packets after PLAY',
    do: ['Restart the camera.', 'Probe again; try the sub stream.'],
    why: 'PLAY was answered, then no packets came, or they stopped.',
  },
  'unsupported-codec': {
    title: 'Codec not known here',
    do: ['Set the camera to H.264.'],
    why: 'Nothing could be measured but the packets.',
  },
  'blocked-by-policy': {
    title: 'Address not dialled',
    do: [
      'Use a private address of the site.',
      'On the command line, --allow-public lifts this for your own equipment.',
    ],
    why: 'Only private, loopback and link-local addresses are dialled unless told otherwise.',
  },
};

export const titleOfCause = (cause: ProbeCause): string => CAUSES[cause].title;

/** The finding that stands where the result of a failed probe would stand; the experiment that proved its reason is named in it. */
export function findingOfCause(cause: ProbeCause, note: string, { reason, proof }: Proof = NO_PROOF): Finding {
  const { title, why, do: steps } = reason ? REASON_TEXTS[reason] : CAUSES[cause];
  const because = [note, proof].filter((part) => part !== '').join(' ');
  return { rule: `probe.${cause}`, severity: 'stop', title, because, do: steps, why };
}
