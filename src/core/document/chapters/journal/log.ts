export const LOG_KINDS = ['site', 'edit', 'choose', 'power', 'probe', 'tap', 'hand-over'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

export interface LogEntry {
  readonly id: string;
  readonly at: string;
  readonly kind: LogKind;
  /** `site`, `camera:ID`, `destination:ID` or `tap:ID`. */
  readonly subject: string;
  readonly text: string;
  /** Numbers behind the text: name and value, as they were then. */
  readonly refs: readonly { readonly name: string; readonly value: string }[];
}
