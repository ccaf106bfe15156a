/** Finer than a cause: what experiments told apart. Stable: the journal and tests key on these. */
export const REASONS = [
  'host-dead',
  'no-way',
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
    title: 'Host does not respond',
    do: [
      'Check power and cable of the camera.',
      'Look its address up in the router, or scan the network: it may have changed.',
      'Check that this computer is on the same network.',
    ],
    why: 'None of its ports answers, not even to refuse, and the neighbour table of this computer has no device at that address.',
  },
  'no-way': {
    title: 'No route to the host, or a firewall drops it',
    do: [
      'Check that the address is right, and that the camera has power.',
      'Check the firewall and the routes between this computer’s network and that of the camera.',
      'Probe from a computer in the camera’s own network.',
    ],
    why: 'None of its ports answers, and the address is behind a router: whether a device has it cannot be seen from here.',
  },
  'port-filtered': {
    title: 'Port dropped or not answering',
    do: [
      'Restart the camera: a server that hangs with a full queue looks the same.',
      'Check the firewall in between, and the camera’s own list of allowed addresses.',
      'Ask whoever runs the network to open this port.',
    ],
    why: 'The device is there. A closed port would refuse; this one is silent: a firewall drops it, or its server hangs and its queue is full.',
  },
  'server-hung': {
    title: 'RTSP server hangs',
    do: [
      'Restart the camera.',
      'Update its firmware.',
      'Close other viewers: some servers hang when no session is left.',
    ],
    why: 'The port accepts connections and sends nothing, twice in a row, while the device responds.',
  },
  passing: {
    title: 'Failed once, works now',
    do: ['Probe again at a busy hour.', 'If it comes back, check power, Wi-Fi and the number of viewers.'],
    why: 'The same request, a moment later, was answered.',
  },
  'other-port': {
    title: 'RTSP on another port',
    do: ['Set the port to the one that answers.'],
    why: 'RTSP was found there by trying the usual ports of the same address.',
  },
  encrypted: {
    title: 'RTSP over TLS only',
    do: ['Set the connection to RTSP over TLS (rtsps).'],
    why: 'Without TLS its answer makes no sense; with TLS it answers.',
  },
  'not-encrypted': {
    title: 'No TLS on this port',
    do: ['Set the connection to RTSP, or look up the port of rtsps in the camera.'],
    why: 'With TLS no connection is made on this port; without TLS it answers.',
  },
  tunnel: {
    title: 'RTSP over HTTP only',
    do: ['Set the connection to RTSP over HTTP.', 'Switch plain RTSP on in the camera, where it has the choice.'],
    why: 'The port responds as a web server, and opens RTSP over HTTP.',
  },
  'web-page': {
    title: 'Port of the web page',
    do: ['Look up the RTSP port in the camera, and switch RTSP on there.'],
    why: 'A web server responds, it offers no RTSP over HTTP, and none of the usual RTSP ports is open.',
  },
  'secret-wrong': {
    title: 'Account or password refused',
    do: [
      'Check both letter by letter.',
      'Set both again at the camera.',
      'Wait ten minutes before the next login: many devices lock an account after three or five refusals.',
    ],
    why: 'The challenge was answered correctly and the login was refused. Many devices refuse a locked account in the same way.',
  },
  'letter-case': {
    title: 'Upper and lower case swapped',
    do: ['Type the password again with Caps Lock off, and save it as the camera takes it.'],
    why: 'With upper and lower case swapped, the camera accepts the same account.',
  },
  'scheme-broken': {
    title: 'Digest login broken',
    do: [
      'Update the camera’s firmware.',
      'Let destinations log in by Basic meanwhile, on a network of its own: the password crosses it readable.',
    ],
    why: 'The same account and password are refused by Digest and accepted by Basic.',
  },
  'nonces-stale': {
    title: 'Login challenges stale at once',
    do: ['Restart the camera.', 'Set the camera’s time server to the one of the site.', 'Update its firmware.'],
    why: 'It dates its challenges by a clock that jumps: each was answered at once and called stale.',
  },
  'account-elsewhere': {
    title: 'Account accepted by ONVIF, not for streams',
    do: ['Give the account the right to view, or create the separate RTSP account that the camera needs.'],
    why: 'By ONVIF the same account and password are accepted.',
  },
  locked: {
    title: 'Account locked',
    do: ['Wait five to thirty minutes, then probe once.', 'Unlock the account in the camera.'],
    why: 'After a refusal it answered a login with a lock. Nothing more was tried.',
  },
  'path-elsewhere': {
    title: 'Stream at another path',
    do: ['Set the path to the one that answers.'],
    why: 'Address, port and account are right; the path was found by trying those known for its model.',
  },
  'other-transport': {
    title: 'Stream comes by the other transport only',
    do: ['Let destinations pull it by the transport that works.'],
    why: 'The same stream was requested by both transports, twice by the one that had failed, and came by the other alone.',
  },
};
