import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { artFromShare, artFromText, polygon, randomFrom, sampled, thereAsText, WHITE } from '../../../tests/fixtures/shapes.ts';
import { DifferenceTable } from '../colour/differenceTable.ts';
import { artFromPicture } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { artResolution } from './finishedSize.ts';
import { findTolerance } from './findTolerance.ts';
import { liftAt } from './liftAt.ts';
import { areaMask, nearTo } from './liftMask.ts';
import { paintStroke } from './paintStrokes.ts';
import { reachLevels } from './reachLevels.ts';
import { sweepSpecks } from './sweepSpecks.ts';

const HARD = { tolerance: 5, everywhere: false, enclosed: false, soft: false } as const;

describe('reachLevels', () => {
  it('gives every pixel the smallest tolerance at which a plain flood takes it', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 200, max: 255 }), { minLength: 48, maxLength: 48 }), fc.integer({ min: 0, max: 47 }), (greys, start) => {
        const data = new Uint8Array(48 * 4).map((_, i) => (i % 4 === 3 ? 255 : greys[i >> 2]));
        const art = artFromPicture(makeRgba8(8, 6, data));
        const reach = finish(reachLevels(art, start % 8, Math.floor(start / 8)));
        const table = new DifferenceTable(reach.from);
        for (const level of [0, 3, 10, 25, 60]) {
          const flooded = new Set([start]);
          for (const p of flooded) {
            for (const [dx, dy] of [
              [1, 0],
              [-1, 0],
              [0, 1],
              [0, -1],
            ]) {
              const x = (p % 8) + dx;
              const y = Math.floor(p / 8) + dy;
              const q = y * 8 + x;
              if (x >= 0 && x < 8 && y >= 0 && y < 6 && table.level(greys[q], greys[q], greys[q]) <= level) flooded.add(q);
            }
          }
          const reached = [...reach.levels.keys()].filter((i) => reach.levels[i] <= level);
          expect(reached).toEqual([...flooded].sort((a, b) => a - b));
          expect(reach.areaByLevel[level]).toBe(flooded.size);
          const only = finish(reachLevels(art, start % 8, Math.floor(start / 8), level));
          expect([...finish(areaMask(only, level / 10))]).toEqual([...finish(areaMask(reach, level / 10))]);
          expect(only.areaByLevel[level]).toBe(flooded.size);
        }
      }),
      { seed: 61, numRuns: 60 },
    );
  });

  it('does not pass clear pixels and refuses a start outside', () => {
    const art = artFromText(['. .', '. .']);
    const reach = finish(reachLevels(art, 0, 0));
    expect([...finish(areaMask(reach, 20))]).toEqual([1, 0, 0, 1, 0, 0]);
    expect(() => finish(reachLevels(art, 3, 0))).toThrow(RangeError);
  });
});

describe('findTolerance', () => {
  const curve = (area: (level: number) => number): Float64Array => Float64Array.from({ length: 255 }, (_, level) => area(level));

  it('stands in the first stretch that holds, before the leak', () => {
    const found = findTolerance(curve((level) => (level < 12 ? 1000 * level : level < 80 ? 12_000 + level : 40_000)));
    expect(found.tolerance).toBeGreaterThan(1.2);
    expect(found.tolerance).toBeLessThan(8);
    expect(found.holdsTo).toBeCloseTo(7.9, 5);
  });

  it('gives some tolerance for a curve that never rests', () => {
    const found = findTolerance(curve((level) => 100 * 1.1 ** (level / 4)));
    expect(found.tolerance).toBeGreaterThanOrEqual(0);
    expect(found.tolerance).toBeLessThanOrEqual(25.4);
  });
});

describe('lifts', () => {
  /** White paper, a white sail held by a thin light-grey outline. */
  const sail = (): ReturnType<typeof artFromShare> => {
    const outer: [number, number][] = [
      [20, 80],
      [60, 15],
      [62, 80],
    ];
    const inner: [number, number][] = [
      [23.2, 78.4],
      [60, 20.5],
      [60.4, 78.4],
    ];
    const outline = sampled(90, 96, (x, y) => inside(outer, x, y) && !inside(inner, x, y));
    return artFromShare(outline, { r: 201, g: 201, b: 198 }, WHITE);
  };
  const inside = (points: [number, number][], x: number, y: number): boolean => {
    let is = false;
    for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
      if (points[i][1] > y !== points[j][1] > y && x < ((points[j][0] - points[i][0]) * (y - points[i][1])) / (points[j][1] - points[i][1]) + points[i][0])
        is = !is;
    }
    return is;
  };

  it('keep a white sail on white paper at a small and at the found tolerance, and lose it at a large one', () => {
    const middle = 60 * 90 + 52;
    for (const tolerance of [2, 'auto'] as const) {
      const { art } = finish(liftAt(sail(), 2, 2, { ...HARD, tolerance }));
      expect(art.alpha[middle]).toBe(255);
      expect(art.alpha[0]).toBe(0);
    }
    expect(finish(liftAt(sail(), 2, 2, { ...HARD, tolerance: 25 })).art.alpha[middle]).toBe(0);
  });

  it('take enclosed areas only when asked, and a colour everywhere', () => {
    const ring = artFromShare(sampled(40, 40, (x, y) => Math.abs(Math.hypot(x - 20, y - 20) - 11) < 3));
    const at = (alpha: Uint8Array): number => alpha[20 * 40 + 20];
    expect(at(finish(liftAt(ring, 0, 0, HARD)).art.alpha)).toBe(255);
    const enclosed = finish(liftAt(ring, 0, 0, { ...HARD, enclosed: true }));
    expect([at(enclosed.art.alpha), enclosed.finds.length]).toEqual([0, 1]);
    expect(at(finish(liftAt(ring, 0, 0, { ...HARD, everywhere: true })).art.alpha)).toBe(0);
  });

  it('leave light lines of the drawing alone where enclosed areas are taken, thin ones of which only bits are light too', () => {
    const [broad, thin] = [
      { from: 40, to: 43 },
      { from: 60.4, to: 61.6 },
    ];
    const isLight = (x: number, y: number): boolean =>
      x > 20 && x < 140 && ((y >= broad.from && y < broad.to) || (y >= thin.from + 0.01 * x && y < thin.to + 0.01 * x));
    // A plate with two light lines and a round opening, on paper.
    const plate = artFromShare(sampled(160, 120, (x, y) => x > 10 && x < 150 && y > 10 && y < 110 && !isLight(x, y) && Math.hypot(x - 80, y - 85) > 12));
    for (const soft of [false, true]) {
      const { art, finds } = finish(liftAt(plate, 1, 1, { ...HARD, enclosed: true, soft }));
      const row = (y: number): number => [...art.alpha.subarray(y * 160 + 25, y * 160 + 135)].reduce((sum, a) => sum + a, 0) / 110;
      expect(finds).toHaveLength(1);
      expect([row(41), row(61), art.alpha[85 * 160 + 80], art.alpha[0]]).toEqual([255, 255, 0, 0]);
    }
  });

  it('leave areas alone whose own colour is not the ground’s, although the tolerance reaches it', () => {
    const share = sampled(80, 80, (x, y) => Math.abs(Math.hypot(x - 40, y - 40) - 25) < 5);
    const { width, height, data } = share;
    const colours = new Uint8Array(width * height * 4).fill(255);
    for (let i = 0; i < data.length; i++) {
      const isCream = Math.hypot((i % width) - 39.5, Math.floor(i / width) - 39.5) < 24;
      for (let c = 0; c < 3; c++) colours[4 * i + c] = 255 - ((data[i] * 220) / 255 + (isCream && data[i] < 40 ? [2, 12, 34][c] : 0));
    }
    const { art, finds } = finish(liftAt(artFromPicture(makeRgba8(width, height, colours, true)), 1, 1, { ...HARD, tolerance: 7, enclosed: true }));
    expect([finds.length, art.alpha[40 * 80 + 40], art.alpha[0]]).toEqual([0, 255, 0]);
  });

  it('leave edge pixels their share of the art and take the ground’s tint off', () => {
    const share = polygon(30, 30, [
      [8.25, 8.5],
      [22.5, 8.5],
      [22.5, 21.75],
      [8.25, 21.75],
    ]);
    const ink = { r: 190, g: 40, b: 30 };
    const { art } = finish(liftAt(artFromShare(share, ink, WHITE), 1, 1, { ...HARD, soft: true }));
    let wrong = 0;
    for (let i = 0; i < share.data.length; i++) wrong = Math.max(wrong, Math.abs(art.alpha[i] - share.data[i]));
    expect(wrong).toBeLessThanOrEqual(18);
    const edge = 15 * 30 + 8;
    expect([0, 1, 2].map((c) => art.colour.data[edge * 4 + c])).toEqual([ink.r, ink.g, ink.b]);
  });

  it('find a colour within its tolerance only', () => {
    const art = artFromText(['#o.', '.o#']);
    expect([...finish(nearTo(art, { r: 150, g: 150, b: 150 }, 1))]).toEqual([0, 1, 0, 0, 1, 0]);
  });
});

describe('sweep', () => {
  it('clears specks and fills pinholes below their sizes, and no others', () => {
    const { art, specks, pinholes } = sweepSpecks(
      artFromText([
        '          ', //
        ' ######  #',
        ' # ####   ',
        ' ####  #  ',
        ' ######## ',
        '          ',
      ]),
      3,
      2,
    );
    expect([specks, pinholes]).toEqual([1, 1]);
    expect(thereAsText(art)).toEqual([
      '          ', //
      ' ######   ',
      ' ######   ',
      ' ####  #  ',
      ' ######## ',
      '          ',
    ]);
  });

  it('changes nothing the second time', () => {
    const random = randomFrom(7);
    for (let round = 0; round < 40; round++) {
      const rows = Array.from({ length: 14 }, () => Array.from({ length: 17 }, () => (random() < 0.5 ? '#' : ' ')).join(''));
      const once = sweepSpecks(artFromText(rows), 6, 4).art;
      expect(thereAsText(sweepSpecks(once, 6, 4).art)).toEqual(thereAsText(once));
    }
  });
});

describe('strokes', () => {
  it('cover as much as a round brush covers', () => {
    const cover = new Uint8Array(60 * 40);
    paintStroke(cover, 60, 40, [15, 20, 45, 20], 8);
    const area = cover.reduce((sum, value) => sum + value / 255, 0);
    expect(Math.abs(area - (30 * 16 + Math.PI * 64))).toBeLessThan(8);
    const dot = new Uint8Array(60 * 40);
    paintStroke(dot, 60, 40, [30, 20], 10);
    expect(Math.abs(dot.reduce((sum, value) => sum + value / 255, 0) - Math.PI * 100)).toBeLessThan(8);
  });

  it('stay inside the raster wherever they go', () => {
    const cover = new Uint8Array(100);
    paintStroke(cover, 10, 10, [-50, -50, 200, 200, 5, -900], 3);
    expect(cover.some((value) => value > 0)).toBe(true);
    paintStroke(cover, 10, 10, [], 3);
  });
});

describe('finished size', () => {
  it('is that of the ink, not of the paper around it, whatever way the design is turned', () => {
    const paper = artFromText(['..........', '..........', '..######..', '...#..#...', '..........', '.........o']);
    expect(artResolution(paper, { by: 'width', sizeMm: 2, turnDeg: 0 })).toBe(4);
    expect(artResolution(paper, { by: 'width', sizeMm: 2, turnDeg: 0 }, 0.5)).toBe(3);
    expect(artResolution(paper, { by: 'height', sizeMm: 1, turnDeg: 0 }, 0.5)).toBe(2);
    expect(artResolution(paper, { by: 'width', sizeMm: 1, turnDeg: 90 }, 0.5)).toBe(2);
    // Turned by an eighth, x − y tells the width: from −1 at the lower left of the ink to 6 at its upper right.
    expect(artResolution(paper, { by: 'width', sizeMm: 7 * Math.SQRT1_2, turnDeg: 45 })).toBeCloseTo(1, 9);
  });

  it('measures what is there', () => {
    const art = artFromText(['     ', ' ##  ', ' ### ', '     ']);
    expect(artResolution(art, { by: 'width', sizeMm: 1.5, turnDeg: 0 })).toBe(2);
    expect(artResolution(art, { by: 'height', sizeMm: 4, turnDeg: 0 })).toBe(0.5);
    expect(artResolution(artFromText(['    ', '    ']), { by: 'height', sizeMm: 4, turnDeg: 0 })).toBe(0.5);
  });
});
