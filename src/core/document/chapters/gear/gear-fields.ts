import { above0, between, wholes } from '../../../base/range.ts';
import { amount, choice, type FieldTable, figure, oneAmong, own, tick } from '../../../fields/field.ts';
import type { GearBase, GearKind, GearOf } from './gear.ts';

const VOLTS = above0(60, 'V');
const MBPS = above0(1e6, 'Mbit/s');

/** What nobody types, and gear has. */
export const GEAR_RANGES = { volts: VOLTS, price: between(0, 1e7) } as const;

/** What is printed on most of a kind; USB has its five volts, an injector its forty-eight. */
export const USUAL_VOLTS = { dc: 12, usb: 5, injector: 48, passive: 24 } as const;
/** Middle of what IEEE 802.3 lets a switch give, V. */
const PSE_VOLTS = 52;

type OwnOf<K extends GearKind> = Omit<GearOf<K>, keyof GearBase | 'kind'>;

/** Figures of each kind of gear, as they are printed on it: shape and form are made from these lines. */
export const GEAR_FIELDS = {
  switch: {
    ports: amount('Ports', wholes(1, 96), 8),
    poePorts: amount('PoE ports', wholes(0, 96), 8),
    pseType: oneAmong('PoE type (IEEE 802.3)', [1, 2, 3, 4], 2, {
      words: {
        1: '1 (af): up to class 3',
        2: '2 (at): up to class 4',
        3: '3 (bt): up to class 6',
        4: '4 (bt): up to class 8',
      },
    }),
    budgetW: amount('PoE budget, W', between(0, 10_000, 'W'), 65),
    pseVolts: own('Voltage of its PoE ports, V', PSE_VOLTS),
    reserves: oneAmong('Power is reserved by', ['class', 'measured'], 'class', {
      words: { class: 'class', measured: 'measured power' },
    }),
    uplinkMbps: amount('Uplink, Mbit/s', MBPS, 1000),
  },
  injector: {
    volts: amount('Voltage, V', VOLTS, USUAL_VOLTS.injector),
    watts: amount('Watts', above0(1000, 'W'), 24),
    isPassive: tick('passive: no negotiation', { isWide: true }),
  },
  supply: {
    output: oneAmong('Output', ['dc', 'usb'], 'dc', { words: { dc: 'low voltage', usb: 'USB' }, isWide: true }),
    volts: amount('Voltage, V', VOLTS, USUAL_VOLTS.dc),
    amps: amount('Current, A', above0(1000, 'A'), 2),
  },
  'access-point': {
    band: own('Band', '2.4'),
    radio: own('Radio standard', 'n20'),
    eirpDbm: amount('Transmit power (EIRP), dBm', between(-20, 40, 'dBm'), 20),
    channel: figure('Channel', wholes(1, 200)),
    poeClass: choice<number>('Powered by its switch', [0, 1, 2, 3, 4, 5, 6, 7, 8], {
      words: {
        '': 'no',
        ...Object.fromEntries([0, 1, 2, 3, 4, 5, 6, 7, 8].map((value) => [value, `class ${value}`])),
      },
    }),
  },
  powerline: { syncMbps: amount('Sync rate, Mbit/s', above0(10_000, 'Mbit/s'), 200) },
  router: { uploadMbps: figure('Upload to the internet, Mbit/s', MBPS) },
} as const satisfies { readonly [K in GearKind]: FieldTable<OwnOf<K>> };
