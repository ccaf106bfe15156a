/** A point of the plan, m from its upper left corner, to the right and down. */
export interface Point {
  readonly xM: number;
  readonly yM: number;
}

export const WALL_MATERIALS = ['plaster', 'brick', 'stone', 'glass', 'door', 'fence'] as const;
export type WallMaterial = (typeof WALL_MATERIALS)[number];

export interface Wall {
  readonly id: string;
  /** As people call it; may be empty. */
  readonly name: string;
  readonly from: Point;
  readonly to: Point;
  readonly material: WallMaterial;
}

/** A site is a house and its land: what lies farther is a slip of the finger. */
export const FAR_M = 10_000;

export const distanceM = (a: Point, b: Point): number => Math.hypot(a.xM - b.xM, a.yM - b.yM);
export const wallLengthM = ({ from, to }: Pick<Wall, 'from' | 'to'>): number => distanceM(from, to);

/** The wall with its far end moved along its line, so that it is as long as somebody taped it. */
export function wallAsLong(wall: Wall, lengthM: number): Wall {
  const before = wallLengthM(wall);
  const factor = before === 0 ? 0 : lengthM / before;
  const along = (a: number, b: number): number => Number((a + (b - a) * factor).toFixed(3));
  return { ...wall, to: { xM: along(wall.from.xM, wall.to.xM), yM: along(wall.from.yM, wall.to.yM) } };
}
