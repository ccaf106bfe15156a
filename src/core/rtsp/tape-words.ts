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
  TEARDOWN: 'gives the session back',
  GET_PARAMETER: 'asks for nothing: a sign of life, so that the session is kept',
  SET_PARAMETER: 'sets nothing: a sign of life, so that the session is kept',
  ANNOUNCE: 'tells of another description',
  RECORD: 'offers a stream to it',
  REDIRECT: 'is to go elsewhere',
};

const STATUS_CLASSES: Readonly<Record<string, string>> = {
  1: 'it is at it',
  2: 'it agrees',
  3: 'it sends elsewhere',
  4: 'it finds fault with the request',
  5: 'it failed itself',
};

type Words = string | ((value: string) => string | null);

/** By their names in lower case. Source: RFC 2326 §12; RFC 7235 for the two of the login. */
const HEADERS: Readonly<Record<string, Words>> = {
  accept: 'what kind of description is wanted',
  allow: 'requests that it would take here',
  authorization: (value) =>
    /^basic\b/i.test(value)
      ? 'account and secret, readable for whoever listens on the way'
      : 'the proof of the account; the secret itself is not in it',
  bandwidth: 'bits a second that are at hand',
  blocksize: 'bytes of the largest packet that is wanted',
  'cache-control': 'how long it may be kept; of no use for what is live',
  connection: (value) => (/close/i.test(value) ? 'it hangs up after this' : 'the connection stays'),
  'content-base': 'where the addresses of its tracks begin',
  'content-length': (value) => `${value} bytes follow the empty line`,
  'content-type': (value) =>
    /^application\/sdp/i.test(value) ? 'what follows is a description of the stream (SDP)' : 'what follows is this',
  cseq: (value) => `number ${value}; question and answer carry the same`,
  date: 'its own clock',
  expires: 'until when it may be kept',
  'last-modified': 'since when it is as it is',
  location: 'where it sends to',
  public: 'requests that it takes',
  range: (value) => (/now/i.test(value) ? 'from now on: it is live' : 'which part of it'),
  require: 'abilities without which it will not do',
  'rtp-info': 'of each track the number and the time stamp of its first packet',
  scale: 'how fast it plays',
  server: 'what it calls itself',
  session: (value) => `the session; kept ${parseSession(value).timeoutS} s without a word`,
  speed: 'how fast it is sent',
  supported: 'abilities that it has',
  transport: (value) => {
    const { interleaved, clientPorts, serverPorts, lower } = parseTransport(value);
    if (interleaved)
      return `inside this connection: pictures on channel ${interleaved[0]}, reports on ${interleaved[1]}`;
    const from = serverPorts ? `, from ${serverPorts.join(' and ')}` : '';
    if (clientPorts) return `over UDP, to ports ${clientPorts.join(' and ')}${from}`;
    return lower === 'tcp' ? 'inside this connection' : 'over UDP';
  },
  unsupported: 'abilities that were asked for and that it has not',
  'user-agent': 'who asks',
  'www-authenticate': (value) =>
    /^digest\b/i.test(value)
      ? 'it asks for a login: a proof made from secret, realm and nonce, which is fresh each time'
      : /^basic\b/i.test(value)
        ? 'it asks for a login that crosses the wire readable'
        : 'it asks for a login of this kind',
  'x-accept-dynamic-rate': 'whether its rate may change',
};

const KINDS: Readonly<Record<string, string>> = {
  video: 'a picture',
  audio: 'sound',
  application: 'data beside the picture, such as what detection found',
};

/** Lines of a description by their letter. Source: RFC 8866 §5. */
const LETTERS: Readonly<Record<string, Words>> = {
  v: 'version of the description; there is no other',
  o: 'who made it, and which edition of it this is',
  s: 'its name',
  i: 'a remark',
  c: 'where packets go; all noughts: wherever it was asked from',
  t: 'from when to when; noughts: always',
  b: (value) => {
    const rate = /^AS:(\d{1,9})$/i.exec(value)?.[1];
    return rate === undefined ? 'its rate' : `at most ${rate} kbit/s, by its own word`;
  },
  m: (value) => {
    const [kind = '', , , ...types] = value.split(' ');
    return `${KINDS[kind] ?? kind}; its packets carry type ${types.join(', ')}`;
  },
};

/** Attributes by their names. Source: RFC 8866 §6; RFC 2326 §C.1; RFC 6184 §8.1; RFC 7798 §7.1. */
const ATTRIBUTES: Readonly<Record<string, Words>> = {
  control: (value) => (value === '*' ? 'all of it at once has the address above' : 'address of this track'),
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
      /config=/.test(value) ? 'setting of its sound' : null,
    ]
      .filter((part) => part !== null)
      .join('; ') || 'settings of the codec',
  framerate: (value) => `${value} pictures a second, by its own word`,
  'x-dimensions': 'size of its picture, by its own word',
  framesize: 'size of its picture, by its own word',
  range: (value) => (/now/i.test(value) ? 'live, without an end' : 'how long it is'),
  recvonly: 'from the camera to whoever draws',
  sendonly: 'towards the camera: its loudspeaker',
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
