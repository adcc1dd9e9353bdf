import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CellGrid } from './cellGrid.ts';
import { cellMask, type CellMask } from './cellMask.ts';
import { nestShape } from './nestShape.ts';

const covers = ({ spans, spanStart }: CellMask, column: number, row: number): boolean => {
  for (let s = spanStart[column]; s < spanStart[column + 1]; s++) if (row >= spans[2 * s] && row < spans[2 * s + 1]) return true;
  return false;
};
const polygon = fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 })), { minLength: 3, maxLength: 7 });
const maskOf = (points: readonly (readonly [number, number])[]): CellMask => cellMask(nestShape({ kind: 'rings', points: Float64Array.from(points.flat()), starts: Int32Array.from([0, points.length]) }), 0, 1);

describe('the grid of cells', () => {
  it('finds the very place that trying every one finds', () => {
    fc.assert(
      fc.property(fc.array(polygon, { minLength: 2, maxLength: 6 }), (polygons) => {
        const [columns, rows] = [60, 75];
        const grid = new CellGrid(columns, rows);
        const taken = new Set<number>();
        for (const mask of polygons.map(maskOf)) {
          const cells = (column: number, row: number): number[] => Array.from({ length: mask.columns * mask.rows }, (_, k) => [Math.floor(k / mask.rows), k % mask.rows]).filter(([x, y]) => covers(mask, x, y)).map(([x, y]) => (column + x) * rows + row + y);
          let tried: { column: number; row: number } | undefined;
          for (let column = 0; column + mask.columns <= columns && tried === undefined; column++)
            for (let row = 0; row + mask.rows <= rows && tried === undefined; row++) if (!cells(column, row).some((cell) => taken.has(cell))) tried = { column, row };
          const found = grid.firstFree(mask, 0);
          expect(found).toEqual(tried);
          if (found === undefined) continue;
          grid.take(mask, found.column, found.row);
          for (const cell of cells(found.column, found.row)) taken.add(cell);
        }
      }),
      { seed: 7, numRuns: 30 },
    );
  });

  it('takes every cell that an outline touches and all within', () => {
    const mask = maskOf([[0, 0], [10, 0], [10, 10], [0, 10]]);
    expect([mask.columns, mask.rows]).toEqual([10, 10]);
    expect(Array.from({ length: 100 }, (_, k) => covers(mask, k % 10, Math.floor(k / 10))).every(Boolean)).toBe(true);
    const wedge = maskOf([[0, 0], [20, 0], [0, 20]]);
    expect([covers(wedge, 19, 0), covers(wedge, 0, 19), covers(wedge, 19, 19), covers(wedge, 10, 9), covers(wedge, 12, 12)]).toEqual([true, true, false, true, false]);
  });
});
