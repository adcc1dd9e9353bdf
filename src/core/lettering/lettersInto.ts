import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { scaling, followedBy, translation } from '../geometry/affine.ts';
import type { Rings } from '../geometry/rings.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { finishLetters, type LetteredText } from './letterCurves.ts';
import type { Lettering } from './lettering.ts';

/** Places across a shape at which the middle of a text is tried, and how often the best of them is looked at more closely. */
const PLACES = 24;
const CLOSER = 4;
/** How nearly the size is the largest one, share of it. */
const NEARLY = 0.001;
/** Chords of the letters, share of the text's longer side. */
const CHORD = 0.002;
/** How far apart places on the letters' edges are that are looked at, share of it: what pokes in between two would be no wider. */
const STEP = 0.006;

/**
 * A text as large as it can be inside of a shape: the places of its middle are tried on a grid, then more closely around the best.
 * @param text set on straight lines. @param shape mm; openings in it are kept free.
 * @returns outlines in the mm of the shape; undefined where nothing of it is broad enough.
 */
export function lettersInto(library: PolygonLibrary, { curves }: LetteredText, shape: Curves, lettering: Lettering): Curves | undefined {
  const { into, thickenMm = 0 } = lettering;
  if (into === undefined) throw new RangeError('the text is not put into a shape');
  const room = offsetCurves(library, shape, -into.paddingMm - Math.max(0, thickenMm));
  const [box, own] = [boundsOf(room), boundsOf(curves)];
  if (box === undefined || own === undefined) return undefined;
  const middle = { x: (own.left + own.right) / 2, y: (own.top + own.bottom) / 2 };
  const longer = Math.max(own.right - own.left, own.bottom - own.top);
  const fit = new Fit(flatten(room, 0.01), farthestFirst(closePoints(flatten(curves, CHORD * longer), STEP * longer), middle), middle);
  const best = largest(fit, box, longer);
  if (best === undefined) return undefined;
  return finishLetters(library, transformCurves(curves, followedBy(followedBy(translation(-middle.x, -middle.y), scaling(best.scale)), translation(best.x, best.y))), lettering);
}

/** Points along rings, no further apart than a step. */
function closePoints({ points, starts }: Rings, step: number): Float64Array {
  const close: number[] = [];
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
      const [x, y] = [points[2 * j], points[2 * j + 1]];
      const [dx, dy] = [points[2 * i] - x, points[2 * i + 1] - y];
      const count = Math.max(1, Math.ceil(Math.hypot(dx, dy) / step));
      for (let k = 0; k < count; k++) close.push(x + (dx * k) / count, y + (dy * k) / count);
    }
  }
  return Float64Array.from(close);
}

/** Points in the order in which they reach over an edge. */
function farthestFirst(points: Float64Array, { x, y }: { readonly x: number; readonly y: number }): Float64Array {
  const away = (k: number): number => Math.hypot(points[2 * k] - x, points[2 * k + 1] - y);
  const order = Array.from({ length: points.length / 2 }, (_, k) => k).sort((a, b) => away(b) - away(a));
  return Float64Array.from(order.flatMap((k) => [points[2 * k], points[2 * k + 1]]));
}

interface Placed {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

function largest(fit: Fit, { left, top, right, bottom }: Bounds, longer: number): Placed | undefined {
  const most = Math.hypot(right - left, bottom - top) / longer;
  let best: Placed | undefined;
  const tryAround = (x0: number, y0: number, across: number, down: number): void => {
    for (let row = 0; row <= PLACES; row++) {
      for (let column = 0; column <= PLACES; column++) {
        const [x, y] = [x0 + across * (column / PLACES - 0.5), y0 + down * (row / PLACES - 0.5)];
        best = better(fit, x, y, best, most, { x: (left + right) / 2, y: (top + bottom) / 2 });
      }
    }
  };
  tryAround((left + right) / 2, (top + bottom) / 2, right - left, bottom - top);
  for (let closer = 1, share = 2 / PLACES; closer <= CLOSER && best !== undefined; closer++, share *= 2 / PLACES) {
    tryAround(best.x, best.y, (right - left) * share, (bottom - top) * share);
  }
  return best;
}

/** What is larger at a place than the best by now, or as large and nearer to the middle. */
function better(fit: Fit, x: number, y: number, best: Placed | undefined, most: number, middle: { readonly x: number; readonly y: number }): Placed | undefined {
  const isNearer = best !== undefined && Math.hypot(x - middle.x, y - middle.y) < Math.hypot(best.x - middle.x, best.y - middle.y);
  const least = best === undefined ? most * NEARLY : best.scale * (isNearer ? 1 - NEARLY : 1 + NEARLY);
  if (!fit.fits(x, y, least)) return best;
  let [low, high] = [least, most];
  while (high - low > NEARLY * low) {
    const scale = (low + high) / 2;
    if (fit.fits(x, y, scale)) low = scale;
    else high = scale;
  }
  return { x, y, scale: low };
}

/** Whether letters lie inside of rings, by rows of crossings worked out once. */
class Fit {
  private readonly rows: Float64Array[] = [];
  private readonly top: number;
  private readonly perMm: number;

  /** @param text points of the letters, x and y by turns. */
  constructor(rings: Rings, private readonly text: Float64Array, private readonly middle: { readonly x: number; readonly y: number }) {
    const { points, starts } = rings;
    let [top, bottom] = [Infinity, -Infinity];
    for (let k = 1; k < points.length; k += 2) [top, bottom] = [Math.min(top, points[k]), Math.max(bottom, points[k])];
    this.top = top;
    this.perMm = ROWS / Math.max(1e-9, bottom - top);
    for (let row = 0; row < ROWS; row++) {
      const y = top + (row + 0.5) / this.perMm;
      const crossings: number[] = [];
      for (let ring = 0; ring + 1 < starts.length; ring++) {
        for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
          const [yi, yj] = [points[2 * i + 1], points[2 * j + 1]];
          if (yi > y !== yj > y) crossings.push(points[2 * i] + ((points[2 * j] - points[2 * i]) * (y - yi)) / (yj - yi));
        }
      }
      this.rows.push(Float64Array.from(crossings).sort());
    }
  }

  fits(x: number, y: number, scale: number): boolean {
    const { text, middle } = this;
    for (let k = 0; k < text.length; k += 2) if (!this.isInside(x + (text[k] - middle.x) * scale, y + (text[k + 1] - middle.y) * scale)) return false;
    return true;
  }

  /** Looks at the rows above and below a place, so that it is safe on both sides of a slope. */
  private isInside(x: number, y: number): boolean {
    const row = (y - this.top) * this.perMm - 0.5;
    const [above, below] = [Math.floor(row), Math.ceil(row)];
    return above >= 0 && below < ROWS && isBetween(this.rows[above], x) && isBetween(this.rows[below], x);
  }
}

/** Rows across the height of a shape. */
const ROWS = 600;

function isBetween(crossings: Float64Array, x: number): boolean {
  let count = 0;
  while (count < crossings.length && crossings[count] <= x) count++;
  return count % 2 === 1;
}
