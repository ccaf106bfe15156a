import { ACCOUNT_RULES } from './account-rules.ts';
import { FIRMWARE_RULES } from './firmware-rules.ts';
import { HANDSET_RULES } from './handset-rules.ts';
import { SETTING_RULES } from './setting-rules.ts';

export const PREPARE_RULES = [...ACCOUNT_RULES, ...SETTING_RULES, ...FIRMWARE_RULES, ...HANDSET_RULES] as const;
