import { cameraSubject } from '../document/subject.ts';
import type { SiteView } from './site-view.ts';

/** Whether a camera is on Wi-Fi; `undefined` where no link says how it is connected, or two say it differently. */
export function isOnWifi(view: SiteView, cameraId: string): boolean | undefined {
  const subject = cameraSubject(cameraId);
  const links = [...view.linksFrom(subject), ...view.linksTo(subject)];
  const byWifi = links.filter(({ medium }) => medium === 'wifi').length;
  const byWire = links.filter(({ medium }) => medium === 'network-cable' || medium === 'fibre').length;
  return byWifi > 0 === byWire > 0 ? undefined : byWifi > 0;
}
