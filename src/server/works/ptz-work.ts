import { onvifRequestSchema, type PtzMessage, readOrder } from '../../contract/onvif-api.ts';
import { PTZ_FAREWELL_MS, PtzMachine } from '../../core/onvif-client/ptz-machine.ts';
import type { PtzEvent } from '../../core/onvif-client/ptz-types.ts';
import { drive } from '../drive.ts';
import { toHttp } from '../http-transport.ts';
import { talkOfPage, targetOf } from './run-onvif.ts';
import { workOf } from './work.ts';

const MOST = { most: 16, many: 'heads' };

/** Steers a head for as long as the page is there; what moves is stopped when it goes. */
export const PTZ_WORK = workOf(onvifRequestSchema, MOST, async (request, world, signal, out, heard) => {
  const say = (message: PtzMessage): void => out.sendEvent(message);
  const target = targetOf(request);
  await talkOfPage(target, world, signal, (options) =>
    drive({
      machine: new PtzMachine(options),
      transport: toHttp,
      world,
      signal,
      credentials: target.credentials,
      farewellMs: PTZ_FAREWELL_MS,
      what: 'PTZ control',
      onEffect: (event: PtzEvent) => say(event),
      onStart: (put, now) => heard((word) => put({ kind: 'asked', asked: readOrder(word), atMs: now() })),
    }),
  );
});
