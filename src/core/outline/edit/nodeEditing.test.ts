import { areaOf } from '../../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldsToEdit as start, tracedFields as traced } from '../../../../tests/fixtures/tracedFields.ts';
import { isProperlyNested } from '../checkCurves.ts';
import { isOpenRing, nodeCount, ringCount } from '../curves.ts';
import { nestRings } from '../nestRings.ts';
import { curvesFromPathData, isPathData, pathData } from '../pathData.ts';
import { piecesOf } from '../pieces.ts';
import {
  addNode,
  cutOpen,
  joinEnds,
  moveHandle,
  moveNodes,
  removeNodes,
  shapeNodes,
  straighten,
  type Edit,
  type FilmPaths,
  type NodeRef,
} from './editFilms.ts';
import { curvesFromPaths, isNear, isSmooth, isStraight, nodeAt, pathsFromCurves, placeOn, sideAt, sideCount, type EditPath, type Side } from './editPath.ts';
import { distance, sameSide, turnedSide } from './nodeEdits.ts';

const sidesOf = (films: readonly FilmPaths[]): { film: string; side: Side }[] =>
  films.flatMap(({ id, paths }) => paths.flatMap((path) => Array.from({ length: sideCount(path) }, (_, k) => ({ film: id, side: sideAt(path, k) }))));
/** Sides that two films share. */
function shared(films: readonly FilmPaths[]): number {
  const all = sidesOf(films);
  return all.filter(({ film, side }) => all.some((other) => other.film !== film && (sameSide(other.side, side) || sameSide(other.side, turnedSide(side)))))
    .length;
}
/** Ends of sides that nothing but one film passes next to another film's end without being it. */
const refsOf = (films: readonly FilmPaths[]): NodeRef[] =>
  films.flatMap(({ id, paths }) => paths.flatMap((path, k) => path.nodes.map((_, node) => ({ film: id, path: k, node }))));
const nodeOf = (films: readonly FilmPaths[], { film, path, node }: NodeRef) => nodeAt(films.find(({ id }) => id === film)!.paths[path], node);
const made = (edit: Edit): readonly FilmPaths[] => {
  if ('refused' in edit) throw new Error(`refused: ${edit.refused}`);
  return edit.films;
};
/** In how many outlines a node is. */
const outlinesAt = (films: readonly FilmPaths[], ref: NodeRef): number =>
  films.flatMap(({ paths }) => paths).filter((path) => path.nodes.some((node) => isNear(node, nodeOf(films, ref)))).length;
const pathAreas = (films: readonly FilmPaths[]): number => films.reduce((sum, { paths }) => sum + areaOf(curvesFromPaths(paths)), 0);

describe('editing nodes', () => {
  it('starts from films that share their edges', () => {
    expect(start).toHaveLength(4);
    expect(shared(start)).toBeGreaterThan(8);
  });

  it('gives the outline back as it was', () => {
    for (const { curves } of traced) {
      const back = curvesFromPaths(pathsFromCurves(curves));
      expect(nodeCount(back)).toBe(nodeCount(curves));
      expect(areaOf(back)).toBeCloseTo(areaOf(curves), 9);
      expect(Array.from(back.parent)).toEqual(Array.from(curves.parent));
    }
  });

  it('moves a node in all films that have it, so that no seam opens', () => {
    const refs = refsOf(start);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(refs.length - 1), fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true })), {
          minLength: 1,
          maxLength: 8,
        }),
        (moves) => {
          let films: readonly FilmPaths[] = start;
          for (const [at, dx, dy] of moves) films = moveNodes(films, [refs[at]], dx, dy);
          expect(shared(films)).toBe(shared(start));
        },
      ),
      { seed: 11, numRuns: 40 },
    );
  });

  it('turns and bends both sides of a shared edge by one handle', () => {
    const ref = refsOf(start).find((each) => {
      const path = start.find(({ id }) => id === each.film)!.paths[each.path];
      return path.nodes[each.node].out !== undefined && outlinesAt(start, each) > 1;
    })!;
    const before = nodeOf(start, ref).out!;
    const films = moveHandle(start, ref, 'out', { x: before.x + 2, y: before.y - 1 }, true);
    expect(nodeOf(films, ref).out).toEqual({ x: before.x + 2, y: before.y - 1 });
    expect(shared(films)).toBe(shared(start));
  });

  it('adds a node without moving the curve, and takes it out again to within a hundredth', () => {
    const refs = refsOf(start);
    for (const ref of refs) {
      const path = start.find(({ id }) => id === ref.film)!.paths[ref.path];
      const side = sideAt(path, ref.node);
      const place = placeOn(side, 0.4);
      const films = addNode(start, { film: ref.film, path: ref.path, side: ref.node, t: 0.4 });
      const all = refsOf(films);
      expect(pathAreas(films)).toBeCloseTo(pathAreas(start), 6);
      const added = all.find((each) => isNear(nodeOf(films, each), place))!;
      expect(outlinesAt(films, added)).toBe(all.length - refs.length);
      const back = made(removeNodes(films, [added]));
      expect(refsOf(back)).toHaveLength(refs.length);
      expect(Math.abs(pathAreas(back) - pathAreas(start))).toBeLessThan(0.05);
      expect(shared(back)).toBe(shared(start));
    }
  });

  it('refuses to take out a node where three films meet', () => {
    const meeting = refsOf(start).find((ref) => outlinesAt(start, ref) >= 3)!;
    expect(removeNodes(start, [meeting])).toEqual({ refused: 'filmsMeet' });
  });

  it('makes corners and smooth nodes, in both films alike', () => {
    const ref = refsOf(start).find((each) => isSmooth(start.find(({ id }) => id === each.film)!.paths[each.path], each.node))!;
    const pathOf = (films: readonly FilmPaths[]): EditPath => films.find(({ id }) => id === ref.film)!.paths[ref.path];
    const corner = shapeNodes(start, [ref], 'corner');
    expect(isSmooth(pathOf(corner), ref.node)).toBe(false);
    const smooth = shapeNodes(corner, [ref], 'smooth');
    expect(isSmooth(pathOf(smooth), ref.node)).toBe(true);
    expect(shared(smooth)).toBe(shared(start));
  });

  it('rounds the corner of two straight sides', () => {
    const square: FilmPaths[] = [
      {
        id: 'a',
        paths: [
          {
            closed: true,
            nodes: [
              { x: 0, y: 0 },
              { x: 30, y: 0 },
              { x: 30, y: 30 },
              { x: 0, y: 30 },
            ],
          },
        ],
      },
    ];
    const [
      {
        paths: [path],
      },
    ] = shapeNodes(square, [{ film: 'a', path: 0, node: 1 }], 'smooth');
    expect(isSmooth(path, 1)).toBe(true);
    expect(path.nodes[1].in).toBeDefined();
    expect(isSmooth(path, 0)).toBe(false);
  });

  it('straightens the shorter way between two nodes', () => {
    const path: EditPath = {
      closed: true,
      nodes: [
        { x: 0, y: 0 },
        { x: 10, y: -4 },
        { x: 20, y: 0 },
        { x: 20, y: 30 },
        { x: 10, y: 31 },
        { x: 0, y: 30 },
      ],
    };
    const films = made(straighten([{ id: 'a', paths: [path] }], { film: 'a', path: 0, node: 2 }, { film: 'a', path: 0, node: 0 }));
    const { nodes } = films[0].paths[0];
    expect(nodes).toHaveLength(5);
    expect(nodes.some((node) => isNear(node, { x: 10, y: -4 }))).toBe(false);
    expect(
      isStraight(
        sideAt(
          films[0].paths[0],
          nodes.findIndex((node) => isNear(node, { x: 0, y: 0 })),
        ),
      ),
    ).toBe(true);
    expect(straighten(films, { film: 'a', path: 0, node: 1 }, { film: 'a', path: 0, node: 1 })).toEqual({ refused: 'notOneOutline' });
  });

  it('cuts an outline open and joins it again', () => {
    const ref = refsOf(start)[0];
    const opened = made(cutOpen(start, ref, 1));
    const film = opened.find(({ id }) => id === ref.film)!;
    const path = film.paths[ref.path];
    expect(path.closed).toBe(false);
    const curves = curvesFromPaths(film.paths);
    const openRings = Array.from({ length: ringCount(curves) }, (_, ring) => ring).filter((ring) => isOpenRing(curves, ring));
    expect(openRings).toHaveLength(1);
    const gap = distance(path.nodes[0], path.nodes[path.nodes.length - 1]);
    expect(gap).toBeGreaterThan(0.3);
    expect(gap).toBeLessThan(1.2);
    expect(piecesOf(curves)).toHaveLength(piecesOf(curvesFromPaths(start.find(({ id }) => id === ref.film)!.paths)).length - 1);
    const ends = [0, path.nodes.length - 1].map((node) => ({ ...ref, node }));
    const joined = made(joinEnds(opened, ends[0], ends[1], 2)).find(({ id }) => id === ref.film)!;
    expect(joined.paths[ref.path].closed).toBe(true);
    expect(joined.paths[ref.path].nodes).toHaveLength(start.find(({ id }) => id === ref.film)!.paths[ref.path].nodes.length);
    expect(joined.paths[ref.path].nodes.some((node) => distance(node, nodeOf(start, ref)) < 0.6)).toBe(true);
  });

  it('parts an open line in two, and joins two open lines', () => {
    const line: FilmPaths[] = [
      {
        id: 'a',
        paths: [
          {
            closed: false,
            nodes: [
              { x: 0, y: 0 },
              { x: 10, y: 0 },
              { x: 20, y: 0 },
              { x: 30, y: 0 },
            ],
          },
        ],
      },
    ];
    const parted = made(cutOpen(line, { film: 'a', path: 0, node: 1 }, 1));
    expect(parted[0].paths.map(({ nodes }) => nodes.map(({ x }) => x))).toEqual(
      [
        [0, 9.5],
        [10.5, 20, 30],
      ].map((xs) => xs.map((x) => expect.closeTo(x, 0) as number)),
    );
    const joined = made(joinEnds(parted, { film: 'a', path: 0, node: 1 }, { film: 'a', path: 1, node: 0 }, 2));
    expect(joined[0].paths).toHaveLength(1);
    expect(joined[0].paths[0].nodes.map(({ x }) => x)).toEqual([0, expect.closeTo(10, 1), 20, 30]);
    const closed = made(joinEnds(joined, { film: 'a', path: 0, node: 0 }, { film: 'a', path: 0, node: 3 }, 2));
    expect(closed[0].paths[0]).toMatchObject({ closed: true });
    expect(joinEnds(closed, { film: 'a', path: 0, node: 0 }, { film: 'a', path: 0, node: 1 }, 2)).toEqual({ refused: 'notEnds' });
  });

  it('takes out a whole outline when all its nodes go', () => {
    const film = start.find(({ paths }) => paths.length > 0)!;
    const refs = film.paths[0].nodes.map((_, node) => ({ film: film.id, path: 0, node }));
    const after = made(removeNodes(start, refs));
    expect(after.find(({ id }) => id === film.id)!.paths).toHaveLength(film.paths.length - 1);
    expect(after.filter(({ id }) => id !== film.id)).toEqual(start.filter(({ id }) => id !== film.id));
  });
});

describe('path data', () => {
  it('comes back to the millionth, open outlines open', () => {
    for (const { curves } of traced) {
      const back = nestRings(curvesFromPathData(pathData(curves, 6)));
      expect(nodeCount(back)).toBe(nodeCount(curves));
      expect(Math.max(...back.coords.map((value, k) => Math.abs(value - curves.coords[k])))).toBeLessThan(1e-6);
      expect(isProperlyNested(back, 0.05)).toBe(true);
    }
    const open = curvesFromPathData('M0 0L10 0C12 0 14 2 14 4');
    expect(isOpenRing(open, 0)).toBe(true);
    expect(pathData(open)).toBe('M0 0L10 0C12 0 14 2 14 4');
  });

  it('refuses what it does not write', () => {
    for (const text of ['M0 0', 'L1 1', 'M0 0L1', 'M0 0 A1 1 0 0 0 2 2', 'M0 0L1 1Q2 2 3 3', 'M0 0L1 1; alert', 'M0 0L1e999 1'])
      expect(isPathData(text)).toBe(false);
    expect(isPathData(pathData(traced[0].curves))).toBe(true);
    expect(isPathData('')).toBe(true);
    expect(() => curvesFromPathData('M0 0L1')).toThrow(RangeError);
  });

  it('nests rings by where they lie, whatever their order and direction', () => {
    const square = (x: number, size: number, turned: boolean): string =>
      turned
        ? `M${x} ${x}L${x} ${x + size}L${x + size} ${x + size}L${x + size} ${x}Z`
        : `M${x} ${x}L${x + size} ${x}L${x + size} ${x + size}L${x} ${x + size}Z`;
    const nested = nestRings(curvesFromPathData(square(20, 10, false) + square(0, 100, true) + square(10, 60, false) + square(80, 10, true)));
    expect(isProperlyNested(nested, 0.01)).toBe(true);
    expect(Array.from(nested.parent).sort()).toEqual([-1, 0, 0, 1]);
    expect(areaOf(nested)).toBeCloseTo(10_000 - 3600 - 100 + 100, 6);
  });
});
