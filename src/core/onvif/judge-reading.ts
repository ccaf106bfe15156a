import type { Finding } from '../findings/finding.ts';
import { findingsOf, judgeRows } from '../findings/rule.ts';
import { onvifFacts } from './onvif-facts.ts';
import { ONVIF_RULES } from './onvif-rules.ts';
import type { OnvifReading } from './reading.ts';

/** What is to be said about one reading, the worst first. */
export const findingsOfReading = (reading: OnvifReading, clockOkS: number): readonly Finding[] =>
  findingsOf(judgeRows(ONVIF_RULES, onvifFacts(reading, clockOkS)));
