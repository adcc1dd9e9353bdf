import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { bundleProgram } from '../scripts/build.mjs';
import { colourDrawings, colourSvgOf, tonesOf } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { degraded } from './degrade.ts';

const ROUNDS = 3;
const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
const runFile = promisify(execFile);

/** The program of one run, bundled as the command is; the libraries stay where they are, as native code and WebAssembly want it. */
async function bundled(): Promise<string> {
  const { dependencies } = JSON.parse(await readFile(here('./package.json'), 'utf8')) as { dependencies: Record<string, string> };
  await bundleProgram(here('./firstRunOne.ts'), here('./build'), { entryFileNames: 'firstRunOne.mjs' }, ['sharp', ...Object.keys(dependencies)]);
  return here('./build/firstRunOne.mjs');
}

/** The first trace of a fresh process beside *layers*, also fresh: what one waits for with the first picture. Code that is not yet compiled counts; in the browser the engine warms up while that picture is being chosen. */
export async function benchFirstRun(): Promise<void> {
  const one = await bundled();
  const folder = await mkdtemp(join(tmpdir(), 'first-run-'));
  const drawings = [...colourDrawings().slice(1, 5), composedDrawing(60, 4), composedDrawing(63, 6)];
  const ratios: number[] = [];
  const warmRatios: number[] = [];
  console.log('\n### The first trace of a fresh process\n\n| drawing | ms | layers ms | ratio | warmed up, ms | ratio |\n|---|---|---|---|---|---|');
  for (const drawing of drawings) {
    const picture = await degraded((pixels) => colourSvgOf(drawing, pixels, false), 'clean');
    const file = join(folder, 'picture.rgba');
    await writeFile(file, picture.data);
    const once = async (who: string): Promise<number> => Number((await runFile(process.execPath, [one, who, String(picture.width), String(picture.height), file, ...tonesOf(drawing)])).stdout);
    const [ours, theirs, warm]: number[][] = [[], [], []];
    for (let round = 0; round < ROUNDS; round++) {
      ours.push(await once('limner'));
      theirs.push(await once('layers'));
      warm.push(await once('warmed'));
    }
    ratios.push(median(ours) / median(theirs));
    warmRatios.push(median(warm) / median(theirs));
    console.log(`| ${drawing.name} | ${median(ours).toFixed(0)} | ${median(theirs).toFixed(0)} | ${ratios[ratios.length - 1].toFixed(2)} | ${median(warm).toFixed(0)} | ${warmRatios[warmRatios.length - 1].toFixed(2)} |`);
  }
  console.log(`| **median** | | | ${median(ratios).toFixed(2)} | | ${median(warmRatios).toFixed(2)} |`);
  await rm(folder, { recursive: true });
}
