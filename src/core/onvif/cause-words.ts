import type { OnvifCause } from './onvif-cause.ts';

interface CauseWords {
  readonly title: string;
  readonly do: readonly string[];
}

/** What each cause of a failed reading means, and what to do next. */
export const CAUSE_WORDS: Readonly<Record<OnvifCause, CauseWords>> = {
  'unresolved-host': { title: 'Host name not found', do: ['Use the IPv4 address.', 'Check the spelling.'] },
  unreachable: {
    title: 'No route to this address',
    do: ['Check power and cable.', 'Look the address up in the router: it may have changed.'],
  },
  refused: {
    title: 'No ONVIF on this port',
    do: ['Try ports 80, 8000, 8080, 8899 and 2020.', 'Switch ONVIF on in the camera: many are delivered with it off.'],
  },
  timeout: { title: 'No response in time', do: ['Read it again.', 'Restart the camera.'] },
  closed: { title: 'Connection closed early', do: ['Read it again; close other programs that connect to it.'] },
  'blocked-by-policy': {
    title: 'This address is not dialled',
    do: ['Only private addresses are dialled, unless the server is started otherwise.'],
  },
  'not-http': {
    title: 'Another service responds on this port',
    do: ['554 is its RTSP port, not ONVIF: try 80, 8000, 8080 and 8899.'],
  },
  'too-large': { title: 'Answer too large', do: ['Make sure that this is the camera.'] },
  cut: { title: 'Answer incomplete', do: ['Read it again.', 'Restart the camera; some run out of memory.'] },
  'not-found': {
    title: 'Web server, but no ONVIF',
    do: ['Switch ONVIF on in the camera.', 'Try its other ports: 8000, 8080, 8899.'],
  },
  'not-soap': {
    title: 'A web page responds instead of ONVIF',
    do: ['Switch ONVIF on in the camera.', 'Try its other ports.'],
  },
  'hostile-xml': {
    title: 'Answer looks like an attack',
    do: ['Do not use it before the reason is known: check what is really at this address.'],
  },
  'auth-required': {
    title: 'ONVIF needs an account',
    do: ['Enter the account of the camera.', 'Some need a separate ONVIF user.'],
  },
  'auth-failed': {
    title: 'ONVIF refuses the account',
    do: [
      'Create an ONVIF user in the camera: many keep them apart from those of the web page.',
      'Check upper and lower case and the end of the password.',
      'Wait five minutes before the next try: some devices lock an account.',
    ],
  },
  'auth-unsupported': {
    title: 'Login method not supported here',
    do: ['Set its login to Digest, or to WS-UsernameToken.'],
  },
  'login-held': {
    title: 'Login not tried',
    do: [
      'Check account and password, then read it again: a changed password begins a new count.',
      'Wait ten minutes, or allow one more login where you know that the account is not locked.',
    ],
  },
  'clock-ahead': {
    title: 'Clock is more than a day ahead',
    do: ['Set the device’s clock, then read it again.', 'Choose Digest login in the device, where it has a choice.'],
  },
  'other-place': {
    title: 'Service on another port',
    do: ['Allow the password on that port, if it is the same device.'],
  },
  'tls-failed': {
    title: 'No TLS on this port',
    do: [
      'Check the port: 443 is the usual one with TLS.',
      'Update the firmware: its TLS may be older than any in use.',
    ],
  },
  'certificate-changed': {
    title: 'Certificate changed since the last reading',
    do: [
      'Compare the fingerprint with the one on the device’s own page.',
      'If the device created a new certificate, trust the new one; until then no password is sent there.',
    ],
  },
  'not-allowed': {
    title: 'This account has no right to ask this',
    do: ['Give the account operator rights for the time of the set-up.'],
  },
  'not-supported': { title: 'Request not supported', do: ['Look for a newer firmware.'] },
  'redirect-elsewhere': {
    title: 'Redirected elsewhere',
    do: ['Use the address it redirects to, if that is the camera.', 'The account was not sent there.'],
  },
  'wrong-answer': {
    title: 'Unexpected answer',
    do: ['Restart the camera.', 'Look for a newer firmware.'],
  },
  fault: { title: 'Request refused', do: ['Restart the camera.', 'Look for a newer firmware.'] },
};
