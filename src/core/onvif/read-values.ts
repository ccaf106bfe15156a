import { clipText } from '../base/clip.ts';
import { oneLine } from '../base/control-signs.ts';
import { attributeOf, textIn, type XmlNode } from './envelope.ts';
import { MOST_TEXT, MOST_TOKEN } from './onvif-limits.ts';

// What devices write into their answers, by the type that the schema says: nothing is guessed from its look.

export const said = (text: string, most = MOST_TEXT): string => clipText(oneLine(text).trim(), most);
export const saidIn = (node: XmlNode | null, name: string, most = MOST_TEXT): string => said(textIn(node, name), most);

export function tokenOf(node: XmlNode | null, name = 'token'): string {
  const token = attributeOf(node, name);
  return token.length <= MOST_TOKEN ? token : '';
}
export function tokenIn(node: XmlNode | null, name: string): string {
  const token = textIn(node, name);
  return token.length <= MOST_TOKEN ? token : '';
}

const NUMBER = /^[+-]?\d{1,15}(?:\.\d{0,15})?(?:[eE][+-]?\d{1,3})?$/;
/** xs:float, xs:int; `null` when there is none, or what stands there is none. */
export const numberOf = (text: string): number | null => (NUMBER.test(text) ? Number(text) : null);
export const numberIn = (node: XmlNode | null, name: string): number | null => numberOf(textIn(node, name));
export function wholeIn(node: XmlNode | null, name: string): number | null {
  const value = numberIn(node, name);
  return value !== null && Number.isSafeInteger(value) ? value : null;
}

/** xs:boolean. */
export function flagIn(node: XmlNode | null, name: string): boolean | null {
  const text = textIn(node, name).toLowerCase();
  return text === 'true' || text === '1' ? true : text === 'false' || text === '0' ? false : null;
}

const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(?:\.\d{1,9})?(?:Z|[+-]\d{2}:\d{2})?$/;
/** xs:dateTime as milliseconds since 1970; without a zone it is taken for UTC, as ONVIF has it. */
export function momentOf(text: string): number | null {
  if (!MOMENT.test(text)) return null;
  const at = Date.parse(/[Z+]|-\d{2}:\d{2}$/.test(text.slice(19)) ? text : `${text}Z`);
  return Number.isFinite(at) ? at : null;
}

const DURATION = /^P(?:(\d{1,5})D)?(?:T(?:(\d{1,5})H)?(?:(\d{1,6})M)?(?:(\d{1,8}(?:\.\d{1,6})?)S)?)?$/;
/** xs:duration of days and less, in seconds. */
export function durationOf(text: string): number | null {
  const found = DURATION.exec(text);
  if (!found || text === 'P' || text.endsWith('T')) return null;
  const [, days, hours, minutes, seconds] = found;
  return Number(days ?? 0) * 86_400 + Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
}
export const writeDuration = (seconds: number): string => `PT${Number(seconds.toFixed(3))}S`;
