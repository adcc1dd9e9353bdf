import { fewerColours } from '../src/core/clean/fewerColours.ts';
import { sweepTones } from '../src/core/clean/sweepTones.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { finish } from '../src/core/task/task.ts';
import { nearest, pictureOfScene, rgbOf, sceneOf, truthOf, type Wear } from './scenes.ts';
import { speckled } from './speckled.ts';

const SEEDS = Array.from({ length: 10 }, (_, k) => k + 1);

/** Share of the pixels that get the right tone, per cent: mean and worst over the scenes. */
export async function benchFewerColours(): Promise<void> {
  console.log('\n### Fewer colours, 512 px, 3 to 7 tones\n\n| | right % | worst % | ms |\n|---|---|---|---|');
  for (const wear of ['clean', 'jpeg40', 'noise8'] as const satisfies readonly Wear[]) {
    const shares: number[] = [];
    let ms = 0;
    for (const seed of SEEDS) {
      const scene = sceneOf(seed, 3 + (seed % 5));
      const [picture, truth] = await Promise.all([pictureOfScene(scene, wear), truthOf(scene)]);
      const start = performance.now();
      const { labels, tones } = finish(fewerColours(artFromPicture(picture), scene.tones.length));
      ms += performance.now() - start;
      const meant = tones.map(({ r, g, b }) => nearest(scene.tones.map(rgbOf), r, g, b));
      let right = 0;
      for (let i = 0; i < truth.length; i++) if (meant[labels[i]] === truth[i]) right++;
      shares.push((100 * right) / truth.length);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(wear, seed, shares.at(-1)?.toFixed(2), tones.map(({ r, g, b }) => `${r},${g},${b}`).join(' '), '|', scene.tones.join(' '));
    }
    console.log(`| ${wear} | ${(shares.reduce((a, b) => a + b) / shares.length).toFixed(2)} | ${Math.min(...shares).toFixed(2)} | ${(ms / SEEDS.length).toFixed(0)} |`);
  }
}

const SWEEP_PX2 = 13;

/** A picture of one ink with specks in the ground and pinholes in the ink, 1 to 12 px each, and true dots just above that. Gives what share of each stays. */
export async function benchSweep(): Promise<void> {
  console.log('\n### Sweep below 13 px², 300 specks and pinholes of 1 to 12 px\n\n| | gone % | worst % | details kept % | worst % | ms |\n|---|---|---|---|---|---|');
  for (const wear of ['clean', 'jpeg80', 'noise8'] as const) {
    const gone: number[] = [];
    const kept: number[] = [];
    let ms = 0;
    for (const seed of SEEDS) {
      const { picture, specks, details } = await speckled(seed, wear);
      const start = performance.now();
      const { art } = finish(sweepTones(artFromPicture(picture), SWEEP_PX2));
      ms += performance.now() - start;
      const isInk = (i: number): boolean => art.colour.data[i * 4 + 1] < 128;
      gone.push((100 * specks.filter(({ pixels, ink }) => pixels.every((i) => isInk(i) !== ink)).length) / specks.length);
      kept.push((100 * details.filter(({ pixels, ink }) => pixels.filter((i) => isInk(i) === ink).length >= pixels.length * 0.7).length) / details.length);
    }
    const mean = (values: number[]): string => (values.reduce((a, b) => a + b) / values.length).toFixed(1);
    console.log(`| ${wear} | ${mean(gone)} | ${Math.min(...gone).toFixed(1)} | ${mean(kept)} | ${Math.min(...kept).toFixed(1)} | ${(ms / SEEDS.length).toFixed(0)} |`);
  }
}
