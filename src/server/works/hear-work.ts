import { type HearLine, hearRequestSchema } from '../../contract/onvif-api.ts';
import { type HearEvent, HearMachine } from '../../core/onvif-client/hear-machine.ts';
import { drive } from '../drive.ts';
import { toHttp } from '../http-transport.ts';
import { talkOfPage, targetOf } from './run-onvif.ts';
import { workOf } from './work.ts';

const MOST = { most: 16, many: 'listeners' };

/** Listens to the events of a device, until its time is over or the page goes away; then the subscription is given back. */
export const HEAR = workOf(hearRequestSchema, MOST, async ({ seconds, ...request }, world, signal, out) => {
  const say = (line: HearLine): void => out.sendEvent(line);
  const target = targetOf(request);
  await talkOfPage(target, world, signal, (options) =>
    drive({
      machine: new HearMachine({ ...options, seconds }),
      transport: toHttp,
      world,
      signal,
      credentials: target.credentials,
      what: 'the listening',
      onEffect: (event: HearEvent) => say(event),
    }),
  );
});
