/** What tabs of one browser tell each other: that a site was written, and at which revision. */
export interface SiteWritten {
  readonly siteId: string;
  readonly revision: number;
}

export interface TabChannel {
  tell(written: SiteWritten): void;
}

const isWritten = (value: unknown): value is SiteWritten =>
  typeof value === 'object' && value !== null && 'siteId' in value && 'revision' in value;

/** Opens the channel; a browser without one has no other tabs that could be told. */
export function openTabChannel(onWritten: (written: SiteWritten) => void): TabChannel {
  if (typeof BroadcastChannel === 'undefined') return { tell: () => {} };
  const channel = new BroadcastChannel('clear-tap');
  channel.addEventListener('message', ({ data }: MessageEvent<unknown>) => {
    if (isWritten(data)) onWritten(data);
  });
  return { tell: (written) => channel.postMessage(written) };
}
