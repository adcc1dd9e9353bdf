import { randomFrom } from '../src/core/task/randomFrom.ts';
import { openSync, type Font } from 'fontkit';
import { createRequire } from 'node:module';

export { randomFrom };

/** A drawing with its exact outlines: an SVG path for each tone on a white ground, in a 512 × 512 box. */
export interface Drawing {
  readonly name: string;
  readonly size: number;
  /** Path data of the one ink, even-odd. */
  readonly path: string;
}

const SIZE = 512;
type Point = readonly [number, number];

export const polygon = (points: readonly Point[]): string => `M${points.map(([x, y]) => `${x} ${y}`).join('L')}Z`;

export function star(cx: number, cy: number, outer: number, inner: number, arms: number, turn: number): string {
  return polygon(
    Array.from({ length: arms * 2 }, (_, k): Point => {
      const radius = k % 2 === 0 ? outer : inner;
      const angle = turn + (Math.PI * k) / arms;
      return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
    }),
  );
}

export function ellipse(cx: number, cy: number, rx: number, ry: number, turnDeg = 0): string {
  const a = (turnDeg * Math.PI) / 180;
  const dx = rx * Math.cos(a);
  const dy = rx * Math.sin(a);
  return `M${cx - dx} ${cy - dy}A${rx} ${ry} ${turnDeg} 1 1 ${cx + dx} ${cy + dy}A${rx} ${ry} ${turnDeg} 1 1 ${cx - dx} ${cy - dy}Z`;
}

/** A smooth closed blob: a Catmull-Rom ring through points on an uneven circle, as cubics. */
export function blob(random: () => number, cx: number, cy: number, radius: number, knots: number, unevenness: number): string {
  const p = Array.from({ length: knots }, (_, k): Point => {
    const angle = (2 * Math.PI * k) / knots;
    const r = radius * (1 + unevenness * (random() - 0.5) * 2);
    return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
  });
  const at = (k: number): Point => p[(k + knots) % knots];
  let d = `M${p[0][0]} ${p[0][1]}`;
  for (let k = 0; k < knots; k++) {
    const [a, b, c, e] = [at(k - 1), at(k), at(k + 1), at(k + 2)];
    d += `C${b[0] + (c[0] - a[0]) / 6} ${b[1] + (c[1] - a[1]) / 6} ${c[0] - (e[0] - b[0]) / 6} ${c[1] - (e[1] - b[1]) / 6} ${c[0]} ${c[1]}`;
  }
  return `${d}Z`;
}

export function roundedBar(cx: number, cy: number, length: number, width: number, round: number, turnDeg: number): string {
  const a = (turnDeg * Math.PI) / 180;
  const to = (x: number, y: number): string => `${cx + x * Math.cos(a) - y * Math.sin(a)} ${cy + x * Math.sin(a) + y * Math.cos(a)}`;
  const [l, w, r] = [length / 2, width / 2, round];
  const arc = (x: number, y: number): string => `A${r} ${r} 0 0 1 ${to(x, y)}`;
  return `M${to(-l + r, -w)}L${to(l - r, -w)}${arc(l, -w + r)}L${to(l, w - r)}${arc(l - r, w)}L${to(-l + r, w)}${arc(-l, w - r)}L${to(-l, -w + r)}${arc(-l + r, -w)}Z`;
}

/** A leaf or sail: two arcs that meet in two sharp tips. */
export const leaf = (x0: number, y0: number, x1: number, y1: number, bulge: number): string => {
  const radius = Math.hypot(x1 - x0, y1 - y0) * bulge;
  return `M${x0} ${y0}A${radius} ${radius} 0 0 1 ${x1} ${y1}A${radius} ${radius} 0 0 1 ${x0} ${y0}Z`;
};

let font: Font | undefined;
export function lettering(text: string, x: number, y: number, size: number): string {
  font ??= openSync(createRequire(import.meta.url).resolve('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-700-normal.woff2'));
  const scale = size / font.unitsPerEm;
  const run = font.layout(text);
  let pen = x;
  let d = '';
  run.glyphs.forEach((glyph, k) => {
    for (const { command, args } of glyph.path.commands) {
      const placed = args.map((v, i) => (i % 2 === 0 ? pen + v * scale : y - v * scale).toFixed(4));
      d += { moveTo: 'M', lineTo: 'L', quadraticCurveTo: 'Q', bezierCurveTo: 'C', closePath: 'Z' }[command] + placed.join(' ');
    }
    pen += run.positions[k].xAdvance * scale;
  });
  return d;
}

/** Wavy band of even width, like water under a boat. */
export function wave(y: number, height: number, swing: number, count: number): string {
  const step = 440 / count;
  let d = `M36 ${y}`;
  for (let k = 0; k < count; k++) d += `q${step / 2} ${k % 2 === 0 ? -swing : swing} ${step} 0`;
  d += `l0 ${height}`;
  for (let k = count - 1; k >= 0; k--) d += `q${-step / 2} ${k % 2 === 0 ? -swing : swing} ${-step} 0`;
  return `${d}Z`;
}

/** The drawings of the bench: what a regatta workshop gets sent, each with other shapes, corners and widths. */
export function oneColourDrawings(): Drawing[] {
  const made: Drawing[] = [];
  const add = (name: string, ...parts: string[]): void => void made.push({ name, size: SIZE, path: parts.join('') });
  const r = randomFrom(20);
  add('sun and stars', ellipse(160.3, 150.7, 70, 70), star(350.2, 160.1, 90, 40, 5, -1.57), star(170, 370, 80, 55, 12, 0.2), star(370, 370, 90, 25, 4, 0.4));
  add('lettering large', lettering('Regatta', 14.4, 210.3, 128), lettering('RB 8&6', 22.1, 400.2, 148));
  add('lettering small', lettering('Village boat regatta', 20.2, 120, 46), lettering('and duck race, row 46', 20.3, 220.4, 42), lettering('Rope, oars and tea', 20.3, 320.4, 38), lettering('ABCDEFGHJKLNOPR', 20, 420, 44));
  add('blobs', blob(r, 140, 140, 90, 7, 0.25), blob(r, 370, 150, 100, 9, 0.3), blob(r, 150, 370, 100, 6, 0.15), blob(r, 380, 380, 90, 12, 0.3));
  add('bars', ...Array.from({ length: 8 }, (_, k) => roundedBar(256 + 120 * Math.cos(k * 0.8), 256 + 150 * Math.sin(k * 0.8), 130, 22 + k * 3, 4 + k, k * 23 + 4)));
  add('leaves', ...Array.from({ length: 6 }, (_, k) => leaf(60 + k * 78, 40 + 10 * k, 75 + k * 72, 470 - 12 * k, 1.4 + 0.25 * k)));
  add('water', wave(80, 30, 40, 6), wave(170, 18, 30, 8), wave(250, 10, 26, 9), wave(320, 44, 50, 5), wave(430, 6, 16, 12));
  add('rings', ...[200, 170, 140, 120, 95, 60, 30, 22].map((radius) => ellipse(256.4, 255.7, radius, radius)));
  add('ovals', ...Array.from({ length: 9 }, (_, k) => ellipse(95 + (k % 3) * 160, 95 + Math.floor(k / 3) * 160, 64 - 4 * k, 20 + 4 * k, k * 19)));
  add('hull', 'M60 300L460 300C440 380 400 420 340 430L180 430C120 420 80 380 60 300ZM250 60L250 280L90 280C150 220 210 150 250 60ZM266 90L266 280L420 280C390 210 330 140 266 90Z');
  add('heron', 'M210 470L222 330C150 300 130 220 180 170C215 135 250 130 262 95C270 66 300 52 326 66L420 88L330 98C322 130 310 150 300 190C292 250 285 300 246 332L240 470Z', ellipse(303, 80, 6, 6));
  add('thin lines', ...Array.from({ length: 9 }, (_, k) => roundedBar(256, 50 + k * 50, 420, 2.2 + k * 0.9, 1 + k * 0.4, k * 2.7 - 9)));
  return made;
}

export const svgOf = (drawing: Drawing, pixels: number): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels}" height="${pixels}" viewBox="0 0 ${drawing.size} ${drawing.size}"><rect width="100%" height="100%" fill="#fff"/><path fill="#16161c" fill-rule="evenodd" d="${drawing.path}"/></svg>`;
