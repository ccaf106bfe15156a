import type { TapeEntry } from './exchange-types.ts';
import { explainPacket, isPacketText } from './packet-words.ts';
import { STATUS_CODES } from './status-codes.ts';
import { parseSession, parseTransport } from './transport.ts';

/** One line of what crossed the wire, and what it says in plain words; `null` where nobody need be told. */
export interface ExplainedLine {
  readonly text: string;
  readonly words: string | null;
}

/** Source: RFC 2326 §10. */
const METHODS: Readonly<Record<string, string>> = {
  OPTIONS: 'asks which requests it takes',
  DESCRIBE: 'asks what the stream is made of',
  SETUP: 'asks for one track, and says how its packets are to come',
  PLAY: 'asks it to send',
  PAUSE: 'asks it to stop sending for a while',
  TEARDOWN: 'ends the session',
  GET_PARAMETER: 'asks for nothing: a keep-alive, so that the session is kept',
  SET_PARAMETER: 'sets nothing: a keep-alive, so that the session is kept',
  ANNOUNCE: 'announces another description',
  RECORD: 'offers a stream to it',
  REDIRECT: 'redirects',
};

const STATUS_CLASSES: Readonly<Record<string, string>> = {
  1: 'it is processing',
  2: 'it agrees',
  3: 'it redirects',
  4: 'it objects to the request',
  5: 'it failed itself',
};

type Words = string | ((value: string) => string | null);

/** By their names in lower case. Source: RFC 2326 §12; RFC 7235 for the two of the login. */
const HEADERS: Readonly<Record<string, Words>> = {
  accept: 'which kind of description is accepted',
  allow: 'requests that it allows here',
  authorization: (value) =>
    /^basic\b/i.test(value)
      ? 'account and password, readable for anyone listening on the way'
      : 'the proof of the account; the password itself is not in it',
  bandwidth: 'bits a second that are available',
  blocksize: 'bytes of the largest packet that is wanted',
  'cache-control': 'how long it may be kept; of no use for what is live',
  connection: (value) => (/close/i.test(value) ? 'it closes the connection after this' : 'the connection stays open'),
  'content-base': 'where the addresses of its tracks begin',
  'content-length': (value) => `${value} bytes follow the empty line`,
  'content-type': (value) =>
    /^application\/sdp/i.test(value) ? 'what follows is a description of the stream (SDP)' : 'what follows is this',
  cseq: (value) => `number ${value}; request and answer carry the same`,
  date: 'its own clock',
  expires: 'until when it may be kept',
  'last-modified': 'since when it is as it is',
  location: 'where it redirects to',
  public: 'requests that it supports',
  range: (value) => (/now/i.test(value) ? 'from now on: it is live' : 'which part of it'),
  require: 'features that it requires',
  'rtp-info': 'of each track the number and the time stamp of its first packet',
  scale: 'how fast it plays',
  server: 'its name',
  session: (value) => `the session; kept for ${parseSession(value).timeoutS} s without a request`,
  speed: 'how fast it is sent',
  supported: 'features that it supports',
  transport: (value) => {
    const { interleaved, clientPorts, serverPorts, lower } = parseTransport(value);
    if (interleaved)
      return `inside this connection: pictures on channel ${interleaved[0]}, reports on ${interleaved[1]}`;
    const from = serverPorts ? `, from ${serverPorts.join(' and ')}` : '';
    if (clientPorts) return `over UDP, to ports ${clientPorts.join(' and ')}${from}`;
    return lower === 'tcp' ? 'inside this connection' : 'over UDP';
  },
  unsupported: 'features that were asked for and that it does not support',
  'user-agent': 'the client',
  'www-authenticate': (value) =>
    /^digest\b/i.test(value)
      ? 'it asks for a login: a proof made from password, realm and nonce, which is fresh each time'
      : /^basic\b/i.test(value)
        ? 'it asks for a login that crosses the network readable'
        : 'it asks for a login of this kind',
  'x-accept-dynamic-rate': 'whether its rate may change',
};

const KINDS: Readonly<Record<string, string>> = {
  video: 'a picture',
  audio: 'audio',
  application: 'data beside the picture, such as what detection found',
};

/** Lines of a description by their letter. Source: RFC 8866 §5. */
const LETTERS: Readonly<Record<string, Words>> = {
  v: 'version of the description; there is no other',
  o: 'who made it, and which edition of it this is',
  s: 'its name',
  i: 'a remark',
  c: 'where packets go; all zeros: to the client',
  t: 'from when to when; zeros: always',
  b: (value) => {
    const rate = /^AS:(\d{1,9})$/i.exec(value)?.[1];
    return rate === undefined ? 'its rate' : `at most ${rate} kbit/s, as announced`;
  },
  m: (value) => {
    const [kind = '', , , ...types] = value.split(' ');
    return `${KINDS[kind] ?? kind}; its packets carry type ${types.join(', ')}`;
  },
};

/** Attributes by their names. Source: RFC 8866 §6; RFC 2326 §C.1; RFC 6184 §8.1; RFC 7798 §7.1. */
const ATTRIBUTES: Readonly<Record<string, Words>> = {
  control: (value) => (value === '*' ? 'control address of the whole stream' : 'control address of this track'),
  rtpmap: (value) => {
    const found = /^(\d{1,3}) ([^/\s]{1,40})\/(\d{1,9})(?:\/(\d{1,3}))?/.exec(value);
    if (!found) return 'which codec a type means';
    const channels = found[4] === undefined ? '' : `, ${found[4]} channels`;
    return `type ${found[1]} is ${found[2]}; its time stamps count ${found[3]} a second${channels}`;
  },
  fmtp: (value) =>
    [
      /packetization-mode=1/.test(value) ? 'pictures may be cut over several packets' : null,
      /profile-level-id=/.test(value) ? 'profile and level of its H.264' : null,
      /sprop-(?:parameter-sets|sps|vps)=/.test(value)
        ? 'size and tools of the picture, for a decoder to begin with'
        : null,
      /config=/.test(value) ? 'audio settings' : null,
    ]
      .filter((part) => part !== null)
      .join('; ') || 'settings of the codec',
  framerate: (value) => `${value} frames a second, as announced`,
  'x-dimensions': 'resolution, as announced',
  framesize: 'resolution, as announced',
  range: (value) => (/now/i.test(value) ? 'live, without an end' : 'how long it is'),
  recvonly: 'from the camera to the client',
  sendonly: 'to the camera: its loudspeaker',
  sendrecv: 'both ways',
  tool: 'what made this description',
  type: 'kind of session',
  'source-filter': 'from whom packets are to be taken',
};

const said = (words: Words | undefined, value: string): string | null =>
  words === undefined ? null : typeof words === 'string' ? words : words(value);
const own = (table: Readonly<Record<string, Words>>, name: string): Words | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;

function ofStartLine(line: string): string | null {
  const status = /^RTSP\/\d\.\d (\d{3})\b/.exec(line)?.[1];
  if (status !== undefined) {
    const meaning = STATUS_CODES[Number(status)];
    return meaning?.means ?? STATUS_CLASSES[status.charAt(0)] ?? null;
  }
  const method = /^([A-Z_]{3,14}) \S+ RTSP\//.exec(line)?.[1];
  return method !== undefined && Object.hasOwn(METHODS, method) ? (METHODS[method] ?? null) : null;
}

function ofDescription(line: string): string | null {
  const letter = line.charAt(0);
  const value = line.slice(2);
  if (letter !== 'a') return said(own(LETTERS, letter), value);
  const colon = value.indexOf(':');
  const [name, rest] = colon < 0 ? [value, ''] : [value.slice(0, colon), value.slice(colon + 1)];
  return said(own(ATTRIBUTES, name.toLowerCase()), rest);
}

function ofHeader(line: string): string | null {
  const colon = line.indexOf(':');
  return colon < 1 ? null : said(own(HEADERS, line.slice(0, colon).trim().toLowerCase()), line.slice(colon + 1).trim());
}

/** Longer lines are no headers; they are shown and not scanned. */
const MOST_SCANNED = 2000;

/**
 * What was sent or received, line by line, each with what it says. Of what came from a camera nothing is believed: a line
 * that is none of RTSP or SDP has no words.
 */
export function explainEntry({ text, direction }: Pick<TapeEntry, 'text' | 'direction'>): readonly ExplainedLine[] {
  const lines = text.split(/\r\n|\n/);
  if (isPacketText(text)) return explainPacket(text);
  if (direction === 'remark') return lines.map((line) => ({ text: line, words: null }));
  let isBody = false;
  return lines.map((line, at) => {
    if (line === '') isBody = true;
    if (line === '' || line.length > MOST_SCANNED) return { text: line, words: null };
    if (at === 0) return { text: line, words: ofStartLine(line) };
    return { text: line, words: isBody || /^[a-z]=/.test(line) ? ofDescription(line) : ofHeader(line) };
  });
}
