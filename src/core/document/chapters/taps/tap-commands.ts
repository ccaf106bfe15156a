import { saySchedule } from '../../../storage/schedule.ts';
import { cameraOf, destinationOf, type Handlers, put, streamIn, words } from '../../command-parts.ts';
import type { Site } from '../../site.ts';
import { cameraSubject, tapSubject } from '../../subject.ts';
import type { Tap } from './tap.ts';

export type TapCommand =
  | { readonly kind: 'addTap'; readonly tap: Tap; readonly judged: string }
  | { readonly kind: 'changeTap'; readonly tap: Tap }
  | { readonly kind: 'removeTap'; readonly tapId: string };

/** @throws RangeError when there is no such tap: a bug of the caller */
export function tapOf(site: Site, tapId: string): Tap {
  const tap = site.taps.find(({ id }) => id === tapId);
  if (!tap) throw new RangeError(`tapId: there is no tap ${tapId}`);
  return tap;
}

export const TAP_COMMANDS: Handlers<TapCommand> = {
  addTap: (site, { tap, judged }) => {
    const [camera, destination] = [cameraOf(site, tap.cameraId), destinationOf(site, tap.destinationId)];
    const text = `${camera.name} ${streamIn(camera, tap.streamId).label} goes to ${destination.name} to ${tap.use}`;
    return {
      site: { ...site, taps: [...site.taps, tap] },
      log: words('tap', tapSubject(tap.id), text, { verdict: judged }),
    };
  },
  changeTap: (site, { tap }) => {
    tapOf(site, tap.id);
    const [camera, destination] = [cameraOf(site, tap.cameraId), destinationOf(site, tap.destinationId)];
    return {
      site: { ...site, taps: put(site.taps, tap) },
      log: words('tap', tapSubject(tap.id), `${camera.name}: tap of ${destination.name} changed`, {
        stream: streamIn(camera, tap.streamId).label,
        when: saySchedule(tap.schedule),
      }),
    };
  },
  removeTap: (site, { tapId }) => {
    const tap = tapOf(site, tapId);
    const text = `${cameraOf(site, tap.cameraId).name} no longer goes to ${destinationOf(site, tap.destinationId).name}`;
    return {
      site: { ...site, taps: site.taps.filter(({ id }) => id !== tapId) },
      log: words('tap', cameraSubject(tap.cameraId), text),
    };
  },
};
