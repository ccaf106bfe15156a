import type { RadioBand } from '../base/ways.ts';

/** One kind of radio link: its rate on the air near and at the edge, and what of it is payload. */
export interface RadioKind {
  readonly id: string;
  readonly label: string;
  readonly band: RadioBand;
  readonly phyMbps: number;
  readonly edgePhyMbps: number;
  readonly efficiency: number;
  /** Width of its channel. */
  readonly widthMHz: number;
}

/** Rates: IEEE 802.11 (one spatial stream unless said, long guard interval for n; at the edge one stream is left [A]). Efficiencies and edge rates are assumed. */
const KINDS = [
  { id: 'g', label: '802.11g, 54 Mbit/s', band: '2.4', phyMbps: 54, edgePhyMbps: 6, efficiency: 0.45, widthMHz: 20 },
  { id: 'n20', label: '802.11n, 20 MHz', band: '2.4', phyMbps: 72.2, edgePhyMbps: 14.4, efficiency: 0.5, widthMHz: 20 },
  {
    id: 'n20x2',
    label: '802.11n, 20 MHz, 2 streams',
    band: '2.4',
    phyMbps: 144.4,
    edgePhyMbps: 14.4,
    efficiency: 0.5,
    widthMHz: 20,
  },
  { id: 'ac80', label: '802.11ac, 80 MHz', band: '5', phyMbps: 325, edgePhyMbps: 65, efficiency: 0.6, widthMHz: 80 },
  {
    id: 'ax80',
    label: '802.11ax, 80 MHz',
    band: '5',
    phyMbps: 360.3,
    edgePhyMbps: 72.1,
    efficiency: 0.65,
    widthMHz: 80,
  },
  {
    id: 'ac80x2',
    label: '802.11ac, 80 MHz, 2 streams',
    band: '5',
    phyMbps: 650,
    edgePhyMbps: 65,
    efficiency: 0.6,
    widthMHz: 80,
  },
  {
    id: 'ax80x2',
    label: '802.11ax, 80 MHz, 2 streams',
    band: '5',
    phyMbps: 720.6,
    edgePhyMbps: 72.1,
    efficiency: 0.65,
    widthMHz: 80,
  },
  {
    id: 'ah2',
    label: '802.11ah, 2 MHz',
    band: 'sub-GHz',
    phyMbps: 2.6,
    edgePhyMbps: 0.65,
    efficiency: 0.55,
    widthMHz: 2,
  },
] as const satisfies readonly RadioKind[];
export const RADIO_KINDS: readonly RadioKind[] = KINDS;
export type RadioKindId = (typeof KINDS)[number]['id'];
export const RADIO_KIND_IDS: readonly RadioKindId[] = KINDS.map(({ id }) => id);
export const RADIO_KIND_WORDS: Readonly<Record<RadioKindId, string>> = Object.fromEntries(
  KINDS.map(({ id, label }) => [id, label]),
) as Record<RadioKindId, string>; // one for each of them
export const radioKind = (id: string): RadioKind | undefined => RADIO_KINDS.find((kind) => kind.id === id);

/** The slower of two ends of one link: both speak what both can. Of bands that differ none is: that is another finding. */
export function slowerOf(point: RadioKind | undefined, own: RadioKind | undefined): RadioKind | undefined {
  if (!point || !own || own.band !== point.band) return point;
  return own.phyMbps * own.efficiency < point.phyMbps * point.efficiency ? own : point;
}
