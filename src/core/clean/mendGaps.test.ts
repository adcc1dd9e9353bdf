import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromShare, artFromText, BLACK, sampled, WHITE } from '../../../tests/fixtures/shapes.ts';
import { isAppError } from '../errors/appError.ts';
import type { Art } from '../raster/art.ts';
import { distanceInside } from '../raster/distance.ts';
import type { ShareMap } from '../raster/raster.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { thin } from '../raster/thin.ts';
import { finish } from '../task/task.ts';
import { lineEnds } from './lineEnds.ts';
import { mendGaps } from './mendGaps.ts';

const SIZE = 120;
const inkOf = (art: Art): Uint8Array => Uint8Array.from({ length: art.alpha.length }, (_, i) => (art.alpha[i] >= 128 && art.colour.data[i * 4] < 128 ? 1 : 0));
/** A ring of a line of the given width with a gap of so many px at an angle. */
const ringShare = (line: number, gap: number, angleRad: number, radius = 40): ShareMap =>
  sampled(SIZE, SIZE, (x, y) => {
    const away = Math.abs(Math.atan2(Math.sin(Math.atan2(y - 60, x - 60) - angleRad), Math.cos(Math.atan2(y - 60, x - 60) - angleRad)));
    return Math.abs(Math.hypot(x - 60, y - 60) - radius) <= line / 2 && away * radius > gap / 2;
  });
const brokenRing = (line: number, gap: number, angleRad: number): Art => artFromShare(ringShare(line, gap, angleRad));
const areas = (art: Art): number => labelRegions(inkOf(art), art.width, art.height, 0, false).area.filter((area) => area > 20).length;

describe('gap mending', () => {
  it('closes a ring at any angle, gap and width, each side within a pixel of how it was drawn', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.integer({ min: 3, max: 12 }), fc.integer({ min: 3, max: 8 }), (angle, gap, line) => {
        const broken = brokenRing(line, gap, angle);
        expect(areas(broken)).toBe(1);
        const { art, joints } = finish(mendGaps(broken, 13));
        expect(joints).toHaveLength(1);
        expect(joints[0].gapPx).toBeCloseTo(gap, -0.5);
        expect(areas(art)).toBe(2);
        const whole = brokenRing(line, 0, angle).colour.data;
        // Ink too much or missing, in whole pixels: at most one along each side of the joint.
        let off = 0;
        for (let i = 0; i < whole.length; i += 4) off += Math.abs(art.colour.data[i] - whole[i]) / 235;
        expect(off).toBeLessThan(2 + 2 * gap);
      }),
      { seed: 21, numRuns: 6 },
    );
  });

  it('leaves a gap that is too wide, and lines that do not face each other', () => {
    expect(finish(mendGaps(brokenRing(4, 20, 1), 12)).joints).toEqual([]);
    const besides = artFromShare(sampled(SIZE, SIZE, (x, y) => (Math.abs(x - 55) < 2 || Math.abs(x - 63) < 2) && y > 30 && y < 90));
    const { joints, art } = finish(mendGaps(besides, 12));
    expect([joints, art]).toEqual([[], besides]);
  });

  /** A capsule of a half width between two points. */
  const line = (x: number, y: number, [ax, ay, bx, by]: readonly [number, number, number, number], half: number): boolean => {
    const t = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)));
    return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)) <= half;
  };
  const joinsOf = (inside: (x: number, y: number) => boolean, mostPx: number): { joints: number; areas: number } => {
    const { art, joints } = finish(mendGaps(artFromShare(sampled(SIZE, SIZE, inside)), mostPx));
    return { joints: joints.length, areas: areas(art) };
  };

  it('joins two of three ends that face each other and carries the third on to them', () => {
    // A bar across the picture with a gap in its middle, to which a stem comes up: three fields when it is mended.
    for (const gap of [7, 12]) {
      const inside = (x: number, y: number): boolean =>
        line(x, y, [0, 52, 60 - gap / 2 - 2, 52], 2) || line(x, y, [60 + gap / 2 + 2, 54, SIZE, 54], 2) || line(x, y, [61, 54 + gap / 2 + 1, 58, SIZE], 2);
      expect(joinsOf(inside, 14)).toEqual({ joints: 2, areas: 3 });
    }
  });

  it('closes a gap in a sharp corner through the corner', () => {
    // A wedge of 50° without its tip, open towards the border.
    const inside = (x: number, y: number): boolean => line(x, y, [0, 30, 78, 56.5], 3) || line(x, y, [0, 95, 78, 65], 3);
    expect(joinsOf(inside, 14)).toEqual({ joints: 1, areas: 2 });
    const { art } = finish(mendGaps(artFromShare(sampled(SIZE, SIZE, inside)), 14));
    expect(inkOf(art)[60 * SIZE + 87]).toBe(1);
  });

  it('takes a frayed end and a blot for the end of their line', () => {
    const frayed = (x: number, y: number): boolean =>
      line(x, y, [0, 60, 50, 60], 3) ||
      line(x, y, [49, 58, 53, 57], 0.8) ||
      line(x, y, [49, 62, 54, 63], 0.8) ||
      line(x, y, [66, 60, SIZE, 60], 3) ||
      line(x, y, [67, 58, 64, 56.5], 0.8);
    expect(joinsOf(frayed, 14)).toEqual({ joints: 1, areas: 2 });
    const blotted = (x: number, y: number): boolean =>
      line(x, y, [0, 60, 50, 60], 2.5) || Math.hypot(x - 50, y - 60.5) < 5 || line(x, y, [66, 60, SIZE, 60], 2.5);
    expect(joinsOf(blotted, 14)).toEqual({ joints: 1, areas: 2 });
  });

  it('carries a line on to the side of another, in its own colour on clear ground', () => {
    const tee = artFromShare(sampled(SIZE, SIZE, (x, y) => Math.abs(y - 30) < 2.5 || (Math.abs(x - 60) < 2 && y > 40 && y < 100)));
    const { joints, art } = finish(mendGaps(tee, 10));
    expect(joints).toHaveLength(1);
    const ink = inkOf(art);
    for (let y = 33; y < 40; y++) expect(ink[y * SIZE + 59]).toBe(1);
    expect(art.colour.data[(36 * SIZE + 60) * 4]).toBeCloseTo(BLACK.r, -1);
  });

  it('says when there is no drawing', () => {
    try {
      finish(
        mendGaps(
          artFromShare(
            sampled(20, 20, () => false),
            BLACK,
            WHITE,
          ),
          5,
        ),
      );
      expect.unreachable();
    } catch (error) {
      expect(isAppError(error) && error.code).toBe('oneColour');
    }
  });
});

describe('line ends', () => {
  it('are found where a stroke ends, with its direction and width, and not on a ring or a blob', () => {
    const share = sampled(SIZE, SIZE, (x, y) => Math.abs(y - x) * Math.SQRT1_2 <= 3 && x + y > 60 && x + y < 180);
    const ends = finish(lineEnds(share));
    expect(ends).toHaveLength(2);
    const [first, second] = ends;
    expect([first.xPx, first.yPx, second.xPx, second.yPx].map((v) => Math.round(v / 5) * 5)).toEqual([30, 30, 90, 90]);
    expect(second.dx).toBeCloseTo(Math.SQRT1_2, 1);
    expect(first.halfWidthPx).toBeCloseTo(3, -0.3);
    expect(finish(lineEnds(ringShare(5, 0, 0)))).toEqual([]);
    expect(finish(lineEnds(sampled(SIZE, SIZE, (x, y) => Math.hypot(x - 60, y - 60) < 30)))).toEqual([]);
  });
});

describe('thinning and distance', () => {
  it('thins to one cell, keeps what is connected, and gives nothing new', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 9 }), fc.double({ min: 0, max: 3.14, noNaN: true }), (line, angle) => {
        const cells = inkOf(
          artFromShare(
            sampled(60, 60, (x, y) => Math.abs((x - 30) * Math.sin(angle) - (y - 30) * Math.cos(angle)) <= line / 2 && Math.hypot(x - 30, y - 30) < 24),
          ),
        );
        const thinned = finish(thin(cells, 60, 60));
        expect(labelRegions(thinned, 60, 60, 1, true).count).toBe(1);
        expect(thinned.every((value, i) => value === 0 || cells[i] === 1)).toBe(true);
        const length = thinned.reduce((sum, value) => sum + value, 0);
        expect(length).toBeGreaterThan(24);
        expect(length).toBeLessThan(52);
        expect([...finish(thin(thinned, 60, 60))]).toEqual([...thinned]);
      }),
      { seed: 3, numRuns: 40 },
    );
  });

  it('measures the distance to the nearest empty cell exactly', () => {
    const { alpha } = artFromText(['         ', ' #######  '.slice(0, 9), ' ####### ', ' ####### ', '         ']);
    const cells = alpha.map((value) => (value > 0 ? 1 : 0));
    const found = distanceInside(cells, 9, 5);
    for (let y = 0; y < 5; y++) {
      for (let x = 0; x < 9; x++) {
        let least = Infinity;
        for (let yy = -1; yy <= 5; yy++)
          for (let xx = -1; xx <= 9; xx++)
            if (xx < 0 || yy < 0 || xx > 8 || yy > 4 || cells[yy * 9 + xx] === 0) least = Math.min(least, Math.hypot(xx - x, yy - y));
        expect(found[y * 9 + x]).toBeCloseTo(cells[y * 9 + x] === 0 ? 0 : least, 5);
      }
    }
  });
});
