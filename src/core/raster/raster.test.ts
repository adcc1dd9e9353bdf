import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { artFromShare, artFromText, BLACK, sampled, thereAsText } from '../../../tests/fixtures/shapes.ts';
import { AppError } from '../errors/appError.ts';
import { artXFromPicture, pictureFromArt, withAlpha } from './art.ts';
import { cropArt } from './crop.ts';
import { labelRegions } from './labelRegions.ts';
import { makeMask, makeRgba8, wordsOf } from './raster.ts';
import { resample, shrinkToSide } from './shrink.ts';

describe('rasters', () => {
  it('refuse sizes that do not match their data', () => {
    expect(() => makeRgba8(2, 2, new Uint8Array(15))).toThrow(RangeError);
    expect(() => makeMask(0, 3)).toThrow(RangeError);
    expect(() => makeMask(1.5, 2)).toThrow(RangeError);
  });

  it('read words from a view that starts at an odd byte', () => {
    const buffer = new Uint8Array(9);
    buffer.set([1, 2, 3, 4, 5, 6, 7, 8], 1);
    const words = wordsOf(makeRgba8(2, 1, buffer.subarray(1)));
    expect([...words]).toEqual([0x04030201, 0x08070605]);
  });
});

describe('art', () => {
  it('puts its alpha back in place of the picture’s', () => {
    const art = artFromText(['#. ', 'o##']);
    const cleared = withAlpha(art, new Uint8Array([0, 255, 0, 9, 255, 255]));
    const picture = pictureFromArt(cleared);
    expect([3, 7, 11, 15].map((i) => picture.data[i])).toEqual([0, 255, 0, 9]);
    expect(art.alpha[0]).toBe(255);
    expect(() => withAlpha(art, new Uint8Array(2))).toThrow(RangeError);
  });

  it('is cropped in picture pixels and knows where it lay', () => {
    const art = artFromText(['#...', '.#..', '..#.', '...#']);
    const once = cropArt(art, { xPx: 1, yPx: 1, widthPx: 3, heightPx: 2 });
    expect([once.width, once.height, once.frame.leftPx, once.frame.topPx]).toEqual([3, 2, 1, 1]);
    const twice = cropArt(once, { xPx: 2, yPx: 2, widthPx: 9, heightPx: 9 });
    expect([twice.width, twice.height, twice.frame.leftPx]).toEqual([2, 1, 2]);
    expect(twice.colour.data[0]).toBe(0);
    expect(artXFromPicture(twice.frame, 3.5)).toBe(1.5);
    expect(() => cropArt(art, { xPx: 10, yPx: 0, widthPx: 5, heightPx: 5 })).toThrow(AppError);
  });

  it('keeps every pixel when the crop is the whole', () => {
    const art = artFromText(['#.', '.#']);
    expect(cropArt(art, { xPx: 0, yPx: 0, widthPx: 2, heightPx: 2 })).toBe(art);
    expect(thereAsText(art)).toEqual(['##', '##']);
  });
});

describe('shrink', () => {
  it('averages what falls together and weighs colour by alpha', () => {
    const picture = makeRgba8(2, 2, new Uint8Array([200, 0, 0, 255, 0, 0, 0, 0, 100, 0, 0, 255, 0, 0, 0, 0]));
    const small = shrinkToSide(picture, 1);
    expect([...small.data]).toEqual([150, 0, 0, 128]);
    expect(shrinkToSide(picture, 2)).toBe(picture);
  });

  it('counts pixels that fall on two new ones by their parts, so that slanted edges stay straight', () => {
    const halves = resample(makeRgba8(3, 1, new Uint8Array([0, 0, 0, 255, 120, 120, 120, 255, 240, 240, 240, 255])), 0, 0, 3, 1, 2, 1);
    expect([halves.data[0], halves.data[4]]).toEqual([40, 200]);
    fc.assert(
      fc.property(fc.integer({ min: 41, max: 99 }), fc.double({ min: -0.6, max: 0.6, noNaN: true }), (side, slope) => {
        // A slanted edge: its place in each new row is what it was in the old ones.
        const edge = (y: number, size: number): number => size * 0.5 + slope * (y - size / 2);
        const from = artFromShare(sampled(100, 100, (x, y) => x < edge(y, 100))).colour;
        const small = resample(from, 0, 0, 100, 100, side, side);
        const opaque = resample({ ...from, opaque: true }, 0, 0, 100, 100, side, side).data;
        expect(small.data.every((value, i) => Math.abs(value - opaque[i]) <= 1)).toBe(true);
        for (let y = 2; y < side - 2; y++) {
          let dark = 0;
          for (let x = 0; x < side; x++) dark += (255 - small.data[(y * side + x) * 4]) / (255 - BLACK.r);
          expect(Math.abs(dark - edge(y + 0.5, side))).toBeLessThan(0.04);
        }
      }),
      { seed: 52, numRuns: 12 },
    );
  });

  it('shows single pixels when it enlarges', () => {
    const { colour } = artFromText(['#.']);
    const large = resample(colour, 0, 0, 2, 1, 4, 1);
    expect([0, 4, 8, 12].map((i) => large.data[i])).toEqual([0, 0, 255, 255]);
  });

  it('keeps the mean of any picture within rounding', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 64, maxLength: 64 }), (values) => {
        const data = new Uint8Array(256).map((_, i) => (i % 4 === 3 ? 255 : values[i >> 2]));
        const small = shrinkToSide(makeRgba8(8, 8, data), 2);
        const mean = (d: ArrayLike<number>): number => Array.from(d).reduce((s, v) => s + v, 0) / d.length;
        expect(Math.abs(mean(small.data) - mean(data))).toBeLessThan(0.6);
      }),
      { seed: 51 },
    );
  });
});

describe('labelRegions', () => {
  /** The slow and obvious way: flood each region. */
  function floodCount(cells: Uint8Array, width: number, height: number, diagonal: boolean): number[] {
    const seen = new Uint8Array(cells.length);
    const areas: number[] = [];
    for (let start = 0; start < cells.length; start++) {
      if (cells[start] === 0 || seen[start] === 1) continue;
      const stack = [start];
      seen[start] = 1;
      let area = 0;
      while (stack.length > 0) {
        const p = stack.pop()!;
        area++;
        for (let dy = -1; dy <= 1; dy++) {
          for (let dx = -1; dx <= 1; dx++) {
            const x = (p % width) + dx;
            const y = Math.floor(p / width) + dy;
            if (x < 0 || y < 0 || x >= width || y >= height || (!diagonal && dx !== 0 && dy !== 0)) continue;
            const q = y * width + x;
            if (cells[q] === 1 && seen[q] === 0) {
              seen[q] = 1;
              stack.push(q);
            }
          }
        }
      }
      areas.push(area);
    }
    return areas;
  }

  it('finds what flooding finds, on any pattern', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 17 }),
        fc.integer({ min: 1, max: 13 }),
        fc.boolean(),
        fc.infiniteStream(fc.boolean()),
        (width, height, diagonal, bits) => {
          const cells = new Uint8Array(width * height).map(() => (bits.next().value === true ? 1 : 0));
          const regions = labelRegions(cells, width, height, 1, diagonal);
          expect([...regions.area].sort()).toEqual(floodCount(cells, width, height, diagonal).sort());
          for (let run = 0; run < regions.runStart.length; run++) {
            for (let i = regions.runStart[run]; i < regions.runEnd[run]; i++) expect(cells[i]).toBe(1);
          }
        },
      ),
      { seed: 52, numRuns: 200 },
    );
  });

  it('says which regions touch the border', () => {
    const cells = new Uint8Array([0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1]);
    const regions = labelRegions(cells, 4, 3, 1, false);
    expect([...regions.touchesBorder]).toEqual([0, 1]);
  });
});
