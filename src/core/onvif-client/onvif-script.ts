import type { XmlNode } from '../onvif/envelope.ts';
import type { OnvifCause } from '../onvif/onvif-cause.ts';
import type { Operation } from '../onvif/operation.ts';
import type { ServicePlace } from '../onvif/service-place.ts';

/** One operation that is to be carried out, with its arguments written. */
export interface Call {
  readonly operation: Pick<
    Operation<never, unknown>,
    'service' | 'name' | 'namespace' | 'action' | 'isOpen' | 'isOnce'
  >;
  readonly inner: string;
  readonly read: (answer: XmlNode, text: string) => unknown;
  /** Where, if not where its service is. */
  readonly at: ServicePlace | null;
  /** What stands in its header because the device asked for it. */
  readonly echo: string;
  /** Longer than others may take, where the device waits on purpose. */
  readonly patienceMs: number;
  /** It is asked so much later. */
  readonly afterMs: number;
  /** Without a login, to see whether one is asked for. */
  readonly isBare: boolean;
}

export type Outcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly cause: OnvifCause; readonly note: string };

/** A talk, written as it goes: it yields what is asked, and goes on with what came of it. */
export type Script<Result> = Generator<Call, Result, Outcome<unknown>>;

export function* ask<Args, Answer>(
  operation: Operation<Args, Answer>,
  args: Args,
  more: {
    readonly at?: ServicePlace;
    readonly echo?: string;
    readonly patienceMs?: number;
    readonly afterMs?: number;
    readonly isBare?: true;
  } = {},
): Generator<Call, Outcome<Answer>, Outcome<unknown>> {
  const { service, name, namespace, action, isOpen, isOnce, write, read } = operation;
  const outcome = yield {
    operation: {
      service,
      name,
      ...(namespace === undefined ? {} : { namespace }),
      ...(action === undefined ? {} : { action }),
      ...(isOpen ? { isOpen } : {}),
      ...(isOnce ? { isOnce } : {}),
    },
    inner: write(args),
    read,
    at: more.at ?? null,
    echo: more.echo ?? '',
    patienceMs: more.patienceMs ?? 0,
    afterMs: more.afterMs ?? 0,
    isBare: more.isBare ?? false,
  };
  return outcome as Outcome<Answer>; // what `read` of this very call gave
}
