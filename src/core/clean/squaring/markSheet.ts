/** Papers on which the mark sheet is printed. */
export const PAPERS = { a4: { widthMm: 210, heightMm: 297 }, letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type Paper = keyof typeof PAPERS;

/** A ring mark: a black ring around a white hole, some with a black dot in the middle. */
export interface SheetMark {
  /** Centre from the upper left corner of the paper, mm. */
  readonly xMm: number;
  readonly yMm: number;
  readonly dotted: boolean;
}

export const MARK_RADIUS_MM = 4;
export const HOLE_RADIUS_MM = 2;
export const DOT_RADIUS_MM = 0.9;
/** From the paper's edge to the middle of the marks, mm: within what every printer prints. */
const MARGIN_MM = 12;
/** Marks along the short and the long side, corners counted. */
const ACROSS = 5;
const ALONG = 6;
/** The work is laid so far inside the middles of the marks, mm. */
const CLEARANCE_MM = 6;

/**
 * The marks of a sheet, clockwise from the upper left corner. That corner's mark is dotted, so that the sheet is never taken upside down; on Letter the next
 * one is dotted too, which tells the papers apart.
 */
export function marksOf(paper: Paper): SheetMark[] {
  const { widthMm, heightMm } = PAPERS[paper];
  const [left, top, right, bottom] = [MARGIN_MM, MARGIN_MM, widthMm - MARGIN_MM, heightMm - MARGIN_MM];
  const marks: { xMm: number; yMm: number }[] = [];
  const side = (x0: number, y0: number, x1: number, y1: number, count: number): void => {
    for (let k = 0; k < count - 1; k++) marks.push({ xMm: x0 + ((x1 - x0) * k) / (count - 1), yMm: y0 + ((y1 - y0) * k) / (count - 1) });
  };
  side(left, top, right, top, ACROSS);
  side(right, top, right, bottom, ALONG);
  side(right, bottom, left, bottom, ACROSS);
  side(left, bottom, left, top, ALONG);
  return marks.map((mark, k) => ({ ...mark, dotted: k === 0 || (paper === 'letter' && k === 1) }));
}

/** Numbers of the corner marks in `marksOf`. */
export const CORNERS = [0, ACROSS - 1, ACROSS + ALONG - 2, 2 * ACROSS + ALONG - 3] as const;

/** The part of the paper inside the marks, where the work lies, mm. */
export function workArea(paper: Paper): { xMm: number; yMm: number; widthMm: number; heightMm: number } {
  const { widthMm, heightMm } = PAPERS[paper];
  const inset = MARGIN_MM + CLEARANCE_MM;
  return { xMm: inset, yMm: inset, widthMm: widthMm - 2 * inset, heightMm: heightMm - 2 * inset };
}
