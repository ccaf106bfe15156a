export const SEVERITIES = ['stop', 'fix', 'caution', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

export const bySeverity = (a: { readonly severity: Severity }, b: { readonly severity: Severity }): number =>
  SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity);

/** A rule's result about something. */
export interface Finding {
  readonly rule: string;
  readonly severity: Severity;
  readonly title: string;
  /** The evidence, with numbers. */
  readonly because: string;
  /** What to do, a step each. */
  readonly do: readonly string[];
  readonly why: string;
}

/** A remedy that core can carry out: a sentence, and the command that does it. The ground knows no command of the document. */
export interface Mend<C> {
  readonly text: string;
  readonly command: C;
}
