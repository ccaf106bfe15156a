import { ACCOUNT_RULES } from './account-rules.ts';
import { CARD_RULES } from './card-rules.ts';
import { FIRMWARE_RULES, PROCEDURE_RULES } from './firmware-rules.ts';
import { HANDSET_RULES } from './handset-rules.ts';
import { IMAGE_RULES } from './image-rules.ts';
import { SETTING_RULES } from './setting-rules.ts';

export const PREPARE_RULES = [
  ...ACCOUNT_RULES,
  ...SETTING_RULES,
  ...FIRMWARE_RULES,
  ...IMAGE_RULES,
  ...CARD_RULES,
  ...PROCEDURE_RULES,
  ...HANDSET_RULES,
] as const;
