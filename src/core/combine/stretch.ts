import type { CurvesBuilder } from '../outline/curves.ts';
import type { Segments } from './chordMap.ts';

/** A stretch of a segment, backwards where `from` is the larger; of none where an edge follows no curve. */
export interface Stretch {
  readonly segment: number;
  from: number;
  to: number;
  /** Where it starts, mm. */
  x: number;
  y: number;
}

/**
 * Draws a stretch of a segment from where it starts to `end`. A whole segment keeps its handles to the last digit; of a part they follow from its blossom (L. Ramshaw, "Blossoms are polar forms",
 * CAGD 6, 1989, doi:10.1016/0167-8396(89)90032-0), moved with its ends by what rounding has left.
 */
export function drawStretch(builder: CurvesBuilder, segments: Segments, { segment, from, to, x, y }: Stretch, end: { readonly x: number; readonly y: number }): void {
  if (segment < 0 || segments.isCubic[segment] === 0) {
    builder.line(end.x, end.y);
    return;
  }
  const { coords, at } = segments;
  const i = at[segment];
  const blossom = (k: number, r: number, s: number, t: number): number => {
    const mix = (a: number, b: number, u: number): number => a + (b - a) * u;
    const ab = mix(coords[k], coords[k + 2], r);
    const bc = mix(coords[k + 2], coords[k + 4], r);
    const cd = mix(coords[k + 4], coords[k + 6], r);
    return mix(mix(ab, bc, s), mix(bc, cd, s), t);
  };
  const point = (r: number, s: number, t: number): [number, number] => [blossom(i, r, s, t), blossom(i + 1, r, s, t)];
  const [sx, sy] = point(from, from, from);
  const [ex, ey] = point(to, to, to);
  const [x1, y1] = point(from, from, to);
  const [x2, y2] = point(from, to, to);
  builder.cubic(x1 + (x - sx), y1 + (y - sy), x2 + (end.x - ex), y2 + (end.y - ey), end.x, end.y);
}
