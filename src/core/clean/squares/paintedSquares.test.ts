import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../../tests/fixtures/asJpeg.ts';
import { paintedArt, randomFrom } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { finish } from '../../task/task.ts';
import { liftAt } from '../liftAt.ts';
import { latticeOf, NEITHER } from './lattice.ts';
import { paintedSquares, type PaintedSquares } from './paintedSquares.ts';

const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const PALE: Rgb = { r: 204, g: 204, b: 204 };
const NAVY: Rgb = { r: 20, g: 69, b: 107 };
const SIDE = 240;

const chequer = (x: number, y: number, px: number, light: Rgb, dark: Rgb): Rgb => ((Math.floor(x / px) + Math.floor(y / px)) & 1 ? dark : light);
/** A navy ring and a buoy with a white band on squares. */
const buoy = (px: number, light = WHITE, dark = PALE): Art =>
  paintedArt(SIDE, SIDE, (x, y) => {
    const off = Math.hypot(x - 120, y - 120);
    if (off < 40) return Math.abs(y - 120) < 14 && off < 34 ? WHITE : NAVY;
    return off > 70 && off < 90 ? NAVY : chequer(x, y, px, light, dark);
  });
const found = (art: Art): PaintedSquares | undefined => finish(paintedSquares(art));
const share = ({ mask }: PaintedSquares): number => mask.reduce((sum, value) => sum + value, 0) / mask.length;
/** Of the ring's inside and outside. */
const TRUE_SHARE = 1 - (Math.PI * (90 ** 2 - 70 ** 2 + 40 ** 2)) / SIDE ** 2;

describe('a ground painted in squares', () => {
  it('is found with all that is closed off, whatever its size and greys, and after compression', async () => {
    const dark: readonly [Rgb, Rgb] = [{ r: 72, g: 72, b: 72 }, { r: 51, g: 51, b: 51 }];
    for (const art of [buoy(8), buoy(12.5), await asJpeg(buoy(8), 60), await asJpeg(buoy(16), 40), buoy(10, ...dark)]) {
      const squares = found(art);
      expect(squares).toBeDefined();
      expect(Math.abs(share(squares as PaintedSquares) - TRUE_SHARE)).toBeLessThan(0.035);
    }
  });

  it('leaves pale art that compression takes tint of beside them', async () => {
    const cream: Rgb = { r: 227, g: 207, b: 164 };
    const sail = paintedArt(SIDE, SIDE, (x, y) => (Math.abs(x - 120) + Math.abs(y - 120) < 90 ? cream : chequer(x, y, 12, WHITE, PALE)));
    const { mask } = found(await asJpeg(sail, 60)) as PaintedSquares;
    let eaten = 0;
    for (let i = 0; i < mask.length; i++) if (mask[i] === 1 && Math.abs((i % SIDE) - 119.5) + Math.abs(Math.floor(i / SIDE) - 119.5) < 88.5) eaten++;
    expect(eaten).toBe(0);
  });

  it('goes by one lift, also inside of the ring, while art of the same white stays', async () => {
    for (const art of [buoy(8), await asJpeg(buoy(8), 70)]) {
      const { art: lifted, finds } = finish(liftAt(art, 3, 3, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true }));
      const alphaAt = (x: number, y: number): number => lifted.alpha[y * SIDE + x];
      expect([alphaAt(3, 3), alphaAt(12, 4), alphaAt(120, 66), alphaAt(237, 237), finds]).toEqual([0, 0, 0, 0, []]);
      expect([alphaAt(120, 120), alphaAt(120, 90), alphaAt(40, 120)]).toEqual([255, 255, 255]);
      // Along the edge nothing of the darker squares is left: what is half there has the art's colour.
      for (let i = 0; i < lifted.alpha.length; i++) {
        if (lifted.alpha[i] < 60 || lifted.alpha[i] > 200) continue;
        expect(lifted.colour.data[4 * i]).toBeLessThan(NAVY.r + 70);
      }
    }
  });

  it('is none where squares are art, stripes, noise, or anything is clear', () => {
    const racing = paintedArt(SIDE, SIDE, (x, y) => chequer(x, y, 20, WHITE, { r: 20, g: 20, b: 20 }));
    const coloured = paintedArt(SIDE, SIDE, (x, y) => chequer(x, y, 20, WHITE, { r: 255, g: 210, b: 210 }));
    const stripes = paintedArt(SIDE, SIDE, (x) => chequer(x, 0, 10, WHITE, PALE));
    const random = randomFrom(3);
    const noise = paintedArt(SIDE, SIDE, () => (random() < 0.5 ? WHITE : PALE));
    const clear = { ...buoy(8), alpha: buoy(8).alpha.map((value, i) => (i < 50 ? 0 : value)) };
    expect([racing, coloured, stripes, noise, clear, paintedArt(40, 40, () => WHITE)].map(found)).toEqual(new Array(6).fill(undefined));
  });
});

describe('changes at even distances', () => {
  const line = (places: readonly number[], length: number): Uint8Array => Uint8Array.from({ length }, (_, x) => places.filter((place) => place <= x).length & 1);

  it('are told by period and place, across art and mixed pixels between them', () => {
    const kinds = line([7, 19.5, 32, 44.5, 57, 69.5, 82, 94.5, 107], 120);
    kinds.fill(NEITHER, 50, 66);
    for (const x of [19, 20, 82]) kinds[x] = NEITHER;
    const lattice = latticeOf(kinds);
    expect(lattice?.period).toBeCloseTo(12.5, 0);
    expect(((lattice?.at ?? 0) - 7) % 12.5).toBeCloseTo(0, 0);
  });

  it('are none where they are few or uneven', () => {
    expect(latticeOf(line([10, 20, 30, 40], 60))).toBeUndefined();
    expect(latticeOf(line([3, 20, 26, 60, 64, 90, 97, 130, 170], 200))).toBeUndefined();
    expect(latticeOf(Uint8Array.from({ length: 100 }, (_, x) => x & 1))).toBeUndefined();
  });
});
