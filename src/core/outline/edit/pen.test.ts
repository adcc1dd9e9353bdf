import { describe, expect, it } from 'vitest';
import { isOpenRing, ringArea } from '../curves.ts';
import { curvesFromPaths, type EditPath } from './editPath.ts';
import { closesAt, penBack, penDone, penDown, penPulled } from './pen.ts';

const start: EditPath = { closed: false, nodes: [] };
const drawn = (...places: readonly (readonly [number, number])[]): EditPath => places.reduce((path, [x, y]) => penDown(path, { x, y }), start);

describe('the pen', () => {
  it('draws a closed shape of the area that its corners enclose', () => {
    const square = penDone(drawn([0, 0], [10, 0], [10, 10], [0, 10]), true) as EditPath;
    expect(Math.abs(ringArea(curvesFromPaths([square]), 0))).toBeCloseTo(100, 9);
  });

  it('draws curves whose handles lie opposite to each other', () => {
    const pulled = penPulled(drawn([0, 0], [10, 0]), { x: 10, y: 6 });
    expect(pulled.nodes[1]).toEqual({ x: 10, y: 0, out: { x: 10, y: 6 }, in: { x: 10, y: -6 } });
    const leaf = penDone(penPulled(drawn([0, 0], [10, 0]), { x: 14, y: 8 }), true) as EditPath;
    expect(Math.abs(ringArea(curvesFromPaths([leaf]), 0))).toBeGreaterThan(5);
  });

  it('leaves an open line when it is not closed, takes a node back, and makes nothing of a single one', () => {
    const line = penDone(drawn([0, 0], [10, 0], [20, 5]), false) as EditPath;
    expect(isOpenRing(curvesFromPaths([line]), 0)).toBe(true);
    expect(penBack(drawn([0, 0], [10, 0])).nodes).toHaveLength(1);
    expect(penDone(drawn([3, 3]), true)).toBeUndefined();
    // Two corners enclose nothing: they are a line.
    expect(penDone(drawn([0, 0], [10, 0]), true)?.closed).toBe(false);
    expect([closesAt(drawn([0, 0], [10, 0]), { x: 0.5, y: 0 }, 1), closesAt(drawn([0, 0]), { x: 0, y: 0 }, 1)]).toEqual([true, false]);
  });
});
