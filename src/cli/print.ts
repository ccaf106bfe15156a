import { visibleJson, visibleText } from '../core/base/control-signs.ts';
import type { Finding } from '../core/findings/finding.ts';

// What a camera or a site file says reaches a terminal here and nowhere else: signs that would steer it are made visible.

export const print = (text: string): void => void process.stdout.write(visibleText(text));
/** One JSON object on one line. */
export const printJson = (value: unknown): void => void process.stdout.write(`${visibleJson(value)}\n`);
export const complain = (text: string): void => void process.stderr.write(visibleText(text));

/** Findings for eyes. */
export const linesOf = (findings: readonly Finding[]): readonly string[] =>
  findings.flatMap(({ severity, title, because, do: steps }) => [
    '',
    `  ${severity}: ${title}`,
    `    ${because}`,
    ...steps.map((step) => `    → ${step}`),
  ]);
