/** Finer than a cause: what experiments told apart. Stable: the journal and tests key on these. */
export const REASONS = [
  'host-dead',
  'port-filtered',
  'server-hung',
  'passing',
  'other-port',
  'encrypted',
  'not-encrypted',
  'tunnel',
  'web-page',
  'secret-wrong',
  'letter-case',
  'scheme-broken',
  'nonces-stale',
  'account-elsewhere',
  'locked',
  'path-elsewhere',
  'other-transport',
] as const;
export type Reason = (typeof REASONS)[number];

/** What was tried to tell reasons apart, and what came of it, in words. */
export interface Experiment {
  /** “called ports 80, 443 and 8554 of the same address” */
  readonly did: string;
  /** “80 answered, the others were silent” */
  readonly told: string;
  /** It settled the reason. */
  readonly decides: boolean;
}

/** Where it works, as an experiment proved; what is not named stays as it was. */
export interface FoundWay {
  readonly path?: string;
  readonly port?: number;
  readonly line?: 'plain' | 'tls' | 'tunnel';
  readonly transport?: 'tcp' | 'udp';
}

export interface Diagnosis {
  readonly reason: Reason | null;
  readonly experiments: readonly Experiment[];
  readonly found: FoundWay | null;
}

interface ReasonText {
  readonly title: string;
  readonly do: readonly string[];
  readonly why: string;
}

export const REASON_TEXTS: Readonly<Record<Reason, ReasonText>> = {
  'host-dead': {
    title: 'Nobody is at this address',
    do: [
      'Check power and cable of the camera.',
      'Look its address up in the router, or look through the network: it may have moved.',
      'Check that this computer is on the same network.',
    ],
    why: 'No port of it answers, not even to refuse, and no neighbour on this network has that address.',
  },
  'port-filtered': {
    title: 'Something on the way drops this port',
    do: [
      'Look through the firewall between here and there, and the camera’s own list of allowed addresses.',
      'Ask whoever keeps the network to let this port through.',
    ],
    why: 'The device is there: it answers elsewhere. A port that nobody listens on would refuse; this one is silent.',
  },
  'server-hung': {
    title: 'Its stream server hangs',
    do: ['Restart the camera.', 'Update its firmware.', 'Close other viewers: some servers hang when they are full.'],
    why: 'The port takes calls and says nothing, twice in a row, while the device lives.',
  },
  passing: {
    title: 'It failed once, and works now',
    do: ['Probe again at a busy hour.', 'If it comes back, look at power, Wi-Fi and the number of viewers.'],
    why: 'The same question, asked a moment later, was answered.',
  },
  'other-port': {
    title: 'It listens on another port',
    do: ['Set the port to the one that answers.'],
    why: 'RTSP was found there by trying the usual ports of the same address.',
  },
  encrypted: {
    title: 'It speaks with encryption only',
    do: ['Set its line to RTSP with TLS (rtsps).'],
    why: 'Spoken to plainly it says nothing that makes sense; with TLS it answers.',
  },
  'not-encrypted': {
    title: 'It speaks without encryption here',
    do: ['Set its line to plain RTSP, or look up the port of rtsps in the camera.'],
    why: 'With TLS nothing comes about on this port; spoken to plainly it answers.',
  },
  tunnel: {
    title: 'It speaks RTSP inside HTTP only',
    do: ['Set its line to RTSP inside HTTP.', 'Turn plain RTSP on in the camera, where it has a choice.'],
    why: 'The port answers as a web server, and opens RTSP to whoever asks for it by HTTP.',
  },
  'web-page': {
    title: 'This port is its web page',
    do: ['Look up the RTSP port in the camera, and turn RTSP on there.'],
    why: 'A web server answers, it knows no RTSP inside HTTP, and none of the usual RTSP ports is open.',
  },
  'secret-wrong': {
    title: 'Account or password refused',
    do: [
      'Check both letter by letter.',
      'Set them anew at the camera.',
      'Wait ten minutes before the next login: many devices lock an account at three or five.',
    ],
    why: 'The challenge was answered correctly, and so was all that could be tried within two refused logins.',
  },
  'letter-case': {
    title: 'Capitals and small letters were mixed up',
    do: ['Type it again with Caps Lock off, and keep it as the camera takes it.'],
    why: 'With the letters exchanged, the camera lets the same account in.',
  },
  'scheme-broken': {
    title: 'Digest login is broken',
    do: [
      'Update the camera.',
      'Let destinations log in by Basic meanwhile, on a network of its own: the secret crosses it readable.',
    ],
    why: 'The same account and secret are refused by Digest and accepted by Basic.',
  },
  'nonces-stale': {
    title: 'Its challenges are out of date at once',
    do: ['Restart the camera.', 'Point it at the site’s time server.', 'Update its firmware.'],
    why: 'It dates its challenges by a clock that jumps: each was answered at once and called stale.',
  },
  'account-elsewhere': {
    title: 'The account is known there, and not for streams',
    do: ['Give the account the right to view, or make the account for RTSP that the camera wants apart.'],
    why: 'By ONVIF the same account and secret are accepted.',
  },
  locked: {
    title: 'It locked the account',
    do: ['Leave it alone for five to thirty minutes, then probe once.', 'Take the lock off in the camera.'],
    why: 'After a refusal it answered otherwise than before: it no longer looks at logins. Nothing more was tried.',
  },
  'path-elsewhere': {
    title: 'The stream lies at another path',
    do: ['Set the path to the one that answers.'],
    why: 'Address, port and account are right; the path was found by trying those that its model is known for.',
  },
  'other-transport': {
    title: 'Packets come the other way',
    do: ['Let destinations draw it the way that works.'],
    why: 'The same stream was asked for both ways, twice by the one that had failed, and came by the other alone.',
  },
};
