import { createSocket } from 'node:dgram';
import type { AddressInfo } from 'node:net';
import { messageIdOf } from '../core/onvif/discovery.ts';

export interface DiscoveryAnswer {
  readonly name: string;
  /** UUID of its endpoint. */
  readonly endpoint: string;
  readonly hardware: string;
  readonly location: string;
  /** Host and port of its device service, as it gives them. */
  readonly address: string;
}

export interface DiscoveryResponder {
  readonly port: number;
  close(): void;
}

const scope = (kind: string, value: string): string => `onvif://www.onvif.org/${kind}/${encodeURIComponent(value)}`;

/** Source: WS-Discovery (2005/04) §5.3. */
const matches = ({ name, endpoint, hardware, location, address }: DiscoveryAnswer, relatesTo: string): string =>
  '<?xml version="1.0" encoding="UTF-8"?><SOAP-ENV:Envelope xmlns:SOAP-ENV="http://www.w3.org/2003/05/soap-envelope" ' +
  'xmlns:wsa="http://schemas.xmlsoap.org/ws/2004/08/addressing" xmlns:d="http://schemas.xmlsoap.org/ws/2005/04/discovery" ' +
  'xmlns:dn="http://www.onvif.org/ver10/network/wsdl"><SOAP-ENV:Header>' +
  `<wsa:MessageID>urn:uuid:${endpoint}-answer</wsa:MessageID><wsa:RelatesTo>${relatesTo}</wsa:RelatesTo>` +
  '<wsa:To>http://schemas.xmlsoap.org/ws/2004/08/addressing/role/anonymous</wsa:To>' +
  '<wsa:Action>http://schemas.xmlsoap.org/ws/2005/04/discovery/ProbeMatches</wsa:Action></SOAP-ENV:Header>' +
  '<SOAP-ENV:Body><d:ProbeMatches><d:ProbeMatch>' +
  `<wsa:EndpointReference><wsa:Address>urn:uuid:${endpoint}</wsa:Address></wsa:EndpointReference>` +
  '<d:Types>dn:NetworkVideoTransmitter</d:Types>' +
  `<d:Scopes>${[scope('type', 'video_encoder'), scope('name', name), scope('hardware', hardware), scope('location', location)].join(' ')}</d:Scopes>` +
  `<d:XAddrs>http://${address}/onvif/device_service</d:XAddrs><d:MetadataVersion>1</d:MetadataVersion>` +
  '</d:ProbeMatch></d:ProbeMatches></SOAP-ENV:Body></SOAP-ENV:Envelope>';

/** Answers the question by WS-Discovery on a loopback port, as a device would in its multicast group. */
export async function startDiscoveryResponder(answer: () => DiscoveryAnswer, times = 1): Promise<DiscoveryResponder> {
  const socket = createSocket('udp4');
  let isBound = false;
  const bound = new Promise<void>((resolve, reject) => {
    socket.on('error', (error) => {
      if (!isBound) reject(error);
    });
    socket.bind(0, '127.0.0.1', () => {
      isBound = true;
      resolve();
    });
  });
  socket.on('message', (chunk, from) => {
    const text = chunk.toString('utf8');
    const id = text.includes('NetworkVideoTransmitter') ? messageIdOf(text) : null;
    if (id === null) return;
    for (let time = 0; time < times; time++) socket.send(matches(answer(), id), from.port, from.address, () => {}); // whoever asked may be gone
  });
  await bound;
  return { port: (socket.address() as AddressInfo).port, close: () => socket.close() };
}
