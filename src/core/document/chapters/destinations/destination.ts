import type { Point } from '../../../base/plan-geometry.ts';
import { above0, between } from '../../../base/range.ts';

export const DESTINATION_KINDS = ['hub', 'recorder', 'viewer', 'relay'] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];

export interface Destination {
  readonly id: string;
  readonly name: string;
  readonly kind: DestinationKind;
  /** Codecs it takes; empty when not known. */
  readonly codecs: readonly string[];
  readonly storage: { readonly diskTB: number; readonly usableFraction: number } | null;
  readonly retentionDays: number | null;
  readonly position: Point | null;
}

/** What its numbers may be. */
export const DESTINATION_RANGES = {
  diskTB: above0(10_000, 'TB'),
  usableFraction: between(0, 1),
  retentionDays: above0(36_500, 'days'),
} as const;
