import { artFromPicture } from '../src/core/raster/art.ts';
import { colourSvgOf, outlined as lined, type ColourDrawing } from './colourDrawings.ts';
import { CONDITIONS, degraded, type Condition } from './degrade.ts';
import { blob, ellipse, leaf, lettering, polygon, randomFrom, roundedBar, star } from './drawings.ts';
import { outlined } from './outlined.ts';
import { compareEdges, strayPx2, truthOf } from './toneTruth.ts';

const SIZE = 512;
const DRAWINGS = 10;
/** The third tone lies elsewhere in the drawing, and on the straight way between the two that meet everywhere. */
export const PAIRS: readonly (readonly [ink: string, light: string, between: string])[] = [
  ['#1c1b22', '#f08fb0', '#a1506f'],
  ['#1c1b22', '#ffffff', '#8a8d92'],
  ['#24304f', '#f2d58a', '#8b836c'],
  ['#5a1f24', '#f6c9c2', '#b37a78'],
  ['#123f2c', '#bfe3c4', '#5f9076'],
];
/** The same areas in a tone that is no mixture of the two. */
const APART = '#2f6fd0';
/** What lies so far from where the third tone is drawn is a sliver of it, px. */
const STRAY_PX = 1;
const HIT_PX = 0.6;

/** Lined areas of one tone, lined areas of the third, lettering, and a few areas of the third in the first. */
export function drawing(seed: number, third: string): ColourDrawing {
  const [ink, light] = PAIRS[seed % PAIRS.length];
  const r = randomFrom(4200 + seed);
  const between = (a: number, b: number): number => a + (b - a) * r();
  const shapes: [string, string][] = [];
  for (let k = 0; k < 6; k++) {
    const [x, y, s] = [between(90, 420), between(80, 380), between(40, 90)];
    const paths = [blob(r, x, y, s, 6, 0.25), ellipse(x, y, s, s * 0.7, between(0, 180)), star(x, y, s, s * 0.55, 5, r() * 6), roundedBar(x, y, s * 2, s * 0.8, 9, between(-60, 60)), leaf(x - s, y, x + s, y + s * 0.5, 1.2), polygon([[x - s, y - s * 0.6], [x + s, y - s * 0.2], [x + s * 0.3, y + s]])];
    const path = paths[Math.floor(r() * paths.length)];
    shapes.push([ink, lined(path, between(4, 10))], [k % 3 === 2 ? third : light, path]);
    if (k % 3 === 0) shapes.push([third, ellipse(x + s * 0.1, y + s * 0.05, s * 0.4, s * 0.25, between(0, 90))]);
  }
  shapes.push([ink, lettering('Regatta', 60.3, 470.2, 84)], [third, roundedBar(256, 496, 420, 14, 3, 0.5)]);
  return { name: `between ${seed}`, size: SIZE, ground: light, shapes: shapes.map(([fill, path]) => ({ fill, path })) };
}

interface Figures {
  readonly within: number;
  readonly nodes: number;
  readonly stray: number;
}

async function traced(drawn: ColourDrawing, third: string, condition: Condition): Promise<Figures> {
  const pixels = condition === 'small' ? 256 : 512;
  const picture = await degraded((side) => colourSvgOf(drawn, side, false), condition);
  const [ink, light] = PAIRS[Number(drawn.name.split(' ')[1]) % PAIRS.length];
  const { ground, shapes, nodes } = outlined(artFromPicture(picture), [light, ink, third]);
  const truth = await truthOf(drawn, pixels);
  const { within } = await compareEdges(truth, ground, shapes, undefined, HIT_PX);
  return { within, nodes, stray: await strayPx2(truth, ground, shapes, third, STRAY_PX) };
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** A third tone that looks like the mixture of the two that meet along every line: it must not come up along them. */
export async function benchBetween(): Promise<void> {
  console.log(`\n### A tone on the line between two neighbours\n\n| | edge within ${HIT_PX} px % (least) | with a tone apart | nodes × (most) | slivers px² (most) | with a tone apart |\n|---|---|---|---|---|---|`);
  for (const condition of CONDITIONS) {
    const rows: { mixed: Figures; apart: Figures }[] = [];
    for (let seed = 0; seed < DRAWINGS; seed++) {
      const third = PAIRS[seed % PAIRS.length][2];
      const row = { mixed: await traced(drawing(seed, third), third, condition), apart: await traced(drawing(seed, APART), APART, condition) };
      rows.push(row);
      if (process.env['BETWEEN_VERBOSE'] !== undefined) console.log(`    ${seed} ${JSON.stringify(row)}`);
    }
    const of = (kind: 'mixed' | 'apart', key: keyof Figures): number[] => rows.map((row) => row[kind][key]);
    const percent = (values: readonly number[]): string => `${(100 * median(values)).toFixed(2)} (${(100 * Math.min(...values)).toFixed(2)})`;
    const ratios = rows.map(({ mixed, apart }) => mixed.nodes / apart.nodes);
    const px2 = (values: readonly number[]): string => `${median(values).toFixed(1)} (${Math.max(...values).toFixed(1)})`;
    console.log(`| ${condition} | ${percent(of('mixed', 'within'))} | ${percent(of('apart', 'within'))} | ${median(ratios).toFixed(2)} (${Math.max(...ratios).toFixed(2)}) | ${px2(of('mixed', 'stray'))} | ${px2(of('apart', 'stray'))} |`);
  }
}
