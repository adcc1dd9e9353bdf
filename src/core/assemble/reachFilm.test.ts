import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { boundsOf, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { meshRegions } from '../outline/mesh/meshRegions.ts';
import { traceMesh } from '../outline/mesh/arcMesh.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { flatTones } from '../separate/flatTones.ts';
import { finish } from '../task/task.ts';
import { filmOfRegions, filmsOfMesh, type Meeting } from './filmsOfMesh.ts';

const RED: Rgb = { r: 180, g: 40, b: 50 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };
const [LEFT, EDGE, RIGHT, TOP, BOTTOM] = [10.3, 50.4, 89.6, 12.2, 67.7];

/** A red field beside a blue one on white. */
const art = paintedArt(100, 80, (x, y) => (x < LEFT || x > RIGHT || y < TOP || y > BOTTOM ? WHITE : x < EDGE ? RED : BLUE));
const toned = finish(flatTones(art, { count: 3, leastAreaPx2: 5 }));
const mesh = finish(traceMesh(art, toned.labels, toned.tones, DEFAULT_OUTLINE));
const regions = meshRegions(mesh);
const RED_FILM = 0;
const BLUE_FILM = 1;
const numbered = (label: number): number => (label === CLEAR || label === toned.ground ? -1 : toned.tones[label].r > 100 ? RED_FILM : BLUE_FILM);

/** Both films, red below blue, met in a way. */
function films(meeting: Meeting): Map<number, Curves> {
  const made = finish(
    filmsOfMesh(mesh, regions, {
      filmOf: filmOfRegions(regions, numbered),
      films: 2,
      meet: () => meeting,
      order: [RED_FILM, BLUE_FILM],
      edges: { art, tones: toned.tones, options: DEFAULT_OUTLINE },
    }),
  );
  return new Map(made.map(({ film, curves }) => [film, curves]));
}

const areaOf = (curves: Curves | undefined): number =>
  curves === undefined ? 0 : Array.from({ length: ringCount(curves) }, (_, k) => ringArea(curves, k)).reduce((sum, area) => sum + area, 0);
const inset = films({ meet: 'inset', reachPx: 0 });

describe('a film that reaches under its neighbour', () => {
  it('runs on as far as it says, keeps its other edges, and leaves the neighbour as it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 30 }), (half) => {
        const reachPx = half / 2;
        const reached = films({ meet: 'inset', reachPx });
        const [before, after] = [boundsOf(inset.get(RED_FILM) as Curves), boundsOf(reached.get(RED_FILM) as Curves)];
        expect(after?.left).toBe(before?.left);
        expect(after?.top).toBeCloseTo(before?.top ?? 0, 1);
        expect(after?.bottom).toBeCloseTo(before?.bottom ?? 0, 1);
        expect(Math.abs((after?.right ?? 0) - EDGE - reachPx)).toBeLessThan(0.35);
        expect([...(reached.get(BLUE_FILM) as Curves).coords]).toEqual([...(inset.get(BLUE_FILM) as Curves).coords]);
      }),
      { seed: 12, numRuns: 10 },
    );
  });

  it('covers more the further it reaches, by about the length of their edge', () => {
    const areas = [0, 1, 2, 4, 8].map((reachPx) => areaOf(films({ meet: 'inset', reachPx }).get(RED_FILM)));
    for (let k = 1; k < areas.length; k++) expect(areas[k]).toBeGreaterThan(areas[k - 1]);
    expect(Math.abs(areas[4] - areas[0] - 8 * (BOTTOM - TOP))).toBeLessThan(0.06 * 8 * (BOTTOM - TOP));
  });

  it('goes to the middle of the neighbour, or under all of it', () => {
    const middle = films({ meet: 'middle', reachPx: 0 }).get(RED_FILM) as Curves;
    const beyond = (boundsOf(middle)?.right ?? 0) - EDGE;
    // Half way to the right edge, or to the upper and lower ones where those are nearer: a roof.
    expect(beyond).toBeGreaterThan(0.4 * (RIGHT - EDGE));
    expect(beyond).toBeLessThan(0.6 * (RIGHT - EDGE));
    const stacked = films({ meet: 'stacked', reachPx: 0 }).get(RED_FILM);
    expect(Math.abs(areaOf(stacked) - (RIGHT - LEFT) * (BOTTOM - TOP))).toBeLessThan(15);
  });
});
