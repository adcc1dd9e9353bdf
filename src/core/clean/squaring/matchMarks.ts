import { fitView, photoFromSheet, restsOf, viewThrough, type Lens, type SheetView, STRAIGHT } from './camera.ts';
import type { FoundMark } from './findMarks.ts';
import { CORNERS, MARK_RADIUS_MM, marksOf, type Paper, type SheetMark } from './markSheet.ts';

export interface MatchedSheet {
  readonly paper: Paper;
  readonly view: SheetView;
  /** The found mark for each mark of the sheet. */
  readonly found: readonly (FoundMark | undefined)[];
}

/** Marks tried as corners of the sheet; more than this many on the hull are thinned out. */
const MOST_ON_HULL = 20;
/** A mark counts as found within so many of its own radii of where it should be, before and after the lens is known. */
const NEAR_FIRST = 2.2;
const NEAR = 0.8;

/**
 * Finds which rings are the marks of which paper. The corners are looked for among the points of the convex hull; the four that place most of the other marks,
 * with dots where dots should be, win. @returns undefined when no four do.
 */
export function matchMarks(rings: readonly FoundMark[], widthPx: number, heightPx: number, lens: Lens = STRAIGHT): MatchedSheet | undefined {
  const corners = hullOf(rings);
  let best: { paper: Paper; view: SheetView; score: number } | undefined;
  search: for (const four of foursOf(corners)) {
    for (const paper of ['a4', 'letter'] as const) {
      const marks = marksOf(paper);
      for (let turn = 0; turn < 4; turn++) {
        const view = viewFromCorners(marks, four, turn, widthPx, heightPx, lens);
        if (view === undefined) continue;
        const score = scoreOf(assign(view, marks, rings, NEAR_FIRST), marks);
        if (score > (best?.score ?? 0)) best = { paper, view, score };
        if (score === marks.length) break search;
      }
    }
  }
  return best === undefined ? undefined : settled(best.paper, best.view, rings);
}

/** The match from a view that is about right, the lens fitted too: twice, since the first fit brings more marks within reach. */
export function settled(paper: Paper, start: SheetView, rings: readonly FoundMark[]): MatchedSheet | undefined {
  const marks = marksOf(paper);
  let view = start;
  for (const near of [NEAR_FIRST, NEAR, NEAR]) {
    const pairs = pairsOf(marks, assign(view, marks, rings, near));
    if (pairs.sheet.length < 8) return undefined;
    view = fitView(view, pairs.sheet, pairs.photo);
  }
  return { paper, view, found: assign(view, marks, rings, NEAR) };
}

export function pairsOf(marks: readonly SheetMark[], found: readonly (FoundMark | undefined)[]): { sheet: number[]; photo: number[] } {
  const sheet: number[] = [];
  const photo: number[] = [];
  marks.forEach((mark, k) => {
    const ring = found[k];
    if (ring === undefined) return;
    sheet.push(mark.xMm, mark.yMm);
    photo.push(ring.x, ring.y);
  });
  return { sheet, photo };
}

/** How far the view misses the marks that were found, in mm on the sheet: each mark's distance. */
export function missesMm({ paper, view, found }: MatchedSheet): number[] {
  const { sheet, photo } = pairsOf(marksOf(paper), found);
  const rests = restsOf(view, sheet, photo);
  const at = new Float64Array(2);
  return Array.from({ length: sheet.length / 2 }, (_, k) => {
    const [x, y] = [sheet[2 * k], sheet[2 * k + 1]];
    photoFromSheet(view, x + 0.5, y, at);
    const [ax, ay] = [at[0], at[1]];
    photoFromSheet(view, x - 0.5, y, at);
    const across = Math.hypot(ax - at[0], ay - at[1]);
    return Math.hypot(rests[2 * k], rests[2 * k + 1]) / across;
  });
}

function viewFromCorners(
  marks: readonly SheetMark[],
  four: readonly FoundMark[],
  turn: number,
  widthPx: number,
  heightPx: number,
  lens: Lens,
): SheetView | undefined {
  const sheet = CORNERS.flatMap((k) => [marks[k].xMm, marks[k].yMm]);
  const photo = CORNERS.flatMap((_, k) => [four[(k + turn) % 4].x, four[(k + turn) % 4].y]);
  return viewThrough(sheet, photo, widthPx, heightPx, lens);
}

function assign(view: SheetView, marks: readonly SheetMark[], rings: readonly FoundMark[], near: number): (FoundMark | undefined)[] {
  const at = new Float64Array(2);
  return marks.map(({ xMm, yMm }) => {
    photoFromSheet(view, xMm + MARK_RADIUS_MM, yMm, at);
    const [rx, ry] = [at[0], at[1]];
    photoFromSheet(view, xMm, yMm, at);
    const radius = Math.hypot(rx - at[0], ry - at[1]);
    let best: FoundMark | undefined;
    let nearest = near * radius;
    for (const ring of rings) {
      const distance = Math.hypot(ring.x - at[0], ring.y - at[1]);
      if (distance >= nearest || ring.longPx > 2.5 * radius || ring.longPx < 0.4 * radius) continue;
      nearest = distance;
      best = ring;
    }
    return best;
  });
}

/** Found marks; a dot in the wrong place or a missing one counts against. */
function scoreOf(found: readonly (FoundMark | undefined)[], marks: readonly SheetMark[]): number {
  let score = 0;
  found.forEach((ring, k) => {
    if (ring !== undefined) score += ring.dotted === marks[k].dotted ? 1 : marks[k].dotted ? -3 : 0.4;
  });
  return score >= 8 ? score : 0;
}

/** Convex hull, clockwise as seen (Andrew's monotone chain; A. M. Andrew, Information Processing Letters 9(5), 1979, doi:10.1016/0020-0190(79)90072-3). */
function hullOf(rings: readonly FoundMark[]): FoundMark[] {
  const points = [...rings].sort((a, b) => a.x - b.x || a.y - b.y);
  const turns = (a: FoundMark, b: FoundMark, c: FoundMark): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  const chain = (list: readonly FoundMark[]): FoundMark[] => {
    const out: FoundMark[] = [];
    for (const p of list) {
      while (out.length >= 2 && turns(out[out.length - 2], out[out.length - 1], p) <= 0) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  const hull = [...chain(points), ...chain([...points].reverse())];
  const step = Math.max(1, hull.length / MOST_ON_HULL);
  return Array.from({ length: Math.min(hull.length, MOST_ON_HULL) }, (_, k) => hull[Math.floor(k * step)]);
}

/** All fours of the hull, the ones that hold most between them first: the sheet's corners are nearly always the first. */
function foursOf(hull: readonly FoundMark[]): FoundMark[][] {
  const n = hull.length;
  const fours: { four: FoundMark[]; area: number }[] = [];
  for (let a = 0; a < n; a++) {
    for (let b = a + 1; b < n; b++) {
      for (let c = b + 1; c < n; c++) {
        for (let d = c + 1; d < n; d++) {
          const four = [hull[a], hull[b], hull[c], hull[d]];
          fours.push({ four, area: Math.abs((four[2].x - four[0].x) * (four[3].y - four[1].y) - (four[2].y - four[0].y) * (four[3].x - four[1].x)) });
        }
      }
    }
  }
  return fours.sort((p, q) => q.area - p.area).map(({ four }) => four);
}
