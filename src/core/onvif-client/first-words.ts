import { asked, placeFrom } from '../onvif/service-place.ts';
import { GET_CAPABILITIES, GET_SERVICES, GET_TIME, type ToldService } from '../onvif/services/device.ts';
import { ask, type Outcome, type Script } from './onvif-script.ts';
import type { OnvifSession } from './onvif-session.ts';

/** Device minus local, from what its clock says: it tells whole seconds, and on the average half a one has gone by. */
export const skewOf = (deviceUnixMs: number, localUnixMs: number): number =>
  Math.round((deviceUnixMs + 500 - localUnixMs) / 1000);

/** What every talk begins with: the time, since a proof is dated by it, and where the services are, as seen from here. */
export function* firstWords(session: OnvifSession, unixMs: () => number): Script<Outcome<readonly ToldService[]>> {
  const time = yield* ask(GET_TIME, undefined);
  if (time.ok && time.value) session.skewS = skewOf(time.value.unixMs, unixMs());
  const told = yield* ask(GET_SERVICES, undefined);
  const services = told.ok ? told : yield* ask(GET_CAPABILITIES, undefined);
  for (const { name, url } of services.ok ? services.value : []) {
    const at = name === 'device' ? null : placeFrom(url, session.target);
    if (at) session.places.set(name, asked(at));
  }
  return services;
}
