/** Where a design lies on its blank: the upper left of its box, mm on the printable area. */
export interface PlaceMm {
  readonly xMm: number;
  readonly yMm: number;
}

/** A print sits a little below the top edge of the printable area, like a crest on a chest: a sixth of what is free. */
const TOP_SHARE = 1 / 6;

/** The place that was chosen, or else centred across and near the top. */
export function placeOnBlank(place: PlaceMm | undefined, blank: { widthMm: number; heightMm: number }, design: { widthMm: number; heightMm: number }): PlaceMm {
  if (place !== undefined) return place;
  return { xMm: (blank.widthMm - design.widthMm) / 2, yMm: Math.max(0, blank.heightMm - design.heightMm) * TOP_SHARE };
}

/** How far a placed design reaches over the printable area, mm; 0 when it lies on it. */
export function overBlankMm(place: PlaceMm, blank: { widthMm: number; heightMm: number }, design: { widthMm: number; heightMm: number }): number {
  const over = Math.max(-place.xMm, -place.yMm, place.xMm + design.widthMm - blank.widthMm, place.yMm + design.heightMm - blank.heightMm);
  return over > 1e-6 ? over : 0;
}
