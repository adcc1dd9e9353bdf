import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../../tests/fixtures/errorCode.ts';
import { randomFrom } from '../../../../tests/fixtures/shapes.ts';
import { artFromPicture, withAlpha, type Art } from '../../raster/art.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { barrierFrom } from './barrier.ts';
import { basinsOf } from './basins.ts';
import { fitMixture, unlikeness } from './colourMixture.ts';
import { correctSubject } from './correctSubject.ts';
import { findSubject } from './findSubject.ts';
import { liftSubject } from './liftSubject.ts';
import { MARK } from './marks.ts';
import { minCut, type GridCut } from './minCut.ts';
import { planesOf } from '../planes.ts';
import { refineMask } from './refineMask.ts';
import { sharpEdges } from './sharpEdges.ts';
import { smoothGround } from './smoothGround.ts';
import { wayFrom } from './wayFrom.ts';

/** What a division of the grid costs: terminals on the wrong side and parted neighbours. */
function costOf({ width, height, terminal, right, down }: GridCut, side: ArrayLike<number>): number {
  let cost = 0;
  for (let i = 0; i < width * height; i++) {
    if (terminal[i] > 0 && side[i] === 0) cost += terminal[i];
    if (terminal[i] < 0 && side[i] !== 0) cost -= terminal[i];
    if (i % width < width - 1 && side[i] !== side[i + 1]) cost += right[i];
    if (i < width * (height - 1) && side[i] !== side[i + width]) cost += down[i];
  }
  return cost;
}

describe('minCut', () => {
  it('finds the cheapest of all divisions', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        fc.infiniteStream(fc.integer({ min: 0, max: 40 })),
        (width, height, numbers) => {
          const n = width * height;
          const next = (): number => numbers.next().value as number;
          const make = (of: () => number): Float32Array => new Float32Array(n).map(of);
          const grid: GridCut = { width, height, terminal: make(() => next() - 20), right: make(() => next() / 4), down: make(() => next() / 4) };
          let least = Infinity;
          for (let bits = 0; bits < 1 << n; bits++)
            least = Math.min(
              least,
              costOf(
                grid,
                Array.from({ length: n }, (_, i) => (bits >> i) & 1),
              ),
            );
          const found = minCut({ ...grid, terminal: grid.terminal.slice() });
          expect(costOf(grid, found)).toBeCloseTo(least, 3);
        },
      ),
      { seed: 81, numRuns: 150 },
    );
  });
});

const SIZE = 160;
type Paint = (x: number, y: number) => readonly [number, number, number];

/** A picture with the share of subject in each pixel: `inside` is sampled four by four. */
function composed(inside: (x: number, y: number) => boolean, subject: Paint, ground: Paint, noise = 0): { art: Art; truth: Float32Array } {
  const data = new Uint8Array(SIZE * SIZE * 4).fill(255);
  const truth = new Float32Array(SIZE * SIZE);
  const random = randomFrom(4);
  for (let i = 0; i < truth.length; i++) {
    const [x, y] = [i % SIZE, Math.floor(i / SIZE)];
    let hits = 0;
    for (let k = 0; k < 16; k++) if (inside(x + ((k % 4) + 0.5) / 4, y + (Math.floor(k / 4) + 0.5) / 4)) hits++;
    truth[i] = hits / 16;
    const [front, back] = [subject(x, y), ground(x, y)];
    for (let c = 0; c < 3; c++)
      data[i * 4 + c] = Math.max(0, Math.min(255, Math.round(front[c] * truth[i] + back[c] * (1 - truth[i]) + noise * (random() - 0.5))));
  }
  return { art: artFromPicture(makeRgba8(SIZE, SIZE, data, true)), truth };
}

function scored(art: Art, truth: Float32Array): { overlap: number; alphaError: number } {
  let both = 0;
  let either = 0;
  let error = 0;
  for (let i = 0; i < truth.length; i++) {
    const [found, there] = [art.alpha[i] >= 128, truth[i] >= 0.5];
    if (found && there) both++;
    if (found || there) either++;
    error += Math.abs(art.alpha[i] / 255 - truth[i]);
  }
  return { overlap: both / either, alphaError: error / truth.length };
}

const RED: Paint = () => [170, 50, 60];
const disc = (x: number, y: number): boolean => Math.hypot(x - 80, y - 76) < 38;
const ring = (x: number, y: number): boolean => disc(x, y) && Math.hypot(x - 80, y - 76) > 22;
/** Light that falls off by a fifth towards one corner. */
const paper: Paint = (x, y) =>
  [250, 246, 238].map((v) => v * (1 - 0.2 * ((x * x + y * y) / (2 * SIZE * SIZE)))) as unknown as readonly [number, number, number];
/** Broad soft patches of many colours, as a photograph out of focus. */
const soft: Paint = (x, y) => [128 + 90 * Math.sin(x / 13) * Math.cos(y / 17), 120 + 80 * Math.sin(x / 19 + y / 11), 110 + 90 * Math.cos(x / 15 - y / 23)];

describe('liftSubject', () => {
  it('finds flat art on shaded paper and on a soft photograph, its hole too', () => {
    for (const ground of [paper, soft]) {
      for (const inside of [disc, ring]) {
        const { art, truth } = composed(inside, RED, ground);
        const { overlap, alphaError } = scored(finish(liftSubject(art)).art, truth);
        expect(overlap).toBeGreaterThan(0.97);
        expect(alphaError).toBeLessThan(0.01);
      }
    }
  });

  it('takes a soft shadow for ground, also under noise', () => {
    const shadowed: Paint = (x, y) => {
      const shade = 1 - 0.4 / (1 + Math.exp((Math.hypot(x - 88, y - 86) - 38) / 3));
      return [200 * shade, 196 * shade, 150 * shade];
    };
    const { art, truth } = composed(disc, RED, shadowed, 6);
    expect(scored(finish(liftSubject(art)).art, truth).overlap).toBeGreaterThan(0.97);
  });

  it('takes the ground’s tint out of mixed pixels', () => {
    const { art } = composed(disc, RED, () => [240, 240, 60]);
    const lifted = finish(liftSubject(art)).art;
    let mixed = 0;
    for (let i = 0; i < lifted.alpha.length; i++) {
      if (lifted.alpha[i] === 0 || lifted.alpha[i] === 255) continue;
      mixed++;
      expect(Math.abs(lifted.colour.data[i * 4 + 1] - 50)).toBeLessThan(12);
    }
    expect(mixed).toBeGreaterThan(100);
  });

  it('takes a flat drawing off a plain ground whole, its thin lines too, with the edge where it was', () => {
    // A disc on a stalk of a pixel and a half, with a ring of the ground's colour in it.
    const inside = (x: number, y: number): boolean =>
      (Math.hypot(x - 80, y - 60) < 40 && !(Math.abs(Math.hypot(x - 80, y - 60) - 25) < 4)) || (Math.abs(x - 80.3) < 0.75 && y >= 60 && y < 150);
    const { art, truth } = composed(
      inside,
      () => [170, 40, 50],
      () => [250, 247, 240],
      6,
    );
    const { alpha } = finish(liftSubject(art)).art;
    let off = 0;
    for (let i = 0; i < truth.length; i++) {
      // The ring may stay or go.
      if (Math.abs(Math.hypot((i % SIZE) - 80, Math.floor(i / SIZE) - 60) - 25) > 8) off += Math.abs(alpha[i] / 255 - truth[i]);
    }
    expect(off / truth.length).toBeLessThan(0.0012);
    expect(alpha[120 * SIZE + 80]).toBeGreaterThan(128);
  });

  it('listens to strokes, and leaves clear what was clear', () => {
    const two = (x: number, y: number): boolean => Math.hypot(x - 45, y - 80) < 25 || Math.hypot(x - 115, y - 80) < 25;
    const { art } = composed(two, RED, paper);
    const at = (lifted: Art, x: number, y: number): number => lifted.alpha[y * SIZE + x];
    const cleared = finish(liftSubject(art, [{ says: 'clear', radius: 6, points: [105, 75, 125, 85] }])).art;
    expect([at(cleared, 45, 80), at(cleared, 115, 80)]).toEqual([255, 0]);
    const kept = finish(liftSubject(art, [{ says: 'keep', radius: 3, points: [75, 20, 85, 20] }])).art;
    expect([at(kept, 80, 20), at(kept, 80, 60)]).toEqual([255, 0]);
    const half = art.alpha.slice();
    for (let i = 0; i < half.length; i++) if (i % SIZE > 80) half[i] = 0;
    const rest = finish(liftSubject(withAlpha(art, half))).art;
    expect([at(rest, 45, 80), at(rest, 115, 80)]).toEqual([255, 0]);
  });

  it('changes only what is near a stroke, unless it teaches', () => {
    const three = (x: number, y: number): boolean =>
      [
        [30, 40],
        [120, 45],
        [75, 120],
      ].some(([cx, cy]) => Math.hypot(x - cx, y - cy) < 22);
    const { art } = composed(three, RED, paper);
    const before = finish(liftSubject(art)).art.alpha;
    const stroke = { says: 'clear', radius: 4, points: [112, 45, 128, 45] } as const;
    const after = finish(liftSubject(art, [stroke])).art.alpha;
    let far = 0;
    for (let i = 0; i < after.length; i++) if (Math.hypot((i % SIZE) - 120, Math.floor(i / SIZE) - 45) > 50 && after[i] !== before[i]) far++;
    expect(far).toBe(0);
    const at = (alpha: Uint8Array, x: number, y: number): number => alpha[y * SIZE + x];
    expect([at(after, 120, 45), at(after, 134, 52), at(after, 30, 40), at(after, 75, 120)]).toEqual([0, 0, 255, 255]);
    // Taken back, all is as it was.
    expect(finish(liftSubject(art, [])).art.alpha).toEqual(before);
    const lasso = finish(liftSubject(art, [{ says: 'clear', radius: 1, points: [50, 90, 110, 90, 110, 150, 50, 150], lasso: true }])).art.alpha;
    expect([at(lasso, 75, 120), at(lasso, 30, 40)]).toEqual([0, 255]);
  });

  it('brings back a part that went with the ground, by one stroke over it', () => {
    const face = (x: number, y: number): boolean => Math.hypot(x - 80, y - 60) < 30 || Math.hypot(x - 80, y - 120) < 34;
    const pale: Paint = (x, y) => (Math.hypot(x - 80, y - 60) < 30 ? [206, 198, 190] : RED(x, y));
    const { art, truth } = composed(face, pale, () => [214, 208, 202], 5);
    const [fixed] = [[{ says: 'keep', radius: 5, points: [65, 55, 80, 60, 95, 55] }]] as const;
    expect(scored(finish(liftSubject(art, fixed)).art, truth).overlap).toBeGreaterThan(0.9);
  });

  it('keeps only the largest part where that is wanted, and what a stroke keeps', () => {
    const two = (x: number, y: number): boolean => Math.hypot(x - 50, y - 80) < 30 || Math.hypot(x - 120, y - 80) < 14 || Math.hypot(x - 120, y - 30) < 12;
    const { art } = composed(two, RED, paper);
    const at = (lifted: Art, x: number, y: number): number => lifted.alpha[y * SIZE + x];
    const one = finish(liftSubject(art, [], { largest: true })).art;
    expect([at(one, 50, 80), at(one, 120, 80), at(one, 120, 30)]).toEqual([255, 0, 0]);
    const kept = finish(liftSubject(art, [{ says: 'keep', radius: 4, points: [118, 80, 122, 80] }], { largest: true })).art;
    expect([at(kept, 50, 80), at(kept, 120, 80), at(kept, 120, 30)]).toEqual([255, 255, 0]);
    const taught = finish(liftSubject(art, [{ says: 'keep', radius: 4, points: [118, 80, 122, 80], teaches: true }], { largest: true })).art;
    expect([at(taught, 50, 80), at(taught, 120, 80), at(taught, 120, 30)]).toEqual([255, 255, 0]);
  });

  describe('on photographs', () => {
    const grain: Paint = (x, y) => {
      const v = 20 * Math.sin(y * 1.7 + 1.3 * Math.sin(x / 23)) + 14 * Math.sin(y * 0.61 + x / 40);
      return y % 53 === 20 ? [70, 45, 30] : [150 + v, 105 + v, 70 + v];
    };

    it('finds a painted board on grained wood whole, and leaves no grain', () => {
      for (const paint of [
        [31, 79, 107],
        [243, 239, 230],
      ] as const) {
        const board: Paint = (x, y) => (Math.abs(x - 80) < 20 && Math.abs(y - 84) < 8 ? [240, 210, 138] : paint);
        const { art, truth } = composed((x, y) => Math.hypot((x - 80) / 1.3, y - 84) < 42, board, grain, 6);
        const { overlap } = scored(finish(liftSubject(art)).art, truth);
        expect(overlap).toBeGreaterThan(0.97);
      }
    });

    it('keeps dark outlines on a dark ground, and what is pale inside of a rind on white paper', () => {
      const lined: Paint = (x, y) => (Math.hypot(x - 80, y - 80) > 42 ? [12, 10, 16] : [224, 191, 106]);
      const dark = composed(
        (x, y) => Math.hypot(x - 80, y - 80) < 48,
        lined,
        (x) => [40 + x / 20, 38 + x / 20, 58 + x / 16],
        4,
      );
      expect(scored(finish(liftSubject(dark.art)).art, dark.truth).overlap).toBeGreaterThan(0.97);
      const fruit: Paint = (x, y) => (Math.hypot(x - 80, y - 80) > 44 ? [77, 138, 60] : [244, 241, 224]);
      const pale = composed(
        (x, y) => Math.hypot(x - 80, y - 80) < 50,
        fruit,
        (x, y) => [252 - (x + y) / 20, 251 - (x + y) / 20, 249 - (x + y) / 20],
        3,
      );
      expect(scored(finish(liftSubject(pale.art)).art, pale.truth).overlap).toBeGreaterThan(0.97);
    });

    it('learns from strokes who stands before a room out of focus', () => {
      const room: Paint = (x, y) => [128 + 90 * Math.sin(x / 14) * Math.cos(y / 17), 128 + 80 * Math.sin(x / 11 + 2), 120 + 90 * Math.cos(y / 13)];
      const inHead = (x: number, y: number): boolean => Math.hypot((x - 80) / 0.85, y - 62) < 30;
      const inBody = (x: number, y: number): boolean => Math.hypot((x - 80) / 1.5, y - 150) < 46;
      const person: Paint = (x, y) => (inHead(x, y) ? [232 - (x + y) / 4, 190 - (x + y) / 4, 165 - (x + y) / 4] : [50 + x / 3, 120 + y / 4, 110 - x / 4]);
      const { art, truth } = composed((x, y) => inHead(x, y) || inBody(x, y), person, room, 5);
      const [keep, clear] = [MARK.keep, MARK.clear];
      const saidAt = (x: number, y: number): number =>
        (Math.abs(x - 80) < 5 && y > 42 && y < 80) || (Math.abs(y - 145) < 5 && x > 40 && x < 120)
          ? keep
          : y < 120 && (Math.abs(x - 12) < 4 || Math.abs(x - 148) < 4 || Math.abs(y - 12) < 4)
            ? clear
            : 0;
      const marks = Uint8Array.from({ length: SIZE * SIZE }, (_, i) => saidAt(i % SIZE, Math.floor(i / SIZE)));
      const { subject, isSure } = finish(findSubject(art.colour, marks, true));
      expect(isSure).toBe(false);
      expect(subject.every((own, i) => marks[i] === 0 || own === (marks[i] === keep ? 1 : 0))).toBe(true);
      const [both, either] = subject.reduce(
        ([and, or], own, i) => [and + (own === 1 && truth[i] >= 0.5 ? 1 : 0), or + (own === 1 || truth[i] >= 0.5 ? 1 : 0)],
        [0, 0],
      );
      expect(both / either).toBeGreaterThan(0.9);
    });

    it('takes nothing away by a stroke that keeps, and brings nothing back by one that clears', () => {
      const { art, truth } = composed(
        (x, y) => Math.hypot((x - 80) / 1.3, y - 84) < 42,
        () => [31, 79, 107],
        grain,
        6,
      );
      const subject = Uint8Array.from(truth, (share) => (share >= 0.5 ? 1 : 0));
      const place = fc.integer({ min: 8, max: SIZE - 8 });
      fc.assert(
        fc.property(place, place, fc.constantFrom('keep' as const, 'clear' as const), (x, y, says) => {
          const cover = Uint8Array.from(subject, (_, i) => (Math.hypot((i % SIZE) - x, Math.floor(i / SIZE) - y) < 6 ? 1 : 0));
          const after = correctSubject(
            subject,
            planesOf(art.colour),
            cover.map((under) => (under === 0 ? 0 : MARK[says])),
            { says, cover, reachPx: 30 },
          );
          const side = says === 'keep' ? 1 : 0;
          expect(after.every((now, i) => now === side || now === subject[i])).toBe(true);
          expect(after.every((now, i) => cover[i] === 0 || now === side)).toBe(true);
        }),
        { seed: 31, numRuns: 12 },
      );
    });
  });

  it('says so when nothing stands out', () => {
    const { art } = composed(() => false, RED, paper);
    expect(codeOf(() => finish(liftSubject(art)))).toBe('noSubject');
  });
});

describe('parts of it', () => {
  it('barrierFrom climbs no slope and every wall', () => {
    const [width, height] = [30, 20];
    const seeds = Uint8Array.from({ length: width * height }, (_, i) => (i % width === 0 ? 1 : 0));
    const wall = Float32Array.from({ length: width * height }, (_, i) => (i % width > 10 && i % width < 20 && i > 5 * width && i < 15 * width ? 100 : 10));
    const found = barrierFrom(wall, seeds, width);
    expect([found[10 * width + 15], found[10 * width + 25], found[10 * width + 5]]).toEqual([90, 0, 0]);
  });

  it('wayFrom goes around what is dear', () => {
    const [width, height] = [21, 21];
    const cost = Float32Array.from({ length: width * height }, (_, i) => (i % width === 10 && Math.floor(i / width) > 2 ? 100 : 1));
    const seeds = new Uint8Array(width * height);
    seeds[10 * width + 5] = 1;
    const way = wayFrom(cost, seeds, width);
    // Up to the opening in row 2, through it and down again: 5 + 5 columns, 8 rows twice.
    expect(way[10 * width + 15]).toBe(26);
  });

  it('a mixture of colours knows those that it was made of', () => {
    const colours = [
      [200, 30, 30],
      [20, 60, 160],
    ] as const;
    const random = randomFrom(9);
    const planes = [0, 1, 2].map((c) => Float32Array.from({ length: 400 }, (_, i) => colours[i % 2][c] + 6 * (random() - 0.5))) as unknown as Parameters<
      typeof fitMixture
    >[0];
    const mixture = fitMixture(planes, new Float32Array(400).fill(1));
    const own = colours.map(([r, g, b]) => unlikeness(mixture, r, g, b));
    expect(unlikeness(mixture, 110, 45, 95)).toBeGreaterThan(Math.max(...own) + 20);
    expect(fitMixture(planes, new Float32Array(400))).toHaveLength(0);
  });

  it('sharpEdges tells a sharp step from a soft one of the same height', () => {
    const step: Rgba8 = composed(
      (x) => x > 50,
      () => [60, 60, 60],
      () => [180, 180, 180],
    ).art.colour;
    const gentle: Rgba8 = composed(
      () => false,
      RED,
      (x) => {
        const v = 120 - 60 * Math.tanh((x - 50) / 5);
        return [v, v, v];
      },
    ).art.colour;
    const strongest = (picture: Rgba8): number => Math.max(...sharpEdges(picture, planesOf(picture)).sharp);
    expect(strongest(step)).toBeGreaterThan(10);
    expect(strongest(gentle)).toBe(0);
  });

  it('basinsOf does not let a narrow gap join two areas', () => {
    const [width, height] = [60, 40];
    const wall = (gap: number): Float32Array =>
      Float32Array.from({ length: width * height }, (_, i) => (i % width === 30 && Math.abs(Math.floor(i / width) - 20) > gap ? 9 : 0));
    const parts = (gap: number): number => {
      const { labels } = basinsOf(wall(gap), width, height);
      return labels[20 * width + 10] === labels[20 * width + 50] ? 1 : 2;
    };
    expect([parts(2), parts(18)]).toEqual([2, 1]);
  });

  it('smoothGround continues a slope under what is not ground', () => {
    const { colour } = composed(
      () => false,
      RED,
      (x) => [40 + x, 100, 200 - x],
    ).art;
    const known = new Uint8Array(SIZE * SIZE).map((_, i) => (Math.hypot((i % SIZE) - 80, Math.floor(i / SIZE) - 80) > 40 ? 1 : 0));
    const { colour: continued } = smoothGround(planesOf(colour), known);
    const middle = 80 * SIZE + 80;
    expect(continued.planes[0][middle]).toBeCloseTo(120, 0);
    expect(continued.planes[2][middle]).toBeCloseTo(120, 0);
  });

  it('refineMask snaps a coarse mask to the edge', () => {
    const { art, truth } = composed(disc, RED, paper);
    const small = new Uint8Array(400).map((_, k) => (disc((k % 20) * 8 + 4, Math.floor(k / 20) * 8 + 4) ? 1 : 0));
    const mask = finish(refineMask(art.colour, small, 20, 20));
    let wrong = 0;
    for (let i = 0; i < mask.length; i++) if (mask[i] !== (truth[i] >= 0.5 ? 1 : 0)) wrong++;
    expect(wrong).toBeLessThan(60);
  });
});
