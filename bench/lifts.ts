import sharp from 'sharp';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { labelRegions } from '../src/core/raster/labelRegions.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { randomFrom } from './drawings.ts';

const SIZE = 512;
type Wear = 'clean' | 'jpeg80' | 'noise4' | 'fallOff10';

interface Outlined {
  readonly svg: string;
  /** The same with the inside of every outline filled black: what must stay. */
  readonly kept: string;
}

/** White art on white paper: blobs with a thin outline, light grey down to 1 px, and a few coloured areas. */
function outlined(seed: number): Outlined {
  const random = randomFrom(seed * 101);
  const grey = Math.round(175 + random() * 40).toString(16);
  const stroke = `#${grey}${grey}${grey}`;
  const strokePx = (1 + random() * 1.5).toFixed(2);
  let art = '';
  let kept = '';
  for (let k = 0; k < 3; k++) {
    const [cx, cy, r] = [120 + k * 135, 130 + random() * 250, 40 + random() * 22];
    const points = Array.from({ length: 48 }, (_, i) => {
      const a = (i / 48) * 2 * Math.PI;
      const rr = r * (1 + 0.18 * Math.sin((2 + (seed % 3)) * a + k));
      return `${(cx + rr * Math.cos(a)).toFixed(2)} ${(cy + rr * Math.sin(a)).toFixed(2)}`;
    });
    const d = `M${points.join('L')}Z`;
    const fill = k === 1 ? ['#22375f', '#b5482c', '#e0bf6a'][seed % 3] : '#ffffff';
    art += `<path d="${d}" fill="${fill}" stroke="${stroke}" stroke-width="${strokePx}" stroke-linejoin="round"/>`;
    kept += `<path d="${d}" fill="#000" stroke="#000" stroke-width="${strokePx}" stroke-linejoin="round"/>`;
  }
  const wrap = (inner: string): string => `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}"><rect width="512" height="512" fill="#fff"/>${inner}</svg>`;
  return { svg: wrap(art), kept: wrap(kept) };
}

async function worn(svg: string, wear: Wear): Promise<Rgba8> {
  let image = sharp(Buffer.from(svg)).flatten();
  if (wear === 'jpeg80') image = sharp(await image.jpeg({ quality: 80 }).toBuffer());
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const out = new Uint8Array(data);
  const random = randomFrom(17);
  for (let i = 0; i < SIZE * SIZE; i++) {
    const light = wear === 'fallOff10' ? 1 - 0.1 * ((i % SIZE) / SIZE) : 1;
    for (let c = 0; c < 3; c++) {
      const noise = wear === 'noise4' || wear === 'fallOff10' ? (wear === 'noise4' ? 4 : 1) * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()) : 0;
      out[i * 4 + c] = Math.max(0, Math.min(255, Math.round(out[i * 4 + c] * light + noise)));
    }
  }
  return makeRgba8(info.width, info.height, out, true);
}

/** What is lost has run into an area when so much of it has only lost pixels around, px²: along an edge it is half of a mixed pixel. */
const LEAK_PX2 = 100;

function insideOf(lost: Uint8Array): Uint8Array {
  const around = [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((x) => y * SIZE + x));
  const inside = new Uint8Array(lost.length);
  for (let i = SIZE + 1; i < lost.length - SIZE - 1; i++) if (lost[i] === 1 && around.every((off) => lost[i + off] === 1)) inside[i] = 1;
  return inside;
}

/** Area lift from a corner with the tolerance that it finds: how well the ground is met, and how often it leaks into white art. */
export async function benchLifts(): Promise<void> {
  console.log('\n### Area lift, tolerance found, white art on white paper in thin grey outlines\n\n| | IoU | worst | leaks | ms |\n|---|---|---|---|---|');
  for (const wear of ['clean', 'jpeg80', 'noise4', 'fallOff10'] as const satisfies readonly Wear[]) {
    const scores: number[] = [];
    let leaks = 0;
    let ms = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const { svg, kept } = outlined(seed);
      const [picture, truth] = await Promise.all([worn(svg, wear), worn(kept, 'clean')]);
      const start = performance.now();
      const { art, tolerance } = finish(liftAt(artFromPicture(picture), 3, 3, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true }));
      ms += performance.now() - start;
      let both = 0;
      let either = 0;
      const lost = new Uint8Array(SIZE * SIZE);
      for (let i = 0; i < SIZE * SIZE; i++) {
        const lifted = art.alpha[i] < 128;
        const ground = truth.data[i * 4] >= 128;
        if (lifted && ground) both++;
        if (lifted || ground) either++;
        if (lifted && !ground) lost[i] = 1;
      }
      if (labelRegions(insideOf(lost), SIZE, SIZE, 1, false).area.some((area) => area > LEAK_PX2)) leaks++;
      scores.push(both / either);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(wear, seed, tolerance, scores.at(-1)?.toFixed(4));
    }
    console.log(`| ${wear} | ${(scores.reduce((a, b) => a + b) / scores.length).toFixed(4)} | ${Math.min(...scores).toFixed(4)} | ${leaks} of ${scores.length} | ${(ms / scores.length).toFixed(0)} |`);
  }
}
