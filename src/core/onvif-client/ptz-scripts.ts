import { GET_PROFILES, GET_PROFILES_2 } from '../onvif/services/media.ts';
import * as ptz from '../onvif/services/ptz.ts';
import { firstWords } from './first-words.ts';
import { ask, type Outcome, type Script } from './onvif-script.ts';
import type { OnvifSession } from './onvif-session.ts';
import type { HeadAbility, PtzOrder } from './ptz-types.ts';

/** How long a continuous move lives by itself: it is said again long before. */
export const RUN_LIFE_S = 1.5;
const TRY_TIMEOUT_S = 0.5;

/** What one talk with the head gave. */
export interface Said {
  readonly outcome: Outcome<unknown>;
}

export interface Opening {
  readonly ability: HeadAbility;
  readonly presets: readonly ptz.PtzPreset[];
  readonly position: ptz.PtzPosition | null;
  /** `null` where it does not tell. */
  readonly isMoving: boolean | null;
}

/** Time, services, the head and what steers it, where it looks and what it keeps; an `Opening`, if it has a head. */
export function* opening(session: OnvifSession, unixMs: () => number): Script<Said> {
  const services = yield* firstWords(session, unixMs);
  if (!services.ok) return { outcome: services };
  const nodes = yield* ask(ptz.GET_NODES, undefined);
  if (!nodes.ok) return { outcome: nodes };
  const first = yield* ask(GET_PROFILES, undefined);
  const profiles = first.ok && first.value.some(({ hasPtz }) => hasPtz) ? first : yield* ask(GET_PROFILES_2, undefined);
  if (!profiles.ok) return { outcome: profiles };
  const [node] = nodes.value;
  const profile = profiles.value.find(({ hasPtz }) => hasPtz)?.token;
  if (!node || profile === undefined)
    return { outcome: { ok: false, cause: 'not-supported', note: 'None of its profiles has PTZ.' } };
  const status = yield* ask(ptz.GET_STATUS, profile);
  const position = status.ok ? status.value.position : null;
  const isMoving = status.ok ? status.value.isMoving : null;
  const tells = position ? 'position' : isMoving !== null ? 'moving' : 'nothing';
  const presets = yield* ask(ptz.GET_PRESETS, profile);
  const opened: Opening = {
    ability: { node, profile, tells },
    presets: presets.ok ? presets.value : [],
    position,
    isMoving,
  };
  return { outcome: { ok: true, value: opened } };
}

export function* saying<Args>(operation: Parameters<typeof ask<Args, unknown>>[0], args: Args): Script<Said> {
  return { outcome: yield* ask(operation, args) };
}

export const isMove = ({ kind }: PtzOrder): boolean => kind !== 'keepPreset' && kind !== 'removePreset';

/** What an order says to the head; one that is held is said by whoever holds it. */
export function scriptOf(order: Exclude<PtzOrder, { kind: 'run' | 'rest' }>, profile: string): Script<Said> {
  switch (order.kind) {
    case 'runFor':
      // in slices: whoever says it may be gone before it is over
      return saying(ptz.CONTINUOUS_MOVE, { profile, velocity: order.velocity, timeoutS: RUN_LIFE_S });
    case 'tryTimeout':
      return saying(ptz.CONTINUOUS_MOVE, { profile, velocity: order.velocity, timeoutS: TRY_TIMEOUT_S });
    case 'goTo':
      return saying(ptz.ABSOLUTE_MOVE, { profile, position: order.position });
    case 'turnBy':
      return saying(ptz.RELATIVE_MOVE, { profile, by: order.by });
    case 'home':
      return saying(ptz.GOTO_HOME, profile);
    case 'goToPreset':
      return saying(ptz.GOTO_PRESET, { profile, token: order.token });
    case 'keepPreset':
      return saying(ptz.SET_PRESET, { profile, name: order.name, token: order.token });
    case 'removePreset':
      return saying(ptz.REMOVE_PRESET, { profile, token: order.token });
  }
}
