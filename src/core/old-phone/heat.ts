import { between } from '../base/range.ts';

/** Where air gets to its back. */
export const MOUNTS = ['open', 'metal', 'closed'] as const;
export type Mount = (typeof MOUNTS)[number];
export const MOUNT_WORDS: Readonly<Record<Mount, string>> = {
  open: 'in the open, air behind it',
  metal: 'on metal that spreads its heat',
  closed: 'in a case or against a wall',
};

export const SCREENS = ['off', 'dim', 'bright'] as const;
export type Screen = (typeof SCREENS)[number];

export const HEAT_RANGES = {
  roomC: between(-20, 60, '°C'),
  measuredC: between(-20, 90, '°C'),
} as const;

export interface OldPhoneLoad {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly fps: number;
  readonly screen: Screen;
  /** Its charge is limited: then little goes into the cell, and little of that into heat. */
  readonly isChargeLimited: boolean;
}

/** Thermal figures of a handset, as the site assumes them. */
export interface OldPhoneBody {
  /** K for each watt, by where it sits. */
  readonly kelvinPerWatt: Readonly<Record<Mount, number>>;
  /** J for each kelvin. */
  readonly joulePerKelvin: number;
}

/** [A] What parts of a handset take, W. */
const WATTS = {
  system: 0.4,
  camera: 0.75,
  /** Of the encoder, for a million pixels a second. */
  perMegapixel: 0.012,
  radio: 0.3,
  screen: { off: 0, dim: 0.3, bright: 1.1 } satisfies Record<Screen, number>,
  chargingFull: 0.6,
  chargingLimited: 0.15,
} as const;

/** What turns into heat inside, W. 1280 × 720 at 15 with its screen off and its charge limited: 1.77 W. */
export function heatOf({ widthPx, heightPx, fps, screen, isChargeLimited }: OldPhoneLoad): number {
  const megapixels = (widthPx * heightPx * fps) / 1e6;
  return (
    WATTS.system +
    WATTS.camera +
    WATTS.radio +
    WATTS.perMegapixel * megapixels +
    WATTS.screen[screen] +
    (isChargeLimited ? WATTS.chargingLimited : WATTS.chargingFull)
  );
}

export interface HeatRun {
  readonly watts: number;
  /** Where it ends up, °C. */
  readonly steadyC: number;
  /** After this it has done 63 % of the way, min. */
  readonly tauMin: number;
}

/**
 * How warm a handset gets: one body that warms by its watts and cools by the room.
 * T(t) = room + R·P·(1 − e^(−t/RC)), [A] for R and C.
 */
export const heatRun = (load: OldPhoneLoad, roomC: number, mount: Mount, body: OldPhoneBody): HeatRun =>
  heatRunAt(heatOf(load), roomC, mount, body);

/** The same from the watts themselves. */
export function heatRunAt(watts: number, roomC: number, mount: Mount, body: OldPhoneBody): HeatRun {
  const r = body.kelvinPerWatt[mount];
  return { watts, steadyC: roomC + r * watts, tauMin: (r * body.joulePerKelvin) / 60 };
}

/**
 * How much better or worse than assumed heat leaves a handset, from what was read an hour after it started: 1 is as assumed.
 * A reading at or below the room says nothing about it: `null`.
 * @param run as it is assumed for what it did when it was read
 */
export function heatScale(run: HeatRun, roomC: number, readC: number, afterMin = 60): number | null {
  const risen = readC - roomC;
  const assumedK = run.steadyC - roomC;
  if (risen <= 0 || assumedK <= 0 || isHeatedElsewhere(run, roomC, readC, afterMin)) return null;
  // R and τ grow together: solved by halving, since the share that is reached hangs on τ itself.
  let low = 0.05;
  let high = 20;
  for (let round = 0; round < 60; round++) {
    const scale = (low + high) / 2;
    const reached = assumedK * scale * (1 - Math.exp(-afterMin / (run.tauMin * scale)));
    if (reached < risen) low = scale;
    else high = scale;
  }
  return low;
}

/** [A] Of what it would rise if no heat left it at all. */
const ADIABATIC_SHARE = 0.9;

/**
 * Whether a reading cannot come from its own watts: even with no heat leaving it, P·t/C is all that they can warm it. Close to
 * that another source heats it, the sun or what it lies on, and nothing is told of how its own heat leaves.
 */
export function isHeatedElsewhere({ steadyC, tauMin }: HeatRun, roomC: number, readC: number, afterMin = 60): boolean {
  const mostK = ((steadyC - roomC) * afterMin) / tauMin;
  return readC - roomC > ADIABATIC_SHARE * mostK;
}

/** The same body in another state: heat leaves it as it was seen to. */
export const scaledBy = (body: OldPhoneBody, scale: number): OldPhoneBody => ({
  ...body,
  kelvinPerWatt: {
    open: body.kelvinPerWatt.open * scale,
    metal: body.kelvinPerWatt.metal * scale,
    closed: body.kelvinPerWatt.closed * scale,
  },
});

/** °C after so many minutes from the temperature of the room. */
export const heatAfter = ({ steadyC, tauMin }: HeatRun, roomC: number, minutes: number): number =>
  roomC + (steadyC - roomC) * (1 - Math.exp(-minutes / tauMin));

/**
 * Minutes until it reaches a temperature; `null` where it never does, 0 where the room is as warm already.
 * Source: the same curve, solved for the time.
 */
export function minutesTo({ steadyC, tauMin }: HeatRun, roomC: number, limitC: number): number | null {
  if (roomC >= limitC) return 0;
  if (steadyC <= limitC) return null;
  return -tauMin * Math.log(1 - (limitC - roomC) / (steadyC - roomC));
}

/** [A] The share of its frames that a handset still gives when it is warm: all up to `warmC`, a third from 12 K above. */
export const framesKept = (celsius: number, warmC: number): number =>
  Math.min(1, Math.max(1 / 3, 1 - (celsius - warmC) / 18));
