import type { Socket } from 'node:net';
import { concatBytes, textOf } from '../core/base/bytes.ts';
import { plainLine, type RtspLine } from './rtsp-line.ts';

/** A client that speaks RTSP inside HTTP: what it reads and what it writes are two requests with one cookie. */
interface Tunnel {
  readonly take: (chunk: Uint8Array) => void;
  readonly destroy: () => void;
}

const MOST_HEAD_BYTES = 8192;
const OK =
  'HTTP/1.0 200 OK\r\nConnection: close\r\nCache-Control: no-store\r\nPragma: no-cache\r\nContent-Type: application/x-rtsp-tunnelled\r\n\r\n';
const NO =
  'HTTP/1.1 400 Bad Request\r\nContent-Type: text/html\r\nConnection: close\r\n\r\n<html><title>C4 setup</title></html>';

const cookieOf = (head: string): string => /^x-sessioncookie:[ \t]*(\S{1,100})[ \t]*$/im.exec(head)?.[1] ?? '';

/**
 * Opens RTSP to who asks for it by HTTP: GET gives what the camera says, POST takes what the client says in base64. All else is
 * told as a web server tells it.
 * @param open takes a line to a client, and gives where its bytes go
 */
export class TunnelDoor {
  readonly #tunnels = new Map<string, Tunnel>();

  constructor(private readonly open: (line: RtspLine) => (chunk: Uint8Array) => void) {}

  take(socket: Socket): void {
    let head = new Uint8Array();
    const onData = (chunk: Uint8Array): void => {
      head = new Uint8Array(concatBytes([head, chunk]));
      const text = textOf(head);
      const end = text.indexOf('\r\n\r\n');
      if (end < 0 && head.length < MOST_HEAD_BYTES) return;
      socket.off('data', onData);
      if (end < 0) return void socket.end(NO);
      this.#admit(socket, text.slice(0, end), head.subarray(end + 4));
    };
    socket.on('data', onData);
  }

  #admit(socket: Socket, head: string, rest: Uint8Array): void {
    const cookie = cookieOf(head);
    if (/^GET \S+ HTTP\/1\./.test(head) && cookie !== '') {
      socket.write(OK);
      socket.resume(); // a client says nothing more here
      const take = this.open(plainLine(socket));
      this.#tunnels.set(cookie, { take, destroy: () => socket.destroy() });
      socket.once('close', () => this.#tunnels.delete(cookie));
      return;
    }
    const tunnel = this.#tunnels.get(cookie);
    if (!/^POST \S+ HTTP\/1\./.test(head) || !tunnel) return void socket.end(NO);
    let waiting = '';
    const take = (chunk: Uint8Array): void => {
      waiting += textOf(chunk).replace(/\s/g, '');
      const whole = waiting.length - (waiting.length % 4);
      tunnel.take(Buffer.from(waiting.slice(0, whole), 'base64'));
      waiting = waiting.slice(whole);
    };
    take(rest);
    socket.on('data', take);
    socket.once('close', tunnel.destroy);
  }
}
