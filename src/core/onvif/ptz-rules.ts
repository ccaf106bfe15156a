import { rulesFor } from '../findings/rule.ts';
import type { OnvifFacts } from './onvif-facts.ts';

const rule = rulesFor<OnvifFacts>();

/** How far the head of a device can be steered. */
export const PTZ_CONTROL_RULES = [
  rule({
    id: 'onvif.ptz-by-time',
    question: 'Does its PTZ support moves by angle?',
    source: 'ONVIF PTZ §5.3: absolute and relative spaces are optional',
    needs: ['headByTime'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.headByTime,
    severity: 'caution',
    title: () => 'PTZ by timed moves only',
    because: () => 'It supports continuous moves, and neither absolute nor relative ones.',
    do: [
      'Calibrate it: timed moves tell how far it turns in a second.',
      'Return to a preset or to an end stop every few moves.',
    ],
    why: 'Each timed move is a little off, and the errors add up.',
  }),
  rule({
    id: 'onvif.ptz-no-position',
    question: 'Does its PTZ report its position?',
    source: 'ONVIF PTZ §5.5: GetStatus',
    needs: ['headTells'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.headTells !== 'position',
    severity: 'caution',
    title: () => 'PTZ reports no position',
    because: (f) =>
      f.headTells === 'moving'
        ? 'It reports whether it moves, and no position.'
        : 'It reports neither position nor movement.',
    do: ['Do not promise preset tours that check their position.', 'Keep a preset as home position.'],
    why: 'No client notices a pan-tilt head that was turned by hand, or that is stuck.',
  }),
  rule({
    id: 'onvif.no-presets',
    question: 'Does it store presets?',
    source: 'ONVIF PTZ §5.1: MaximumNumberOfPresets',
    needs: ['mostPresets'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.mostPresets === 0,
    severity: 'caution',
    title: () => 'No presets supported',
    because: () => 'Its PTZ stores no preset.',
    do: ['Move it by time from one of its end stops, which it always finds.'],
    why: 'Without a home position, small errors add up.',
  }),
  rule({
    id: 'onvif.presets-full',
    question: 'Is a preset free?',
    source: 'ONVIF PTZ §5.1: MaximumNumberOfPresets',
    needs: ['presets', 'mostPresets'],
    asks: (f) => f.hasHead === true && f.mostPresets !== 0,
    isTight: (f) => f.presets >= f.mostPresets,
    severity: 'note',
    title: () => 'No preset left',
    because: (f) => `${f.presets} of ${f.mostPresets} are used.`,
    do: ['Delete one before the next is stored.'],
    why: 'The next one is refused, or overwrites another.',
  }),
] as const;
