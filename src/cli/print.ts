import { visibleJson, visibleText } from '../core/base/control-signs.ts';

// What a camera or a site file says reaches a terminal here and nowhere else: signs that would steer it are made visible.

export const print = (text: string): void => void process.stdout.write(visibleText(text));
/** One JSON object on one line. */
export const printJson = (value: unknown): void => void process.stdout.write(`${visibleJson(value)}\n`);
export const complain = (text: string): void => void process.stderr.write(visibleText(text));
