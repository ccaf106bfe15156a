import { FEW_ELEMENTS, parseEnvelope } from '../onvif/envelope.ts';
import { isEnough, readFirstAnswer, said, titleOf } from './http-answer.ts';
import type { DoorKind, SeenDoor } from './seen.ts';

/** Ports that are asked unless others are named, the likeliest for a stream first. */
export const USUAL_PORTS = [554, 8554, 80, 8080, 8000, 8899] as const;

/** What is said first at a door: ports on which streams are usual are asked for one, all others for a page. */
const STREAM_PORTS: ReadonlySet<number> = new Set([554, 1554, 5554, 7070, 8554, 10554]);

/**
 * Printers print whatever is sent there, on paper: these are called, and nothing is said to them. 515 is LPD (RFC 1179), 631 IPP (RFC 8011),
 * 9100 and above raw printing.
 */
const PRINTER_PORTS: ReadonlySet<number> = new Set([515, 631, ...Array.from({ length: 10 }, (_, at) => 9100 + at)]);
export const isGreeted = (port: number): boolean => !PRINTER_PORTS.has(port);

export type Greeting = 'rtsp' | 'page' | 'onvif';

export const firstGreeting = (port: number): Greeting => (STREAM_PORTS.has(port) ? 'rtsp' : 'page');

const hostHeader = (host: string, port: number): string => (port === 80 ? host : `${host}:${port}`);

/** Asked without a login, as ONVIF Core §5.12.1 has it: the time is for everybody. */
const TIME_REQUEST =
  '<?xml version="1.0" encoding="UTF-8"?><s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"><s:Body>' +
  '<GetSystemDateAndTime xmlns="http://www.onvif.org/ver10/device/wsdl"/></s:Body></s:Envelope>';

/** The words of a greeting. None of them asks for anything that needs a login. */
export function greetingText(greeting: Greeting, host: string, port: number): string {
  const name = hostHeader(host, port);
  switch (greeting) {
    case 'rtsp': // RFC 2326 §10.1; the URL names the server, since some take no “*”
      return `OPTIONS rtsp://${name}/ RTSP/1.0\r\nCSeq: 1\r\nUser-Agent: ClearTap/0.1\r\n\r\n`;
    case 'page':
      return `GET / HTTP/1.1\r\nHost: ${name}\r\nUser-Agent: ClearTap/0.1\r\nAccept: text/html\r\nConnection: close\r\n\r\n`;
    case 'onvif':
      return (
        `POST /onvif/device_service HTTP/1.1\r\nHost: ${name}\r\nUser-Agent: ClearTap/0.1\r\n` +
        'Content-Type: application/soap+xml; charset=utf-8\r\nConnection: close\r\n' +
        `Content-Length: ${TIME_REQUEST.length}\r\n\r\n${TIME_REQUEST}`
      );
  }
}

/** What an answer taught about a door; `next` is what is to be said to it on another connection. */
export interface Learnt {
  readonly door: SeenDoor;
  readonly next: Greeting | null;
}

const WANTED = { rtsp: 'head', page: 'title', onvif: 'body' } as const satisfies Record<Greeting, string>;

const isOnvif = (body: string): boolean => {
  const read = parseEnvelope(body.slice(body.indexOf('<')), undefined, FEW_ELEMENTS);
  if (!read.ok) return false;
  // a device that refuses in ONVIF's own words is one too
  return (
    Object.hasOwn(read.value.body, 'GetSystemDateAndTimeResponse') ||
    (Object.hasOwn(read.value.body, 'Fault') && body.includes('www.onvif.org/ver10'))
  );
};

/**
 * What the bytes so far say.
 * @param isOver nothing more comes: the peer hung up, or was waited for long enough
 * @returns `null` while more is wanted
 */
export function learn(
  greeting: Greeting,
  known: SeenDoor,
  bytes: { readonly text: string; readonly isOver: boolean },
): Learnt | null {
  const answer = readFirstAnswer(bytes.text);
  if (!bytes.isOver && (answer ? !isEnough(answer, WANTED[greeting]) : bytes.text.length < 'RTSP/1.0 200'.length))
    return null;
  if (!answer) return { door: known, next: null }; // no protocol that we know, or not a word
  const server = said(answer.headers.get('server')) || known.server;
  if (answer.protocol === 'RTSP') return { door: { ...known, is: 'rtsp', server }, next: null };
  const is: DoorKind = greeting === 'onvif' && isOnvif(answer.body) ? 'onvif' : known.is === 'onvif' ? 'onvif' : 'http';
  const door = { ...known, is, server, title: greeting === 'page' ? titleOf(answer.body) : known.title };
  const next = greeting === 'rtsp' ? 'page' : greeting === 'page' ? 'onvif' : null;
  return { door, next };
}
