import type { Direction, Signal } from '../../../firmware/procedure.ts';

/** What a setting of a device is known as in the journal. */
export const settingQuantity = (setting: string): string => `setting.${setting}`;

/** What a step of writing another firmware is written down as: its beginning, or what was seen or done. */
export type ReflashStep = `begin:${Direction}` | Signal;
