import { scaleLinear, scaleSqrt } from 'd3-scale';
import { area } from 'd3-shape';

/**
 * The outline of a histogram of 256 counts, as an SVG path that fills a box. Heights go by square roots: paper outnumbers everything, and the small peaks are
 * what one looks for.
 */
export function histogramShape(histogram: Float64Array, width: number, height: number): string {
  const values = Array.from(histogram);
  const x = scaleLinear([0, 255], [0, width]);
  const y = scaleSqrt([0, Math.max(1, ...values)], [height, 4]);
  return area<number>().x((_, i) => x(i)).y0(height).y1((v) => y(v))(values) ?? '';
}
