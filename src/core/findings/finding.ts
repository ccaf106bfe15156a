export type Severity = 'stop' | 'fix' | 'watch' | 'note';

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
