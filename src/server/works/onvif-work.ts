import { type OnvifLine, onvifRequestSchema } from '../../contract/onvif-api.ts';
import { ONVIF_TIMEOUT_MS } from '../../core/onvif-client/onvif-machine.ts';
import { runOnvif, targetOf } from './run-onvif.ts';
import { workOf } from './work.ts';

/** A whole site at once, but not a scan. */
const MOST = { most: 64, many: 'readings' };

export const ONVIF = workOf(onvifRequestSchema, MOST, async (request, world, signal, out) => {
  const say = (line: OnvifLine): void => out.sendEvent(line);
  await runOnvif({ ...targetOf(request), timeoutMs: ONVIF_TIMEOUT_MS }, world, signal, say);
});
