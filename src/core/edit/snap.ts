import type { Bounds } from '../outline/curves.ts';

/** A line that something snapped to, mm: upright at `at`, or level. */
export interface SnapLine {
  readonly way: 'upright' | 'level';
  readonly at: number;
}

export interface Snapped {
  /** What is to be added to the shift, mm. */
  readonly x: number;
  readonly y: number;
  readonly lines: readonly SnapLine[];
}

/** What a dragged box may snap to. */
export interface SnapTo {
  /** Boxes of other parts: their edges and middles, and gaps equal to those between two of them. */
  readonly boxes: readonly Bounds[];
  /** Other lines, such as middle and edges of the blank. */
  readonly lines: readonly SnapLine[];
}

/** Gaps are looked for between so many of the boxes: those nearest to the dragged one. */
const MOST_GAPS = 40;

/** How much a dragged box is to be moved so that an edge or its middle lies on a line, or its gap to a neighbour is one that is there already: by the least that does, up to `withinMm` each way. */
export function snapped(box: Bounds, to: SnapTo, withinMm: number): Snapped {
  const across = nearest(edges(box.left, box.right), [...to.boxes.flatMap((each) => edges(each.left, each.right)), ...to.lines.flatMap(({ way, at }) => (way === 'upright' ? [at] : []))], withinMm);
  const down = nearest(edges(box.top, box.bottom), [...to.boxes.flatMap((each) => edges(each.top, each.bottom)), ...to.lines.flatMap(({ way, at }) => (way === 'level' ? [at] : []))], withinMm);
  const beside = nearestBoxes(box, to.boxes);
  const gapAcross = across ?? nearest([box.left, box.right], gapPlaces(beside, (each) => [each.left, each.right], box.right - box.left), withinMm);
  const gapDown = down ?? nearest([box.top, box.bottom], gapPlaces(beside, (each) => [each.top, each.bottom], box.bottom - box.top), withinMm);
  return {
    x: gapAcross?.by ?? 0,
    y: gapDown?.by ?? 0,
    lines: [...(gapAcross === undefined ? [] : [{ way: 'upright' as const, at: gapAcross.at }]), ...(gapDown === undefined ? [] : [{ way: 'level' as const, at: gapDown.at }])],
  };
}

const edges = (from: number, to: number): number[] => [from, (from + to) / 2, to];

function nearest(own: readonly number[], lines: readonly number[], within: number): { by: number; at: number } | undefined {
  let best: { by: number; at: number } | undefined;
  for (const at of lines) {
    for (const place of own) {
      const by = at - place;
      if (Math.abs(by) <= within && (best === undefined || Math.abs(by) < Math.abs(best.by))) best = { by, at };
    }
  }
  return best;
}

function nearestBoxes(box: Bounds, boxes: readonly Bounds[]): readonly Bounds[] {
  if (boxes.length <= MOST_GAPS) return boxes;
  const away = ({ left, top, right, bottom }: Bounds): number => Math.abs(left + right - box.left - box.right) + Math.abs(top + bottom - box.top - box.bottom);
  return [...boxes].sort((a, b) => away(a) - away(b)).slice(0, MOST_GAPS);
}

/** Places for an edge at which a gap beside a box is as broad as one between two others. */
function gapPlaces(boxes: readonly Bounds[], side: (box: Bounds) => readonly [number, number], length: number): number[] {
  const spans = boxes.map(side).sort((a, b) => a[0] - b[0]);
  const gaps = spans.flatMap(([, end], k) => (k + 1 < spans.length && spans[k + 1][0] > end ? [spans[k + 1][0] - end] : []));
  return gaps.flatMap((gap) => spans.flatMap(([from, to]) => [to + gap, from - gap, to + gap + length, from - gap - length]));
}
