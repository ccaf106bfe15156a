import type { Point } from '../../../base/plan-geometry.ts';
import type { RadioBand } from '../../../base/ways.ts';

export interface GearBase {
  readonly id: string;
  readonly name: string;
  readonly position: Point | null;
  /** Of one, in the currency of the site; `null` when not known. */
  readonly price: number | null;
}
export type PseType = 1 | 2 | 3 | 4;
export type Gear =
  | (GearBase & {
      readonly kind: 'switch';
      readonly ports: number;
      /** Of these, those that feed; 0 is a switch without power. */
      readonly poePorts: number;
      readonly pseType: PseType;
      readonly budgetW: number;
      readonly pseVolts: number;
      /** `class` reserves what a class may take, `measured` what is taken. */
      readonly reserves: 'class' | 'measured';
      readonly uplinkMbps: number;
    })
  | (GearBase & {
      readonly kind: 'injector';
      /** Without negotiation, so the voltage is there whoever is plugged in. */
      readonly isPassive: boolean;
      readonly volts: number;
      readonly watts: number;
    })
  | (GearBase & {
      readonly kind: 'supply';
      readonly output: 'dc' | 'usb';
      readonly volts: number;
      readonly amps: number;
    })
  | (GearBase & {
      readonly kind: 'access-point';
      readonly band: RadioBand;
      readonly radio: string;
      readonly eirpDbm: number;
      /** Those of one band and channel share the air; `null` when nobody looked. */
      readonly channel: number | null;
      /** IEEE 802.3 class that it asks of the switch it hangs on; `null` when something else feeds it. */
      readonly poeClass: number | null;
    })
  | (GearBase & { readonly kind: 'powerline'; readonly syncMbps: number })
  | (GearBase & { readonly kind: 'router'; readonly uploadMbps: number | null });
export type GearKind = Gear['kind'];
export const GEAR_KINDS = [
  'switch',
  'injector',
  'supply',
  'access-point',
  'powerline',
  'router',
] as const satisfies readonly GearKind[];

export type GearOf<K extends GearKind> = Extract<Gear, { readonly kind: K }>;
