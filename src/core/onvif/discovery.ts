import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import type { Fault } from '../base/fault.ts';
import { TEXT_LIMITS } from '../base/limits.ts';
import { err, ok, type Result } from '../base/result.ts';
import { parseMac } from '../net/mac.ts';
import { childOf, childrenOf, type EnvelopeFaultCode, FEW_ELEMENTS, parseEnvelope, textIn } from './envelope.ts';

// Source: WS-Discovery (2005/04) §5, ONVIF Core §7 (discovery). It goes by multicast, and no router carries it on.

/** Where devices listen. Source: WS-Discovery §2.4. */
export const DISCOVERY = { group: '239.255.255.250', port: 3702 } as const;

/** The question: who here sends video? `messageId` is a UUID of the asker's making. */
export const probeMessage = (messageId: string): string =>
  '<?xml version="1.0" encoding="UTF-8"?>' +
  '<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope" xmlns:a="http://schemas.xmlsoap.org/ws/2004/08/addressing" ' +
  'xmlns:d="http://schemas.xmlsoap.org/ws/2005/04/discovery" xmlns:dn="http://www.onvif.org/ver10/network/wsdl">' +
  '<s:Header>' +
  `<a:MessageID>urn:uuid:${messageId}</a:MessageID>` +
  '<a:To>urn:schemas-xmlsoap-org:ws:2005:04:discovery</a:To>' +
  '<a:Action>http://schemas.xmlsoap.org/ws/2005/04/discovery/Probe</a:Action>' +
  '</s:Header>' +
  '<s:Body><d:Probe><d:Types>dn:NetworkVideoTransmitter</d:Types></d:Probe></s:Body></s:Envelope>';

/** The message that an answer must name; of a Probe, its own. */
export function messageIdOf(text: string): string | null {
  const read = parseEnvelope(text, MOST_MESSAGE_CHARS, FEW_ELEMENTS);
  return read.ok ? textIn(read.value.header, 'MessageID') || null : null;
}

/** What a device says of itself in its scopes. Empty where it says nothing. */
export interface Scopes {
  readonly name: string;
  readonly hardware: string;
  readonly location: string;
  readonly serial: string;
  readonly mac: string;
}

/** One device that answered. */
export interface DiscoveredDevice {
  /** The one thing of it that stays: `urn:uuid:…`. */
  readonly endpoint: string;
  readonly scopes: Scopes;
  /** Host and port of its device service, as it says itself: an address of before may stand there. */
  readonly addresses: readonly { readonly host: string; readonly port: number }[];
}

/** Sixteen devices in one answer, each with all its scopes, stay below it. */
const MOST_MESSAGE_CHARS = 64 * 1024;
/** More in one answer is no device. */
const MOST_MATCHES = 16;
const MOST_ADDRESSES = 8;
const MOST_SCOPES = 64;
const SCOPE = 'onvif://www.onvif.org/';

const plain = (text: string, max: number): string => clipText(oneLine(text).trim(), max);

function decodeScope(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text; // a lone “%”: it stays as it came
  }
}

/** `onvif://www.onvif.org/name/Sluice%20rail` and its kin. Source: ONVIF Core §7.3.2.2. */
export function readScopes(text: string): Scopes {
  const found: Record<keyof Scopes, string> = { name: '', hardware: '', location: '', serial: '', mac: '' };
  for (const scope of text.split(/\s+/, MOST_SCOPES)) {
    if (!scope.toLowerCase().startsWith(SCOPE)) continue;
    const [kind = '', ...rest] = scope.slice(SCOPE.length).split('/');
    const value = plain(decodeScope(rest.join('/')), TEXT_LIMITS.serial);
    const name = kind.toLowerCase();
    if (Object.hasOwn(found, name)) found[name as keyof Scopes] ||= value;
  }
  return { ...found, mac: parseMac(found.mac)?.mac ?? '' };
}

/** Host and port of `http://10.77.4.21:80/onvif/device_service`; `null` when it is no such address. */
function addressIn(text: string): { readonly host: string; readonly port: number } | null {
  try {
    const { protocol, hostname, port } = new URL(text.slice(0, 300));
    if (protocol !== 'http:' && protocol !== 'https:') return null;
    return {
      host: hostname.replace(/^\[|\]$/g, ''),
      port: port === '' ? (protocol === 'http:' ? 80 : 443) : Number(port),
    };
  } catch {
    return null;
  }
}

export type DiscoveryFault = Fault<EnvelopeFaultCode> | 'other-message';

/**
 * Devices in an answer to a Probe. One to somebody else's is `other-message`.
 * @param relatesTo the message that was sent
 */
export function readProbeMatches(text: string, relatesTo: string): Result<readonly DiscoveredDevice[], DiscoveryFault> {
  const read = parseEnvelope(text, MOST_MESSAGE_CHARS, FEW_ELEMENTS);
  if (!read.ok) return read;
  const answered = textIn(read.value.header, 'RelatesTo');
  const matches = childOf(read.value.body, 'ProbeMatches');
  if (
    !matches ||
    (answered !== '' && answered.replace(/^urn:/i, '').toLowerCase() !== `uuid:${relatesTo}`.toLowerCase())
  )
    return err('other-message');
  const devices = childrenOf(matches, 'ProbeMatch').slice(0, MOST_MATCHES);
  return ok(
    devices.flatMap((match): readonly DiscoveredDevice[] => {
      const endpoint = plain(textIn(childOf(match, 'EndpointReference'), 'Address'), TEXT_LIMITS.endpoint);
      if (endpoint === '') return [];
      const addresses = textIn(match, 'XAddrs')
        .split(/\s+/, MOST_ADDRESSES)
        .flatMap((address) => addressIn(address) ?? []);
      return [{ endpoint, scopes: readScopes(textIn(match, 'Scopes')), addresses }];
    }),
  );
}
