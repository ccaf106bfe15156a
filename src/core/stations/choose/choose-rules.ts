import { CARD_RULES } from './card-rules.ts';
import { PICTURE_RULES } from './picture-rules.ts';

/** What a model makes of the place it is meant for, in the order in which one would ask. */
export const CHOOSE_RULES = [...PICTURE_RULES, ...CARD_RULES] as const;
