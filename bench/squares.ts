import sharp from 'sharp';
import { squarePicture } from '../src/core/clean/squaring/squarePicture.ts';
import { sheetFromPhoto, type SheetView } from '../src/core/clean/squaring/camera.ts';
import { homographyFrom } from '../src/core/clean/squaring/homography.ts';
import { DOT_RADIUS_MM, HOLE_RADIUS_MM, MARK_RADIUS_MM, marksOf, PAPERS, type Paper } from '../src/core/clean/squaring/markSheet.ts';
import { labelRegions } from '../src/core/raster/labelRegions.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { randomFrom } from './drawings.ts';

const PX_PER_MM = 10;
/** Dots drawn on the sheet, mm from its upper left corner: pairs 150 and 200 mm apart and one in the middle. */
const DOTS = [[30, 40], [180, 40], [30, 240], [180, 240], [105, 140]] as const;

/** The sheet as printed, with the dots on it, ten pixels a mm. */
async function sheetRaster(paper: Paper): Promise<Rgba8> {
  const { widthMm, heightMm } = PAPERS[paper];
  const circle = (x: number, y: number, r: number, fill: string): string => `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}"/>`;
  const marks = marksOf(paper).map(({ xMm, yMm, dotted }) => circle(xMm, yMm, MARK_RADIUS_MM, '#111') + circle(xMm, yMm, HOLE_RADIUS_MM, '#fff') + (dotted ? circle(xMm, yMm, DOT_RADIUS_MM, '#111') : ''));
  const dots = DOTS.map(([x, y]) => circle(x, y, 2, '#9e2f4b'));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${Math.round(widthMm * PX_PER_MM)}" height="${Math.round(heightMm * PX_PER_MM)}" viewBox="0 0 ${widthMm} ${heightMm}"><rect width="100%" height="100%" fill="#fff"/>${marks.join('')}<path d="M60 90c40-30 70 10 90 60s-60 60-80 20z" fill="#22375f"/>${dots.join('')}</svg>`;
  const { data, info } = await sharp(Buffer.from(svg)).flatten().ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

interface Camera {
  readonly tiltDeg: number;
  readonly turnDeg: number;
  readonly k1: number;
  readonly widthPx: number;
  readonly noise: number;
}

/** How the camera sees the sheet: a pinhole over its middle, tilted and turned, with a bent lens. */
function viewOf({ tiltDeg, turnDeg, k1, widthPx }: Camera, paper: Paper): SheetView {
  const heightPx = Math.round(widthPx * 0.75);
  const { widthMm, heightMm } = PAPERS[paper];
  const [tilt, turn] = [(tiltDeg * Math.PI) / 180, (turnDeg * Math.PI) / 180];
  const corners = [[0, 0], [widthMm, 0], [widthMm, heightMm], [0, heightMm]];
  const seen = corners.flatMap(([x, y]) => {
    const [dx, dy] = [x - widthMm / 2, y - heightMm / 2];
    const [u, v] = [dx * Math.cos(turn) - dy * Math.sin(turn), dx * Math.sin(turn) + dy * Math.cos(turn)];
    const depth = 400 + v * Math.sin(tilt);
    return [(1.25 * u) / depth, (1.25 * v * Math.cos(tilt)) / depth];
  });
  const plane = homographyFrom(corners.flat().map((v) => v / 100), seen) as Float64Array;
  return { plane, lens: { k1, k2: 0 }, widthPx, heightPx };
}

/** The photo: nine rays a pixel looked up on the sheet, on a brown table, light falling off, with noise. */
function photograph(sheet: Rgba8, camera: Camera, paper: Paper, seed: number): Rgba8 {
  const view = viewOf(camera, paper);
  const { widthPx, heightPx } = view;
  const random = randomFrom(seed);
  const out = new Uint8Array(widthPx * heightPx * 4).fill(255);
  const at = new Float64Array(2);
  for (let y = 0; y < heightPx; y++) {
    for (let x = 0; x < widthPx; x++) {
      const sum = [0, 0, 0];
      for (let ray = 0; ray < 9; ray++) {
        sheetFromPhoto(view, x + ((ray % 3) + 0.5) / 3, y + (Math.floor(ray / 3) + 0.5) / 3, at);
        const [sx, sy] = [Math.floor(at[0] * PX_PER_MM), Math.floor(at[1] * PX_PER_MM)];
        const on = sx >= 0 && sy >= 0 && sx < sheet.width && sy < sheet.height;
        const i = (sy * sheet.width + sx) * 4;
        for (let c = 0; c < 3; c++) sum[c] += on ? sheet.data[i + c] * 0.92 : [112, 84, 60][c];
      }
      const light = 1 - 0.3 * ((x / widthPx - 0.3) ** 2 + (y / heightPx - 0.4) ** 2);
      const o = (y * widthPx + x) * 4;
      for (let c = 0; c < 3; c++) out[o + c] = Math.max(0, Math.min(255, (sum[c] / 9) * light + camera.noise * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())));
    }
  }
  return makeRgba8(widthPx, heightPx, out, true);
}

/** Middles of the madder dots in the squared picture, mm. */
function dotsIn(picture: Rgba8, pxPerMm: number): [number, number][] {
  const red = new Uint8Array(picture.width * picture.height);
  for (let i = 0; i < red.length; i++) red[i] = picture.data[i * 4] - picture.data[i * 4 + 1] > 50 ? 1 : 0;
  const regions = labelRegions(red, picture.width, picture.height, 1, true);
  const sums = Array.from({ length: regions.count }, () => [0, 0, 0]);
  for (let run = 0; run < regions.runStart.length; run++) {
    for (let i = regions.runStart[run]; i < regions.runEnd[run]; i++) {
      const sum = sums[regions.regionOfRun[run]];
      sum[0]++;
      sum[1] += (i % picture.width) + 0.5;
      sum[2] += Math.floor(i / picture.width) + 0.5;
    }
  }
  return sums.filter(([n]) => n > pxPerMm * pxPerMm * 5).map(([n, x, y]) => [x / n / pxPerMm, y / n / pxPerMm]);
}

/** Worst error of any distance between two of the dots, scaled to 200 mm. */
function worstError(dots: readonly (readonly [number, number])[], origin: { xMm: number; yMm: number }): number {
  let worst = 0;
  const found = DOTS.map(([x, y]) => [...dots].sort((a, b) => Math.hypot(a[0] + origin.xMm - x, a[1] + origin.yMm - y) - Math.hypot(b[0] + origin.xMm - x, b[1] + origin.yMm - y))[0]);
  for (let a = 0; a < DOTS.length; a++) {
    for (let b = a + 1; b < DOTS.length; b++) {
      const truth = Math.hypot(DOTS[a][0] - DOTS[b][0], DOTS[a][1] - DOTS[b][1]);
      const seen = Math.hypot(found[a][0] - found[b][0], found[a][1] - found[b][1]);
      worst = Math.max(worst, (Math.abs(seen - truth) * 200) / truth);
    }
  }
  if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(found.map(([x, y], k) => `${(x + origin.xMm - DOTS[k][0]).toFixed(3)},${(y + origin.yMm - DOTS[k][1]).toFixed(3)}`).join('  '));
  return worst;
}

/** Squaring of photos by simulated cameras: error over 200 mm, and what the command says of itself. */
export async function benchSquares(): Promise<void> {
  console.log('\n### Squaring, simulated cameras\n\n| paper | tilt | turn | k1 | px | noise | error over 200 mm | said: mean, worst miss mm | ms |\n|---|---|---|---|---|---|---|---|---|');
  const cameras: [Paper, Camera][] = [
    ['a4', { tiltDeg: 0, turnDeg: 0, k1: 0, widthPx: 1600, noise: 0 }],
    ['a4', { tiltDeg: 15, turnDeg: 100, k1: -0.08, widthPx: 1600, noise: 4 }],
    ['a4', { tiltDeg: 25, turnDeg: 190, k1: 0.06, widthPx: 2000, noise: 6 }],
    ['a4', { tiltDeg: 35, turnDeg: 35, k1: -0.12, widthPx: 1600, noise: 4 }],
    ['letter', { tiltDeg: 35, turnDeg: 280, k1: 0.05, widthPx: 2000, noise: 5 }],
    ['letter', { tiltDeg: 20, turnDeg: 8, k1: -0.2, widthPx: 1200, noise: 3 }],
  ];
  const sheets = { a4: await sheetRaster('a4'), letter: await sheetRaster('letter') };
  for (const [index, [paper, camera]] of cameras.entries()) {
    const photo = photograph(sheets[paper], camera, paper, index + 1);
    if (process.env['LIMNER_BENCH_EACH'] !== undefined) await sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 4 } }).png().toFile(`${process.env['LIMNER_BENCH_EACH']}/square-${index}.png`);
    const start = performance.now();
    const squared = finish(squarePicture(photo, { marks: { by: 'sheet' }, levelLight: false }));
    const ms = performance.now() - start;
    const error = worstError(dotsIn(squared.picture, squared.resolution), squared.area);
    console.log(`| ${squared.paper} | ${camera.tiltDeg}° | ${camera.turnDeg}° | ${camera.k1} | ${camera.widthPx} | ${camera.noise} | ${error.toFixed(3)} mm | ${squared.meanMissMm.toFixed(3)}, ${squared.worstMissMm.toFixed(3)} | ${ms.toFixed(0)} |`);
  }
}
