import { escapeXml, type XmlNode } from './envelope.ts';
import { NAMESPACES, type ServiceName } from './namespaces.ts';

export const SCHEMA = 'http://www.onvif.org/ver10/schema';
/** Source: OASIS WS-BaseNotification 1.3. */
export const NOTIFICATION = 'http://docs.oasis-open.org/wsn/b-2';

/** One operation of a service: how it is asked, and how its answer is read. A reader takes whatever came, and throws nothing. */
export interface Operation<Args, Answer> {
  readonly service: ServiceName;
  /** As the standard names it; the answer's element is this and “Response”. */
  readonly name: string;
  /** Its own namespace where it is not that of the service. */
  readonly namespace?: string;
  /** What WS-Addressing calls it, where a device must be told by a header. */
  readonly action?: string;
  /** It needs no login (ONVIF Core §5.12.1, class PRE_AUTH). */
  readonly isOpen?: true;
  /** Asked twice it would do twice as much: it is not repeated by itself. */
  readonly isOnce?: true;
  /** What stands inside its element. */
  readonly write: (args: Args) => string;
  /** What the answer says; `text` is all of it, as it came. */
  readonly read: (answer: XmlNode, text: string) => Answer;
}

export const operation = <Args, Answer>(row: Operation<Args, Answer>): Operation<Args, Answer> => row;

export const ADDRESSING = 'http://www.w3.org/2005/08/addressing';

export interface EnvelopeParts {
  readonly operation: Pick<Operation<never, unknown>, 'service' | 'name' | 'namespace' | 'action'>;
  readonly inner: string;
  /** Where it goes, for WS-Addressing. */
  readonly to: string;
  /** What proves the account; empty for none. */
  readonly security: string;
  /** What the device wants to see again: the reference parameters of a subscription. */
  readonly echo?: string;
}

/** A request as SOAP 1.2 writes it. */
export function writeEnvelope({
  operation: { service, name, namespace, action },
  inner,
  to,
  security,
  echo = '',
}: EnvelopeParts): string {
  const addressing = action
    ? `<a:Action s:mustUnderstand="1">${escapeXml(action)}</a:Action><a:To s:mustUnderstand="1">${escapeXml(to)}</a:To>`
    : '';
  const header = addressing + echo + security;
  return (
    '<?xml version="1.0" encoding="UTF-8"?>' +
    `<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope" xmlns:tt="${SCHEMA}"${action ? ` xmlns:a="${ADDRESSING}"` : ''}>` +
    `${header === '' ? '' : `<s:Header>${header}</s:Header>`}<s:Body><${name} xmlns="${namespace ?? NAMESPACES[service]}">${inner}</${name}></s:Body></s:Envelope>`
  );
}

/** An element with a text of somebody. */
export const element = (name: string, text: string | number): string => `<${name}>${escapeXml(String(text))}</${name}>`;
