import { array, boolean, type InferType, number, object, string } from 'yup';
import { MOST_PORTS, SCAN_RANGES } from '../core/scan/scan-plan.ts';
import type { ScanEvent } from '../core/scan/scan-types.ts';

/** POST /api/scan. The range is read, and refused, by core: its words reach the page. */
export const scanRequestSchema = object({
  /** `null` asks by WS-Discovery alone. */
  range: string().strict().max(200).nullable().defined(),
  /** The network that may be looked through: a range lies within it. */
  within: string().strict().max(64).required(),
  ports: array(number().strict().integer().min(SCAN_RANGES.ports.min).max(SCAN_RANGES.ports.max).required())
    .strict()
    .max(MOST_PORTS)
    .required(),
  rate: number().strict().integer().min(SCAN_RANGES.rate.min).max(SCAN_RANGES.rate.max).required(),
  timeoutMs: number().strict().min(SCAN_RANGES.timeoutMs.min).max(SCAN_RANGES.timeoutMs.max).required(),
  discover: boolean().strict().required(),
})
  .noUnknown()
  .strict()
  .required();
export type ScanRequest = InferType<typeof scanRequestSchema>;

/** Lines of the answer, as they happen; a range that is refused is one line. */
export type ScanLine = ScanEvent | { readonly kind: 'refused'; readonly note: string };
