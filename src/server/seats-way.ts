import type { CameraDoing } from '../core/machine/machine.ts';
import type { SeatDoing, SeatInput } from '../core/sessions/sessions-types.ts';
import { toCamera } from './camera-way.ts';
import type { Hub, Way } from './drive.ts';

const KINDS: ReadonlySet<string> = new Set(['take', 'on'] satisfies readonly SeatDoing['kind'][]);

/** Many ways to one camera, each with a connection of its own, dialled when its seat is taken. */
export const toSeats =
  (target: Parameters<typeof toCamera>[0]) =>
  (hub: Hub<SeatInput>): Way<SeatDoing> => {
    const ways = new Map<number, Way<CameraDoing>>();
    return {
      kinds: KINDS,
      start: () => {},
      carryOut: (doing) => {
        const { seat } = doing;
        if (doing.kind === 'on') return ways.get(seat)?.carryOut(doing.doing);
        const way = toCamera(target)({ ...hub, put: (input) => hub.put({ kind: 'of', seat, input }) });
        ways.set(seat, way);
        way.start();
      },
      close: () => {
        for (const way of ways.values()) way.close();
      },
    };
  };
