import { ACCOUNT_RULES } from './account-rules.ts';
import { IMAGE_RULES } from './firmware-file-rules.ts';
import { FIRMWARE_RULES, PROCEDURE_RULES } from './firmware-rules.ts';
import { OLD_PHONE_RULES } from './old-phone-rules.ts';
import { CARD_RULES } from './sd-card-rules.ts';
import { SETTING_RULES } from './setting-rules.ts';

export const PREPARE_RULES = [
  ...ACCOUNT_RULES,
  ...SETTING_RULES,
  ...FIRMWARE_RULES,
  ...IMAGE_RULES,
  ...CARD_RULES,
  ...PROCEDURE_RULES,
  ...OLD_PHONE_RULES,
] as const;
