import { randomFrom } from '../src/core/task/randomFrom.ts';

export type Point = readonly [number, number];

/** Parts to be nested, as polygons in mm, and the width of what they lie on. */
export interface NestSet {
  readonly name: string;
  readonly widthMm: number;
  readonly parts: readonly (readonly Point[])[];
}

export const areaOf = (polygon: readonly Point[]): number => Math.abs(polygon.reduce((sum, [x, y], k) => sum + x * polygon[(k + 1) % polygon.length][1] - polygon[(k + 1) % polygon.length][0] * y, 0)) / 2;

const repeated = (shapes: readonly (readonly Point[])[], times: number): (readonly Point[])[] => Array.from({ length: times }, () => shapes).flat();
const circle = (r: number, from = 0, to = 360, step = 10): Point[] => Array.from({ length: Math.round((to - from) / step) + (to - from === 360 ? 0 : 1) }, (_, k) => [r * Math.cos(((from + k * step) * Math.PI) / 180), r * Math.sin(((from + k * step) * Math.PI) / 180)]);

/** A rectangle cut by lines of chance into convex parts: they fill it again without a gap. */
function cutRectangle(seed: number, count: number, widthMm: number, lengthMm: number): Point[][] {
  const random = randomFrom(seed);
  const parts: Point[][] = [[[0, 0], [lengthMm, 0], [lengthMm, widthMm], [0, widthMm]]];
  while (parts.length < count) {
    parts.sort((a, b) => areaOf(b) - areaOf(a));
    const part = parts.shift() as Point[];
    const middle = [0, 1].map((axis) => part.reduce((sum, point) => sum + point[axis], 0) / part.length + (random() - 0.5) * 4);
    const angle = random() * 2 * Math.PI;
    for (const sign of [1, -1]) parts.push(half(part, middle, [sign * Math.cos(angle), sign * Math.sin(angle)]));
  }
  return parts;
}

function half(part: readonly Point[], middle: readonly number[], normal: readonly number[]): Point[] {
  const side = ([x, y]: Point): number => (x - middle[0]) * normal[0] + (y - middle[1]) * normal[1];
  return part.flatMap((a, k): Point[] => {
    const b = part[(k + 1) % part.length];
    const [p, q] = [side(a), side(b)];
    const t = p / (p - q);
    const cut: Point[] = p * q < 0 ? [[a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]] : [];
    return p >= 0 ? [a, ...cut] : cut;
  });
}

function stars(seed: number, kinds: number, count: number): Point[][] {
  const random = randomFrom(seed);
  const shapes = Array.from({ length: kinds }, () => {
    const [points, size] = [5 + Math.floor(random() * 8), 10 + random() * 15];
    return Array.from({ length: points }, (_, k): Point => {
      const r = size * (0.45 + 0.55 * random());
      return [r * Math.cos((2 * Math.PI * k) / points), r * Math.sin((2 * Math.PI * k) / points)];
    });
  });
  return Array.from({ length: count }, (_, k) => shapes[k % kinds]);
}

/** Parts of a jacket for a child's doll: fronts, backs, sleeves, collars, pockets, facings. */
const GARMENT: readonly (readonly Point[])[] = [
  [[0, 0], [60, 0], [66, 18], [84, 26], [120, 24], [120, 60], [0, 62]],
  [[0, 0], [60, 2], [66, 16], [86, 24], [120, 20], [120, 52], [0, 50]],
  [[0, 12], [20, 3], [40, 0], [62, 3], [82, 12], [70, 70], [14, 70]],
  [[0, 12], [20, 3], [40, 0], [62, 3], [82, 12], [70, 70], [14, 70]],
  [[0, 0], [58, 4], [58, 14], [0, 12]],
  [[0, 6], [10, 0], [60, 0], [70, 6], [64, 16], [6, 16]],
  [[0, 0], [24, 0], [24, 20], [12, 26], [0, 20]],
  [[0, 0], [110, 0], [110, 9], [0, 12]],
];
const LETTERS: readonly (readonly Point[])[] = [
  [[0, 0], [10, 0], [10, 30], [30, 30], [30, 40], [0, 40]],
  [[0, 0], [30, 0], [30, 8], [19, 8], [19, 36], [11, 36], [11, 8], [0, 8]],
  [[0, 0], [28, 0], [28, 8], [8, 8], [8, 24], [28, 24], [28, 32], [0, 32]],
  [[0, 0], [8, 0], [18, 24], [28, 0], [36, 0], [22, 36], [14, 36]],
];
const BOATS: readonly (readonly Point[])[] = [
  [[0, 0], [80, 0], [70, 16], [60, 22], [16, 22], [6, 14]],
  [[0, 60], [36, 60], [0, 0]],
  [[0, 0], [0, 48], [24, 48], [18, 22]],
  [[0, 0], [26, 7], [0, 14]],
  [...circle(12)],
];
const MOONS: readonly (readonly Point[])[] = [[...circle(20, -60, 240), ...circle(14, -60, 240).reverse().map(([x, y]): Point => [x + 6, y - 4])], circle(9, 0, 180), circle(15)];

export const NEST_SETS: readonly NestSet[] = [
  { name: 'garment, 24', widthMm: 200, parts: repeated(GARMENT, 3) },
  { name: 'garment, 56', widthMm: 300, parts: repeated(GARMENT, 7) },
  { name: 'letters, 28', widthMm: 150, parts: repeated(LETTERS, 7) },
  { name: 'letters, 60', widthMm: 250, parts: repeated(LETTERS, 15) },
  { name: 'boats, 30', widthMm: 200, parts: repeated(BOATS, 6) },
  { name: 'boats, 75', widthMm: 300, parts: repeated(BOATS, 15) },
  { name: 'moons, 30', widthMm: 200, parts: repeated(MOONS, 10) },
  { name: 'stars, 24', widthMm: 150, parts: stars(3, 8, 24) },
  { name: 'stars, 60', widthMm: 250, parts: stars(4, 10, 60) },
  { name: 'stars, 120', widthMm: 300, parts: stars(5, 12, 120) },
  { name: 'a rectangle cut in 12', widthMm: 100, parts: cutRectangle(1, 12, 100, 100) },
  { name: 'a rectangle cut in 24', widthMm: 100, parts: cutRectangle(2, 24, 100, 160) },
];
