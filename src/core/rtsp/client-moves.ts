import type { ProbeStepName } from './exchange-types.ts';

/** Where an RTSP client stands between dialling and hanging up. */
export type ClientPhase =
  | 'idle'
  | 'askingOptions'
  | 'describing'
  | 'redialling'
  | 'openingPorts'
  | 'settingUp'
  | 'starting'
  | 'streaming'
  | 'tearingDown'
  | 'closed';

/** What can happen to it. `refused` is any answer above 299 that has no signal of its own. */
export type ClientSignal =
  | 'connected'
  | 'success'
  | 'unauthorized'
  | 'redirect'
  | 'refused'
  | 'portsOpened'
  | 'portsFailed'
  | 'stop'
  | 'silence'
  | 'hangUp'
  | 'nonsense'
  /** The camera itself ends the session, or sends elsewhere. */
  | 'dismissed';

/** What to do on a move; carried out in one place, client.ts. */
export type ClientAction =
  | 'askOptions'
  | 'noteChallenge'
  | 'describe'
  | 'authorise'
  | 'resume'
  | 'follow'
  | 'readDescription'
  | 'askSetUp'
  | 'noteTrack'
  | 'trackRefused'
  | 'noteStart'
  | 'keepAlive'
  | 'tearDown'
  | 'finish'
  | 'tearDownAnswered'
  | 'failTimeout'
  | 'failClosed'
  | 'failNonsense'
  | 'failStatus'
  | 'failPorts'
  | 'failDismissed';

type Move = readonly [ClientPhase, ...ClientAction[]];

/** What ends any phase the same way. */
const ENDINGS: Partial<Record<ClientSignal, Move>> = {
  hangUp: ['closed', 'failClosed'],
  nonsense: ['closed', 'failNonsense'],
  silence: ['closed', 'failTimeout'],
  refused: ['closed', 'failStatus'],
  dismissed: ['closed', 'failDismissed'],
};

/**
 * Every legal move and nothing else; a pair that is not listed is a fault of the peer. `authorise` sends the refused
 * request again with credentials, or fails when there are none or they were refused already.
 * Source: RFC 2326 §10 (methods), §A.1 (client state machine).
 */
export const CLIENT_MOVES: Readonly<Record<ClientPhase, Partial<Record<ClientSignal, Move>>>> = {
  idle: { connected: ['askingOptions', 'askOptions'], stop: ['closed', 'finish'], hangUp: ['closed', 'failClosed'] },
  askingOptions: {
    ...ENDINGS,
    success: ['describing', 'describe'],
    unauthorized: ['describing', 'noteChallenge', 'describe'],
    refused: ['describing', 'describe'], // a server may lack OPTIONS; DESCRIBE tells
    stop: ['closed', 'finish'],
  },
  describing: {
    ...ENDINGS,
    success: ['settingUp', 'readDescription'],
    unauthorized: ['describing', 'authorise'],
    redirect: ['describing', 'follow'],
    stop: ['closed', 'finish'],
  },
  /** The camera closed the connection after it had asked for the login: the same request goes over a new one. */
  redialling: {
    ...ENDINGS,
    connected: ['describing', 'resume'],
    stop: ['closed', 'finish'],
  },
  openingPorts: {
    ...ENDINGS,
    portsOpened: ['settingUp', 'askSetUp'],
    portsFailed: ['tearingDown', 'failPorts', 'tearDown'],
    stop: ['tearingDown', 'tearDown'],
  },
  settingUp: {
    ...ENDINGS,
    success: ['settingUp', 'noteTrack'],
    unauthorized: ['settingUp', 'authorise'],
    refused: ['settingUp', 'trackRefused'],
    stop: ['tearingDown', 'tearDown'],
  },
  starting: {
    ...ENDINGS,
    success: ['streaming', 'noteStart'],
    unauthorized: ['starting', 'authorise'],
    refused: ['tearingDown', 'failStatus', 'tearDown'],
    silence: ['tearingDown', 'failTimeout', 'tearDown'],
    stop: ['tearingDown', 'tearDown'],
  },
  streaming: {
    ...ENDINGS,
    success: ['streaming', 'keepAlive'],
    refused: ['streaming', 'keepAlive'], // some cameras answer GET_PARAMETER with 501 and still count it as a keep-alive
    unauthorized: ['streaming', 'authorise'],
    silence: ['tearingDown', 'tearDown'], // a keep-alive went unanswered
    stop: ['tearingDown', 'tearDown'],
  },
  tearingDown: {
    success: ['tearingDown', 'tearDownAnswered'],
    refused: ['closed', 'finish'],
    unauthorized: ['tearingDown', 'authorise'],
    redirect: ['closed', 'finish'],
    silence: ['closed', 'finish'],
    portsOpened: ['tearingDown'],
    portsFailed: ['tearingDown'],
    hangUp: ['closed', 'finish'],
    nonsense: ['closed', 'finish'],
    dismissed: ['tearingDown'],
    stop: ['tearingDown'],
  },
  closed: { hangUp: ['closed'], stop: ['closed'], silence: ['closed'], success: ['closed'], refused: ['closed'] },
};

/** The step that what is said in a phase belongs to, when no request is open. */
export const STEP_OF_PHASE: Readonly<Record<ClientPhase, ProbeStepName>> = {
  idle: 'connect',
  askingOptions: 'options',
  describing: 'describe',
  redialling: 'authenticate',
  openingPorts: 'setup',
  settingUp: 'setup',
  starting: 'play',
  streaming: 'sample',
  tearingDown: 'teardown',
  closed: 'teardown',
};

/** The signal that an answer's status gives. */
export function signalOf(status: number): ClientSignal {
  if (status < 300) return 'success';
  if (status === 401 || status === 407) return 'unauthorized';
  return status === 301 || status === 302 || status === 303 || status === 307 ? 'redirect' : 'refused';
}
