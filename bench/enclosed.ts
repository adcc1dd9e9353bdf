import sharp from 'sharp';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { CONDITIONS, degraded } from './degrade.ts';
import { lettering, randomFrom } from './drawings.ts';

const DRAWINGS = 20;

interface Enclosing {
  readonly svg: string;
  /** The same with the drawing black, its details too, and what is ground white, what is closed off too. */
  readonly drawing: string;
}

/**
 * A boat with a hull of rings and lettering, whose middles are ground, and light details that are not: lines and strokes in the paper's colour, cream and pale
 * grey.
 */
function enclosing(seed: number): Enclosing {
  const random = randomFrom(seed * 71);
  const n = (least: number, most: number): number => Number((least + random() * (most - least)).toFixed(2));
  const paper = ['#ffffff', '#ffffff', '#f4ead6', '#dfe8ee'][seed % 4];
  const light = [paper, '#fff4dd', '#e9e9e6', '#ffffff'];
  const inks = ['#22375f', '#b5482c', '#3f5b3a', '#241b2f'];
  const dark = (): string => inks[Math.floor(random() * inks.length)];
  const wave = (x: number, y: number, length: number, lift: number): string => `M${x} ${y}q${length / 4} ${-lift} ${length / 2} 0t${length / 2} 0`;
  const hull = `M60 ${n(300, 330)}L452 ${n(300, 330)}C430 ${n(400, 440)} 380 440 330 444L180 444C120 440 80 400 60 310Z`;
  const solids = [`<path d="${hull}" fill="${dark()}"/>`, `<path d="M250 40L250 280L${n(380, 430)} 280C${n(360, 400)} 190 320 100 250 40Z" fill="${dark()}"/>`, `<path d="M236 70L236 280L${n(90, 130)} 280Z" fill="${dark()}"/>`];
  // Thin light lines on the solids: seams of a sail, rails of a hull, a crescent of light.
  const details = Array.from({ length: 4 }, (_, k) => `<path d="${wave(n(110, 150), 335 + k * 24, n(200, 260), n(4, 14))}" fill="none" stroke="${light[Math.floor(random() * light.length)]}" stroke-width="${n(1.4, 4.2)}"/>`);
  for (let k = 0; k < 3; k++) details.push(`<path d="M262 ${130 + k * 48}L${300 + k * 18} ${140 + k * 46}" stroke="${light[Math.floor(random() * light.length)]}" stroke-width="${n(1.4, 3.6)}"/>`);
  // Closed-off ground: rings, and lettering with its counters.
  const rings = [n(40, 80), n(420, 460)].map((x) => ({ x, y: n(80, 220), r: n(12, 30), w: n(4, 9) }));
  const word = lettering(['Boats & eels', 'Regatta 1908', 'Pogo boards'][seed % 3], 60, 500, n(36, 52));
  const open = rings.map(({ x, y, r, w }) => `<circle cx="${x}" cy="${y}" r="${r}" fill="none" stroke="#241b2f" stroke-width="${w}"/>`).join('') + `<path d="${word}" fill="#22375f"/>`;
  const wrap = (ground: string, inner: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 512 512" width="512" height="512"><rect width="512" height="512" fill="${ground}"/>${inner}</svg>`;
  const blackened = [...solids, ...details].join('').replaceAll(/#[0-9a-f]{6}/g, '#000000') + open.replaceAll(/#[0-9a-f]{6}/g, '#000000');
  return { svg: wrap(paper, solids.join('') + details.join('') + open), drawing: wrap('#ffffff', blackened) };
}

async function picture(svg: string, size: number): Promise<Rgba8> {
  const { data, info } = await sharp(Buffer.from(svg)).resize(size, size).flatten().ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

/** Area lift with enclosed areas from a corner: how much of the drawing it takes too, and how much of the closed-off ground it opens. */
export async function benchEnclosed(): Promise<void> {
  console.log(`\n### Area lift with enclosed areas, ${DRAWINGS} drawings\n\n| | drawing eaten | worst | over 0.01 | closed-off ground opened | worst |\n|---|---|---|---|---|---|`);
  for (const condition of CONDITIONS) {
    const eaten: number[] = [];
    const opened: number[] = [];
    for (let seed = 1; seed <= DRAWINGS; seed++) {
      const { svg, drawing } = enclosing(seed);
      const worn = await degraded(() => svg, condition);
      const truth = await picture(drawing, worn.width);
      const options = { tolerance: 'auto', everywhere: false, soft: true } as const;
      const outer = finish(liftAt(artFromPicture(worn), 2, 2, { ...options, enclosed: false })).art.alpha;
      const { alpha } = finish(liftAt(artFromPicture(worn), 2, 2, { ...options, enclosed: true })).art;
      let [drawn, lost, closed, open] = [0, 0, 0, 0];
      for (let i = 0; i < alpha.length; i++) {
        const [ink, lifted] = [truth.data[i * 4] < 26, alpha[i] < 128];
        if (ink) drawn++;
        if (ink && lifted) lost++;
        // What is surely ground, and not connected to the corner.
        if (truth.data[i * 4] < 230 || outer[i] < 128) continue;
        closed++;
        if (lifted) open++;
      }
      eaten.push(lost / drawn);
      opened.push(open / closed);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(condition, seed, eaten.at(-1)?.toFixed(4), opened.at(-1)?.toFixed(3));
    }
    const mean = (values: readonly number[]): string => (values.reduce((a, b) => a + b) / values.length).toFixed(4);
    console.log(`| ${condition} | ${mean(eaten)} | ${Math.max(...eaten).toFixed(4)} | ${eaten.filter((share) => share > 0.01).length} | ${mean(opened)} | ${Math.min(...opened).toFixed(3)} |`);
  }
}
