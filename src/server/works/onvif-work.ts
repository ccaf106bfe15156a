import { type OnvifLine, onvifRequestSchema } from '../../contract/onvif-api.ts';
import { ONVIF_TIMEOUT_MS } from '../../core/talk/onvif-machine.ts';
import { accountOf, runOnvif } from './run-onvif.ts';
import { workOf } from './work.ts';

/** A whole site at once, but not a scan. */
const MOST = { most: 64, many: 'readings' };

export const ONVIF = workOf(onvifRequestSchema, MOST, async ({ host, port, user, secret }, world, signal, out) => {
  const say = (line: OnvifLine): void => out.say(line);
  const target = { host, port, credentials: accountOf(user, secret), timeoutMs: ONVIF_TIMEOUT_MS };
  await runOnvif(target, world, signal, say);
});
