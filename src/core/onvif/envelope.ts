import { XMLParser } from 'fast-xml-parser';
import { type Fault, fault } from '../base/fault.ts';
import { isRecord } from '../base/is-record.ts';
import { err, ok, type Result } from '../base/result.ts';

export type EnvelopeFaultCode =
  | 'onvif.too-large'
  | 'onvif.too-many'
  | 'onvif.not-xml'
  | 'onvif.doctype'
  | 'onvif.not-soap';

/** An element as the library gives it: children by name, a list where one name stands more than once, text as text. */
export type XmlNode = Readonly<Record<string, unknown>>;

export interface Envelope {
  readonly header: XmlNode;
  readonly body: XmlNode;
}

/** Envelopes of a house are a few kilobytes; the largest answer to a discovery fits a datagram. */
export const MAX_ENVELOPE_CHARS = 64 * 1024;
/** Deeper than any schema of ONVIF goes. */
const MAX_DEPTH = 60;

/** A box of 64 channels names about 8,000 in one answer. */
const MOST_ELEMENTS = 20_000;
const MOST_ATTRIBUTES = 40_000;
/** An answer to a discovery has about forty. */
export const FEW_ELEMENTS = 500;
/** What is larger, or holds more elements, takes longer to read than anybody who moves a head may wait. */
const QUICK = { chars: 64 * 1024, elements: 2000 } as const;

/** How often a sign stands in a text, counted no further than `most`. */
function countOf(text: string, sign: string, most: number): number {
  let count = 0;
  for (let at = text.indexOf(sign); at >= 0 && count <= most; at = text.indexOf(sign, at + 1)) count += 1;
  return count;
}

/** Whether an envelope is better read beside whatever else goes on. */
export const isLongToRead = (text: string): boolean =>
  text.length > QUICK.chars || countOf(text, '<', 2 * QUICK.elements) > 2 * QUICK.elements;

const parser = new XMLParser({
  removeNSPrefix: true,
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  parseTagValue: false,
  parseAttributeValue: false,
  // `&amp;` and its four kin are read below: a definition of one's own is refused before
  processEntities: false,
  maxNestedTags: MAX_DEPTH,
});

const PLAIN_ENTITIES: Readonly<Record<string, string>> = { lt: '<', gt: '>', quot: '"', apos: "'", amp: '&' };
/** The five entities that every XML knows, and signs by their number. Source: XML 1.0 §4.1, §4.6. */
const decoded = (text: string): string =>
  text.replace(
    /&(?:(lt|gt|quot|apos|amp)|#(\d{1,7})|#x([0-9a-fA-F]{1,6}));/g,
    (whole, name?: string, dec?: string, hex?: string) => {
      if (name !== undefined) return PLAIN_ENTITIES[name] ?? '';
      const code = dec === undefined ? Number.parseInt(hex ?? '', 16) : Number(dec);
      return code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff) ? String.fromCodePoint(code) : whole;
    },
  );

/** Text as it may stand in an element or in an attribute. */
export const escapeXml = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * Header and body of a SOAP envelope of either version. A document type is refused whatever it says: SOAP has none
 * (SOAP 1.2 part 1 §5), and every bomb of entities begins with one.
 */
export function parseEnvelope(
  text: string,
  mostChars = MAX_ENVELOPE_CHARS,
  mostElements = MOST_ELEMENTS,
): Result<Envelope, Fault<EnvelopeFaultCode>> {
  if (text.length > mostChars)
    return err(fault('onvif.too-large', `Expected at most ${mostChars} characters, got ${text.length}.`));
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return err(fault('onvif.doctype', 'It contains a document type, which SOAP forbids: it is not read.'));
  // an element has one or two signs that open a tag
  if (countOf(text, '<', 2 * mostElements) > 2 * mostElements || countOf(text, '=', MOST_ATTRIBUTES) > MOST_ATTRIBUTES)
    return err(fault('onvif.too-many', `Expected at most ${mostElements} elements.`));
  let document: unknown;
  try {
    document = parser.parse(text);
  } catch (error) {
    // the library throws on what is not well formed or nested too deep, and its words quote the peer
    if (!(error instanceof Error)) throw error;
    return err(fault('onvif.not-xml', 'It is not well-formed XML.'));
  }
  const envelope = isRecord(document) ? document.Envelope : undefined;
  if (!isRecord(envelope) || !isRecord(envelope.Body))
    return err(fault('onvif.not-soap', 'It is XML, but no SOAP envelope with a body.'));
  return ok({ header: isRecord(envelope.Header) ? envelope.Header : {}, body: envelope.Body });
}

/** A child element; the first where several have its name. */
export function childOf(node: XmlNode | null, name: string): XmlNode | null {
  const found = node?.[name];
  const first: unknown = Array.isArray(found) ? found[0] : found;
  return isRecord(first) ? first : null;
}

/** Children of one name, none, one or many. */
export function childrenOf(node: XmlNode | null, name: string): readonly XmlNode[] {
  const found = node?.[name];
  return (Array.isArray(found) ? found : [found]).filter(isRecord);
}

/** The text of a child, trimmed; empty when it has none. */
export function textIn(node: XmlNode | null, name: string): string {
  const found = node?.[name];
  const first: unknown = Array.isArray(found) ? found[0] : found;
  const text = isRecord(first) ? first['#text'] : first;
  return typeof text === 'string' ? decoded(text).trim() : '';
}

/** The text of an attribute; empty when it has none. */
export function attributeOf(node: XmlNode | null, name: string): string {
  const found = node?.[`@${name}`];
  return typeof found === 'string' ? decoded(found).trim() : '';
}

/** The child that many steps below. */
export const below = (node: XmlNode | null, ...names: readonly string[]): XmlNode | null =>
  names.reduce<XmlNode | null>((at, name) => childOf(at, name), node);
