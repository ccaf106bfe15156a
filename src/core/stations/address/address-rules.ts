import { IDENTITY_RULES } from './identity-rules.ts';
import { PLACE_RULES } from './place-rules.ts';
import { REACH_RULES } from './reach-rules.ts';
import { SEEN_RULES } from './seen-rules.ts';

/** What is asked of the address of a camera, in the order in which it fails. */
export const ADDRESS_RULES = [...PLACE_RULES, ...IDENTITY_RULES, ...SEEN_RULES, ...REACH_RULES] as const;
