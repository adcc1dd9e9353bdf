import { describe, expect, it } from 'vitest';
import { IDENTITY, placed, scaling } from '../geometry/affine.ts';
import { bent, fanOf, type Fan } from '../geometry/fan.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { bentPicture } from './bendPicture.ts';

const PER_MM = 4;
const fan = fanOf(43.3, 35.3, { widthMm: 100, heightMm: 95 }, { xMm: 0, yMm: 0 }) as Fan;
/** 80 × 40 mm, clear, with dots of 2 mm. */
const DOTS = [[10, 8], [40, 20], [72, 30]] as const;
const dotted = (): Rgba8 => {
  const [width, height] = [80 * PER_MM, 40 * PER_MM];
  const data = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (DOTS.some(([dx, dy]) => Math.hypot((x + 0.5) / PER_MM - dx, (y + 0.5) / PER_MM - dy) < 1)) data.set([200, 30, 40, 255], 4 * (y * width + x));
  return makeRgba8(width, height, data);
};

describe('a bent picture', () => {
  const made = bentPicture(dotted(), scaling(1 / PER_MM), fan);

  it('has each thing where the fan takes it, within a tenth of a mm', () => {
    for (const [dx, dy] of DOTS) {
      const wanted = bent(fan, dx, dy);
      let [sx, sy, all] = [0, 0, 0];
      for (let y = 0; y < made.picture.height; y++) {
        for (let x = 0; x < made.picture.width; x++) {
          const at = placed(made.toDesign, x + 0.5, y + 0.5);
          const alpha = made.picture.data[4 * (y * made.picture.width + x) + 3];
          if (alpha === 0 || Math.hypot(at.x - wanted.x, at.y - wanted.y) > 4) continue;
          sx += at.x * alpha;
          sy += at.y * alpha;
          all += alpha;
        }
      }
      expect([sx / all, sy / all]).toEqual([expect.closeTo(wanted.x, 1), expect.closeTo(wanted.y, 1)]);
      // As much ink as it was, but for what the cone is narrower below its middle and wider above.
      expect(all / 255 / PER_MM ** 2 / Math.PI).toBeGreaterThan(0.85);
      expect(all / 255 / PER_MM ** 2 / Math.PI).toBeLessThan(1.2);
    }
  });

  it('keeps its colours where they fade out, and is clear around', () => {
    const { data } = made.picture;
    for (let i = 0; i < data.length; i += 4) if (data[i + 3] > 0) expect([data[i], data[i + 1], data[i + 2]]).toEqual([200, 30, 40]);
    expect(data[3]).toBe(0);
  });

  it('is as fine as it came', () => expect(Math.hypot(made.toDesign.a, made.toDesign.b)).toBeCloseTo(1 / PER_MM, 9));
  it('reads art of any resolution', () => expect(bentPicture(dotted(), IDENTITY, { ...fan, middleMm: 160 }).picture.width).toBeGreaterThan(300));
});
