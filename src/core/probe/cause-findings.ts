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
    title: 'This is no stream URL',
    do: ['Type it as rtsp://host:port/path.', 'Encode blanks and signs in the secret; the fields do it for you.'],
    why: 'A URL that one program forgives another refuses.',
  },
  'unresolved-host': {
    title: 'The name leads nowhere',
    do: ['Check the spelling.', 'Use the IPv4 address.', 'Check which name server this computer asks.'],
    why: 'Names of cameras are often known to one router only.',
  },
  unreachable: {
    title: 'There is no way to this address',
    do: [
      'Check that camera and computer are on the same network.',
      'Look the address up in the router: it may have moved.',
      'Check power and cable.',
    ],
    why: 'Nothing at that address answered, not even to refuse.',
  },
  refused: {
    title: 'Nothing listens on this port',
    do: [
      'Turn on RTSP in the camera.',
      'Try 554, 8554 and 10554.',
      'Make sure that this is the camera and not its neighbour.',
    ],
    why: 'The machine is there and refused the connection at once.',
  },
  timeout: {
    title: 'No answer in time',
    do: [
      'Check for a firewall or a VLAN between here and there.',
      'Restart the camera.',
      'Probe again with a longer limit.',
    ],
    why: 'Silence is a dropped packet, a blocked path or a camera that hangs.',
  },
  closed: {
    title: 'The camera hung up',
    do: [
      'Close other viewers and wait five minutes: it may be full or have locked the account.',
      'If it offers its streams encrypted only (rtsps), choose the plain ones in the camera.',
    ],
    why: 'A camera that hangs up without a word usually has no session left.',
  },
  'not-rtsp': {
    title: 'Something else answers on this port',
    do: ['Look up the RTSP port in the camera; 80 and 443 are its web page.'],
    why: 'The first bytes are not those of an RTSP server.',
  },
  'not-tls': {
    title: 'No TLS on this port',
    do: [
      'Look up the port of rtsps in the camera; 322 is the usual one.',
      'If the camera offers no TLS at all, choose plain RTSP on a network of its own.',
    ],
    why: 'What answered is not TLS: the port takes calls and speaks something else.',
  },
  'tls-failed': {
    title: 'TLS could not be agreed on',
    do: [
      'Look up the port of rtsps in the camera; 322 is the usual one.',
      'Update the camera: what it offers may be older than any TLS in use.',
    ],
    why: 'The port took the call, and what came after is no TLS that can be agreed on.',
  },
  'auth-required': {
    title: 'It asks for an account',
    do: ['Enter account and secret, then probe again.'],
    why: 'The camera answered 401 and nothing was there to answer with.',
  },
  'auth-failed': {
    title: 'Account or secret is refused',
    do: [
      'Check both letter by letter.',
      'Look whether RTSP has accounts of its own in this camera.',
      'Wait five minutes before the next attempt: it may lock the account.',
    ],
    why: 'The camera’s challenge was answered correctly and it said no.',
  },
  'auth-unsupported': {
    title: 'Its login cannot be answered',
    do: ['Choose Digest login in the camera.', 'Update its firmware.'],
    why: 'It asks with a scheme or algorithm that is in no standard used here.',
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
      'Compare the fingerprint with the one in the camera’s own page.',
      'If the camera made a new certificate, trust the new one; until then no password goes there.',
    ],
    why: 'A new certificate is a camera that was reset or renewed, or somebody on the way who shows one of their own.',
  },
  forbidden: {
    title: 'The camera forbids this stream',
    do: [
      'Give the account the right to view; accounts for RTSP may be apart from those for ONVIF.',
      'Look whether the camera lets only certain addresses in.',
      'Without an account, enter one and probe again.',
    ],
    why: 'It understood what was asked for and will not give it: not from here, or not to this account.',
  },
  'not-found': {
    title: 'No stream at this path',
    do: ['Check the path letter by letter; case matters.', 'Ask the camera for its paths, or look at its model card.'],
    why: 'The camera answered, so address and port are right; at this path it has nothing.',
  },
  'transport-refused': {
    title: 'It does not send this way',
    do: ['Choose the other of TCP and UDP.'],
    why: 'The camera refused the transport that was asked for.',
  },
  'too-many-sessions': {
    title: 'No session left',
    do: ['Close another viewer.', 'Draw the sub stream.', 'Draw it once and share it through a relay.'],
    why: 'Cameras serve only a few clients at once.',
  },
  'session-lost': {
    title: 'The camera forgot the session',
    do: [
      'Probe again: it may have restarted just now.',
      'If it happens each time, close other viewers: some make room by dropping the newest.',
      'Update the camera.',
    ],
    why: 'SETUP opened a session, and the camera did not know it any more when it was to play.',
  },
  'server-error': {
    title: 'The camera failed',
    do: ['Wait a minute and probe again.', 'Restart it.', 'Draw fewer streams at once.'],
    why: 'It answered that it could not do what it should.',
  },
  'redirect-loop': {
    title: 'It sends us round in circles',
    do: ['Use the address that it names last.'],
    why: 'Each answer pointed to another path.',
  },
  'protocol-error': {
    title: 'Its answer makes no sense',
    do: ['Open the exchange on the wire tape.', 'Update the camera.'],
    why: 'The answer breaks the protocol; another client may trip over it too.',
  },
  'no-video': {
    title: 'No picture comes from this stream',
    do: ['Choose another path.', 'Turn the video encoder on in the camera.'],
    why: 'The stream was found, but it carries no picture that could start.',
  },
  'no-packets': {
    title: 'The stream is announced, but nothing comes',
    do: ['Restart the camera.', 'Probe again; try the sub stream.'],
    why: 'PLAY was answered, then the packets stayed away or stopped.',
  },
  'unsupported-codec': {
    title: 'The codec is not known here',
    do: ['Set the camera to H.264.'],
    why: 'Nothing could be measured but the packets.',
  },
  'blocked-by-policy': {
    title: 'This address is not dialled',
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
