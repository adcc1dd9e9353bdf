import { finish } from '../src/core/task/task.ts';
import { nodeCount } from '../src/core/outline/curves.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { separateArt } from '../src/core/run/separateArt.ts';
import type { Meet } from '../src/core/separate/separation.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { pathData } from '../src/core/outline/pathData.ts';
import { colourDrawings, colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { colourLibraries, type ColourLibrary, type ColourShape } from './colourLibraries.ts';
import { CONDITIONS, degraded, type Condition } from './degrade.ts';
import { compareTones, type ToneComparison } from './toneTruth.ts';

export const ours = (meet: Meet): ColourLibrary => ({
  name: `limner ${meet}`,
  async trace(picture, tones) {
    const separation = { way: 'flat', count: tones.length, meet } as const;
    const { films, tones: found } = finish(separateArt({ separation, films: newJob('').films, outline: { leastPieceMm2: 0 } }, artFromPicture(picture), DEFAULT_OUTLINE, () => 1));
    return {
      ground: found?.find(({ film }) => film === null)?.colour ?? tones[0],
      shapes: films.map(({ film, outline }): ColourShape => ({ fill: film.colour, path: pathData(outline), nodes: nodeCount(outline) })),
    };
  },
});

const RUNS = 3;

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

interface Row extends ToneComparison {
  readonly nodes: number;
  readonly ms: number;
}

const LESS = ['mean', 'p95', 'wrong', 'nodes', 'seams', 'ms'] as const;

async function measure(drawing: ColourDrawing, picture: Rgba8, tracers: readonly ColourLibrary[]): Promise<Map<string, Row>> {
  const tones = tonesOf(drawing);
  const rows = new Map<string, Row>();
  const times = new Map<string, number[]>(tracers.map(({ name }) => [name, []]));
  const results = new Map<string, Awaited<ReturnType<ColourLibrary['trace']>>>();
  for (let round = 0; round < RUNS; round++) {
    for (const { name, trace } of tracers) {
      const start = performance.now();
      results.set(name, await trace(picture, tones));
      times.get(name)?.push(performance.now() - start);
    }
  }
  for (const [name, { ground, shapes }] of results) {
    const compared = await compareTones(drawing, picture.width, ground, shapes);
    rows.set(name, { ...compared, nodes: shapes.reduce((sum, { nodes }) => sum + nodes, 0), ms: median(times.get(name) ?? [NaN]) });
  }
  return rows;
}

async function table(title: string, drawings: readonly ColourDrawing[], condition: Condition, tracers: readonly ColourLibrary[]): Promise<void> {
  const all = new Map<string, Row[]>();
  for (const drawing of drawings) {
    const picture = await degraded((pixels) => colourSvgOf(drawing, pixels, condition === 'steps'), condition);
    for (const [name, row] of await measure(drawing, picture, tracers)) all.set(name, [...(all.get(name) ?? []), row]);
  }
  const medians = new Map([...all].map(([name, rows]) => [name, Object.fromEntries(LESS.map((key) => [key, median(rows.map((row) => row[key]))])) as unknown as Row]));
  console.log(`\n### ${title}, ${condition}\n\n| | edge error px | 95 % px | wrong % | nodes | seams % | ms |\n|---|---|---|---|---|---|---|`);
  for (const [name, row] of medians) console.log(`| ${name} | ${row.mean.toFixed(3)} | ${row.p95.toFixed(3)} | ${(row.wrong * 100).toFixed(3)} | ${row.nodes} | ${(row.seams * 100).toFixed(2)} | ${row.ms.toFixed(1)} |`);
  const mine = medians.get('limner stacked');
  const layers = medians.get('layers');
  if (mine === undefined || layers === undefined) return;
  const others = [...medians].filter(([name]) => !name.startsWith('limner')).map(([, row]) => row);
  const ratio = (key: (typeof LESS)[number]): string => (mine[key] / Math.min(...others.map((row) => row[key]))).toFixed(2);
  console.log(`| **ratio to the best** | ${ratio('mean')} | ${ratio('p95')} | ${ratio('wrong')} | ${ratio('nodes')} | | ${(mine.ms / layers.ms).toFixed(2)} of layers |`);
}

/** How many drawings put together by chance are measured. */
const COMPOSED = 12;

async function tables(title: string, drawings: readonly ColourDrawing[]): Promise<void> {
  const tracers = [ours('stacked'), ours('inset'), ...(await colourLibraries())];
  for (const condition of [...CONDITIONS, 'steps'] as const) await table(title, drawings, condition, tracers);
}

/** Fidelity, nodes, seams and time of outlines in colour beside general-purpose libraries. */
export async function benchColourOutline(): Promise<void> {
  const drawings = colourDrawings();
  await tables('3 to 4 colours', drawings.filter((drawing) => tonesOf(drawing).length <= 4));
  await tables('5 to 9 colours', drawings.filter((drawing) => tonesOf(drawing).length > 4));
}

/** The same on crowded drawings, put together by chance, with small lettering, hatching and dots: every other one in 3 to 4 tones, the rest in 5 to 8. */
export async function benchComposed(): Promise<void> {
  const drawings = Array.from({ length: COMPOSED }, (_, k) => composedDrawing(40 + k, k % 2 === 0 ? 3 + ((k >> 1) % 2) : 5 + ((k >> 1) % 4)));
  await tables('crowded, 3 to 4 colours', drawings.filter((_, k) => k % 2 === 0));
  await tables('crowded, 5 to 8 colours', drawings.filter((_, k) => k % 2 === 1));
}
