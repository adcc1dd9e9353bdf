import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { artFromShare, disc, paintedArt, polygon } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { clearInTones } from './clearInTones.ts';
import { toneLabels } from './settling/toneLabels.ts';
import { isRestless } from './isRestless.ts';
import { liftAt } from './liftAt.ts';

const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const NAVY: Rgb = { r: 36, g: 80, b: 154 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const [WIDTH, HEIGHT, X, Y, RADIUS] = [160, 140, 80.3, 70.6, 40.4];

const lift = (art: Art, enclosed = true): Art => finish(liftAt(art, 2, 2, { tolerance: 'auto', everywhere: false, enclosed, soft: true })).art;
const coverPx2 = ({ alpha }: Art): number => alpha.reduce((sum, value) => sum + value / 255, 0);
const alphaAt = ({ alpha, width }: Art, x: number, y: number): number => alpha[y * width + x];

describe('a lift from flat art', () => {
  it('leaves the edge where it is and nothing beside it, however compression ripples around it', async () => {
    const art = await asJpeg(artFromShare(disc(WIDTH, HEIGHT, X, Y, RADIUS), NAVY, WHITE), 40);
    expect(finish(isRestless(art.colour))).toBe(true);
    const after = lift(art);
    let crumbs = 0;
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) if (Math.hypot(x + 0.5 - X, y + 0.5 - Y) > RADIUS + 2 && alphaAt(after, x, y) > 0) crumbs++;
    expect(crumbs).toBe(0);
    expect(Math.abs(coverPx2(after) - Math.PI * RADIUS ** 2) / (2 * Math.PI * RADIUS)).toBeLessThan(0.1);
  });

  it('keeps the inside of a line whole that has no plain pixel, and takes no other tone for a part of it', async () => {
    const bar = polygon(WIDTH, HEIGHT, [[20.2, 30.1], [140.4, 52.7], [139.6, 56.9], [19.4, 34.3]]); // prettier-ignore
    const line = await asJpeg(artFromShare(bar, { r: 28, g: 27, b: 34 }, WHITE), 40);
    const after = lift(line);
    expect([40, 80, 120].map((x) => alphaAt(after, x, Math.round(32 + ((x - 20) * 22.6) / 120.2)))).toEqual([255, 255, 255]);
    const length = Math.hypot(120.2, 22.6);
    expect(Math.abs(coverPx2(after) - 4.28 * length) / (2 * length)).toBeLessThan(0.1);
  });

  it('gives each pixel of the rim the colour of the art alone', () => {
    const after = lift(artFromShare(disc(WIDTH, HEIGHT, X, Y, RADIUS), NAVY, WHITE));
    let rim = 0;
    for (const [i, alpha] of after.alpha.entries()) {
      if (alpha === 0 || alpha === 255) continue;
      rim++;
      for (const [c, value] of [NAVY.r, NAVY.g, NAVY.b].entries()) expect(Math.abs(after.colour.data[4 * i + c] - value)).toBeLessThanOrEqual(2);
    }
    expect(rim).toBeGreaterThan(150);
  });

  it('leaves art of the lifted tone, with its edges, that it did not reach', async () => {
    const ring = (x: number, y: number): boolean => Math.abs(Math.hypot(x - X, y - Y) - 30) < 6;
    const art = await asJpeg(paintedArt(WIDTH, HEIGHT, (x, y) => (ring(x, y) ? RED : WHITE)), 40);
    const [open, closed] = [lift(art, true), lift(art, false)];
    expect([alphaAt(open, 80, 70), alphaAt(closed, 80, 70)]).toEqual([0, 255]);
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) if (Math.hypot(x + 0.5 - X, y + 0.5 - Y) < 28) expect(alphaAt(closed, x, y)).toBe(255);
  });

  it('takes no bit of a near tone that compression has made like the ground beside a strong edge', async () => {
    const cream: Rgb = { r: 244, g: 231, b: 195 };
    const away = (x: number, y: number): number => Math.hypot(x - X, y - Y);
    const badge = paintedArt(WIDTH, HEIGHT, (x, y) => (away(x, y) < 44 ? cream : away(x, y) < 56 ? NAVY : { r: 251, g: 250, b: 246 }));
    const after = lift(await asJpeg(badge, 45));
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) if (away(x + 0.5, y + 0.5) < 54) expect(alphaAt(after, x, y)).toBe(255);
    expect(alphaAt(after, 80, 8)).toBe(0);
  });

  it('takes what else the lift reached as a whole', () => {
    const art = paintedArt(WIDTH, HEIGHT, (x, y) => (y > 20 && y < 26 && x > 20 && x < 26 ? RED : y > 100 ? NAVY : WHITE));
    const lifted = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, i) => (i < 100 * WIDTH ? 1 : 0));
    const after = finish(clearInTones(art, { lifted, ground: WHITE, everywhere: false }));
    expect(after && [alphaAt(after, 23, 23), alphaAt(after, 23, 60), alphaAt(after, 23, 120)]).toEqual([0, 0, 255]);
  });

  it('does not tell where more than one tone is lifted', () => {
    const art = paintedArt(WIDTH, HEIGHT, (x) => (x < 60 ? WHITE : x < 110 ? NAVY : RED));
    const lifted = (to: number): Uint8Array => Uint8Array.from({ length: WIDTH * HEIGHT }, (_, i) => (i % WIDTH < to ? 1 : 0));
    const clear = (to: number): Art | undefined => finish(clearInTones(art, { lifted: lifted(to), ground: WHITE, everywhere: false }));
    expect([clear(60) === undefined, clear(110) === undefined]).toEqual([false, true]);
  });
});

describe('tones after a lift', () => {
  it('are those of what is left: what is clear shows no lines, and what is nearly one ink says its colour together', async () => {
    const bar = polygon(WIDTH, HEIGHT, [[20.2, 30.1], [140.4, 52.7], [139.6, 56.9], [19.4, 34.3]]); // prettier-ignore
    const art = await asJpeg(artFromShare(bar, { r: 28, g: 27, b: 34 }, WHITE), 40);
    const [before, after] = [art, lift(art)].map((each) => finish(toneLabels(each, 'auto', 'none')).tones);
    expect([before.length, after.length]).toEqual([2, 1]);
    for (const c of ['r', 'g', 'b'] as const) expect(Math.abs(after[0][c] - 28)).toBeLessThan(16);
  });
});
