import { sayMany } from '../base/say.ts';
import { rulesFor } from '../findings/rule.ts';
import type { OnvifFacts } from './onvif-facts.ts';

const rule = rulesFor<OnvifFacts>();

/** What whoever waits for the events of a device can count on. */
export const EVENT_RULES = [
  rule({
    id: 'onvif.no-events',
    question: 'Does it offer events?',
    source: 'ONVIF Core §9: the event service is mandatory',
    needs: ['hasEvents'],
    isTight: (f) => !f.hasEvents,
    severity: 'note',
    title: () => 'No events offered',
    because: () => 'It offers no event service.',
    do: ['Let a destination detect motion in its picture.'],
    why: 'A hub that waits for motion from it waits for ever.',
  }),
  rule({
    id: 'onvif.no-pull',
    question: 'Can its events be pulled?',
    source: 'ONVIF Core §9.2: CreatePullPointSubscription',
    needs: ['canPull'],
    asks: (f) => f.hasEvents === true && f.cause === undefined,
    isTight: (f) => !f.canPull,
    severity: 'fix',
    title: () => 'Events cannot be pulled',
    because: (f) => `A subscription was refused. ${f.pullNote ?? ''}`.trim(),
    do: [
      'Restart the camera: subscriptions of other clients may fill it.',
      'Give the account the right to read events.',
    ],
    why: 'A hub that subscribes is refused in the same way, and often does not say so.',
  }),
  rule({
    id: 'onvif.no-motion',
    question: 'Does it offer motion events?',
    source: 'topics of GetEventProperties',
    needs: ['motionTopics', 'topics'],
    isTight: (f) => f.motionTopics === 0,
    severity: 'caution',
    title: () => 'No motion events offered',
    because: (f) => `None of its ${sayMany(f.topics, 'topic')} is about motion.`,
    do: [
      'Switch motion detection on in the camera and read it again.',
      'Let a destination detect motion in its picture.',
    ],
    why: 'Automations that wait for motion from this camera never start.',
  }),
] as const;
