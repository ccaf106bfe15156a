import { FEW_ELEMENTS, parseEnvelope } from '../onvif/envelope.ts';
import { type FirstAnswer, said, titleOf, type Wanted } from './http-answer.ts';
import type { SeenDoor } from './seen.ts';

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

/** As much of the answer to each greeting is waited for. */
export const WANTED = { rtsp: 'head', page: 'title', onvif: 'body' } as const satisfies Record<Greeting, Wanted>;

const isOnvif = (body: string): boolean => {
  const read = parseEnvelope(body.slice(body.indexOf('<')), undefined, FEW_ELEMENTS);
  if (!read.ok) return false;
  // a device that refuses in ONVIF's own words is one too
  return (
    Object.hasOwn(read.value.body, 'GetSystemDateAndTimeResponse') ||
    (Object.hasOwn(read.value.body, 'Fault') && body.includes('www.onvif.org/ver10'))
  );
};

/** What is known of a door so far, and what it was asked for. */
export interface Talked {
  readonly door: SeenDoor;
  readonly greetings: readonly Greeting[];
  /** Its page is a page: nothing about it speaks of something else behind it. */
  readonly isPlainPage: boolean;
}

/** A stream server answers GET too, and names itself by what it does. */
const STREAM_NAME = /rtsp|stream|media/i;
const isPlain = ({ status, body }: FirstAnswer, server: string): boolean =>
  status < 400 && titleOf(body) !== '' && !STREAM_NAME.test(server);

/**
 * What an answer taught about a door.
 * @param answer to the last of its greetings; `null` where no protocol that we know was heard, or not a word
 */
export function learn({ door, greetings, isPlainPage }: Talked, answer: FirstAnswer | null): Talked {
  if (!answer) return { door, greetings, isPlainPage };
  const greeting = greetings.at(-1);
  const server = said(answer.headers.get('server')) || door.server;
  if (answer.protocol === 'RTSP') return { door: { ...door, is: 'rtsp', server }, greetings, isPlainPage };
  const isDevice = door.is === 'onvif' || (greeting === 'onvif' && isOnvif(answer.body));
  const title = greeting === 'page' ? titleOf(answer.body) : door.title;
  return {
    door: { ...door, is: isDevice ? 'onvif' : 'http', server, title },
    greetings,
    isPlainPage: greeting === 'page' ? isPlain(answer, server) : isPlainPage,
  };
}

/**
 * What a door is asked for next, on another connection; `null` when it is known for what it is. What answers nothing, or in another
 * protocol than it was asked in, is asked in the other one too, whatever its port: a port tells only what is likely.
 */
export function nextGreeting({ door, greetings, isPlainPage }: Talked): Greeting | null {
  const wasAsked = (greeting: Greeting): boolean => greetings.includes(greeting);
  if (door.is === 'rtsp' || door.is === 'onvif') return null;
  if (!wasAsked('page')) return 'page';
  if (STREAM_NAME.test(door.server) && !wasAsked('rtsp')) return 'rtsp'; // many such wait for ever for the end of a POST
  if (door.is === 'http' && !wasAsked('onvif')) return 'onvif';
  return isPlainPage || wasAsked('rtsp') ? null : 'rtsp';
}
