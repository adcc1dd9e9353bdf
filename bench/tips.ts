import { artFromPicture } from '../src/core/raster/art.ts';
import { colourSvgOf, type ColourDrawing } from './colourDrawings.ts';
import { CONDITIONS, degraded, type Condition } from './degrade.ts';
import { ellipse, leaf, polygon, randomFrom, star } from './drawings.ts';
import { outlined } from './outlined.ts';
import { compareEdges, strayPx2, truthOf } from './toneTruth.ts';

const SIZE = 512;
const DRAWINGS = 10;
/** Small light shapes on dark ones, a paler tone around them, and one on the way between light and dark. */
const TONES: readonly (readonly [dark: string, light: string, paler: string, between: string])[] = [
  ['#1d3f5e', '#f2e3b8', '#ffffff', '#3f8f86'],
  ['#24304f', '#f2d58a', '#fdfaf0', '#8b836c'],
  ['#123f2c', '#f4c7b0', '#ffffff', '#5f9076'],
  ['#5a1f24', '#e8d36a', '#fbf6ea', '#b37a78'],
  ['#1c1b22', '#f2b632', '#ffffff', '#7a6a3a'],
];
/** What lies so far from where a tone is drawn is a stray of it, px. */
const STRAY_PX = 1;
/** Edges of pointed shapes are compared to within this, px. */
const HIT_PX = 0.6;

/** A dark board with small stars, pennants and leaves of one light tone on it, and a broad area of the tone between. */
export function drawing(seed: number): ColourDrawing {
  const [dark, light, paler, between] = TONES[seed % TONES.length];
  const r = randomFrom(8300 + seed);
  const from = (a: number, b: number): number => a + (b - a) * r();
  const shapes: [string, string][] = [
    [dark, ellipse(256, 256, 236, 220)],
    [between, ellipse(from(230, 280), from(230, 280), 70, 60, from(0, 90))],
    [light, ellipse(from(240, 270), from(240, 270), 34, 28, from(0, 90))],
  ];
  for (let k = 0; k < 22; k++) {
    const [turn, s] = [(Math.PI * k) / 11, from(8, 17)];
    const away = k % 2 === 0 ? 190 : 130;
    const [x, y] = [256 + 1.06 * away * Math.cos(turn), 256 + 0.96 * away * Math.sin(turn)];
    const a = from(0, 2 * Math.PI);
    const [u, v] = [Math.cos(a), Math.sin(a)];
    const pennant = polygon([[x + s * u, y + s * v], [x - s * u - 0.6 * s * v, y - s * v + 0.6 * s * u], [x - s * u + 0.6 * s * v, y - s * v - 0.6 * s * u]]);
    shapes.push([light, k % 3 === 0 ? pennant : k % 3 === 1 ? star(x, y, s, s * from(0.36, 0.5), 4 + Math.floor(from(0, 3)), a) : leaf(x - s * u, y - s * v, x + s * u, y + s * v, 0.4)]);
  }
  return { name: `tips ${seed}`, size: SIZE, ground: paler, shapes: shapes.map(([fill, path]) => ({ fill, path })) };
}

interface Figures {
  readonly within: number;
  readonly nodes: number;
  readonly strayPx2: number;
}

async function traced(seed: number, condition: Condition): Promise<Figures> {
  const drawn = drawing(seed);
  const [dark, light, paler, between] = TONES[seed % TONES.length];
  const { ground, shapes, nodes } = outlined(artFromPicture(await degraded((side) => colourSvgOf(drawn, side, false), condition)), [paler, dark, light, between]);
  const truth = await truthOf(drawn, condition === 'small' ? 256 : SIZE);
  const { within } = await compareEdges(truth, ground, shapes, undefined, HIT_PX);
  const strays = [paler, between].map((tone) => strayPx2(truth, ground, shapes, tone, STRAY_PX));
  return { within, nodes, strayPx2: (await Promise.all(strays)).reduce((sum, px2) => sum + px2, 0) };
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Small pointed shapes on a darker tone: their tips must not take a paler tone, which may be the ground and be left out, nor one between the two. */
export async function benchTips(): Promise<void> {
  console.log(`\n### Small pointed shapes, a paler tone around and one between\n\n| | edge within ${HIT_PX} px % (least) | nodes | strays of the paler tone and the one between, px² (most) |\n|---|---|---|---|`);
  for (const condition of CONDITIONS) {
    const rows: Figures[] = [];
    for (let seed = 0; seed < DRAWINGS; seed++) {
      rows.push(await traced(seed, condition));
      if (process.env['TIPS_VERBOSE'] !== undefined) console.log(`    ${seed} ${JSON.stringify(rows[seed])}`);
    }
    const [within, nodes, strays] = [rows.map((row) => row.within), rows.map((row) => row.nodes), rows.map((row) => row.strayPx2)];
    console.log(`| ${condition} | ${(100 * median(within)).toFixed(2)} (${(100 * Math.min(...within)).toFixed(2)}) | ${median(nodes)} | ${median(strays).toFixed(2)} (${Math.max(...strays).toFixed(2)}) |`);
  }
}
