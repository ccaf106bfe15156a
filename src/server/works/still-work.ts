import { stillRequestSchema } from '../../contract/still-api.ts';
import { type Still, type StillEffect, StillMachine } from '../../core/live/still-machine.ts';
import { driveToReport, USER_AGENT } from '../drive.ts';
import { toHttp } from '../http-transport.ts';
import { accountOf } from './run-onvif.ts';
import { leaveOf, workOf } from './work.ts';

const MOST = { most: 8, many: 'stills' };
/** A picture holds no words that a device said. */
const PICTURES: ReadonlySet<string> = new Set(['still'] satisfies readonly Still['kind'][]);

export const STILL = workOf(stillRequestSchema, MOST, async (request, world, signal, { sendEvent: say }) => {
  const { host, port, path, tls: isTls = false, knownFingerprint = null } = request;
  const credentials = accountOf(request.user, request.secret);
  const still = await world.logins.inTurn({ host, credentials, leave: leaveOf(request) }, signal, (gate) =>
    driveToReport({
      machine: new StillMachine({
        target: { host, port, isTls },
        path,
        credentials,
        gate,
        knownFingerprint,
        userAgent: USER_AGENT,
        cnonce: () => world.entropy.hex(8),
      }),
      transport: toHttp,
      world,
      signal,
      credentials,
      openly: PICTURES,
      what: 'the snapshot',
      reportIn: (effect: StillEffect) => (effect.kind === 'still' || effect.kind === 'none' ? effect : null),
      onEffect: () => {},
    }),
  );
  say(still);
});
