import { areaOf } from '../../../../tests/fixtures/areaOf.ts';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { flatFilms } from '../../../../tests/fixtures/flatFilms.ts';
import { BLACK, furthestOf, paintedArt, randomFrom, WHITE } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import { artFromPicture, type Art } from '../../raster/art.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { flatTones } from '../../separate/flatTones.ts';
import { mirrorAbout, rotation, translation } from '../../geometry/affine.ts';
import { finish } from '../../task/task.ts';
import { insideRing, isProperlyNested, isSimpleRing } from '../checkCurves.ts';
import { boundsOf, coordsOfVerb, depthOf, ringArea, ringCount, type Bounds, type Curves } from '../curves.ts';
import type { Rings } from '../../geometry/rings.ts';
import { flatten } from '../flatten.ts';
import { DEFAULT_OUTLINE } from '../traceOutline.ts';
import { transformCurves } from '../transformCurves.ts';
import { meshOf, type ArcMesh } from './arcMesh.ts';
import { filmOutline, sidesOfLabels } from './filmOutline.ts';
import type { Meet } from '../../separate/separation.ts';
import { meshRegions } from './meshRegions.ts';
import { coveredRegions, stackOrder } from '../../assemble/stackFilms.ts';

const RED: Rgb = { r: 180, g: 40, b: 50 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };
const SUN: Rgb = { r: 242, g: 182, b: 50 };
const TONES = [WHITE, RED, BLUE, SUN, BLACK];

/** A hull, a sail that touches it, a sun behind both, a black line through all. */
const boat = (x: number, y: number): Rgb => {
  if (Math.abs(y - 0.2 * x - 20.4) < 1.3) return BLACK;
  if (y > 44.3 && y < 70.2 && Math.abs(x - 47.6) < 40 - (y - 44.3) * 0.9) return RED;
  if (x > 50.3 && y < 44.3 && x - 50.3 < (y - 6.2) * 0.8) return BLUE;
  return Math.hypot(x - 38.2, y - 36.6) < 22.4 ? SUN : WHITE;
};

const nearest = ({ r, g, b }: Rgb): number => {
  const d = TONES.map((tone) => (tone.r - r) ** 2 + (tone.g - g) ** 2 + (tone.b - b) ** 2);
  return d.indexOf(Math.min(...d));
};

/** The labels of an art drawn by `paint`: that of each pixel's middle. */
const labelled = (width: number, height: number, paint: (x: number, y: number) => Rgb): LabelMap =>
  makeLabelMap(
    width,
    height,
    Uint8Array.from({ length: width * height }, (_, i) => nearest(paint((i % width) + 0.5, Math.floor(i / width) + 0.5))),
  );

function meshFrom(width: number, height: number, paint: (x: number, y: number) => Rgb): ArcMesh {
  return meshOf(paintedArt(width, height, paint), labelled(width, height, paint), TONES, DEFAULT_OUTLINE);
}

const outlineOfLabel = (mesh: ArcMesh, label: number): Curves =>
  filmOutline(
    mesh,
    sidesOfLabels(mesh.arcs, (other) => other === label),
  );

/** Each segment as text from end to end, whichever way it runs. */
function segmentsOf(curves: Curves): { forward: Set<string>; backward: Set<string> } {
  const forward = new Set<string>();
  const backward = new Set<string>();
  for (let ring = 0; ring < ringCount(curves); ring++) {
    let at = curves.coordStart[ring];
    for (let v = curves.verbStart[ring]; v < curves.verbStart[ring + 1]; v++) {
      const end = at + coordsOfVerb(curves.verbs[v]);
      const points = Array.from({ length: (end - at) / 2 + 1 }, (_, k) => `${curves.coords[at + 2 * k]},${curves.coords[at + 2 * k + 1]}`);
      forward.add(points.join(' '));
      backward.add(points.reverse().join(' '));
      at = end;
    }
  }
  return { forward, backward };
}

function noise(width: number, height: number, seed: number, labels: number): { art: Art; map: LabelMap } {
  const random = randomFrom(seed);
  const map = makeLabelMap(
    width,
    height,
    Uint8Array.from({ length: width * height }, () => Math.floor(random() * labels)),
  );
  return { art: flatArt(map), map };
}

/** An art without mixed pixels. */
function flatArt({ width, height, data: labels }: LabelMap): Art {
  const data = new Uint8Array(width * height * 4).fill(255);
  labels.forEach((label, i) => data.set([TONES[label].r, TONES[label].g, TONES[label].b], 4 * i));
  return artFromPicture(makeRgba8(width, height, data));
}

/** Side of the squares of one label that any labels are laid out in, px: single pixels have no form that a curve could follow. */
const SIDE = 5;

/** Share of a ring's points that lie inside another ring. */
function shareInside(rings: Rings, ring: number, around: number): number {
  let inside = 0;
  for (let i = rings.starts[ring]; i < rings.starts[ring + 1]; i++) if (insideRing(rings, around, rings.points[2 * i], rings.points[2 * i + 1])) inside++;
  return inside / (rings.starts[ring + 1] - rings.starts[ring]);
}

describe('arc mesh', () => {
  it('covers the picture: the areas of all tones add up to it, exactly', () => {
    const mesh = meshFrom(96, 80, boat);
    const areas = TONES.map((_, label) => areaOf(outlineOfLabel(mesh, label)));
    expect(areas.reduce((sum, area) => sum + area, 0)).toBeCloseTo(96 * 80, 6);
    expect(areas.every((area) => area > 100)).toBe(true);
  });

  it('lets neighbours share the very same curves', () => {
    const mesh = meshFrom(96, 80, boat);
    const all = TONES.map((_, label) => segmentsOf(outlineOfLabel(mesh, label)));
    const inner = all.flatMap(({ forward }, label) => [...forward].filter((segment) => all.some((other, k) => k !== label && other.backward.has(segment))));
    const frame = all.flatMap(({ forward }) => [...forward].filter((segment) => segment.split(' ').every((point) => /^(0|96),|,(0|80)$/.test(point))));
    const total = all.reduce((sum, { forward }) => sum + forward.size, 0);
    expect(inner.length + frame.length).toBe(total);
    expect(inner.length).toBeGreaterThan(30);
  });

  it('runs within a tenth of a pixel of straight and round edges, and its junctions lie where the edges meet', () => {
    const mesh = meshFrom(96, 80, (x, y) => (y > 40.3 ? RED : x > 47.7 ? BLUE : WHITE));
    const [meeting] = [...new Set(mesh.arcs.from)]
      .filter((node) => node >= 0)
      .map((node) => Array.from(mesh.arcs.from).indexOf(node))
      .filter((arc) => Math.hypot(mesh.curves.coords[mesh.curves.coordStart[arc]] - 48, mesh.curves.coords[mesh.curves.coordStart[arc] + 1] - 40) < 3);
    const at = mesh.curves.coordStart[meeting];
    // Sampled eight times each way, the edges lie at eighths of a pixel.
    expect(mesh.curves.coords[at]).toBeCloseTo(47.75, 2);
    expect(mesh.curves.coords[at + 1]).toBeCloseTo(40.25, 2);
    const round = outlineOfLabel(
      meshFrom(64, 64, (x, y) => (Math.hypot(x - 31.4, y - 32.7) < 20.2 ? SUN : BLUE)),
      3,
    );
    expect(ringCount(round)).toBe(1);
    const { points } = flatten(round, 0.002);
    for (let k = 0; k < points.length; k += 2) expect(Math.abs(Math.hypot(points[k] - 31.4, points[k + 1] - 32.7) - 20.2)).toBeLessThan(0.06);
  });

  it('places both edges of a strip that is thinner than a pixel between two other tones', () => {
    const mesh = meshOf(
      paintedArt(60, 40, (x) => (x < 30.2 ? SUN : x < 31.3 ? BLACK : BLUE)),
      labelled(60, 40, (x) => (x < 30 ? SUN : x < 31 ? BLACK : BLUE)),
      TONES,
      DEFAULT_OUTLINE,
    );
    const edges = Array.from({ length: mesh.arcs.count }, (_, arc) => arc).filter((arc) => mesh.arcs.left[arc] !== CLEAR && mesh.arcs.right[arc] !== CLEAR);
    const places = edges.map((arc) => mesh.curves.coords[mesh.curves.coordStart[arc]]).sort((a, b) => a - b);
    expect(places).toHaveLength(2);
    expect(Math.abs(places[0] - 30.2)).toBeLessThan(0.08);
    expect(Math.abs(places[1] - 31.3)).toBeLessThan(0.08);
  });

  it('gives mirrored and turned pictures mirrored and turned outlines', () => {
    const paint = boat;
    const plain = meshFrom(96, 80, paint);
    const mirrored = meshFrom(96, 80, (x, y) => paint(96 - x, y));
    const turned = meshFrom(80, 96, (x, y) => paint(y, 80 - x));
    for (const label of [1, 2, 3, 4]) {
      const outline = outlineOfLabel(plain, label);
      expect(furthestOf(transformCurves(outlineOfLabel(mirrored, label), mirrorAbout(48)), outline)).toBeLessThan(0.01);
      const back = transformCurves(outlineOfLabel(turned, label), rotation(-Math.PI / 2, 0, 0));
      expect(furthestOf(transformCurves(back, translation(0, 80)), outline)).toBeLessThan(0.01);
    }
  });

  it('stays whole on any labels at all: areas add up', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), fc.integer({ min: 2, max: 5 }), (seed, labels) => {
        const { art, map } = noise(17, 13, seed, labels);
        const mesh = meshOf(art, map, TONES, DEFAULT_OUTLINE);
        let whole = 0;
        for (let label = 0; label < labels; label++) {
          const outline = outlineOfLabel(mesh, label);
          whole += areaOf(outline);
        }
        expect(whole).toBeCloseTo(17 * 13, 6);
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('nests rings, and runs them the right way, on any labels in areas of some pixels', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), fc.integer({ min: 2, max: 5 }), (seed, labels) => {
        const { map: blocks } = noise(7, 6, seed, labels);
        const map = makeLabelMap(
          7 * SIDE,
          6 * SIDE,
          new Uint8Array(42 * SIDE * SIDE).map((_, i) => blocks.data[7 * Math.floor(i / (7 * SIDE * SIDE)) + Math.floor((i % (7 * SIDE)) / SIDE)]),
        );
        const mesh = meshOf(flatArt(map), map, TONES, DEFAULT_OUTLINE);
        for (let label = 0; label < labels; label++) {
          const outline = outlineOfLabel(mesh, label);
          const flat = flatten(outline, 0.02);
          for (let ring = 0; ring < ringCount(outline); ring++) {
            expect(ringArea(outline, ring) > 0).toBe(depthOf(outline, ring) % 2 === 0);
            // What touches its parent at a corner has points on it; the most lie inside.
            if (outline.parent[ring] >= 0) expect(shareInside(flat, ring, outline.parent[ring])).toBeGreaterThan(0.5);
          }
        }
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('has simple rings, properly nested, on a drawing', () => {
    const mesh = meshFrom(96, 80, boat);
    for (let label = 0; label < TONES.length; label++) {
      const outline = outlineOfLabel(mesh, label);
      expect(isProperlyNested(outline, 0.02)).toBe(true);
      const rings = flatten(outline, 0.02);
      for (let ring = 0; ring < ringCount(outline); ring++) expect(isSimpleRing(rings, ring)).toBe(true);
    }
  });
});

describe('regions and stacking', () => {
  it('finds connected regions, those joined over a corner too', () => {
    const text = ['0000', '0100', '0210', '0000'];
    const map = makeLabelMap(4, 4, Uint8Array.from(text.join(''), Number));
    const regions = meshRegions(meshOf(flatArt(map), map, TONES, DEFAULT_OUTLINE));
    const sizes = (label: number): number[] => Array.from(regions.areaPx2).filter((_, r) => regions.label[r] === label);
    expect([sizes(0), sizes(1), sizes(2)]).toEqual([[13], [2], [1]]);
    expect(Array.from(regions.label, (label, r) => [label, regions.firstPixel[r]])).toContainEqual([1, 5]);
    expect(Array.from(regions.areaPx2).reduce((sum, area) => sum + area, 0)).toBe(6 * 6);
  });

  it('puts a film under all that touches it above, and never over what lies below', () => {
    const mesh = meshFrom(96, 80, boat);
    const regions = meshRegions(mesh);
    const filmOf = Int32Array.from(regions.label, (label) => (label === CLEAR || label === 0 ? -1 : label - 1));
    const ranks = stackOrder(mesh, regions, filmOf, 4);
    expect([...ranks].sort()).toEqual([0, 1, 2, 3]);
    const covered = coveredRegions(mesh, regions, filmOf, ranks.length, (film, other) => ranks[other] > ranks[film]);
    for (let film = 0; film < 4; film++) {
      for (let r = 0; r < regions.count; r++) {
        const covers = covered[film * regions.count + r] === 1;
        if (filmOf[r] === film) expect(covers).toBe(true);
        else if (filmOf[r] < 0 || ranks[filmOf[r]] < ranks[film]) expect(covers).toBe(false);
      }
      for (let arc = 0; arc < mesh.arcs.count; arc++) {
        const [a, b] = [regions.left[arc], regions.right[arc]];
        for (const [own, other] of [
          [a, b],
          [b, a],
        ])
          if (filmOf[own] === film && filmOf[other] >= 0 && ranks[filmOf[other]] > ranks[film]) expect(covered[film * regions.count + other]).toBe(1);
      }
    }
  });
});

describe('flat films', () => {
  it('traces a picture to films of its tones, the background left out', () => {
    const art = paintedArt(96, 80, boat);
    const tones = finish(flatTones(art, { count: 5, leastAreaPx2: 4 }));
    expect(tones.tones).toHaveLength(5);
    const { films: inset } = finish(flatFilms(art, tones, 'inset', DEFAULT_OUTLINE));
    const { films: stacked } = finish(flatFilms(art, tones, 'stacked', DEFAULT_OUTLINE));
    expect(inset).toHaveLength(4);
    const area = (films: typeof inset, tone: number): number => areaOf(films.find((film) => film.tone === tone)?.curves as Curves);
    for (const { tone } of inset) expect(area(stacked, tone)).toBeGreaterThanOrEqual(area(inset, tone) - 1e-9);
    // The uppermost film is the same either way.
    const top = stacked.at(-1)?.tone as number;
    expect(area(stacked, top)).toBeCloseTo(area(inset, top), 9);
  });

  it('lets inset films reach under their upper neighbours by so much, and nowhere else', () => {
    const art = paintedArt(90, 60, (x, y) => (y < 10.3 || y > 49.6 || x < 10.4 || x > 79.7 ? WHITE : x < 44.6 ? RED : BLUE));
    const tones = finish(flatTones(art, { count: 3, leastAreaPx2: 4 }));
    const order = [tones.ground, ...tones.tones.map((_, k) => k).filter((k) => k !== tones.ground)];
    const [lower, upper] = finish(flatFilms(art, tones, 'inset', DEFAULT_OUTLINE, order, 3)).films.map(({ curves }) => boundsOf(curves) as Bounds);
    const near = (found: readonly number[], wanted: readonly number[], within: number): void =>
      found.forEach((value, k) => expect(Math.abs(value - wanted[k])).toBeLessThan(within));
    near([lower.top, lower.bottom, upper.top, upper.bottom], [10.3, 49.6, 10.3, 49.6], 0.15);
    const [hidden, rest] =
      lower.left < 20 ? [lower.right - 44.6, [lower.left, upper.left, upper.right]] : [44.6 - lower.left, [upper.left, upper.right, lower.right]];
    near(rest, [10.4, 44.6, 79.7], 0.15);
    expect(Math.abs(hidden - 3)).toBeLessThan(0.06);
  });

  it('leaves edges that a reach does not concern as they are, node for node', () => {
    const art = paintedArt(96, 80, boat);
    const tones = finish(flatTones(art, { count: 5, leastAreaPx2: 4 }));
    const films = (meet: Meet, reachPx: number): readonly Curves[] =>
      finish(flatFilms(art, tones, meet, DEFAULT_OUTLINE, undefined, reachPx)).films.map(({ curves }) => curves);
    const own = films('inset', 0).map((curves) => segmentsOf(curves));
    for (const [meet, reachPx] of [
      ['inset', 1],
      ['inset', 6],
      ['middle', 0],
    ] as const) {
      for (const [k, curves] of films(meet, reachPx).entries()) {
        const reached = segmentsOf(curves).forward;
        // What no other film has on its other side is edge to the ground.
        const toGround = [...own[k].forward].filter((segment) => own.every(({ backward }, other) => other === k || !backward.has(segment)));
        expect(toGround.length).toBeGreaterThan(0);
        expect(
          toGround.filter((segment) => !reached.has(segment)),
          `${meet} ${reachPx}, film ${k}`,
        ).toEqual([]);
      }
    }
  });

  it('fills the whole boat, whatever the reach: no part of it is left to the ground', () => {
    const art = paintedArt(96, 80, boat);
    const tones = finish(flatTones(art, { count: 5, leastAreaPx2: 4 }));
    const inset = finish(flatFilms(art, tones, 'inset', DEFAULT_OUTLINE)).films;
    for (const reach of [0.4, 2, 7]) {
      const reached = finish(flatFilms(art, tones, 'inset', DEFAULT_OUTLINE, undefined, reach)).films;
      expect(reached.map(({ tone }) => tone)).toEqual(inset.map(({ tone }) => tone));
      for (const [k, { curves }] of reached.entries()) {
        expect(areaOf(curves)).toBeGreaterThan(areaOf(inset[k].curves) - 1);
        expect(isProperlyNested(curves, 0.02)).toBe(true);
      }
      expect(areaOf(reached[0].curves)).toBeGreaterThan(areaOf(inset[0].curves) + 10);
    }
  });
});

describe('edges that are rough or thin', () => {
  const jagged = (x: number): number => (x % 7 < 3 ? 0.5 : -0.5);

  it('are as rough as long edges between the same tones, not as the shape of a small one is', () => {
    /** A letter's counter beside a long clean edge: its bends are no roughness. */
    const mesh = (paint: (x: number, y: number) => Rgb): Curves => outlineOfLabel(meshFrom(120, 60, paint), 4);
    const counter = (x: number, y: number): boolean =>
      x > 20.3 && x < 28.6 && Math.abs(y - 20.2) < (x > 24 ? Math.sqrt(Math.max(0, 4.6 ** 2 - (x - 24) ** 2)) : 4.6);
    const outline = mesh((x, y) => (y > 40.3 || (x > 12 && x < 36 && y > 8 && y < 32 && !counter(x, y)) ? BLACK : WHITE));
    const smallest = Array.from({ length: ringCount(outline) }, (_, ring) => ring).sort(
      (a, b) => Math.abs(ringArea(outline, a)) - Math.abs(ringArea(outline, b)),
    )[0];
    const box = boundsOf({
      ...outline,
      verbStart: outline.verbStart.slice(smallest, smallest + 2),
      coordStart: outline.coordStart.slice(smallest, smallest + 2),
    }) as Bounds;
    // Its square side stays straight and its corners stay out: no circle or ellipse has taken its place.
    expect(Math.abs(Math.abs(ringArea(outline, smallest)) - (3.7 * 9.2 + (Math.PI * 4.6 ** 2) / 2))).toBeLessThan(1.5);
    expect(box.left).toBeLessThan(20.6);
  });

  it('are followed loosely where long ones are rough', () => {
    const rough = meshFrom(160, 60, (x, y) => (y > 30.2 + jagged(Math.floor(x)) ? BLACK : WHITE));
    const clean = meshFrom(160, 60, (_x, y) => (y > 30.2 ? BLACK : WHITE));
    const nodes = (mesh: ArcMesh): number => mesh.curves.verbs.length;
    expect(nodes(rough)).toBeLessThan(nodes(clean) + 24);
    expect(rough.strayPx).toBeGreaterThan(0.2);
    expect(clean.strayPx).toBeLessThan(0.02);
  });

  it('hold together along a diagonal of single pixels, of whichever tone', () => {
    for (const [line, ground] of [
      [BLACK, WHITE],
      [WHITE, BLACK],
    ] as const) {
      const paint = (x: number, y: number): Rgb => (Math.floor(x) === Math.floor(y) && x > 6 && x < 34 ? line : ground);
      const outline = outlineOfLabel(meshFrom(40, 40, paint), nearest(line));
      const inner = Array.from({ length: ringCount(outline) }, (_, ring) => Math.abs(ringArea(outline, ring))).filter((area) => area < 200);
      expect(inner).toHaveLength(1);
      expect(inner[0]).toBeGreaterThan(15);
    }
  });
});
