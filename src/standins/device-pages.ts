import { createServer, type IncomingMessage } from 'node:http';
import { listenOnLoopback, shutServer } from './loopback-server.ts';
import type { DevicePage } from './personality.ts';

/** More in one request is no envelope. */
const MOST_BYTES = 64 * 1024;

const envelope = (body: string): string =>
  '<?xml version="1.0" encoding="UTF-8"?><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope" ' +
  'xmlns:tds="http://www.onvif.org/ver10/device/wsdl" xmlns:tt="http://www.onvif.org/ver10/schema" ' +
  `xmlns:ter="http://www.onvif.org/ver10/error"><SOAP-ENV:Body>${body}</SOAP-ENV:Body></SOAP-ENV:Envelope>`;

/** Source: ONVIF Core §8.3.1: the one answer that needs no login. */
function timeAnswer(atMs: number): string {
  const at = new Date(atMs);
  const time = `<tt:Hour>${at.getUTCHours()}</tt:Hour><tt:Minute>${at.getUTCMinutes()}</tt:Minute><tt:Second>${at.getUTCSeconds()}</tt:Second>`;
  const date = `<tt:Year>${at.getUTCFullYear()}</tt:Year><tt:Month>${at.getUTCMonth() + 1}</tt:Month><tt:Day>${at.getUTCDate()}</tt:Day>`;
  return envelope(
    '<tds:GetSystemDateAndTimeResponse><tds:SystemDateAndTime><tt:DateTimeType>Manual</tt:DateTimeType>' +
      `<tt:DaylightSavings>false</tt:DaylightSavings><tt:UTCDateTime><tt:Time>${time}</tt:Time><tt:Date>${date}</tt:Date></tt:UTCDateTime>` +
      '</tds:SystemDateAndTime></tds:GetSystemDateAndTimeResponse>',
  );
}

const REFUSAL = envelope(
  '<SOAP-ENV:Fault><SOAP-ENV:Code><SOAP-ENV:Value>SOAP-ENV:Sender</SOAP-ENV:Value><SOAP-ENV:Subcode>' +
    '<SOAP-ENV:Value>ter:NotAuthorized</SOAP-ENV:Value></SOAP-ENV:Subcode></SOAP-ENV:Code>' +
    '<SOAP-ENV:Reason><SOAP-ENV:Text xml:lang="en">A login is asked for.</SOAP-ENV:Text></SOAP-ENV:Reason></SOAP-ENV:Fault>',
);

async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > MOST_BYTES) break;
  }
  return text;
}

export interface DevicePages {
  /** Loopback port it really listens on. */
  readonly port: number;
  close(): Promise<void>;
}

/** The web page of a simulated device, and the door of its ONVIF service: it tells the time, and asks for a login else. */
export async function startDevicePages(page: DevicePage, clockErrorMs = 0): Promise<DevicePages> {
  const server = createServer((request, response) => {
    response.setHeader('Server', page.server);
    if (request.method === 'POST' && page.onvif && request.url === '/onvif/device_service') {
      response.setHeader('Content-Type', 'application/soap+xml; charset=utf-8');
      bodyOf(request).then(
        (asked) => {
          const isTime = asked.includes('GetSystemDateAndTime');
          response.writeHead(isTime ? 200 : 400).end(isTime ? timeAnswer(Date.now() + clockErrorMs) : REFUSAL);
        },
        () => response.destroy(),
      );
      return;
    }
    if (request.method !== 'GET' || request.url !== '/') {
      response.writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8' }).end('Nothing lies there.\n');
      return;
    }
    response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' });
    response.end(`<!doctype html><html lang="en"><title>${page.title}</title><h1>${page.title}</h1></html>`);
  });
  const port = await listenOnLoopback(server, page.title);
  return { port, close: () => shutServer(server) };
}
