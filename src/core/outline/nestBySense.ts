import { boxOfPoints, CurvesBuilder, ringArea, type Bounds, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';
import { RingRows } from './ringRows.ts';

/** Chords for telling what lies in what, in units of the coordinates. */
const CHORD = 0.02;
/** So many points of a ring are looked at: where two rings touch, single points may lie on either side. */
const LOOKED_AT = 25;

/**
 * Nests rings whose direction says already what they are: outlines clockwise on screen, holes the other way. Each lies in the smallest ring of the other kind that holds most of it; a hole in none is no hole
 * and left out. Rings come out parents first.
 */
export function nestBySense(curves: Curves): Curves {
  const rings = flatten(curves, CHORD);
  const { points, starts } = rings;
  const area = Array.from(curves.parent, (_, ring) => ringArea(curves, ring));
  const boxes = Array.from(curves.parent, (_, ring) => boxOfPoints(points, starts[ring], starts[ring + 1]));
  const bySize = Array.from(area.keys()).sort((a, b) => Math.abs(area[b]) - Math.abs(area[a]));
  const builder = new CurvesBuilder();
  const place = new Map<number, number>();
  const larger = new BoxGrid(boxes);
  const rows = new Map<number, RingRows>();
  for (const ring of bySize) {
    const around = larger.lastAt(boxes[ring], (other) => area[other] > 0 !== area[ring] > 0 && holds(boxes[other], boxes[ring]) && holdsMost(ring, other));
    if (around === undefined && area[ring] < 0) continue;
    place.set(ring, place.size);
    larger.add(ring);
    builder.copy(curves, ring, around === undefined ? -1 : (place.get(around) as number));
  }
  return builder.build();

  function rowsOf(ring: number): RingRows {
    let made = rows.get(ring);
    if (made === undefined) rows.set(ring, (made = new RingRows(rings, ring)));
    return made;
  }

  function holdsMost(ring: number, other: number): boolean {
    const count = starts[ring + 1] - starts[ring];
    const step = Math.max(1, Math.floor(count / LOOKED_AT));
    let inside = 0;
    let seen = 0;
    for (let k = starts[ring]; k < starts[ring + 1]; k += step, seen++) if (rowsOf(other).holds(points[2 * k], points[2 * k + 1])) inside++;
    return 2 * inside > seen;
  }
}

/** Rings by the cells that their boxes cover, so that those around a place are found without looking at all. */
class BoxGrid {
  private readonly cells = new Map<number, number[]>();
  private readonly side: number;
  private readonly left: number;
  private readonly top: number;
  private readonly width: number;
  private readonly height: number;

  constructor(private readonly boxes: readonly Bounds[]) {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const box of boxes) {
      left = Math.min(left, box.left);
      top = Math.min(top, box.top);
      right = Math.max(right, box.right);
      bottom = Math.max(bottom, box.bottom);
    }
    // About as many cells as rings.
    this.side = Math.max(1, Math.ceil(Math.sqrt(boxes.length)));
    [this.left, this.top] = [left, top];
    [this.width, this.height] = [(right - left) / this.side || 1, (bottom - top) / this.side || 1];
  }

  add(ring: number): void {
    const { left, top, right, bottom } = this.boxes[ring];
    for (let row = this.row(top - CHORD); row <= this.row(bottom + CHORD); row++) {
      for (let column = this.column(left - CHORD); column <= this.column(right + CHORD); column++) {
        const cell = row * this.side + column;
        const list = this.cells.get(cell);
        if (list === undefined) this.cells.set(cell, [ring]);
        else list.push(ring);
      }
    }
  }

  /** The ring that was added last of those around a box's upper left for which something holds. */
  lastAt({ left, top }: Bounds, is: (ring: number) => boolean): number | undefined {
    const list = this.cells.get(this.row(top) * this.side + this.column(left)) ?? [];
    for (let k = list.length - 1; k >= 0; k--) if (is(list[k])) return list[k];
    return undefined;
  }

  private row(y: number): number {
    return Math.max(0, Math.min(this.side - 1, Math.floor((y - this.top) / this.height)));
  }

  private column(x: number): number {
    return Math.max(0, Math.min(this.side - 1, Math.floor((x - this.left) / this.width)));
  }
}

/** Whether a box holds another, but for what chords cut off. */
const holds = (a: Bounds, b: Bounds): boolean => a.left <= b.left + CHORD && a.top <= b.top + CHORD && a.right >= b.right - CHORD && a.bottom >= b.bottom - CHORD;
