import sharp from 'sharp';
import { mendGaps } from '../src/core/clean/mendGaps.ts';
import { labelRegions } from '../src/core/raster/labelRegions.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { lettering, randomFrom } from './drawings.ts';

const SIZE = 512;

interface Paper {
  readonly jpeg: boolean;
  readonly lettered: boolean;
}

interface Broken {
  readonly whole: Rgba8;
  readonly broken: Rgba8;
}

/**
 * A closed wavy outline with strokes inside, whole and with 1 to 5 gaps of 3 to 12 px between the ends of ink, cut square or round; with lines of lettering
 * above and below, in which nothing is broken.
 */
export async function brokenOutline(seed: number, { jpeg, lettered }: Paper): Promise<Broken> {
  const random = randomFrom(seed * 13);
  const strokePx = 3 + random() * 7;
  const lobes = 3 + Math.floor(random() * 4);
  const wave = 20 + random() * 25;
  const phase = random() * 6;
  const points: [number, number][] = [];
  for (let k = 0; k <= 720; k++) {
    const a = (k / 720) * 2 * Math.PI;
    const r = 165 + wave * Math.sin(lobes * a + phase);
    points.push([256 + r * Math.cos(a), 256 + r * Math.sin(a)]);
  }
  const along = [0];
  for (let k = 1; k < points.length; k++) along.push(along[k - 1] + Math.hypot(points[k][0] - points[k - 1][0], points[k][1] - points[k - 1][1]));
  const total = along[720];
  const count = 1 + Math.floor(random() * 5);
  const round = random() < 0.5;
  const gaps = Array.from({ length: count }, (_, k) => ({ at: ((k + 0.2 + 0.6 * random()) / count) * total, width: 3 + random() * 9 + (round ? strokePx : 0) }));
  const inner = `<path d="M190 ${200 + random() * 40}q60 -40 130 10M200 300q50 ${30 + random() * 40} 120 0" fill="none"/><circle cx="256" cy="256" r="${20 + random() * 20}" fill="none"/>`;
  const pieces: string[] = [];
  let from = 0;
  for (const { at, width } of [...gaps, { at: total + 1e6, width: 0 }]) {
    pieces.push(polyline(points, along, from, Math.min(total, at - width / 2)));
    from = at + width / 2;
  }
  const words = lettered ? `<path fill="#1d1a26" d="${lettering('Harbour FLEET', 14 + random() * 60, 32, 28 + random() * 6)}${lettering('Sail, row and STEW', 14 + random() * 60, 500, 26 + random() * 10)}"/>` : '';
  const draw = async (outline: string): Promise<Rgba8> => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}"><rect width="512" height="512" fill="#fff"/><g stroke="#1d1a26" stroke-width="${strokePx}" fill="none" stroke-linejoin="round" stroke-linecap="${round ? 'round' : 'butt'}">${outline}${inner}</g>${words}</svg>`;
    let image = sharp(Buffer.from(svg));
    if (jpeg) image = sharp(await image.flatten().jpeg({ quality: 70 }).toBuffer());
    const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    return makeRgba8(info.width, info.height, new Uint8Array(data), true);
  };
  // No gap lies at the seam, so the last and the first piece are one.
  const seamless = [`${pieces[pieces.length - 1]}L${pieces[0].slice(1)}`, ...pieces.slice(1, -1)];
  return { whole: await draw(`<path d="${path(points)}Z"/>`), broken: await draw(seamless.map((d) => `<path d="${d}"/>`).join('')) };
}

const path = (points: readonly (readonly [number, number])[]): string => `M${points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}`;

function polyline(points: readonly [number, number][], along: readonly number[], from: number, to: number): string {
  const place = (s: number): [number, number] => {
    const beyond = along.findIndex((value) => value > s);
    const k = beyond < 0 ? 719 : Math.max(0, beyond - 1);
    const t = (s - along[k]) / (along[k + 1] - along[k]);
    return [points[k][0] + t * (points[k + 1][0] - points[k][0]), points[k][1] + t * (points[k + 1][1] - points[k][1])];
  };
  return path([place(from), ...points.filter((_, k) => along[k] > from && along[k] < to), place(to)]);
}

export const inkOf = (picture: Rgba8): Uint8Array => Uint8Array.from({ length: SIZE * SIZE }, (_, i) => (picture.data[i * 4 + 1] < 128 ? 1 : 0));

/** Clear regions: one more for each closed outline. */
export const clearRegions = (ink: Uint8Array): number => labelRegions(ink, SIZE, SIZE, 0, false).area.filter((area) => area > 30).length;

/** Ink where the whole drawing has none beside it, as a share of its ink, %. */
export function falseInkPercent(truth: Uint8Array, mended: Uint8Array): number {
  const near = (i: number): boolean => [i - 1, i + 1, i - SIZE, i + SIZE].some((j) => truth[j] === 1);
  const falseInk = mended.reduce((sum, value, i) => sum + (value === 1 && truth[i] === 0 && !near(i) ? 1 : 0), 0);
  return (100 * falseInk) / truth.reduce((sum, value) => sum + value, 0);
}

/** How many outlines close again, and how much ink is where the whole drawing has none, as a share of its ink. */
export async function benchGaps(): Promise<void> {
  console.log('\n### Gap mending, 1 to 5 gaps of 3 to 12 px\n\n| | closed % | false ink % | worst % | ms |\n|---|---|---|---|---|');
  for (const paper of [{ jpeg: false, lettered: false }, { jpeg: true, lettered: false }, { jpeg: false, lettered: true }, { jpeg: true, lettered: true }]) {
    let closed = 0;
    let ms = 0;
    const wrong: number[] = [];
    const count = 20;
    for (let seed = 1; seed <= count; seed++) {
      const { whole, broken } = await brokenOutline(seed, paper);
      const start = performance.now();
      const { art } = finish(mendGaps(artFromPicture(broken), 14));
      ms += performance.now() - start;
      const [truth, mended] = [inkOf(whole), inkOf(art.colour)];
      const isClosed = clearRegions(mended) === clearRegions(truth);
      if (isClosed) closed++;
      wrong.push(falseInkPercent(truth, mended));
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(seed, paper, isClosed, clearRegions(inkOf(broken)), clearRegions(mended), clearRegions(truth), wrong.at(-1)?.toFixed(2));
    }
    console.log(`| ${paper.jpeg ? 'JPEG 70' : 'clean'}${paper.lettered ? ', lettering beside it' : ''} | ${((100 * closed) / count).toFixed(0)} | ${(wrong.reduce((a, b) => a + b) / count).toFixed(2)} | ${Math.max(...wrong).toFixed(2)} | ${(ms / count).toFixed(0)} |`);
  }
}
