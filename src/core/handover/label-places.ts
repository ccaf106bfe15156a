/** Where a name stands beside its mark; `none` where every place is taken. */
export type LabelPlace = 'right' | 'left' | 'below' | 'above' | 'none';

/** A mark with its name, px. */
export interface Labelled {
  readonly id: string;
  readonly name: string;
  readonly x: number;
  readonly y: number;
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** [A] Of a letter at 13 px, px: names are only as long as to tell whether there is room for them. */
export const LETTER_PX = 7.4;
const [HALF_LINE, MARK, GAP, BELOW] = [8, 9, 13, 18];
/** As they are tried. */
const PLACES = ['right', 'left', 'below', 'above'] as const;

function boxOf({ name, x, y }: Labelled, place: (typeof PLACES)[number]): Box {
  const width = name.length * LETTER_PX;
  const [left, middle] =
    place === 'right'
      ? [x + GAP, y]
      : place === 'left'
        ? [x - GAP - width, y]
        : [x - width / 2, place === 'below' ? y + BELOW : y - BELOW];
  return { left, right: left + width, top: middle - HALF_LINE, bottom: middle + HALF_LINE };
}

const overlaps = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Marks and names that lie near each other, so that each is held against its neighbours alone. */
class Grid {
  private readonly cells = new Map<string, Box[]>();

  private *cellsOf({ left, right, top, bottom }: Box): Generator<string> {
    for (let x = Math.floor(left / CELL); x <= Math.floor(right / CELL); x++)
      for (let y = Math.floor(top / CELL); y <= Math.floor(bottom / CELL); y++) yield `${x},${y}`;
  }
  add(box: Box): void {
    for (const cell of this.cellsOf(box)) {
      const boxes = this.cells.get(cell);
      if (boxes) boxes.push(box);
      else this.cells.set(cell, [box]);
    }
  }
  isFree(box: Box): boolean {
    for (const cell of this.cellsOf(box)) if (this.cells.get(cell)?.some((one) => overlaps(one, box))) return false;
    return true;
  }
}
const CELL = 120;

/**
 * A place for each name where it lies on no other name, on no mark and within the sheet; those that come first choose first.
 * @param widthPx of the sheet
 */
export function placeLabels(items: readonly Labelled[], widthPx: number): ReadonlyMap<string, LabelPlace> {
  const taken = new Grid();
  for (const { x, y } of items) taken.add({ left: x - MARK, right: x + MARK, top: y - MARK, bottom: y + MARK });
  const places = new Map<string, LabelPlace>();
  for (const item of items) {
    const fits = (box: Box): boolean => box.left >= 0 && box.right <= widthPx && box.top >= 0 && taken.isFree(box);
    const place = PLACES.find((one) => fits(boxOf(item, one)));
    if (place) taken.add(boxOf(item, place));
    places.set(item.id, place ?? 'none');
  }
  return places;
}
