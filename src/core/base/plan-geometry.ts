/** A point of the plan, m from its upper left corner, to the right and down. */
export interface Point {
  readonly xM: number;
  readonly yM: number;
}

export const WALL_MATERIALS = ['plaster', 'brick', 'stone', 'glass', 'fence'] as const;
export type WallMaterial = (typeof WALL_MATERIALS)[number];

export interface Wall {
  readonly id: string;
  readonly from: Point;
  readonly to: Point;
  readonly material: WallMaterial;
}

/** A site is a house and its land: what lies farther is a slip of the finger. */
export const FAR_M = 10_000;
