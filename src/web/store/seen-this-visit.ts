import type { SeenHost } from '../../core/scan/seen.ts';

/** Hosts that scans of this page saw, by site and address: what a journal says of a scan may come from a file. */
const seen = new Map<string, Map<string, SeenHost>>();

export function noteSeen(siteId: string, host: SeenHost): void {
  const hosts = seen.get(siteId) ?? new Map<string, SeenHost>();
  seen.set(siteId, hosts.set(host.host, host));
}

/** What answered at an address of the open site since this page was opened. */
export const seenThisVisit = (siteId: string, host: string): SeenHost | null =>
  seen.get(siteId)?.get(host.trim()) ?? null;
