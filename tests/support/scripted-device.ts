import type { AddressInfo } from 'node:net';
import { createServer, type Socket } from 'node:net';
import { NAMESPACES } from '../../src/core/onvif/namespaces.ts';
import { envelopeOf, faultOf, servicesAnswer, timeAnswer } from '../../src/standins/onvif/onvif-answers.ts';

/** One request that came, as it came. */
export interface CameRequest {
  readonly operation: string;
  readonly head: string;
  readonly body: string;
}

export interface ScriptedDevice {
  readonly port: number;
  readonly requests: readonly CameRequest[];
  /** Bytes that it got rid of. */
  readonly sent: () => number;
  close(): Promise<void>;
}

export const http = (body: string, more = '', status = '200 OK', type = 'application/soap+xml'): string =>
  `HTTP/1.1 ${status}\r\nContent-Type: ${type}\r\n${more}Content-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`;
export const soap = (body: string): string => http(envelopeOf(body));
export const refused = (more = ''): string => http(faultOf('ter:NotAuthorized', 'no'), more, '400 Bad Request');

/** What a device says where nothing else is scripted: the time, a device service and one for events, and who it is. */
function usual(operation: string, port: number): string {
  switch (operation) {
    case 'GetSystemDateAndTime':
      return soap(timeAnswer(Date.now(), 'NTP'));
    case 'GetServices':
      return soap(
        servicesAnswer(
          [
            { namespace: NAMESPACES.device, path: '/onvif/device_service', version: [2, 0], capability: 'Device' },
            { namespace: NAMESPACES.events, path: '/onvif/events', version: [2, 0], capability: 'Events' },
          ],
          `http://127.0.0.1:${port}`,
        ),
      );
    case 'GetDeviceInformation':
      return soap('<tds:GetDeviceInformationResponse><tds:Model>S</tds:Model></tds:GetDeviceInformationResponse>');
    default:
      return http(faultOf('ter:ActionNotSupported', 'no'), '', '400 Bad Request');
  }
}

/** A device that says what a test wants: a text, or what is done with the socket; nothing says the usual. */
export async function scriptedDevice(
  answer: (asked: CameRequest, socket: Socket, port: number) => string | 'silence' | null,
): Promise<ScriptedDevice> {
  const requests: CameRequest[] = [];
  const sockets = new Set<Socket>();
  let written = 0;
  const server = createServer((socket) => {
    sockets.add(socket);
    let text = '';
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      written += socket.bytesWritten;
      sockets.delete(socket);
    });
    socket.on('data', (chunk) => {
      text += chunk.toString('latin1');
      for (;;) {
        const end = text.indexOf('\r\n\r\n');
        const length = Number(/content-length: (\d+)/i.exec(text)?.[1] ?? 0);
        if (end < 0 || text.length < end + 4 + length) return;
        const head = text.slice(0, end);
        const body = text.slice(end + 4, end + 4 + length);
        text = text.slice(end + 4 + length);
        const operation = /<s:Body><(\w+)/.exec(body)?.[1] ?? '';
        const asked = { operation, head, body };
        requests.push(asked);
        const { port } = server.address() as AddressInfo;
        const said = answer(asked, socket, port);
        if (said !== 'silence') socket.write(said ?? usual(operation, port));
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as AddressInfo).port,
    requests,
    sent: () => written + [...sockets].reduce((sum, { bytesWritten }) => sum + bytesWritten, 0),
    close: async () => {
      for (const socket of sockets) socket.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}
