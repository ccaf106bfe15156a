import type { Schema } from 'yup';
import type { LoginLeaveFields } from '../../contract/login-fields.ts';
import type { World } from '../drive.ts';
import type { LoginLeave } from '../logins.ts';
import { pinned } from '../pinned.ts';

/** Where a piece of work tells what happens, as it happens. */
export interface Out {
  /** Something that happened, as JSON can say it. */
  sendEvent(event: object): void;
  /** Bytes beside it, which a page that is far behind does not get. */
  sendFrame(bytes: Uint8Array<ArrayBuffer>): void;
}

/** Hands on what the page says while the work runs; only a socket carries any. */
export type MessageSource = (listener: (word: unknown) => void) => void;

/**
 * One kind of work that talks to a device for the page: what may be asked for, how much of it at once, and the machine that
 * is driven. Both routes serve whatever stands in `works.ts`.
 */
export interface Work {
  /** How many may be under way, and what many of them are called. */
  readonly most: number;
  readonly many: string;
  /**
   * Checks what is asked, and gives what does it. That ends soon after its signal aborts.
   * @throws ValidationError when it is not what is expected
   */
  accept(asked: unknown): (world: World, signal: AbortSignal, out: Out, heard: MessageSource) => Promise<void>;
}

/** What a request says that a person allowed. */
export const leaveOf = ({ oneMore, mayGoReadable, byBasic }: LoginLeaveFields): LoginLeave => ({
  oneMore: oneMore === true,
  mayGoReadable: mayGoReadable === true,
  byBasic: byBasic === true,
});

export const workOf = <Request>(
  schema: Schema<Request>,
  { most, many }: Pick<Work, 'most' | 'many'>,
  run: (request: Request, world: World, signal: AbortSignal, out: Out, heard: MessageSource) => Promise<void>,
): Work => ({
  most,
  many,
  accept: (asked) => {
    const request = schema.validateSync(asked, { strict: true });
    return (world, signal, out, heard) => run(request, pinned(world), signal, out, heard);
  },
});
