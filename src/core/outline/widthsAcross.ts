import type { Rings } from '../geometry/rings.ts';

/** More samples than this are taken further apart. */
const MOST_SAMPLES = 300_000;
/** Two sides bound a strip when they run within about 30° of each other: cosine of the angle between the outward normals, at most this. */
const OPPOSED = -0.86;
/** The other side lies straight across: cosine between the normal and the way to it, at least this. */
const ACROSS = 0.8;
/** The way along the outline from one side of a strip to the other is at least so many least widths: less is the pointed or blunt end of something. */
const LEAST_WAY_AROUND = 6;
const CELL_SPAN = 0x10000;

/** Places along outlines, evenly apart, ring by ring. */
export interface EdgeSamples {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Unit normals into the film. */
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  /** First sample of each ring, and the count after the last. */
  readonly starts: Int32Array;
  readonly ring: Int32Array;
  readonly spacing: number;
}

/** @param wanted how far apart, in units of the coordinates. @param side which side of the outlines is film. */
export function edgeSamples({ points, starts }: Rings, wanted: number, side: 'inside' | 'outside' = 'inside'): EdgeSamples {
  const sign = side === 'inside' ? 1 : -1;
  let total = 0;
  for (let r = 0; r + 1 < starts.length; r++) for (let i = starts[r]; i < starts[r + 1]; i++) total += chord(points, i, next(starts, r, i));
  const spacing = Math.max(wanted, total / MOST_SAMPLES);
  const x: number[] = [];
  const y: number[] = [];
  const nx: number[] = [];
  const ny: number[] = [];
  const first = [0];
  for (let r = 0; r + 1 < starts.length; r++) {
    let carried = 0;
    for (let i = starts[r]; i < starts[r + 1]; i++) {
      const j = next(starts, r, i);
      const length = chord(points, i, j);
      const [dx, dy] = [(points[2 * j] - points[2 * i]) / length, (points[2 * j + 1] - points[2 * i + 1]) / length];
      let at = carried;
      for (; at < length; at += spacing) {
        x.push(points[2 * i] + dx * at);
        y.push(points[2 * i + 1] + dy * at);
        // Outer rings run clockwise on screen: film lies to their right.
        nx.push(-dy * sign);
        ny.push(dx * sign);
      }
      carried = at - length;
    }
    first.push(x.length);
  }
  const ring = new Int32Array(x.length);
  for (let r = 0; r + 1 < first.length; r++) ring.fill(r, first[r], first[r + 1]);
  return {
    ring,
    x: Float64Array.from(x),
    y: Float64Array.from(y),
    nx: Float64Array.from(nx),
    ny: Float64Array.from(ny),
    starts: Int32Array.from(first),
    spacing,
  };
}

const next = (starts: Int32Array, ring: number, i: number): number => (i + 1 === starts[ring + 1] ? starts[ring] : i + 1);
const chord = (points: Float64Array, i: number, j: number): number => Math.hypot(points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]);

/** For each sample the width of the film there and the sample on the other side, −1 where it is wider than `leastMm`. Pairs that face each other across film are looked for through a grid. */
export function widthsAcross({ x, y, nx, ny, ring, starts, spacing }: EdgeSamples, leastMm: number): { width: Float64Array; partner: Int32Array } {
  const cells = new Map<number, number[]>();
  const cellOf = (cx: number, cy: number): number => (cx + 4) * CELL_SPAN + cy + 4;
  for (let k = 0; k < x.length; k++) {
    const cell = cellOf(Math.floor(x[k] / leastMm), Math.floor(y[k] / leastMm));
    const list = cells.get(cell);
    if (list === undefined) cells.set(cell, [k]);
    else list.push(k);
  }
  const leastAround = (LEAST_WAY_AROUND * leastMm) / spacing;
  const isEnd = (k: number, q: number): boolean => {
    if (ring[k] !== ring[q]) return false;
    const way = Math.abs(k - q);
    return Math.min(way, starts[ring[k] + 1] - starts[ring[k]] - way) < leastAround;
  };
  const width = new Float64Array(x.length).fill(Infinity);
  const partner = new Int32Array(x.length).fill(-1);
  for (let k = 0; k < x.length; k++) {
    const cx = Math.floor(x[k] / leastMm);
    const cy = Math.floor(y[k] / leastMm);
    for (let gy = cy - 1; gy <= cy + 1; gy++) {
      for (let gx = cx - 1; gx <= cx + 1; gx++) {
        for (const q of cells.get(cellOf(gx, gy)) ?? []) {
          const vx = x[q] - x[k];
          const vy = y[q] - y[k];
          const distance = Math.hypot(vx, vy);
          if (
            distance >= leastMm ||
            distance >= width[k] ||
            nx[k] * nx[q] + ny[k] * ny[q] > OPPOSED ||
            vx * nx[k] + vy * ny[k] < ACROSS * distance ||
            isEnd(k, q)
          )
            continue;
          width[k] = distance;
          partner[k] = q;
        }
      }
    }
  }
  return { width, partner };
}
