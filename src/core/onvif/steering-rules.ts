import { rulesFor } from '../findings/rule.ts';
import type { OnvifFacts } from './onvif-facts.ts';

const rule = rulesFor<OnvifFacts>();

/** How far the head of a device can be steered. */
export const STEERING_RULES = [
  rule({
    id: 'onvif.steered-by-time',
    question: 'Does its head take angles?',
    source: 'ONVIF PTZ §5.3: absolute and relative spaces are optional',
    needs: ['headByTime'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.headByTime,
    severity: 'watch',
    title: () => 'Its head is steered by time alone',
    because: () => 'It takes continuous moves, and neither absolute nor relative ones.',
    do: [
      'Calibrate it: two timed moves tell how far it turns in a second.',
      'Go back to a preset or to a stop every few moves.',
    ],
    why: 'Each timed move is a little off, and the errors add up.',
  }),
  rule({
    id: 'onvif.head-tells-nothing',
    question: 'Does its head tell where it looks?',
    source: 'ONVIF PTZ §5.5: GetStatus',
    needs: ['headTells'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.headTells !== 'position',
    severity: 'watch',
    title: () => 'Its head does not tell where it looks',
    because: (f) =>
      f.headTells === 'moving'
        ? 'It tells whether it moves, and no position.'
        : 'It tells neither position nor motion.',
    do: ['Do not promise patrols that check where they are.', 'Keep a preset to come home to.'],
    why: 'Nobody notices a head that was turned by hand, or that stuck.',
  }),
  rule({
    id: 'onvif.no-presets',
    question: 'Does its head keep presets?',
    source: 'ONVIF PTZ §5.1: MaximumNumberOfPresets',
    needs: ['mostPresets'],
    asks: (f) => f.hasHead === true,
    isTight: (f) => f.mostPresets === 0,
    severity: 'watch',
    title: () => 'It keeps no presets',
    because: () => 'Its head takes no preset.',
    do: ['Steer it by time from one of its stops, which it always finds.'],
    why: 'Without a place to come home to a head ends anywhere.',
  }),
  rule({
    id: 'onvif.presets-full',
    question: 'Is a preset left?',
    source: 'ONVIF PTZ §5.1: MaximumNumberOfPresets',
    needs: ['presets', 'mostPresets'],
    asks: (f) => f.hasHead === true && f.mostPresets !== 0,
    isTight: (f) => f.presets >= f.mostPresets,
    severity: 'note',
    title: () => 'No preset is left',
    because: (f) => `${f.presets} of ${f.mostPresets} are used.`,
    do: ['Take one away before the next is kept.'],
    why: 'The next one is refused, or writes over another.',
  }),
] as const;
