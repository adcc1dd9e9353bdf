import { describe, expect, it } from 'vitest';
import { areaOf } from '../../../../tests/fixtures/areaOf.ts';
import { fieldsToEdit as start } from '../../../../tests/fixtures/tracedFields.ts';
import { isProperlyNested } from '../checkCurves.ts';
import { ringCount } from '../curves.ts';
import { heldPathOf } from '../heldOutline.ts';
import { nestRings } from '../nestRings.ts';
import { curvesFromPathData } from '../pathData.ts';
import { addNode, moveNodes, removeNodes, shapeNodes, type FilmPaths, type NodeRef } from './editFilms.ts';
import { curvesFromPaths, nodeAt, pathsFromCurves, placeOn, sideAt, sideCount } from './editPath.ts';
import { doMeet, isWithin, mayReach, pathBox } from './pathBox.ts';

const refs = start.flatMap(({ id, paths }) => paths.flatMap((path, k) => path.nodes.map((_, node): NodeRef => ({ film: id, path: k, node }))));

describe('outlines that an edit does not touch', () => {
  const film = start.reduce((most, each) => (each.paths.length > most.paths.length ? each : most));

  it('are the same objects after it, in every kind of edit', () => {
    const edits: ((films: readonly FilmPaths[], ref: NodeRef) => readonly FilmPaths[])[] = [
      (films, ref) => moveNodes(films, [ref], 1, 2),
      (films, ref) => addNode(films, { ...ref, side: ref.node, t: 0.4 }),
      (films, ref) => shapeNodes(films, [ref], 'smooth'),
      (films, ref) => shapeNodes(films, [ref], 'corner'),
      (films, ref) => {
        const edit = removeNodes(films, [ref]);
        return 'refused' in edit ? films : edit.films;
      },
    ];
    for (const ref of refs) {
      const at = nodeAt(start.find(({ id }) => id === ref.film)!.paths[ref.path], ref.node);
      for (const edit of edits) {
        const after = edit(start, ref);
        for (const [f, { paths }] of start.entries()) {
          for (const [k, path] of paths.entries()) if (!mayReach(path, at)) expect(after[f].paths[k]).toBe(path);
        }
      }
    }
  });

  it('are the same objects when they come back, and only they', () => {
    const curves = curvesFromPaths(film.paths);
    const before = pathsFromCurves(curves);
    expect(pathsFromCurves(curves, before).every((path, k) => path === before[k])).toBe(true);
    const ring = before.findIndex(({ nodes }) => nodes.length > 2);
    const moved = moveNodes([{ id: 'one', paths: before }], [{ film: 'one', path: ring, node: 1 }], 0.01, 0)[0].paths;
    const back = pathsFromCurves(curvesFromPaths(moved), before);
    expect(back.map((path, k) => path === before[k])).toEqual(before.map((_, k) => moved[k] === before[k]));
    expect(back[ring].nodes[1].x).toBeCloseTo(before[ring].nodes[1].x + 0.01, 9);
    // A line in place of a curve, one outline fewer, an open one: none of them is taken for what was.
    expect(pathsFromCurves(curvesFromPaths(before.slice(1)), before).length).toBe(before.length - 1);
    const { nodes } = before[ring];
    const opened = pathsFromCurves(curvesFromPaths([{ closed: false, nodes }]), [{ closed: true, nodes }]);
    expect(opened[0].closed).toBe(false);
  });

  it('are held by the same text, which reads as the whole outline does', () => {
    for (const { paths } of start) {
      const whole = nestRings(curvesFromPathData(heldPathOf(paths)));
      const curves = curvesFromPaths(paths);
      expect(ringCount(whole)).toBe(ringCount(curves));
      expect(areaOf(whole)).toBeCloseTo(areaOf(curves), 3);
      expect(isProperlyNested(whole, 0.05)).toBe(true);
    }
  });

  it('lie in boxes that hold all of their curves', () => {
    for (const path of start.flatMap(({ paths }) => paths)) {
      const box = pathBox(path);
      for (let k = 0; k < sideCount(path); k++) for (const t of [0, 0.3, 0.7, 1]) expect(isWithin(box, placeOn(sideAt(path, k), t), 1e-9)).toBe(true);
      expect(doMeet(box, box)).toBe(true);
      expect(doMeet(box, { left: box.right + 1, right: box.right + 2, top: box.top, bottom: box.bottom })).toBe(false);
    }
  });
});

