import sharp from 'sharp';
import { artFromPicture } from '../src/core/raster/art.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { oneTone } from '../src/core/separate/oneTone.ts';
import { outlineOf } from '../src/core/outline/traceOutline.ts';
import { pathData } from '../src/core/outline/pathData.ts';
import { CONDITIONS, pictureOf, type Condition } from './degrade.ts';
import { oneColourDrawings, svgOf, type Drawing } from './drawings.ts';
import { libraries, type Library, type Traced } from './libraries.ts';
import { nodesOf } from './pathNodes.ts';
import { chordsOf, edgeError, joined } from './truth.ts';

const ours: Library = {
  name: 'limner',
  async trace(picture) {
    const tone = oneTone(artFromPicture(picture), { source: 'threshold', threshold: 'auto', inkIs: 'auto' });
    return { paths: [pathData(outlineOf(tone.share))], scaleX: 1, scaleY: 1, offsetX: 0, offsetY: 0 };
  },
};

interface Row {
  readonly mean: number;
  readonly p95: number;
  readonly wrong: number;
  readonly nodes: number;
  readonly ms: number;
}

/** Runs timed for each picture; the middle one counts. Library and ours take turns, so that both see the same noise of the machine. */
const RUNS = 5;

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Share of the picture's pixels, drawn at twice the size, that are ink in one and ground in the other. */
async function wrongShare(drawing: Drawing, traced: Traced, pixels: number): Promise<number> {
  const size = pixels * 2;
  const mask = async (svg: string): Promise<Buffer> => sharp(Buffer.from(svg), { density: 72 }).resize(size, size).flatten({ background: '#fff' }).greyscale().raw().toBuffer();
  const made = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 ${pixels} ${pixels}"><g transform="translate(${traced.offsetX} ${traced.offsetY}) scale(${traced.scaleX} ${traced.scaleY})" fill-rule="evenodd">${traced.paths.map((d) => `<path d="${d}"/>`).join('')}</g></svg>`;
  const [a, b] = await Promise.all([mask(svgOf(drawing, size)), mask(made)]);
  let wrong = 0;
  for (let i = 0; i < a.length; i++) if (a[i] < 140 !== b[i] < 128) wrong++;
  return wrong / a.length;
}

async function measure(drawing: Drawing, picture: Rgba8, tracers: readonly Library[]): Promise<Map<string, Row>> {
  const truth = chordsOf(drawing.path, picture.width / drawing.size);
  const rows = new Map<string, Row>();
  const times = new Map<string, number[]>(tracers.map(({ name }) => [name, []]));
  const results = new Map<string, Traced>();
  for (let round = 0; round < RUNS; round++) {
    for (const { name, trace } of tracers) {
      const start = performance.now();
      results.set(name, await trace(picture));
      times.get(name)?.push(performance.now() - start);
    }
  }
  for (const [name, traced] of results) {
    const chords = joined(traced.paths.map((path) => chordsOf(path, traced.scaleX, traced.offsetX, traced.offsetY, 0.25, traced.scaleY)));
    const { mean, p95 } = edgeError(chords, truth);
    rows.set(name, { mean, p95, wrong: await wrongShare(drawing, traced, picture.width), nodes: nodesOf(traced.paths), ms: median(times.get(name) ?? [NaN]) });
  }
  return rows;
}

const LESS = ['mean', 'p95', 'wrong', 'nodes', 'ms'] as const;

async function table(condition: Condition, tracers: readonly Library[]): Promise<void> {
  const all = new Map<string, Row[]>();
  for (const drawing of oneColourDrawings()) {
    for (const [name, row] of await measure(drawing, await pictureOf(drawing, condition), tracers)) all.set(name, [...(all.get(name) ?? []), row]);
  }
  const medians = new Map([...all].map(([name, rows]) => [name, Object.fromEntries(LESS.map((key) => [key, median(rows.map((row) => row[key]))])) as unknown as Row]));
  console.log(`\n### One colour, ${condition}\n\n| | edge error px | 95 % px | wrong % | nodes | ms |\n|---|---|---|---|---|---|`);
  for (const [name, row] of medians) console.log(`| ${name} | ${row.mean.toFixed(3)} | ${row.p95.toFixed(3)} | ${(row.wrong * 100).toFixed(3)} | ${row.nodes} | ${row.ms.toFixed(1)} |`);
  const mine = medians.get('limner');
  if (mine === undefined) return;
  const others = [...medians].filter(([name]) => name !== 'limner').map(([, row]) => row);
  const wasm = medians.get('esm-potrace-wasm');
  const ratio = (key: (typeof LESS)[number]): string => (mine[key] / Math.min(...others.map((row) => row[key]))).toFixed(2);
  console.log(`| **ratio to the best** | ${ratio('mean')} | ${ratio('p95')} | ${ratio('wrong')} | ${ratio('nodes')} | ${wasm === undefined ? '' : `${(mine.ms / wasm.ms).toFixed(2)} of wasm`} |`);
}

/** Fidelity, nodes and time of one-colour outlines beside general-purpose libraries. */
export async function benchOutline(): Promise<void> {
  const tracers = [ours, ...(await libraries())];
  for (const condition of CONDITIONS) await table(condition, tracers);
}
