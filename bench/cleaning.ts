import { fewerColours } from '../src/core/clean/fewerColours.ts';
import { sweepTones } from '../src/core/clean/sweepTones.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { randomFrom } from './drawings.ts';
import { nearest, pictureOfScene, rgbOf, sceneOf, truthOf, type Scene, type Wear } from './scenes.ts';
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

/** A scene with round dots of its own inks, 15 to 59 px², each on one even place; and where they lie. */
async function dotted(seed: number): Promise<{ scene: Scene; dots: { x: number; y: number; r: number; ink: string }[] }> {
  const scene = sceneOf(seed, 3 + (seed % 5));
  const truth = await truthOf(scene);
  const random = randomFrom(seed * 131);
  const dots: { x: number; y: number; r: number; ink: string }[] = [];
  for (let tries = 0; tries < 4000 && dots.length < 30; tries++) {
    const [x, y, r] = [12 + random() * (scene.size - 24), 12 + random() * (scene.size - 24), Math.sqrt((15 + random() * 44) / Math.PI)];
    const ground = truth[Math.floor(y) * scene.size + Math.floor(x)];
    const ink = scene.tones[Math.floor(random() * scene.tones.length)];
    const isEven = Array.from({ length: 19 * 19 }, (_, k) => truth[(Math.floor(y) + Math.floor(k / 19) - 9) * scene.size + Math.floor(x) + (k % 19) - 9]).every((tone) => tone === ground);
    if (ink !== scene.tones[ground] && isEven && dots.every((other) => Math.hypot(other.x - x, other.y - y) > 24)) dots.push({ x, y, r, ink });
  }
  const svg = `${scene.svg}${dots.map(({ x, y, r, ink }) => `<circle cx="${x}" cy="${y}" r="${r}" fill="${ink}"/>`).join('')}`;
  return { scene: { ...scene, svg }, dots };
}

/** How many dots of a drawing in several colours are still there after a sweep below their size. */
export async function benchDots(): Promise<void> {
  console.log('\n### Dots of 15 to 59 px² in drawings of 3 to 7 tones, swept below 13 px²\n\n| | kept % | worst % |\n|---|---|---|');
  for (const wear of ['clean', 'jpeg40', 'noise8'] as const satisfies readonly Wear[]) {
    const kept: number[] = [];
    for (const seed of SEEDS) {
      const { scene, dots } = await dotted(seed);
      const picture = await pictureOfScene(scene, wear);
      const { art } = finish(sweepTones(artFromPicture(picture), SWEEP_PX2));
      const tones = scene.tones.map(rgbOf);
      const isThere = ({ x, y, r, ink }: (typeof dots)[number], { data }: Rgba8): boolean => {
        const pixels = Array.from({ length: 81 }, (_, k) => ({ px: Math.floor(x) + (k % 9) - 4, py: Math.floor(y) + Math.floor(k / 9) - 4 })).filter(({ px, py }) => Math.hypot(px + 0.5 - x, py + 0.5 - y) < r - 0.7);
        const own = pixels.filter(({ px, py }) => scene.tones[nearest(tones, ...(data.slice(4 * (py * scene.size + px), 4 * (py * scene.size + px) + 3) as unknown as [number, number, number]))] === ink);
        return own.length >= 0.7 * pixels.length;
      };
      // Compression has drowned some of them before.
      const before = dots.filter((dot) => isThere(dot, picture));
      kept.push((100 * before.filter((dot) => isThere(dot, art.colour)).length) / before.length);
    }
    console.log(`| ${wear} | ${(kept.reduce((a, b) => a + b) / kept.length).toFixed(1)} | ${Math.min(...kept).toFixed(1)} |`);
  }
}
