import { describe, expect, it } from 'vitest';
import type { FilmPaths } from '../../../core/outline/edit/editFilms.ts';
import { hitAt, nodesWithin, refAt } from './nodeHits.ts';

const films: FilmPaths[] = [
  { id: 'low', paths: [{ closed: true, nodes: [{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 100, y: 100 }, { x: 0, y: 100 }] }] },
  { id: 'up', paths: [{ closed: true, nodes: [{ x: 100, y: 0, out: { x: 130, y: 0 } }, { x: 160, y: 60, in: { x: 160, y: 30 } }, { x: 100, y: 100 }] }] },
];

describe('what lies under the pointer', () => {
  it('is a node before a side, of the upper film before the lower', () => {
    expect(hitAt(films, [], { x: 101, y: 1 }, 5)).toEqual({ kind: 'node', ref: { film: 'up', path: 0, node: 0 } });
    expect(hitAt(films, [], { x: 1, y: 2 }, 5)).toEqual({ kind: 'node', ref: { film: 'low', path: 0, node: 0 } });
    expect(hitAt(films, [], { x: 50, y: 3 }, 5)).toMatchObject({ kind: 'side', side: { film: 'low', side: 0, t: expect.closeTo(0.5, 2) as number } });
    expect(hitAt(films, [], { x: 50, y: 50 }, 5)).toBeUndefined();
  });

  it('finds a place on a curve, and handles of chosen nodes only', () => {
    const hit = hitAt(films, [], { x: 141, y: 16 }, 8);
    expect(hit).toMatchObject({ kind: 'side', side: { film: 'up', side: 0 } });
    expect(hitAt(films, [], { x: 130, y: 0 }, 2)).toBeUndefined();
    expect(hitAt(films, [{ film: 'up', path: 0, node: 0 }], { x: 130, y: 0 }, 2)).toEqual({ kind: 'handle', ref: { film: 'up', path: 0, node: 0 }, which: 'out' });
  });

  it('finds nodes in a frame drawn in any direction, and a node again by its place', () => {
    expect(nodesWithin(films, { x: 170, y: 70 }, { x: 90, y: -10 })).toEqual([{ film: 'low', path: 0, node: 1 }, { film: 'up', path: 0, node: 0 }, { film: 'up', path: 0, node: 1 }]);
    expect(refAt(films, { film: 'up', x: 160.001, y: 60 })).toEqual({ film: 'up', path: 0, node: 1 });
    expect(refAt(films, { film: 'up', x: 0, y: 0 })).toBeUndefined();
  });
});
