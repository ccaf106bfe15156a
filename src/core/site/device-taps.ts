import { pushTo } from '../base/push-to.ts';
import type { Camera } from '../document/chapters/cameras/camera.ts';
import { isDeviceOf } from '../document/chapters/cameras/devices.ts';
import type { SiteView } from './site-view.ts';

/** Channels by the address of their box. */
const channelsByHost = ({ site }: SiteView): ReadonlyMap<string, readonly Camera[]> => {
  const found = new Map<string, Camera[]>();
  for (const camera of site.cameras) if (camera.kind === 'channel') pushTo(found, camera.host, camera);
  return found;
};
/** Taps of each box, added up once for a document: by one of its channels. */
const tapsOfBoxes = (view: SiteView): ReadonlyMap<string, number> => {
  const counts = new Map<string, number>();
  for (const channels of view.once(channelsByHost).values()) {
    const boxes: Camera[][] = [];
    for (const channel of channels) {
      const box = boxes.find(([first]) => first && isDeviceOf(first, channel));
      if (box) box.push(channel);
      else boxes.push([channel]);
    }
    for (const box of boxes) {
      const count = box.reduce((sum, { id }) => sum + view.tapsOf(id).length, 0);
      for (const { id } of box) counts.set(id, count);
    }
  }
  return counts;
};

/** How many taps pull a device: the channels of one box share its sessions. */
export const tapsOfDevice = (camera: Camera, view: SiteView): number =>
  (camera.kind === 'channel' ? view.once(tapsOfBoxes).get(camera.id) : undefined) ?? view.tapsOf(camera.id).length;
