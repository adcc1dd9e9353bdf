import { followedBy, mirrorAbout, rotation, translation, type Affine } from '../geometry/affine.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { fillPages, type PageOptions } from './fillPages.ts';

/** What is printed as one: parts of a design within a box, in the design's mm. */
export interface Motif {
  /** Of the parts, lowest first. */
  readonly parts: readonly string[];
  readonly box: Bounds;
  /** White below its ink, and the line that a cutter follows around it, in the design's mm. */
  readonly white?: Curves | undefined;
  readonly contour?: Curves | undefined;
}

/** A copy of a motif on its page. */
export interface PrintPlacement {
  readonly motif: number;
  /** From the design's mm to the page's. */
  readonly at: Affine;
  /** The box around it on the page. */
  readonly box: RectMm;
}

/** Motifs laid on the pages of a printer. Derived from design and layout, never edited. */
export interface PrintPages {
  readonly motifs: readonly Motif[];
  readonly pages: readonly (readonly PrintPlacement[])[];
  /** Where the printer prints. */
  readonly area: RectMm;
  /** Whether it has marks in its corners for a cutter. */
  readonly hasMarks?: boolean;
}

export interface PrintSettings extends Omit<PageOptions, 'mayTurn'> {
  readonly area: RectMm;
  /** Printed the other way round, for the inside of glass: about the middle of the page. */
  readonly mirrored: boolean;
  readonly pageWidthMm: number;
}

const QUARTER = Math.PI / 2;

/** Scissors go so far outside of a motif, mm, or half of the way to the next. */
const TRIM_MM = 2;
export const trimOf = (gapMm: number): number => Math.min(TRIM_MM, gapMm / 2);

/** Marks in the corners of a page by which a cutter finds what was printed: how long their arms are and how broad, mm, and what motifs keep away from the edge for them. */
export const PAGE_MARK = { armMm: 8, broadMm: 0.6, roomMm: 11 } as const;

/** A black square beside the first of them, from the middle of its arms inwards, mm: it tells which way up the page lies. */
export const MARK_DOT = { awayMm: 3, sideMm: 1.6 } as const;

/** The places of those marks: the corners of the printed area, with the way into the page. */
export const pageMarks = ({ xMm, yMm, widthMm, heightMm }: RectMm): { readonly x: number; readonly y: number; readonly sx: 1 | -1; readonly sy: 1 | -1 }[] =>
  ([[0, 0], [1, 0], [0, 1], [1, 1]] as const).map(([right, down]) => ({ x: xMm + right * widthMm, y: yMm + down * heightMm, sx: right === 1 ? -1 : 1, sy: down === 1 ? -1 : 1 }));

/** The parts of a design as motifs: all as one, or each by itself. */
export function motifsOf(parts: readonly { readonly id: string; readonly box: Bounds }[], whole: { readonly widthMm: number; readonly heightMm: number }, eachPart: boolean): Motif[] {
  const own = parts.filter(({ box }) => box.right > box.left && box.bottom > box.top);
  if (eachPart && own.length > 1) return own.map(({ id, box }) => ({ parts: [id], box }));
  return [{ parts: parts.map(({ id }) => id), box: { left: 0, top: 0, right: whole.widthMm, bottom: whole.heightMm } }];
}

/** @throws AppError `doesNotFit` for a motif that is larger than the area. */
export function printPages(motifs: readonly Motif[], { area, mirrored, pageWidthMm, ...options }: PrintSettings): PrintPages {
  // A motif takes up what is cut out of it.
  const boxes = motifs.map(({ box, contour }) => (contour === undefined ? box : (boundsOf(contour) ?? box)));
  const sizes = boxes.map((box) => ({ widthMm: box.right - box.left, heightMm: box.bottom - box.top }));
  const pages = fillPages(sizes, area, { ...options, mayTurn: true }).map((places) =>
    places.map(({ item, xMm, yMm, isTurned }): PrintPlacement => {
      const { widthMm, heightMm } = sizes[item];
      const [width, height] = isTurned ? [heightMm, widthMm] : [widthMm, heightMm];
      const [x, y] = [area.xMm + xMm, area.yMm + yMm];
      const home = translation(-boxes[item].left, -boxes[item].top);
      const turned = isTurned ? followedBy(followedBy(home, rotation(QUARTER, 0, 0)), translation(heightMm, 0)) : home;
      const at = followedBy(turned, translation(x, y));
      const left = mirrored ? pageWidthMm - x - width : x;
      return { motif: item, at: mirrored ? followedBy(at, mirrorAbout(pageWidthMm / 2)) : at, box: { xMm: left, yMm: y, widthMm: width, heightMm: height } };
    }),
  );
  return { motifs, pages, area };
}

/** By how much the largest motif is over the area of its page, mm. */
export function overOf({ motifs, area }: Pick<PrintPages, 'motifs' | 'area'>): { overWidthMm: number; overHeightMm: number } {
  const overs = motifs.map(({ box }) => ({ overWidthMm: Math.max(0, Math.ceil(10 * (box.right - box.left - area.widthMm)) / 10), overHeightMm: Math.max(0, Math.ceil(10 * (box.bottom - box.top - area.heightMm)) / 10) }));
  return overs.sort((a, b) => b.overWidthMm + b.overHeightMm - a.overWidthMm - a.overHeightMm)[0] ?? { overWidthMm: 0, overHeightMm: 0 };
}
