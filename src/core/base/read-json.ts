import { type Fault, fault } from './fault.ts';
import { err, ok, type Result } from './result.ts';

/** Deeper than anything that is written here goes. */
const MOST_DEPTH = 64;

/** How deep brackets stand within each other, looked at no further than `most`; strings are passed over. */
function depthOf(text: string, most: number): number {
  let depth = 0;
  let deepest = 0;
  let isText = false;
  for (let at = 0; at < text.length && deepest <= most; at++) {
    const sign = text.charCodeAt(at);
    if (isText) {
      if (sign === 0x5c) at += 1;
      else if (sign === 0x22) isText = false;
    } else if (sign === 0x22) isText = true;
    else if (sign === 0x5b || sign === 0x7b) deepest = Math.max(deepest, ++depth);
    else if (sign === 0x5d || sign === 0x7d) depth -= 1;
  }
  return deepest;
}

/** Deeper than anything made here goes: to be refused before anything walks down it. */
export const isTooDeep = (text: string): boolean => depthOf(text, MOST_DEPTH) > MOST_DEPTH;

/** The same as a sentence. */
export const TOO_DEEP = `It is nested deeper than ${MOST_DEPTH} levels, which nothing made here is.`;

export type JsonFaultCode = 'json.malformed' | 'json.too-deep';

/**
 * A value from JSON text (RFC 8259). What is nested deeper than anything of ours is refused in words before anything walks down it:
 * a checker that calls itself for each level would run out of stack.
 */
export function readJson(text: string): Result<unknown, Fault<JsonFaultCode>> {
  if (isTooDeep(text)) return err(fault('json.too-deep', TOO_DEEP));
  try {
    return ok(JSON.parse(text));
  } catch {
    return err(fault('json.malformed', 'It is not whole JSON.'));
  }
}
