import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../../tests/fixtures/asJpeg.ts';
import { paintedArt, polygon } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import type { ShareMap } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { bringBack, type Dot } from '../strokes/dots.ts';
import { settledTones } from './settledTones.ts';

const SIDE = 120;
const NAVY: Rgb = { r: 29, g: 63, b: 94 };
const CREAM: Rgb = { r: 242, g: 227, b: 184 };
const PALE: Rgb = { r: 255, g: 255, b: 255 };
const TONES = [PALE, NAVY, CREAM];

const star = (turn: number, radius: number): ShareMap =>
  polygon(SIDE, SIDE, Array.from({ length: 10 }, (_, k) => {
    const [r, a] = [k % 2 === 0 ? radius : 0.42 * radius, turn + (Math.PI * k) / 5];
    return [60.3 + r * Math.cos(a), 60.6 + r * Math.sin(a)] as const;
  }));

/** Cream and white shapes on navy, with a white margin of 20 px at the top and the left. */
const onNavy = (cream: ShareMap, white?: ShareMap): Art =>
  paintedArt(SIDE, SIDE, (x, y) => {
    if (x < 20 || y < 20) return PALE;
    const i = Math.floor(y) * SIDE + Math.floor(x);
    const mixed = (from: Rgb, to: Rgb, share: number): Rgb => ({ r: from.r + (to.r - from.r) * share, g: from.g + (to.g - from.g) * share, b: from.b + (to.b - from.b) * share });
    const ground = mixed(NAVY, CREAM, cream.data[i] / 255);
    return white === undefined ? ground : mixed(ground, PALE, white.data[i] / 255);
  });

/** How many pixels well inside of the navy have a label. */
function countInside({ withClear }: { withClear: Uint8Array }, label: number): number {
  let count = 0;
  for (let y = 30; y < SIDE; y++) for (let x = 30; x < SIDE; x++) if (withClear[y * SIDE + x] === label) count++;
  return count;
}

describe('the tips of small shapes whose tint compression has lost', () => {
  it.each([40, 60, 80])('keep the tone of the shape, JPEG %d', async (quality) => {
    let [pale, all] = [0, 0];
    for (let k = 0; k < 8; k++) {
      const settled = finish(settledTones(await asJpeg(onNavy(star(0.157 * k, 11 + k)), quality), { count: TONES }));
      pale += countInside(settled, 0);
      all += countInside(settled, 2);
    }
    expect(pale / all).toBeLessThan(0.002);
  });

  it('leave a white line that meets the shape alone, and white beside cream in a file without loss', async () => {
    const hull = polygon(SIDE, SIDE, [[45, 70], [75, 70], [70, 80], [50, 80]]);
    const mast = polygon(SIDE, SIDE, [[59, 40], [61, 40], [61, 70], [59, 70]]);
    expect(countInside(finish(settledTones(await asJpeg(onNavy(hull, mast), 60), { count: TONES })), 0)).toBeGreaterThan(48);
    const stub = polygon(SIDE, SIDE, [[59, 66], [61, 66], [61, 70], [59, 70]]);
    expect(countInside(finish(settledTones(onNavy(hull, stub), { count: TONES })), 0)).toBe(8);
  });
});

describe('a dot', () => {
  const WIDTH = 7;
  const labels = (): Uint8Array => Uint8Array.from('0000000000000000000000000222000000000000'.padEnd(49, '0'), Number);
  const dot = (pixels: readonly number[]): Dot => ({ pixels, tone: 1, ground: 0, areaPx2: pixels.length });

  it('comes back where its ground alone is around it, not where it touches another tone', () => {
    const alone = labels();
    bringBack([dot([8, 9])], alone, WIDTH);
    expect([alone[8], alone[9]]).toEqual([1, 1]);
    const touching = labels();
    bringBack([dot([16, 17])], touching, WIDTH);
    expect(touching).toEqual(labels());
  });
});
