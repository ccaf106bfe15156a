import { parseArgs } from 'node:util';
import { FAULT_GALLERY } from '../standins/faults/fault-gallery.ts';
import { galleryListing, startGallery } from '../standins/faults/gallery-network.ts';
import { ALDER_MILL_FLEET, fleetListing, startFleet } from '../standins/fleet.ts';
import { MEDIA_GALLERY } from '../standins/media-gallery.ts';
import { ONVIF_GALLERY } from '../standins/onvif/onvif-gallery.ts';
import { print, printJson } from './print.ts';

/** Starts the simulated cameras, prints where they listen, and runs until SIGTERM or SIGINT. */
export async function standinsCommand(args: readonly string[]): Promise<number> {
  const { values } = parseArgs({ args: [...args], options: { json: { type: 'boolean', default: false } } });
  const fleet = await startFleet([...ALDER_MILL_FLEET, ...ONVIF_GALLERY, ...MEDIA_GALLERY], {
    onSessionEnd: (end) => {
      process.stderr.write(`${JSON.stringify(end)}\n`); // what a receiver should have missed, for whoever compares
    },
  });
  const gallery = await startGallery(FAULT_GALLERY);
  const listing = { ...fleetListing(fleet), faults: galleryListing(FAULT_GALLERY, gallery) };
  if (values.json) printJson(listing);
  else
    for (const { name, rtsp } of listing.devices)
      for (const { label, url } of rtsp) print(`${name} ${label}: ${url}\n`);
  await new Promise<void>((resolve) => {
    process.once('SIGTERM', () => resolve());
    process.once('SIGINT', () => resolve());
  });
  await Promise.all([fleet.close(), gallery.close()]);
  return 0;
}
