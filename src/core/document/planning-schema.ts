import { lazy, type Schema } from 'yup';
import { LIST_LIMITS, TEXT_LIMITS } from '../base/limits.ts';
import { WALL_MATERIALS } from '../base/plan-geometry.ts';
import { flag, id, list, oneOf, orNull, positive, real, shape, share, text, whole } from '../base/schema-parts.ts';
import { TAP_USES } from '../base/tap-uses.ts';
import { POWER_WAYS, RADIO_BANDS } from '../base/ways.ts';
import { DETAIL_LEVELS } from '../optics/detail-levels.ts';
import { SOUNDS } from './cards/model-card.ts';
import { GEAR_KINDS, LINK_MEDIA, SCHOOLS } from './planning-types.ts';

/** A site is a house and its land: what lies farther is a slip of the finger. */
const FAR_M = 10_000;

export const point = shape({ xM: real(-FAR_M, FAR_M).required(), yM: real(-FAR_M, FAR_M).required() });

export const need = shape({
  level: orNull(oneOf(DETAIL_LEVELS.map(({ level }) => level))),
  text: orNull(shape({ line: text(TEXT_LIMITS.label).min(1), charHeightMm: positive(2000).required() })),
  distanceM: positive(1000).required(),
  widthM: positive(1000).required(),
  nearM: real(0, 1000).required(),
  atNight: flag(),
  sound: oneOf(SOUNDS),
  turns: flag(),
  outdoors: flag(),
  draws: list(shape({ destinationId: id(), use: oneOf(TAP_USES) }), LIST_LIMITS.draws),
});

export const mounting = shape({
  heightM: positive(100).required(),
  tiltDownDeg: real(-90, 90).required(),
  headingDeg: real(-360, 360).required(),
  zoom: orNull(real(1, 100)),
});

const sun = shape({
  panelWp: positive(10_000).required(),
  tiltDeg: real(0, 90).required(),
  shade: share(),
  batteryWh: positive(100_000).required(),
  depthOfDischarge: share(),
  isLithium: flag(),
  drawnHoursPerDay: real(0, 24).required(),
  mainsMonths: list(whole(1, 12).required(), 12),
});

export const feed = shape({
  way: oneOf(POWER_WAYS),
  sun: orNull(sun),
  charge: orNull(shape({ limitPercent: orNull(real(1, 100)), batteryC: orNull(real(-40, 120)), isSwollen: flag() })),
});

const gearBase = { id: id(), name: text(TEXT_LIMITS.name).min(1), position: orNull(point) };
const GEAR_SHAPES: Readonly<Record<string, Schema>> = {
  switch: shape({
    ...gearBase,
    kind: oneOf(['switch']),
    ports: whole(1, 96).required(),
    poePorts: whole(0, 96).required(),
    pseType: whole(1, 4).required(),
    budgetW: real(0, 10_000).required(),
    pseVolts: positive(60).required(),
    reserves: oneOf(['class', 'measured']),
    uplinkMbps: positive(1e6).required(),
  }),
  injector: shape({
    ...gearBase,
    kind: oneOf(['injector']),
    isPassive: flag(),
    volts: positive(60).required(),
    watts: positive(1000).required(),
  }),
  supply: shape({
    ...gearBase,
    kind: oneOf(['supply']),
    output: oneOf(['dc', 'usb']),
    volts: positive(60).required(),
    amps: positive(1000).required(),
  }),
  'access-point': shape({
    ...gearBase,
    kind: oneOf(['access-point']),
    band: oneOf(RADIO_BANDS),
    radio: text(TEXT_LIMITS.label).min(1),
    eirpDbm: real(-20, 40).required(),
    channel: orNull(whole(1, 200)),
    poeClass: orNull(whole(0, 8)),
  }),
  powerline: shape({ ...gearBase, kind: oneOf(['powerline']), syncMbps: positive(10_000).required() }),
  router: shape({ ...gearBase, kind: oneOf(['router']), uploadMbps: orNull(positive(1e6)) }),
};
const NO_GEAR = shape({ kind: oneOf(GEAR_KINDS) });
export const gear = lazy((value: unknown) => {
  const kind = typeof value === 'object' && value !== null && 'kind' in value ? String(value.kind) : '';
  return (Object.hasOwn(GEAR_SHAPES, kind) ? GEAR_SHAPES[kind] : null) ?? NO_GEAR;
});

export const link = shape({
  id: id(),
  from: text(TEXT_LIMITS.subject).min(1),
  to: text(TEXT_LIMITS.subject).min(1),
  medium: oneOf(LINK_MEDIA),
  lengthM: real(0, FAR_M).required(),
  route: orNull(list(point, LIST_LIMITS.routePoints)),
  extraM: real(0, FAR_M).required(),
  areaMm2: orNull(positive(500)),
  isCopperClad: flag(),
  conductorC: real(-60, 120).required(),
  leavesBuilding: flag(),
  capacityMbps: orNull(positive(1e6)),
  rssiDbm: orNull(real(-120, 0)),
});

/** Re-encoded when it was taken in; larger would make every saving slow. */
const MAX_PICTURE_CHARS = 3_000_000;
const picture = shape({
  name: text(200),
  dataUrl: text(MAX_PICTURE_CHARS).matches(
    /^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/=]+$/,
    '${path} must be a picture as a data URL',
  ),
  widthPx: whole(1, 8000).required(),
  heightPx: whole(1, 8000).required(),
  metresPerPx: positive(100).required(),
  isScaled: flag(),
});

export const plan = shape({
  widthM: positive(FAR_M).required(),
  heightM: positive(FAR_M).required(),
  picture: orNull(picture),
  walls: list(shape({ id: id(), from: point, to: point, material: oneOf(WALL_MATERIALS) }), LIST_LIMITS.walls),
});

export const sky = shape({
  latitudeDeg: orNull(real(-90, 90)),
  clearness: list(real(0.05, 0.9).required(), 12).length(12),
});

const money = () => real(0, 1e9).required();
export const costing = shape({
  currency: text(8).min(1),
  years: whole(1, 50).required(),
  energyPrice: real(0, 100).required(),
  priceRise: real(-0.5, 1).required(),
  options: list(
    shape({
      id: id(),
      name: text(TEXT_LIMITS.name).min(1),
      school: oneOf(SCHOOLS),
      lines: list(
        shape({
          label: text(TEXT_LIMITS.name).min(1),
          price: money(),
          count: whole(0, 100_000).required(),
          everyYears: orNull(positive(50)),
        }),
        LIST_LIMITS.costLines,
      ),
      includedSeats: whole(0, 10_000).required(),
      packs: list(shape({ seats: whole(1, 10_000).required(), price: money() }), LIST_LIMITS.costPacks),
      subscriptionPerMonth: money(),
      loadW: real(0, 1e6).required(),
    }),
    LIST_LIMITS.costOptions,
  ),
});
