import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { artFromShare, BLACK, disc, polygon, randomFrom, WHITE } from '../../../tests/fixtures/shapes.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8, makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { cubicEnlarged } from './cubicEnlarged.ts';
import { enlarge } from './enlarge.ts';
import { isRestless } from './isRestless.ts';
import { tidyEdges } from './tidyEdges.ts';

const LEAF = [
  [10, 12],
  [52, 20],
  [58, 50],
  [20, 54],
] as const;
const larger = (times: number): readonly (readonly [number, number])[] => LEAF.map(([x, y]) => [x * times, y * times]);

/** Mean difference of the red channel, levels. */
function difference(art: Art, truth: Art): number {
  let sum = 0;
  for (let i = 0; i < art.alpha.length; i++) sum += Math.abs(art.colour.data[i * 4] - truth.colour.data[i * 4]);
  return sum / art.alpha.length;
}

describe('enlarge', () => {
  it('comes at least twice as near to the truth as cubic convolution', () => {
    const small = artFromShare(polygon(64, 64, LEAF));
    for (const times of [2, 4] as const) {
      const truth = artFromShare(polygon(64 * times, 64 * times, larger(times)));
      const large = finish(enlarge(small, times));
      const plain = cubicEnlarged(
        Float32Array.from({ length: 64 * 64 }, (_, i) => small.colour.data[i * 4]),
        64,
        64,
        times,
      );
      let cubic = 0;
      plain.forEach((v, i) => (cubic += Math.abs(Math.max(0, Math.min(255, v)) - truth.colour.data[i * 4])));
      expect(difference(large, truth)).toBeLessThan((0.5 * cubic) / plain.length);
      expect([large.width, large.frame.scale]).toEqual([64 * times, times]);
    }
  });

  it('leaves soft shading soft, and enlarges what is clear', () => {
    const ramp = new Uint8Array(40 * 10 * 4).map((_, i) => (i % 4 === 3 ? 255 : ((i >> 2) % 40) * 6));
    const art: Art = { ...artFromShare(disc(40, 10, 20, 5, 3)), colour: makeRgba8(40, 10, ramp, true) };
    const large = finish(enlarge(art, 4));
    for (let x = 20; x < 139; x++) expect(Math.abs(large.colour.data[(20 * 160 + x + 1) * 4] - large.colour.data[(20 * 160 + x) * 4])).toBeLessThanOrEqual(4);
    const hole = withAlpha(
      art,
      art.alpha.map((_, i) => (i % 40 < 20 ? 0 : 255)),
    );
    const alpha = finish(enlarge(hole, 2)).alpha;
    expect([alpha[0], alpha[79], alpha[38], alpha[41]]).toEqual([0, 255, 0, 255]);
  });

  it('puts edges of noisy art as near to the truth as those of clean art, within a little', () => {
    const small = artFromShare(polygon(64, 64, LEAF));
    const random = randomFrom(5);
    const noisy: Art = {
      ...small,
      colour: makeRgba8(
        64,
        64,
        small.colour.data.map((v, i) => (i % 4 === 3 ? 255 : Math.max(0, Math.min(255, v + 24 * (random() - 0.5))))),
        true,
      ),
    };
    expect([finish(isRestless(small.colour)), finish(isRestless(noisy.colour))]).toEqual([false, true]);
    const truth = artFromShare(polygon(128, 128, larger(2)));
    // Where the true edge's middle runs the result is on the right side, but for a few pixels.
    const wrong = (art: Art): number =>
      art.alpha.reduce(
        (sum, _, i) => sum + (Math.abs(truth.colour.data[4 * i] - 128) > 60 && art.colour.data[4 * i] >= 128 !== truth.colour.data[4 * i] >= 128 ? 1 : 0),
        0,
      );
    expect(wrong(finish(enlarge(small, 2)))).toBe(0);
    expect(wrong(finish(enlarge(noisy, 2)))).toBeLessThanOrEqual(3);
  });

  it('refuses to make a picture that is too large', () => {
    expect(codeOf(() => finish(enlarge(artFromShare(makeShareMap(2000, 1000)), 4)))).toBe('enlargedTooLarge');
  });
});

/** The drawing as stairs: every pixel takes its block's middle. */
function stairs(of: (x: number, y: number) => boolean, size: number, block: number): Art {
  const share = makeShareMap(
    size,
    size,
    new Uint8Array(size * size).map((_, i) => {
      const [x, y] = [i % size, Math.floor(i / size)].map((v) => Math.floor(v / block) * block + block / 2);
      return of(x, y) ? 255 : 0;
    }),
  );
  return artFromShare(share);
}

describe('tidyEdges', () => {
  const SIZE = 120;
  const inDisc = (x: number, y: number): boolean => Math.hypot(x - 60, y - 60) < 40;

  it('turns stairs into a round edge', () => {
    const truth = artFromShare(disc(SIZE, SIZE, 60, 60, 40));
    const rough = stairs(inDisc, SIZE, 3);
    const { art: tidy, movedPx2 } = finish(tidyEdges(rough, 3));
    expect(movedPx2).toBeGreaterThan(50);
    expect(difference(tidy, truth)).toBeLessThan(0.65 * difference(rough, truth));
  });

  it('keeps corners, thin lines and small counters', () => {
    const frame = (x: number, y: number): boolean => x > 20 && x < 100 && y > 20 && y < 100 && Math.hypot(x - 60, y - 60) > 5;
    const withLine = (x: number, y: number): boolean => frame(x, y) || (x > 8 && x < 11);
    const art = stairs(withLine, SIZE, 1);
    const { art: tidy } = finish(tidyEdges(art, 3));
    const at = (x: number, y: number): number => tidy.colour.data[(y * SIZE + x) * 4];
    expect([at(22, 22), at(97, 97), at(9, 60), at(60, 60), at(60, 40), at(105, 60)]).toEqual([BLACK.r, BLACK.r, BLACK.r, WHITE.r, BLACK.r, WHITE.r]);
  });

  it('leaves a picture of one tone alone', () => {
    const art = artFromShare(makeShareMap(20, 20));
    expect(finish(tidyEdges(art, 2)).art).toBe(art);
  });
});
