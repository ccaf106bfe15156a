/** What went wrong with a request itself, as RFC 9457 problem JSON. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
}

export const problem = (status: number, title: string, detail: string): Problem => ({
  type: 'about:blank',
  title,
  status,
  detail,
});
