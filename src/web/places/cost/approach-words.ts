import type { School } from '../../../core/document/chapters/costing/costing.ts';

export const SCHOOL_WORDS: Readonly<Record<School, string>> = {
  'recorder-box': 'a recorder box of the cameras’ make',
  software: 'software on a NAS or computer',
  both: 'both',
};
