import { wholes } from '../base/range.ts';

/** Ports that can be called. Source: RFC 6335 §6 (0 is reserved). */
export const PORT_RANGE = wholes(1, 65_535);
