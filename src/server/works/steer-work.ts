import { onvifRequestSchema, readOrder, type SteerMessage } from '../../contract/onvif-api.ts';
import { STEER_FAREWELL_MS, SteerMachine } from '../../core/onvif-client/steer-machine.ts';
import type { SteerEvent } from '../../core/onvif-client/steer-types.ts';
import { drive } from '../drive.ts';
import { toHttp } from '../http-transport.ts';
import { talkOfPage, targetOf } from './run-onvif.ts';
import { workOf } from './work.ts';

const MOST = { most: 16, many: 'heads' };

/** Steers a head for as long as the page is there; what moves is stopped when it goes. */
export const STEER = workOf(onvifRequestSchema, MOST, async (request, world, signal, out, heard) => {
  const say = (message: SteerMessage): void => out.sendEvent(message);
  const target = targetOf(request);
  await talkOfPage(target, world, signal, (options) =>
    drive({
      machine: new SteerMachine(options),
      transport: toHttp,
      world,
      signal,
      credentials: target.credentials,
      farewellMs: STEER_FAREWELL_MS,
      what: 'PTZ control',
      onEffect: (event: SteerEvent) => say(event),
      onStart: (put, now) => heard((word) => put({ kind: 'asked', asked: readOrder(word), atMs: now() })),
    }),
  );
});
