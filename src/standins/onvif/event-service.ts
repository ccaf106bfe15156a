import { textIn } from '../../core/onvif/envelope.ts';
import { durationOf, momentOf } from '../../core/onvif/read-values.ts';
import * as answers from './onvif-answers.ts';
import type { OnvifPersonality } from './onvif-personality.ts';
import type { Asked, OnvifAnswer, Speaker } from './onvif-service.ts';
import { PullPoints } from './pull-points.ts';
import { walkAt } from './walker.ts';

const WALK_STEP_MS = 200;
/** Of a subscription whose length nobody said. */
const USUAL_LIFE_S = 60;
const MOST_LIFE_S = 3600;

export interface EventServiceOptions {
  readonly walks: OnvifPersonality['walks'];
  readonly endsSubscriptionsAfterMs: number | null;
  /** Its subscriptions are told apart by an element in the header. */
  readonly isKnownByHeader: boolean;
  readonly clockErrorMs: number;
  readonly baseFor: (host: string) => string;
  readonly speaker: Speaker;
}

/** Its events: who walks through its picture, told to whoever pulls. */
export class EventService {
  readonly #points: PullPoints;
  #walk: NodeJS.Timeout | null = null;
  #isWalking = false;

  constructor(private readonly options: EventServiceOptions) {
    this.#points = new PullPoints(Date.now, options.endsSubscriptionsAfterMs);
    if (options.walks) this.#watch(options.walks);
  }

  close(): void {
    if (this.#walk) clearInterval(this.#walk);
    this.#points.close();
  }

  async answer({ name, node, header, host, path, signal }: Asked): Promise<string | OnvifAnswer | null> {
    const { speaker, clockErrorMs, baseFor, isKnownByHeader } = this.options;
    const lifeMs =
      1000 *
      Math.min(MOST_LIFE_S, this.#lifeOf(textIn(node, 'InitialTerminationTime') || textIn(node, 'TerminationTime')));
    const point = isKnownByHeader ? textIn(header, 'SubscriptionId') : (path.split('/').at(-1) ?? '');
    const gone = (): OnvifAnswer => speaker.fault(400, 'ter:InvalidArgVal', 'There is no such subscription.');
    switch (name) {
      case 'GetEventProperties':
        return answers.eventPropertiesAnswer();
      case 'CreatePullPointSubscription': {
        const first = {
          topic: answers.MOTION_TOPIC,
          change: 'Initialized' as const,
          item: { name: 'IsMotion', value: String(this.#isWalking) },
          unixMs: speaker.clockMs(),
        };
        const made = this.#points.create(lifeMs, [first]);
        if (made === null) return speaker.fault(500, 'ter:MaxSubscriptions', 'No more subscriptions fit.');
        return answers.pullPointAnswer(
          `${baseFor(host)}/onvif/${isKnownByHeader ? 'events' : `pull/${made}`}`,
          isKnownByHeader ? made : null,
          speaker.clockMs(),
          speaker.clockMs() + lifeMs,
        );
      }
      case 'PullMessages': {
        const waitMs = 1000 * Math.min(60, durationOf(textIn(node, 'Timeout')) ?? 1);
        const events = await this.#points.pull(point, waitMs, Number(textIn(node, 'MessageLimit')) || 10, signal);
        const ends = this.#points.endOf(point);
        return events === null || ends === null
          ? gone()
          : answers.pulledAnswer(events, 'look-source-1', speaker.clockMs(), ends + clockErrorMs);
      }
      case 'Renew': {
        const ends = this.#points.renew(point, lifeMs);
        return ends === null ? gone() : answers.renewAnswer(speaker.clockMs(), ends + clockErrorMs);
      }
      case 'Unsubscribe':
        return this.#points.remove(point) ? '<wsnt:UnsubscribeResponse/>' : gone();
      default:
        return null;
    }
  }

  /** A length, or a moment until which it is to stand. */
  #lifeOf(text: string): number {
    const until = momentOf(text);
    return (
      durationOf(text) ?? (until === null ? USUAL_LIFE_S : Math.max(1, (until - this.options.speaker.clockMs()) / 1000))
    );
  }

  #watch(walks: NonNullable<OnvifPersonality['walks']>): void {
    this.#walk = setInterval(() => {
      const isWalking = walkAt(Date.now(), walks) !== null;
      if (isWalking === this.#isWalking) return;
      this.#isWalking = isWalking;
      if (!this.#points.isHeard) return;
      const unixMs = this.options.speaker.clockMs();
      this.#points.tell({
        topic: answers.MOTION_TOPIC,
        change: 'Changed',
        item: { name: 'IsMotion', value: String(isWalking) },
        unixMs,
      });
      if (!isWalking)
        this.#points.tell({
          topic: answers.LINE_TOPIC,
          change: 'Changed',
          item: { name: 'ObjectId', value: '1' },
          unixMs,
        });
    }, WALK_STEP_MS);
    this.#walk.unref();
  }
}
