import type { OnvifCause } from './onvif-cause.ts';

interface CauseWords {
  readonly title: string;
  readonly do: readonly string[];
}

/** What each cause of a failed reading means, and what to do next. */
export const CAUSE_WORDS: Readonly<Record<OnvifCause, CauseWords>> = {
  'unresolved-host': { title: 'The name leads nowhere', do: ['Use the IPv4 address.', 'Check the spelling.'] },
  unreachable: {
    title: 'There is no way to this address',
    do: ['Check power and cable.', 'Look the address up in the router: it may have moved.'],
  },
  refused: {
    title: 'No ONVIF on this port',
    do: ['Try 80, 8000, 8080, 8899 and 2020.', 'Turn ONVIF on in the camera: many come with it off.'],
  },
  timeout: { title: 'It did not answer in time', do: ['Read it again.', 'Restart the camera.'] },
  closed: { title: 'It hung up before its end', do: ['Read it again; close other programs that talk to it.'] },
  'blocked-by-policy': {
    title: 'This address is not called',
    do: ['Only private addresses are called, unless the server is started otherwise.'],
  },
  'not-http': {
    title: 'Something else answers on this port',
    do: ['554 is its stream, not its ONVIF: try 80, 8000, 8080 and 8899.'],
  },
  'too-large': { title: 'Its answer is too large to be read', do: ['Make sure that this is the camera.'] },
  cut: { title: 'Its answer breaks off', do: ['Read it again.', 'Restart the camera; some run out of memory.'] },
  'not-found': {
    title: 'A web server, but no ONVIF',
    do: ['Turn ONVIF on in the camera.', 'Try its other ports: 8000, 8080, 8899.'],
  },
  'not-soap': {
    title: 'A web page answers where ONVIF should',
    do: ['Turn ONVIF on in the camera.', 'Try its other ports.'],
  },
  'hostile-xml': {
    title: 'Its answer is built like an attack',
    do: ['Do not use it before somebody knows why: look at what is really at this address.'],
  },
  'auth-required': {
    title: 'It asks for an account',
    do: ['Enter the account of the camera.', 'Some need a user of its own for ONVIF.'],
  },
  'auth-failed': {
    title: 'It refuses the account',
    do: [
      'Make a user for ONVIF in the camera: many keep them apart from those of its page.',
      'Check letter case and the end of the secret.',
      'Wait five minutes before the next try: some lock an account.',
    ],
  },
  'auth-unsupported': {
    title: 'It wants a login that is not spoken here',
    do: ['Set its login to Digest, or to tokens (WS-Security).'],
  },
  'login-held': {
    title: 'Login not tried',
    do: [
      'Check account and password, then read it again: a changed password begins a new count.',
      'Wait ten minutes, or allow one more login where you know that the account is not locked.',
    ],
  },
  'clock-ahead': {
    title: 'Clock is ahead by more than a day',
    do: [
      'Set the clock of the device, then read it again.',
      'Choose Digest login in the device, where it has a choice.',
    ],
  },
  'other-place': {
    title: 'Service on another port',
    do: ['Allow the password on that port, if it is the same device.'],
  },
  'tls-failed': {
    title: 'No TLS comes about on this port',
    do: [
      'Check the port: 443 is the usual one with TLS.',
      'Update the firmware: its TLS may be older than any in use.',
    ],
  },
  'certificate-changed': {
    title: 'Certificate changed since the last reading',
    do: [
      'Compare the fingerprint with the one in the device’s own page.',
      'If the device made a new certificate, trust the new one; until then no password goes there.',
    ],
  },
  'not-allowed': {
    title: 'The account may not ask this',
    do: ['Give it the rights of an operator for the time of the set-up.'],
  },
  'not-supported': { title: 'It does not know what was asked', do: ['Look for a newer firmware.'] },
  'redirect-elsewhere': {
    title: 'It sends on to somewhere else',
    do: ['Call it where it sends to, if that is the camera.', 'The account was not told there.'],
  },
  'wrong-answer': {
    title: 'It answers something else than was asked',
    do: ['Restart the camera.', 'Look for a newer firmware.'],
  },
  fault: { title: 'It refuses', do: ['Restart the camera.', 'Look for a newer firmware.'] },
};
