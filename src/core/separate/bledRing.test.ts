import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { paintedArt } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { finish } from '../task/task.ts';
import { flatTones } from './flatTones.ts';

const SIDE = 480;
const PAPER: Rgb = { r: 248, g: 244, b: 235 };
const CREAM: Rgb = { r: 242, g: 227, b: 188 };
const NAVY: Rgb = { r: 29, g: 78, b: 108 };
const away = (x: number, y: number): number => Math.hypot(x - 240.3, y - 239.6);

describe('tints that have run into each other', () => {
  it('are no ring of the paper between cream and navy', async () => {
    const art = await asJpeg(paintedArt(SIDE, SIDE, (x, y) => (away(x, y) < 165 ? CREAM : away(x, y) < 190 ? NAVY : PAPER)), 72);
    const { labels, tones, ground } = finish(flatTones(art, { count: 3, leastAreaPx2: 4 }));
    expect([tones.length, Math.round(tones[ground].r)]).toEqual([3, PAPER.r]);
    let paper = 0;
    for (let k = 0; k < labels.data.length; k++) if (labels.data[k] === ground && away((k % SIDE) + 0.5, Math.floor(k / SIDE) + 0.5) < 180) paper++;
    expect(paper).toBe(0);
  });

  it('leave a real ring of the paper alone', async () => {
    const art = await asJpeg(paintedArt(SIDE, SIDE, (x, y) => (away(x, y) < 162 ? CREAM : away(x, y) < 165 ? PAPER : away(x, y) < 190 ? NAVY : PAPER)), 72);
    const { labels, ground } = finish(flatTones(art, { count: 3, leastAreaPx2: 4 }));
    const seen = new Set<number>();
    for (let k = 0; k < labels.data.length; k++) {
      const [x, y] = [(k % SIDE) + 0.5, Math.floor(k / SIDE) + 0.5];
      if (labels.data[k] === ground && away(x, y) < 180) seen.add(Math.round((Math.atan2(y - 239.6, x - 240.3) * 180) / Math.PI / 3));
    }
    // Nearly all around, in steps of three degrees.
    expect(seen.size).toBeGreaterThan(112);
  });
});
