import type { Site } from '../core/document/site.ts';
import { readSite } from '../core/document/site-file.ts';
import file from './alder-mill.cleartap.json' with { type: 'json' };
import { BOOT_ROOM, BREAD_OVEN, LINEN_STAIR, SLUICE_RAIL } from './personality.ts';

const read = readSite(file);
if (!read.ok) throw new Error(`alder-mill.cleartap.json: ${read.error.message}`);
const SITE = read.value;

export const { models: ALDER_MILL_MODELS, gear: ALDER_MILL_GEAR } = SITE;

/**
 * Alder Mill, a converted watermill guest house: the demo site as its integrator would find it on the first morning.
 * @param at when that is: its journal begins then
 */
export const alderMill = (at: string): Site => ({
  ...SITE,
  journal: SITE.journal.map((entry) => ({ ...entry, at })),
});

/** Secrets of the demo's cameras by the reference that the site holds; they go to the vault, never into the document. */
export const alderMillSecrets = (): Readonly<Record<string, string>> => ({
  'secret-sluice-rail': SLUICE_RAIL.account?.password ?? '',
  'secret-linen-stair': LINEN_STAIR.account?.password ?? '',
  'secret-boot-room': BOOT_ROOM.account?.password ?? '',
  'secret-bread-oven': BREAD_OVEN.account?.password ?? '',
});
