import { isRecord } from '../../base/is-record.ts';
import { attributeOf, childOf, childrenOf, textIn, type XmlNode } from '../envelope.ts';
import { MOST_URI } from '../onvif-limits.ts';
import { element, NOTIFICATION, operation } from '../operation.ts';
import { momentOf, said, saidIn, writeDuration } from '../read-values.ts';
import { referenceParametersIn } from '../reference-parameters.ts';

// Source: ONVIF Core §9 (events); OASIS WS-BaseNotification 1.3 §4 (subscriptions), §5 (pull points).

/** What an event tells of, as far as topics in use say it. */
export const EVENT_KINDS = ['motion', 'line', 'area', 'sound', 'input', 'tamper', 'other'] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/** Parts of topics, the most particular first. Source: ONVIF Analytics §C, Core §E. */
const KINDS: readonly (readonly [string, EventKind])[] = [
  ['linedetector', 'line'],
  ['linecross', 'line'],
  ['fielddetector', 'area'],
  ['objectsinside', 'area'],
  ['audioanalytics', 'sound'],
  ['audiosource', 'sound'],
  ['detectedsound', 'sound'],
  ['tamper', 'tamper'],
  ['globalscenechange', 'tamper'],
  ['trigger/digitalinput', 'input'],
  ['motion', 'motion'],
  ['people', 'motion'],
  ['person', 'motion'],
  ['human', 'motion'],
  ['facedetect', 'motion'],
  ['facerecognition', 'motion'],
  ['vehicle', 'motion'],
  ['animal', 'motion'],
];

/** Kinds that say that something moves: a line that is crossed and an area that is entered are motion too. */
const MOTION: ReadonlySet<EventKind> = new Set(['motion', 'line', 'area']);
export const isMotion = (kind: EventKind): boolean => MOTION.has(kind);

export function kindOfTopic(topic: string): EventKind {
  const text = topic.toLowerCase();
  return KINDS.find(([part]) => text.includes(part))?.[1] ?? 'other';
}

/** “tns1:RuleEngine/CellMotionDetector/Motion” without its prefixes, which each device chooses for itself. */
export const plainTopic = (topic: string): string =>
  topic
    .split('/')
    .map((part) => part.slice(part.indexOf(':') + 1))
    .join('/');

const MOST_TOPICS = 200;
const MOST_DEPTH = 12;

/** Topics stand as elements within each other; those that send something are marked. */
function topicsBelow(node: XmlNode, path: readonly string[], found: string[]): void {
  if (found.length >= MOST_TOPICS || path.length > MOST_DEPTH) return;
  for (const [name, value] of Object.entries(node)) {
    if (name.startsWith('@') || name.startsWith('#')) continue;
    for (const child of (Array.isArray(value) ? value : [value]).slice(0, MOST_TOPICS)) {
      const at = [...path, name];
      if (!isRecord(child)) continue;
      const isTopic =
        attributeOf(child, 'topic').toLowerCase() === 'true' || Object.hasOwn(child, 'MessageDescription');
      if (isTopic && found.length < MOST_TOPICS) found.push(said(at.join('/')));
      if (name !== 'MessageDescription') topicsBelow(child, at, found);
    }
  }
}

export const GET_EVENT_PROPERTIES = operation({
  service: 'events',
  name: 'GetEventProperties',
  action: 'http://www.onvif.org/ver10/events/wsdl/EventPortType/GetEventPropertiesRequest',
  write: () => '',
  read: (answer): readonly string[] => {
    const found: string[] = [];
    topicsBelow(childOf(answer, 'TopicSet') ?? {}, [], found);
    return [...new Set(found)];
  },
});

/** A subscription of ours at the device, and until when it stands. */
export interface Subscription {
  readonly url: string;
  /** What stands in the header of each request to it; empty where it is known by its address. */
  readonly echo: string;
  /** By the device's own clock. */
  readonly nowUnixMs: number | null;
  readonly endsUnixMs: number | null;
}

export const CREATE_PULL_POINT = operation({
  service: 'events',
  name: 'CreatePullPointSubscription',
  action: 'http://www.onvif.org/ver10/events/wsdl/EventPortType/CreatePullPointSubscriptionRequest',
  write: (lifeS: number) => element('InitialTerminationTime', writeDuration(lifeS)),
  read: (answer, text): Subscription => ({
    url: saidIn(childOf(answer, 'SubscriptionReference'), 'Address', MOST_URI),
    echo: referenceParametersIn(text),
    nowUnixMs: momentOf(textIn(answer, 'CurrentTime')),
    endsUnixMs: momentOf(textIn(answer, 'TerminationTime')),
  }),
});

/** One message of a device. */
export interface DeviceEvent {
  readonly topic: string;
  readonly kind: EventKind;
  /** What happened to the property: a device tells first how everything stands, and that is no event. */
  readonly change: 'initialized' | 'changed' | 'deleted' | null;
  /** “IsMotion=true”, as it came. */
  readonly data: string;
  /** What it says is on or off, where it says so. */
  readonly isOn: boolean | null;
  /** By the device's own clock. */
  readonly unixMs: number | null;
}

/** More in one answer is no answer to a question for fifty. */
const MOST_MESSAGES = 200;
const MOST_ITEMS = 16;

const CHANGES = { initialized: 'initialized', changed: 'changed', deleted: 'deleted' } as const;
const isChange = (word: string): word is keyof typeof CHANGES => Object.hasOwn(CHANGES, word);

const items = (node: XmlNode | null): readonly { readonly name: string; readonly value: string }[] =>
  childrenOf(node, 'SimpleItem')
    .slice(0, MOST_ITEMS)
    .map((item) => ({ name: said(attributeOf(item, 'Name')), value: said(attributeOf(item, 'Value')) }));

function readMessage(message: XmlNode): DeviceEvent {
  // the message of ONVIF stands inside the one of the notification
  const outer = childOf(message, 'Message');
  const inner = childOf(outer, 'Message') ?? outer;
  const data = items(childOf(inner, 'Data'));
  const topic = plainTopic(said(textIn(message, 'Topic')));
  const word = attributeOf(inner, 'PropertyOperation').toLowerCase();
  const state = data.map(({ value }) => value.toLowerCase()).find((value) => /^(?:true|false|1|0)$/.test(value));
  return {
    topic,
    kind: kindOfTopic(topic),
    change: isChange(word) ? CHANGES[word] : null,
    data: said(data.map(({ name, value }) => `${name}=${value}`).join(', ')),
    isOn: state === undefined ? null : state === 'true' || state === '1',
    unixMs: momentOf(attributeOf(inner, 'UtcTime')),
  };
}

export interface PulledMessages {
  readonly events: readonly DeviceEvent[];
  readonly nowUnixMs: number | null;
  readonly endsUnixMs: number | null;
}

export const PULL_MESSAGES = operation({
  service: 'events',
  name: 'PullMessages',
  action: 'http://www.onvif.org/ver10/events/wsdl/PullPointSubscription/PullMessagesRequest',
  isOnce: true,
  write: ({ waitS, most }: { waitS: number; most: number }) =>
    element('Timeout', writeDuration(waitS)) + element('MessageLimit', most),
  read: (answer): PulledMessages => ({
    events: childrenOf(answer, 'NotificationMessage').slice(0, MOST_MESSAGES).map(readMessage),
    nowUnixMs: momentOf(textIn(answer, 'CurrentTime')),
    endsUnixMs: momentOf(textIn(answer, 'TerminationTime')),
  }),
});

export const RENEW = operation({
  service: 'events',
  name: 'Renew',
  namespace: NOTIFICATION,
  action: 'http://docs.oasis-open.org/wsn/bw-2/SubscriptionManager/RenewRequest',
  write: (lifeS: number) => element('TerminationTime', writeDuration(lifeS)),
  read: (answer): number | null => momentOf(textIn(answer, 'TerminationTime')),
});

export const UNSUBSCRIBE = operation({
  service: 'events',
  name: 'Unsubscribe',
  namespace: NOTIFICATION,
  action: 'http://docs.oasis-open.org/wsn/bw-2/SubscriptionManager/UnsubscribeRequest',
  write: () => '',
  read: () => null,
});
