import { oneLine } from '../core/base/control-signs.ts';
import type { World } from '../server/drive.ts';
import { complain } from './print.ts';

/** What this run spent of accounts, on standard error: the device counts it too, and whoever goes on must know. */
export function tellRefusedLogins({ logins }: Pick<World, 'logins'>): void {
  for (const { host, user, refused } of logins.lines())
    if (refused > 0)
      complain(
        `Refused logins of “${oneLine(user)}” at ${oneLine(host)} in this run: ${refused}. Many devices lock an account after three or five.\n`,
      );
}
