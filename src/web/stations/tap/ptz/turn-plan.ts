import type { PtzPosition } from '../../../../core/onvif/services/ptz.ts';
import type { HeadAbility, PtzOrder } from '../../../../core/onvif-client/ptz-types.ts';
import { RUN_MS } from '../../../../core/onvif-client/ptz-types.ts';
import { runForTurn } from '../../../../core/ptz/timed-turns.ts';
import { translationOfDegrees } from '../../../../core/ptz/turning.ts';
import { type HeadReach, numberOfUnit, panDegrees, panNumber } from './ptz-geometry.ts';

/** How a turn by degrees is done: by the head’s own spaces, or by time where it has none. */
export type TurnPlan =
  | { readonly kind: 'by angle' | 'by time'; readonly order: PtzOrder; readonly said: string }
  | { readonly kind: 'cannot'; readonly said: string };

/** @param deg to the right; below zero to the left */
export function turnBy(deg: number, ability: HeadAbility, position: PtzPosition | null, reach: HeadReach): TurnPlan {
  const { absolute } = ability.node;
  if (absolute && position) {
    const from = panDegrees(position.pan, absolute.x, reach);
    const pan = panNumber(from + deg, absolute.x, reach);
    return {
      kind: 'by angle',
      order: { kind: 'goTo', position: { pan, tilt: position.tilt, zoom: position.zoom } },
      said: `absolute, from ${from.toFixed(1)}° to ${panDegrees(pan, absolute.x, reach).toFixed(1)}°`,
    };
  }
  const { relative } = ability.node;
  if (relative) {
    const { norm, clamped } = translationOfDegrees(deg, reach.pan);
    return {
      kind: 'by angle',
      order: { kind: 'turnBy', by: { pan: numberOfUnit(norm, relative.x), tilt: 0, zoom: null } },
      said: clamped ? 'relative, as far as one move goes' : 'relative: it reports no position',
    };
  }
  const { turn } = reach;
  if (!turn)
    return {
      kind: 'cannot',
      said: 'It supports no moves by angle, and its speed was not measured: calibrate it first.',
    };
  const ms = Math.round(1000 * runForTurn(turn, Math.abs(deg)));
  if (ms < RUN_MS.min || ms > RUN_MS.max)
    return { kind: 'cannot', said: 'That is too little, or too far, for a timed move.' };
  const pan = Math.sign(deg) * turn.velocity;
  return {
    kind: 'by time',
    order: { kind: 'runFor', velocity: { pan, tilt: 0, zoom: 0 }, ms },
    said: `timed, ${(ms / 1000).toFixed(2)} s at ${turn.degPerS.toFixed(1)} °/s`,
  };
}
