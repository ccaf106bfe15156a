import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';
import { isRecord } from '../base/is-record.ts';
import { isLongToRead } from './envelope.ts';
import { ADDRESSING } from './operation.ts';

/** What a device lets its subscriptions be known by is a number or two. */
const MOST_CHARS = 2048;
const MOST_PARAMETERS = 8;
/** The answer that names a subscription is short. */
const MOST_ANSWER_CHARS = 16 * 1024;

/** In order, with prefixes and with text as it was written: it goes back as it came. */
const AS_WRITTEN = {
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  processEntities: false,
  cdataPropName: '#cdata',
} as const;
const parser = new XMLParser({
  ...AS_WRITTEN,
  ignorePiTags: true,
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: false,
  maxNestedTags: 60,
});
const builder = new XMLBuilder(AS_WRITTEN);

type Attributes = Readonly<Record<string, unknown>>;
interface Element {
  readonly name: string;
  readonly attributes: Attributes;
  readonly children: readonly unknown[];
}

function elementOf(node: unknown): Element | null {
  if (!isRecord(node)) return null;
  const name = Object.keys(node).find((key) => key !== ':@' && !key.startsWith('#') && !key.startsWith('?'));
  const children = name === undefined ? undefined : node[name];
  if (name === undefined || !Array.isArray(children)) return null;
  return { name, attributes: isRecord(node[':@']) ? node[':@'] : {}, children };
}

const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

/** The way down to the parameters, by local names; between envelope and answer stands whatever the answer is called. */
const WAY = ['Envelope', 'Body', null, 'SubscriptionReference', 'ReferenceParameters'] as const;

/**
 * What a device wants to see again in the header of each request to a subscription, ready to be put there: some tell
 * their subscriptions apart by an element, not by an address. Empty where it gave none. Throws nothing.
 * Source: WS-Addressing 1.0 SOAP Binding §4 (reference parameters go into the header, each marked as one).
 * @param text the whole answer, already known to be an envelope
 */
export function referenceParametersIn(text: string): string {
  // the library is asked a second time only where there is something to be asked for
  if (text.length > MOST_ANSWER_CHARS || !text.includes('ReferenceParameters') || isLongToRead(text)) return '';
  let nodes: unknown;
  try {
    nodes = parser.parse(text);
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return '';
  }
  const scope: Record<string, unknown> = {};
  for (const wanted of WAY) {
    const found = (Array.isArray(nodes) ? nodes : [])
      .map(elementOf)
      .find((element) => element && (wanted === null || localName(element.name) === wanted));
    if (!found) return '';
    for (const [name, value] of Object.entries(found.attributes)) if (isPrefix(name)) scope[name] = value;
    nodes = found.children;
  }
  const parameters = (Array.isArray(nodes) ? nodes : []).flatMap((node) => elementOf(node) ?? []);
  const written = parameters.slice(0, MOST_PARAMETERS).map(({ name, attributes, children }) => ({
    [name]: children,
    ':@': { ...scope, ...attributes, 'xmlns:wsar': ADDRESSING, 'wsar:IsReferenceParameter': 'true' },
  }));
  const echo: string = written.length === 0 ? '' : String(builder.build(written));
  // the reader takes more than XML allows, and what is sent has to be XML
  return echo.length <= MOST_CHARS && XMLValidator.validate(`<all>${echo}</all>`) === true ? echo : '';
}

const isPrefix = (name: string): boolean => name === 'xmlns' || name.startsWith('xmlns:');
