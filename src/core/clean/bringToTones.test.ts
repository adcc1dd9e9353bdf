import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../tests/fixtures/shapes.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { artFromPicture, withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { fewerColours } from './fewerColours.ts';
import { noiseLevel } from './noiseLevel.ts';
import { sigmaFilter } from './sigmaFilter.ts';
import { sweepTones } from './sweepTones.ts';

const PAPER: Rgb = { r: 255, g: 255, b: 255 };
const NAVY: Rgb = { r: 34, g: 55, b: 95 };
const RUST: Rgb = { r: 181, g: 72, b: 44 };
const STONE: Rgb = { r: 150, g: 160, b: 178 };
const SIZE = 96;

type Inside = (x: number, y: number) => boolean;
const disc =
  (cx: number, cy: number, radius: number): Inside =>
  (x, y) =>
    Math.hypot(x - cx, y - cy) <= radius;

/** Shapes painted one over the other, each pixel the mean of 16 places, with Gaussian noise. Gives also the tone at each pixel's middle. */
function painted(layers: readonly (readonly [Rgb, Inside])[], sigma = 0, size = SIZE): { art: Art; truth: Rgb[] } {
  const data = new Uint8Array(size * size * 4);
  const truth: Rgb[] = [];
  const random = randomFrom(12);
  const at = (x: number, y: number): Rgb => layers.reduce((below, [tone, inside]) => (inside(x, y) ? tone : below), layers[0][0]);
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      let [r, g, b] = [0, 0, 0];
      for (let k = 0; k < 16; k++) {
        const tone = at(x + ((k & 3) + 0.5) / 4, y + ((k >> 2) + 0.5) / 4);
        r += tone.r / 16;
        g += tone.g / 16;
        b += tone.b / 16;
      }
      const worn = (v: number): number =>
        Math.max(0, Math.min(255, Math.round(v + sigma * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()))));
      data.set([worn(r), worn(g), worn(b), 255], (y * size + x) * 4);
      truth.push(at(x + 0.5, y + 0.5));
    }
  }
  return { art: artFromPicture(makeRgba8(size, size, data, true)), truth };
}

const scene: readonly (readonly [Rgb, Inside])[] = [
  [PAPER, () => true],
  [NAVY, disc(40, 44, 28)],
  [RUST, disc(56, 60, 17)],
  [STONE, disc(74, 20, 12)],
];
const colourAt = (art: Art, i: number): Rgb => ({ r: art.colour.data[i * 4], g: art.colour.data[i * 4 + 1], b: art.colour.data[i * 4 + 2] });

describe('fewer colours', () => {
  it('finds how many real tones there are, and which one is at the middle of every pixel', () => {
    for (const sigma of [0, 8]) {
      const { art, truth } = painted(scene, sigma);
      const { tones, labels } = finish(fewerColours(art, 'auto'));
      expect(tones).toHaveLength(4);
      expect(truth.filter((tone, i) => colourDifference(tone, tones[labels[i]]) > 4).length / truth.length).toBeLessThan(0.012);
    }
  });

  it('takes the noise and leaves the mixtures along edges, which say where inside of a pixel the edge runs', () => {
    const clean = painted(scene).art.colour.data;
    for (const sigma of [0, 8]) {
      const { art: reduced } = finish(fewerColours(painted(scene, sigma).art, 4));
      const off = Array.from(
        { length: SIZE * SIZE },
        (_, i) => [0, 1, 2].reduce((sum, c) => sum + Math.abs(reduced.colour.data[4 * i + c] - clean[4 * i + c]), 0) / 3,
      );
      // Most pixels are not near an edge, and are their tone to a level; the worst mixture is off by its noise.
      expect(off.filter((d) => d <= (sigma === 0 ? 2 : 6)).length / off.length).toBeGreaterThan(0.97);
      expect(off.sort((a, b) => b - a)[20]).toBeLessThan(sigma === 0 ? 4 : 24);
    }
  });

  it('never makes an edge between navy and paper a line of the stone tone that lies between them', () => {
    const { art } = painted(scene);
    const { labels, tones } = finish(fewerColours(art, 4));
    const stone = tones.findIndex((tone) => colourDifference(tone, STONE) < 4);
    const away = [...labels.keys()].filter((i) => labels[i] === stone && !disc(74, 20, 14)(i % SIZE, Math.floor(i / SIZE)));
    expect(away).toEqual([]);
  });

  it('keeps a thin line of a third tone', () => {
    const { art, truth } = painted([
      [PAPER, () => true],
      [NAVY, disc(30, 50, 20)],
      [RUST, (x) => Math.abs(x - 70) < 1],
    ]);
    const { art: reduced } = finish(fewerColours(art, 3));
    const line = truth.map((tone, i) => (tone === RUST ? i : -1)).filter((i) => i >= 0);
    expect(line.filter((i) => colourDifference(colourAt(reduced, i), RUST) < 6).length).toBeGreaterThan(line.length * 0.95);
  });

  it('leaves what is clear alone and gives one flat tone back as it is', () => {
    const { art } = painted(scene);
    const alpha = art.alpha.map((_, i) => (i < 2000 ? 0 : 255));
    expect(finish(fewerColours(withAlpha(art, alpha), 3)).art.alpha).toBe(alpha);
    const flat = painted([[RUST, () => true]]).art;
    expect(finish(fewerColours(flat, 'auto')).art).toBe(flat);
  });

  it('does not change art that it has already brought to its tones', () => {
    const once = finish(fewerColours(painted(scene, 6).art, 4));
    const twice = finish(fewerColours(once.art, 4));
    let changed = 0;
    for (let i = 0; i < once.labels.length; i++) if (colourDifference(colourAt(once.art, i), colourAt(twice.art, i)) > 1) changed++;
    expect(changed / once.labels.length).toBeLessThan(0.002);
  });
});

describe('noise', () => {
  it('is measured, and smoothed without moving an edge', () => {
    for (const sigma of [0, 4, 8])
      expect(
        Math.abs(
          noiseLevel(
            painted(
              [
                [STONE, () => true],
                [RUST, disc(40, 44, 28)],
              ],
              sigma,
            ).art.colour,
          ) - sigma,
        ),
      ).toBeLessThan(0.6);
    const { art } = painted(
      [
        [PAPER, () => true],
        [NAVY, (x) => x > 48],
      ],
      5,
    );
    const smooth = finish(sigmaFilter(art.colour, 20));
    expect(noiseLevel(smooth)).toBeLessThan(2);
    for (let y = 0; y < SIZE; y++) {
      expect(smooth.data[(y * SIZE + 46) * 4]).toBeGreaterThan(235);
      expect(smooth.data[(y * SIZE + 49) * 4]).toBeLessThan(55);
    }
  });
});

describe('sweep of art with nothing clear', () => {
  it('takes specks and pinholes below the size, keeps what is above, and leaves the rest untouched', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 0, max: 6 }), (side, sigma) => {
        const square =
          (left: number, top: number, width: number): Inside =>
          (x, y) =>
            x >= left && x < left + width && y >= top && y < top + width;
        const { art, truth } = painted(
          [
            [PAPER, () => true],
            [NAVY, disc(40, 44, 26)],
            [PAPER, square(36, 40, side)],
            [NAVY, square(80, 80, side)],
            [RUST, square(78, 14, side)],
            [RUST, square(12, 80, 5)],
          ],
          sigma,
        );
        const { art: swept, specks } = finish(sweepTones(art, 12));
        expect(specks).toBe(3);
        const place = (x: number, y: number): number => y * SIZE + x;
        expect(colourDifference(colourAt(swept, place(36, 40)), NAVY)).toBeLessThan(6);
        expect(colourDifference(colourAt(swept, place(80, 80)), PAPER)).toBeLessThan(6);
        expect(colourDifference(colourAt(swept, place(78, 14)), PAPER)).toBeLessThan(6);
        expect(colourDifference(colourAt(swept, place(14, 82)), RUST)).toBeLessThan(8);
        const far = truth.map((_, i) => i).filter((i) => Math.hypot((i % SIZE) - 40, i / SIZE - 44) < 20 && Math.hypot((i % SIZE) - 37, i / SIZE - 41) > 8);
        expect(far.every((i) => colourAt(swept, i).r === colourAt(art, i).r)).toBe(true);
      }),
      { seed: 5, numRuns: 12 },
    );
  });
});
