import { describe, expect, it } from 'vitest';
import { tracedPart } from '../job/tracedPart.ts';
import { paintedArt, randomFrom } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { isAppError } from '../errors/appError.ts';
import type { Ring } from '../outline/corners.ts';
import { coverageOf } from '../outline/coverage.ts';
import { boundsOf, CurvesBuilder, ringArea, ringCount } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { JointFinder } from '../outline/joints.ts';
import { DEFAULT_OUTLINE, drawRing } from '../outline/traceOutline.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { newJob } from '../job/newJob.ts';
import { outlinePart } from './outlinePart.ts';
import { separateArt, type SeparatedArt } from './separateArt.ts';
import type { Separation } from '../separate/separation.ts';

const WAYS: readonly Separation[] = [
  { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
  { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' },
  { way: 'flat', count: 'auto', meet: 'stacked' },
  { way: 'flat', count: 4, meet: 'inset' },
  { way: 'flat', count: 5, meet: 'inset', reachMm: 0.5 },
  { way: 'flat', count: 4, meet: 'middle' },
  { way: 'tones', count: 4, meet: 'stacked' },
  { way: 'tones', count: 3, meet: 'inset', reachMm: 0.4 },
  { way: 'backDetail', fineness: 0, threshold: 'auto', back: 'open' },
  { way: 'backDetail', fineness: 100, threshold: 'auto', back: 'full' },
];

/** Art pixels on one mm of the design. */
const PX_PER_MM = 4;

const separated = (art: Art, separation: Separation, leastPieceMm2 = 0): SeparatedArt =>
  finish(separateArt({ separation, films: newJob('').films, outline: { leastPieceMm2 } }, art, DEFAULT_OUTLINE, () => PX_PER_MM));

/** Soft blobs of a few colours on grain, what lies around a subject lifted with a soft edge that the frame cuts. */
function liftedPhoto(seed: number, side = 96): Art {
  const random = randomFrom(seed);
  const pick = (): Rgb => ({ r: 40 + 200 * random(), g: 40 + 200 * random(), b: 40 + 200 * random() });
  const blobs = Array.from({ length: 7 }, () => ({ x: side * random(), y: side * random(), r: 8 + 24 * random(), soft: 0.5 + 5 * random(), colour: pick() }));
  const subject = { x: side * random(), y: side * random(), r: side * (0.3 + 0.4 * random()), soft: 0.6 + 3 * random() };
  const data = new Uint8Array(side * side * 4);
  const base = pick();
  for (let i = 0; i < side * side; i++) {
    const [x, y] = [(i % side) + 0.5, Math.floor(i / side) + 0.5];
    let { r, g, b } = base;
    for (const blob of blobs) {
      const share = Math.max(0, Math.min(1, (blob.r - Math.hypot(x - blob.x, y - blob.y)) / blob.soft + 0.5));
      [r, g, b] = [r + (blob.colour.r - r) * share, g + (blob.colour.g - g) * share, b + (blob.colour.b - b) * share];
    }
    const grain = (random() - 0.5) * 18;
    // What is lifted keeps a breath of the ground here and there, as grainy paper does.
    const there = Math.max(0.45 * random() ** 2, Math.min(1, (subject.r - Math.hypot(x - subject.x, y - subject.y)) / subject.soft + 0.5));
    data.set(
      [r + grain, g + grain, b + grain].map((value) => Math.max(0, Math.min(255, Math.round(value)))),
      4 * i,
    );
    data[4 * i + 3] = Math.round(255 * there);
  }
  return artFromPicture(makeRgba8(side, side, data));
}

/** A glossy box as an advertisement draws it: a rim of light no wider than a pixel around a gradient, on white. */
function glossyBox(seed: number, width = 220, height = 150): Art {
  const random = randomFrom(seed);
  const [left, top, right, bottom] = [20.3 + 4 * random(), 18.2 + 4 * random(), width - 22.4 - 4 * random(), height - 20.7 - 4 * random()];
  const rim = 0.4 + 1.2 * random();
  const corner = 4 + 14 * random();
  const inside = (x: number, y: number, by: number): number => {
    const dx = Math.max(left + by + corner - x, x - right + by + corner, 0);
    const dy = Math.max(top + by + corner - y, y - bottom + by + corner, 0);
    return Math.max(0, Math.min(1, corner - Math.hypot(dx, dy) + 0.5));
  };
  const data = new Uint8Array(width * height * 4).fill(255);
  for (let i = 0; i < width * height; i++) {
    const [x, y] = [(i % width) + 0.5, Math.floor(i / width) + 0.5];
    const grey = 60 + (150 * (y - top)) / (bottom - top) + 12 * Math.sin(x / 30);
    const light = Math.min(235, grey + 60);
    const value = 255 + (light - 255) * inside(x, y, 0) + (grey - light) * inside(x, y, rim);
    data.fill(Math.max(0, Math.min(255, Math.round(value))), 4 * i, 4 * i + 3);
  }
  return artFromPicture(makeRgba8(width, height, data, true));
}

/** The outlines lie in the picture and enclose no more than it has. */
function expectSound(art: Art, { films }: SeparatedArt, name: string): void {
  for (const { outline } of films) {
    const box = boundsOf(outline);
    if (box === undefined) continue;
    expect(Math.min(box.left, box.top), name).toBeGreaterThan(-6);
    expect(box.right, name).toBeLessThan(art.width + 6);
    expect(box.bottom, name).toBeLessThan(art.height + 6);
    const area = Array.from({ length: ringCount(outline) }, (_, ring) => ringArea(outline, ring)).reduce((sum, each) => sum + each, 0);
    expect(area, name).toBeGreaterThanOrEqual(-1);
    expect(area, name).toBeLessThanOrEqual(art.width * art.height + 1);
  }
}

function runAll(art: Art, name: string): number {
  let done = 0;
  for (const separation of WAYS) {
    try {
      expectSound(art, separated(art, separation), `${name}, ${JSON.stringify(separation)}`);
      done++;
    } catch (error) {
      // An art may have nothing to cut; anything else is a fault.
      if (!isAppError(error)) throw error;
      expect(['nothingToCut', 'oneColour'], name).toContain(error.code);
    }
  }
  return done;
}

/** Points of a closed ring that goes out along an arc of a circle and back beside it: a sliver. */
function sliver(radius: number, lengthPx: number): Ring {
  const n = 2 * lengthPx;
  const at = (k: number): [number, number] => {
    const along = (k < lengthPx ? k : n - 1 - k) / radius;
    const off = k < lengthPx ? 0.04 : -0.04;
    return [300 + (radius + off) * Math.sin(along), 200 + radius - (radius + off) * Math.cos(along)];
  };
  const points = Array.from({ length: n }, (_, k) => at(k));
  const along = new Float64Array(n + 1);
  for (let k = 1; k <= n; k++) along[k] = along[k - 1] + Math.hypot(points[k % n][0] - points[k - 1][0], points[k % n][1] - points[k - 1][1]);
  return { n, x: Float64Array.from(points, ([x]) => x), y: Float64Array.from(points, ([, y]) => y), along, closed: true };
}

describe('a ring of points', () => {
  it('that lies on a short stretch of a huge circle or ellipse is drawn where its points are', () => {
    for (const radius of [60, 400, 3_000, 90_000, 1e7]) {
      for (const lengthPx of [12, 40, 150]) {
        if (lengthPx > 2 * radius) continue;
        const ring = sliver(radius, lengthPx);
        const builder = new CurvesBuilder();
        drawRing(
          builder,
          ring,
          1,
          -1,
          DEFAULT_OUTLINE,
          new JointFinder({ tolerancePx: DEFAULT_OUTLINE.followPx, straightPx: DEFAULT_OUTLINE.followPx * 0.75 }),
        );
        const box = boundsOf(builder.build());
        expect(box, `${radius}, ${lengthPx}`).toMatchObject({
          left: expect.closeTo(Math.min(...ring.x), -0.5) as number,
          right: expect.closeTo(Math.max(...ring.x), -0.5) as number,
          top: expect.closeTo(Math.min(...ring.y), -0.5) as number,
          bottom: expect.closeTo(Math.max(...ring.y), -0.5) as number,
        });
      }
    }
  });
});

describe('every way of separating', () => {
  it('takes photographs whose subject was lifted with a soft edge that the frame cuts', () => {
    let done = 0;
    for (let seed = 1; seed <= 24; seed++) done += runAll(liftedPhoto(seed), `photo ${seed}`);
    expect(done).toBeGreaterThan(200);
  }, 60_000);

  it('keeps slivers of light around a shaded box where they are: none becomes a circle of metres', () => {
    let done = 0;
    for (let seed = 1; seed <= 10; seed++) done += runAll(glossyBox(seed), `box ${seed}`);
    expect(done).toBeGreaterThan(80);
  }, 60_000);

  it('leaves out every piece and opening below the limit, by the size that the design has', () => {
    const leastPieceMm2 = 1.5;
    let pieces = 0;
    for (let seed = 1; seed <= 8; seed++) {
      for (const art of [liftedPhoto(seed), glossyBox(seed)]) {
        for (const separation of WAYS) {
          // A film that runs on under others is made from what is left, and may be narrower there.
          if ('reachMm' in separation || ('meet' in separation && separation.meet === 'middle')) continue;
          try {
            for (const { outline } of separated(art, separation, leastPieceMm2).films) {
              for (const { area, holes } of piecesOf(outline)) {
                pieces++;
                expect(area / PX_PER_MM ** 2).toBeGreaterThanOrEqual(leastPieceMm2 - 1e-6);
                for (const hole of holes) expect(Math.abs(ringArea(outline, hole)) / PX_PER_MM ** 2).toBeGreaterThanOrEqual(leastPieceMm2 - 1e-6);
              }
            }
          } catch (error) {
            if (!isAppError(error)) throw error;
          }
        }
      }
    }
    expect(pieces).toBeGreaterThan(100);
  }, 60_000);
});

describe('films that are cut out of each other', () => {
  /** Rays around a hub, a ring and a line through all: sharp tips and many junctions. */
  const rays =
    (turn: number, share: number) =>
    (x: number, y: number): Rgb => {
      const [dx, dy] = [x - 90.3, y - 88.7];
      const [away, angle] = [Math.hypot(dx, dy), Math.atan2(dy, dx) + turn];
      if (Math.abs(dy - 0.3 * dx) < 1.7) return { r: 28, g: 27, b: 34 };
      if (away < 14) return { r: 179, g: 38, b: 46 };
      const ray = ((((angle / (2 * Math.PI)) * 9) % 1) + 1) % 1;
      if (ray < share && away < 78 - 60 * Math.abs(ray / share - 0.5)) return { r: 242, g: 182, b: 50 };
      if (Math.abs(away - 50) < 6) return { r: 36, g: 80, b: 154 };
      return { r: 255, g: 255, b: 255 };
    };

  it('do not cross at their tips and junctions by more than a knife is wide', () => {
    for (const turn of [0, 0.21, 0.4]) {
      for (const share of [0.25, 0.45]) {
        const art = paintedArt(180, 180, rays(turn, share));
        const { films } = separated(art, { way: 'flat', count: 5, meet: 'inset' });
        const covered = new Float64Array(180 * 180);
        for (const { outline } of films) coverageOf(outline, 180, 180).forEach((value, i) => (covered[i] += value));
        const overPx2 = covered.reduce((sum, value) => sum + Math.max(0, value - 258), 0) / 255;
        const inkPx2 = covered.reduce((sum, value) => sum + Math.min(255, value), 0) / 255;
        expect(overPx2, `${turn} ${share}`).toBeLessThan(2e-4 * inkPx2);
      }
    }
  });
});

describe('a limit for pieces', () => {
  it('counts at the size of the ink, whatever paper is around it', () => {
    const black: Rgb = { r: 20, g: 20, b: 26 };
    // The ink is 100 px wide; a dot of it is 15 px across, 176.7 px².
    const paint =
      (pad: number) =>
      (x: number, y: number): Rgb =>
        Math.hypot(x - pad - 85, y - pad - 15) < 7.5 ||
        (x > pad && x < pad + 70 && y > pad && y < pad + 30) ||
        (x > pad + 97 && x < pad + 100 && y > pad && y < pad + 100)
          ? black
          : { r: 255, g: 255, b: 255 };
    for (const pad of [4, 120]) {
      const art = paintedArt(100 + 2 * pad, 100 + 2 * pad, paint(pad));
      for (const separation of [
        { way: 'flat', count: 2, meet: 'stacked' },
        { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
      ] as const) {
        // On 31.6 mm a px is a tenth of a mm²: the dot has 17.7 mm².
        const base = tracedPart(newJob('Dot'));
        const pieces = (leastPieceMm2: number): number => {
          const job = { ...base, separation, outline: { ...base.outline, leastPieceMm2 }, size: { ...base.size, sizeMm: 31.62 } };
          return finish(outlinePart(job, art)).films.reduce((sum, { outline }) => sum + piecesOf(outline).length, 0);
        };
        expect([pieces(10), pieces(17), pieces(19)], `${pad} ${separation.way}`).toEqual([3, 3, 2]);
      }
    }
  });
});
