import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { colourDrawings, colourSvgOf, tonesOf } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { degraded } from './degrade.ts';
import { freshProcess } from './freshProcess.ts';

const ROUNDS = 3;
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
/**
 * The first trace of a fresh process beside *layers*, also fresh: what one waits for with the first picture. Code that is not yet compiled counts; in the
 * browser the engine warms up while that picture is being chosen.
 */
export async function benchFirstRun(): Promise<void> {
  const one = await freshProcess('firstRunOne.ts');
  const folder = await mkdtemp(join(tmpdir(), 'first-run-'));
  const drawings = [...colourDrawings().slice(1, 5), composedDrawing(60, 4), composedDrawing(63, 6)];
  const ratios: number[] = [];
  const warmRatios: number[] = [];
  console.log('\n### The first trace of a fresh process\n\n| drawing | ms | layers ms | ratio | warmed up, ms | ratio |\n|---|---|---|---|---|---|');
  for (const drawing of drawings) {
    const picture = await degraded((pixels) => colourSvgOf(drawing, pixels, false), 'clean');
    const file = join(folder, 'picture.rgba');
    await writeFile(file, picture.data);
    const once = async (who: string): Promise<number> => Number(await one(who, String(picture.width), String(picture.height), file, ...tonesOf(drawing)));
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
