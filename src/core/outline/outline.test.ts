import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { disc, furthestOf, pointsOf, polygon, randomFrom, sampled } from '../../../tests/fixtures/shapes.ts';
import { isAppError } from '../errors/appError.ts';
import { mirrorAbout, rotation } from '../geometry/affine.ts';
import { signedArea } from '../geometry/rings.ts';
import { makeShareMap, type ShareMap } from '../raster/raster.ts';
import { isProperlyNested, isSimpleRing } from './checkCurves.ts';
import { boundsOf, depthOf, LINE, nodeCount, ringArea, ringCount } from './curves.ts';
import { edgeShift, PAD } from './edgeShift.ts';
import { flatten } from './flatten.ts';
import { isolines } from './isoline.ts';
import { piecesOf } from './pieces.ts';
import { DEFAULT_OUTLINE, outlineOf } from './traceOutline.ts';
import { joinCurves, lengthOf, transformCurves } from './transformCurves.ts';

function flipped(share: ShareMap): ShareMap {
  const data = new Uint8Array(share.data.length);
  for (let y = 0; y < share.height; y++) for (let x = 0; x < share.width; x++) data[y * share.width + share.width - 1 - x] = share.data[y * share.width + x];
  return makeShareMap(share.width, share.height, data);
}

function quarterTurned(share: ShareMap): ShareMap {
  const data = new Uint8Array(share.data.length);
  for (let y = 0; y < share.height; y++) for (let x = 0; x < share.width; x++) data[x * share.height + share.height - 1 - y] = share.data[y * share.width + x];
  return makeShareMap(share.height, share.width, data);
}

/** A shape with corners, curves, a hole and an island in it. */
const emblem = (): ShareMap =>
  sampled(96, 80, (x, y) => {
    const hull = x > 10.3 && x < 84.6 && y > 12.2 && y < 66.7 && y < 66.7 - ((x - 47) / 9) ** 2 / 3;
    const hole = Math.hypot(x - 36.4, (y - 34.2) * 1.3) < 13.1;
    const island = Math.abs(x - 36.8) + Math.abs(y - 34.1) < 5.2;
    return (hull && !hole) || island;
  });

describe('edgeShift', () => {
  it('places a straight edge exactly, wherever it runs in the pixel', () => {
    for (let place = 0; place < 1; place += 0.05) {
      const cells = new Uint8Array(24);
      const edge = 10 + place;
      for (let i = 0; i < 24; i++) cells[i] = Math.round(255 * Math.max(0, Math.min(1, i + 1 - edge)));
      const left = cells.findIndex((value) => value >= 128) - 1;
      expect(left + 0.5 + edgeShift(cells, left, 1)).toBeCloseTo(edge, 2);
    }
    expect(PAD).toBeGreaterThan(4);
  });
});

describe('isolines', () => {
  it('follow a disc to within 0.03 px, a tiny one to within 0.09', () => {
    for (const radius of [3.3, 8, 21.7]) {
      const { rings } = isolines(disc(64, 64, 31.7, 32.4, radius));
      expect(rings.starts.length).toBe(2);
      for (let k = 0; k < rings.points.length; k += 2) {
        const off = Math.abs(Math.hypot(rings.points[k] - 31.7, rings.points[k + 1] - 32.4) - radius);
        expect(off).toBeLessThan(radius < 5 ? 0.09 : 0.03);
      }
    }
  });

  it('run clockwise around ink and the other way around holes, closed off at the picture’s border', () => {
    const full = makeShareMap(5, 4, new Uint8Array(20).fill(255));
    const { rings } = isolines(full);
    expect(Math.abs(signedArea(rings.points, 0, rings.starts[1]) - 20)).toBeLessThan(0.6);
    const ring = isolines(sampled(40, 40, (x, y) => Math.abs(Math.hypot(x - 20, y - 20) - 12) < 4)).rings;
    const areas = [0, 1].map((k) => signedArea(ring.points, ring.starts[k], ring.starts[k + 1]));
    expect(areas[0]).toBeGreaterThan(0);
    expect(areas[1]).toBeLessThan(0);
  });

  it('end on any pattern, with every ring closed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        fc.infiniteStream(fc.integer({ min: 0, max: 255 })),
        (width, height, values) => {
          const share = makeShareMap(
            width,
            height,
            new Uint8Array(width * height).map(() => values.next().value as number),
          );
          const { rings } = isolines(share);
          for (let k = 0; k + 1 < rings.starts.length; k++) {
            const [from, to] = [rings.starts[k], rings.starts[k + 1]];
            expect(to - from).toBeGreaterThanOrEqual(3);
            // Of the crossings of two cells that follow each other one is told at least, also between the last and the first.
            for (let i = from; i < to; i++) {
              const next = i + 1 < to ? i + 1 : from;
              expect(Math.hypot(rings.points[2 * next] - rings.points[2 * i], rings.points[2 * next + 1] - rings.points[2 * i + 1])).toBeLessThanOrEqual(
                2 * Math.SQRT2,
              );
            }
          }
        },
      ),
      { seed: 71, numRuns: 150 },
    );
  });
});

describe('outlines', () => {
  it('of a disc of known radius are within 0.1 px of it, with few nodes', () => {
    for (const radius of [4, 10.5, 40.2]) {
      const outline = outlineOf(disc(100, 100, 49.6, 50.3, radius));
      expect(ringCount(outline)).toBe(1);
      expect(nodeCount(outline)).toBeLessThanOrEqual(4);
      for (const [x, y] of pointsOf(outline)) expect(Math.abs(Math.hypot(x - 49.6, y - 50.3) - radius)).toBeLessThan(0.1);
    }
  });

  it('of a turned square are four straight lines between sharp corners', () => {
    const corners = [
      [20.3, 30.6],
      [70.4, 17.2],
      [83.8, 67.3],
      [33.7, 80.7],
    ] as const;
    const outline = outlineOf(polygon(100, 100, corners));
    expect([...outline.verbs]).toEqual([LINE, LINE, LINE, LINE]);
    for (const [x, y] of corners) {
      const near = pointsOf(outline).map(([px, py]) => Math.hypot(px - x, py - y));
      expect(Math.min(...near)).toBeLessThan(0.12);
    }
  });

  it('of sharp and of blunt tips keep their corner', () => {
    for (const half of [12, 30, 60]) {
      const tip = [50.2, 12.4] as const;
      const w = 70 * Math.tan((half * Math.PI) / 360);
      const outline = outlineOf(
        polygon(
          140,
          100,
          [tip, [50.2 + w, 82.4], [50.2 - w, 82.4]].map(([x, y]) => [x + 20, y] as const),
        ),
      );
      const near = pointsOf(outline).map(([x, y]) => Math.hypot(x - tip[0] - 20, y - tip[1]));
      expect(Math.min(...near)).toBeLessThan(half < 20 ? 1 : 0.4);
    }
  });

  it('keep area and nesting', () => {
    const share = emblem();
    const outline = outlineOf(share);
    const ink = share.data.reduce((sum, value) => sum + value / 255, 0);
    const pieces = piecesOf(outline);
    expect(pieces.length).toBe(2);
    expect(Math.abs(pieces.reduce((sum, piece) => sum + piece.area, 0) - ink)).toBeLessThan(ink * 0.002);
    expect([...outline.parent.keys()].map((ring) => depthOf(outline, ring))).toEqual([0, 1, 2]);
    expect(isProperlyNested(outline, 0.01)).toBe(true);
    const rings = flatten(outline, 0.05);
    for (let k = 0; k < ringCount(outline); k++) expect(isSimpleRing(rings, k)).toBe(true);
  });

  it('commute with mirroring and with turning', () => {
    const share = emblem();
    const outline = outlineOf(share);
    const mirrored = transformCurves(outline, mirrorAbout(share.width / 2));
    // Each is within its tolerance of the same edge.
    expect(furthestOf(outlineOf(flipped(share)), mirrored)).toBeLessThan(2 * DEFAULT_OUTLINE.followPx);
    const turned = transformCurves(outline, rotation(Math.PI / 2, share.height / 2, share.height / 2));
    expect(furthestOf(outlineOf(quarterTurned(share)), turned)).toBeLessThan(2 * DEFAULT_OUTLINE.followPx);
  });

  it('traced, then drawn again, are within half a pixel of the picture', () => {
    const share = emblem();
    const outline = outlineOf(share);
    const rings = flatten(outline, 0.01);
    const again = sampled(share.width, share.height, (x, y) => {
      let inside = false;
      for (let ring = 0; ring + 1 < rings.starts.length; ring++) {
        for (let i = rings.starts[ring], j = rings.starts[ring + 1] - 1; i < rings.starts[ring + 1]; j = i++) {
          const [xi, yi, xj, yj] = [rings.points[2 * i], rings.points[2 * i + 1], rings.points[2 * j], rings.points[2 * j + 1]];
          if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
        }
      }
      return inside;
    });
    let differ = 0;
    for (let i = 0; i < share.data.length; i++) differ = Math.max(differ, Math.abs(again.data[i] - share.data[i]));
    expect(differ).toBeLessThan(128);
  });

  it('leave out what is smaller than the least area, with what is inside', () => {
    const outline = outlineOf(emblem(), { ...DEFAULT_OUTLINE, leastAreaPx2: 100 });
    expect(ringCount(outline)).toBe(2);
    expect(ringCount(outlineOf(emblem(), { ...DEFAULT_OUTLINE, leastAreaPx2: 1e6 }))).toBe(0);
  });

  it('live with noise, a checkerboard, nothing and everything', () => {
    const random = randomFrom(9);
    const noise = makeShareMap(
      120,
      90,
      new Uint8Array(120 * 90).map(() => random() * 256),
    );
    const noisy = outlineOf(noise, { ...DEFAULT_OUTLINE, leastAreaPx2: 6 });
    expect(noisy.coords.every((value) => value > -12 && value < 132)).toBe(true);
    const board = makeShareMap(
      40,
      40,
      new Uint8Array(1600).map((_, i) => ((i + Math.floor(i / 40)) % 2) * 255),
    );
    expect(ringCount(outlineOf(board, { ...DEFAULT_OUTLINE, leastAreaPx2: 0 }))).toBeGreaterThan(0);
    expect(ringCount(outlineOf(makeShareMap(9, 9)))).toBe(0);
    expect(ringCount(outlineOf(makeShareMap(9, 9, new Uint8Array(81).fill(255))))).toBe(1);
  });

  it('refuse a picture that is only specks, in plain words', () => {
    const specks = makeShareMap(
      1200,
      1200,
      new Uint8Array(1_440_000).map((_, i) => (i % 2 === 0 && Math.floor(i / 1200) % 2 === 0 ? 255 : 0)),
    );
    let code = '';
    try {
      outlineOf(specks, { ...DEFAULT_OUTLINE, leastAreaPx2: 0 });
    } catch (error) {
      code = isAppError(error) ? error.code : String(error);
    }
    expect(code).toBe('tooIntricate');
  });
});

describe('curves', () => {
  const outline = outlineOf(emblem());

  it('mirrored twice are what they were', () => {
    const twice = transformCurves(transformCurves(outline, mirrorAbout(17)), mirrorAbout(17));
    expect(twice.verbs).toEqual(outline.verbs);
    for (let i = 0; i < outline.coords.length; i++) expect(twice.coords[i]).toBeCloseTo(outline.coords[i], 9);
  });

  it('keep direction and area under a mirror', () => {
    const mirrored = transformCurves(outline, mirrorAbout(0));
    for (let ring = 0; ring < ringCount(outline); ring++) expect(ringArea(mirrored, ring)).toBeCloseTo(ringArea(outline, ring), 6);
  });

  it('are measured exactly: area, box and length', () => {
    const round = outlineOf(disc(100, 100, 50, 50, 40));
    expect(ringArea(round, 0)).toBeCloseTo(Math.PI * 1600, -1);
    expect(lengthOf(round)).toBeCloseTo(2 * Math.PI * 40, 0);
    const box = boundsOf(round)!;
    for (const [value, expected] of [
      [box.left, 10],
      [box.right, 90],
      [box.top, 10],
      [box.bottom, 90],
    ])
      expect(Math.abs(value - expected)).toBeLessThan(0.1);
    const flat = flatten(outline, 0.001);
    for (let ring = 0; ring < ringCount(outline); ring++)
      expect(signedArea(flat.points, flat.starts[ring], flat.starts[ring + 1])).toBeCloseTo(ringArea(outline, ring), 0);
  });

  it('joined, keep each part’s nesting', () => {
    const joined = joinCurves([outline, outline]);
    expect([...joined.parent]).toEqual([...outline.parent, ...[...outline.parent].map((p) => (p < 0 ? -1 : p + ringCount(outline)))]);
    expect(joined.coordStart[ringCount(outline)]).toBe(outline.coords.length);
    expect(nodeCount(joined)).toBe(2 * nodeCount(outline));
  });

  it('refuse a tolerance that would never end', () => {
    expect(() => flatten(outline, 0)).toThrow(RangeError);
  });
});
