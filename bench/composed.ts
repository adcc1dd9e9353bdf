import type { ColourDrawing } from './colourDrawings.ts';
import { outlined } from './colourDrawings.ts';
import { blob, ellipse, leaf, lettering, polygon, randomFrom, roundedBar, star, wave } from './drawings.ts';

const SIZE = 512;
const INK = '#1c1b22';
const COLOURS = ['#b3262e', '#24509a', '#9cc9e6', '#f2b632', '#3c7a4b', '#e3cfa4', '#8a8d92', '#dd8a9c', '#7a4a2b', '#e87a2c', '#6b3f7f', '#bcd35f'];
const WORDS = ['Row', 'Oar 8', 'Duck', 'Buoy', 'Regatta', 'Cox', 'Lock 46', 'Tea'];

type Shape = readonly [fill: string, path: string];
type Random = () => number;

/**
 * A drawing put together by chance from the seed: areas with and without lines around them, shading inside them, lettering, rays, hatching, dots and
 * rings, over each other, in `tones` tones with the ground. Every seed is another picture; none was looked at while the outlines were worked on.
 */
export function composedDrawing(seed: number, tones: number): ColourDrawing {
  const r = randomFrom(seed * 7919 + tones);
  const palette = [...COLOURS].sort(() => r() - 0.5);
  const inked = r() < 0.6;
  const ground = r() < 0.7 ? '#ffffff' : (palette.pop() ?? '#ffffff');
  const fills = palette.slice(0, tones - 1 - (inked ? 1 : 0));
  const pick = (): string => fills[Math.floor(r() * fills.length)];
  const shapes: Shape[] = [];
  const count = 5 + Math.floor(r() * 5);
  for (let k = 0; k < count; k++) shapes.push(...motif(r, k < fills.length ? fills[k] : pick(), pick(), inked ? INK : undefined));
  // Every tone is seen at least once.
  fills.forEach((fill, k) => shapes.push([fill, ellipse(30 + 40 * k + r(), 484 + r(), 11, 11)]));
  if (inked) shapes.push([INK, roundedBar(256, 506, 480, 4, 1.5, 0.2)]);
  return { name: `composed ${seed}`, size: SIZE, ground, shapes: shapes.map(([fill, path]) => ({ fill, path })) };
}

function motif(r: Random, fill: string, other: string, ink: string | undefined): Shape[] {
  const between = (a: number, b: number): number => a + (b - a) * r();
  const [x, y, s] = [between(80, 432), between(80, 410), between(45, 130)];
  const body = (path: string): Shape[] => [...(ink === undefined ? [] : [[ink, outlined(path, between(3, 12))] as const]), [fill, path]];
  const kinds: readonly (() => Shape[])[] = [
    () => [...body(blob(r, x, y, s, 5 + Math.floor(r() * 6), 0.25)), [other, blob(r, x - s * 0.2, y - s * 0.2, s * 0.45, 6, 0.2)]],
    () => [...body(ellipse(x, y, s, s * between(0.5, 1), between(0, 180))), [other, ellipse(x + s * 0.2, y, s * 0.25, s * 0.25)], [ink ?? fill, ellipse(x + s * 0.2, y, s * 0.1, s * 0.1)]],
    () => body(star(x, y, s, s * between(0.35, 0.7), 4 + Math.floor(r() * 7), r() * 6)),
    () => body(roundedBar(x, y, s * 2, s * between(0.3, 1), s * 0.12, between(-60, 60))),
    () => body(polygon(Array.from({ length: 3 + Math.floor(r() * 4) }, (_, k, n = 6) => [x + s * Math.cos((2 * Math.PI * k) / n + r() * 0.6), y + s * Math.sin((2 * Math.PI * k) / n + r() * 0.6)] as const))),
    () => [[ink ?? fill, lettering(WORDS[Math.floor(r() * WORDS.length)], Math.min(x - 70, 250), y, between(34, 90))]],
    () => Array.from({ length: 7 }, (_, k): Shape => [k % 2 === 0 ? fill : other, polygon([[x, y], [x + 1.3 * s * Math.cos(k * 0.9), y + 1.3 * s * Math.sin(k * 0.9)], [x + 1.3 * s * Math.cos(k * 0.9 + 0.45), y + 1.3 * s * Math.sin(k * 0.9 + 0.45)]])]),
    () => Array.from({ length: 6 }, (_, k): Shape => [ink ?? other, roundedBar(x, y + (k - 3) * 12, s * 1.4, 1.6 + k * 0.6, 0.8, between(-3, 3) + 20)]),
    () => Array.from({ length: 16 }, (_, k): Shape => [other, ellipse(x + ((k % 4) - 2) * 17, y + ((k >> 2) - 2) * 17, 2 + (k % 5), 2 + (k % 5))]),
    () => [[fill, `${ellipse(x, y, s, s)}${ellipse(x, y, s * 0.8, s * 0.8)}`], [other, `${ellipse(x, y, s * 0.6, s * 0.6)}${ellipse(x, y, s * 0.55, s * 0.55)}`]],
    () => [[fill, leaf(x - s, y - s * 0.4, x + s, y + s * 0.6, between(0.6, 1.6))], [other, leaf(x - s * 0.8, y, x + s * 0.6, y + s * 0.9, between(0.7, 2))]],
    () => [[fill, wave(y, between(4, 16), between(8, 26), 5 + Math.floor(r() * 6))]],
  ];
  return kinds[Math.floor(r() * kinds.length)]();
}
