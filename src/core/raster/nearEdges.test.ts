import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distanceInside, distanceTo } from './distance.ts';
import { distanceNear } from './distanceNear.ts';
import { labelEdges, nearEdges } from './nearEdges.ts';

const [WIDTH, HEIGHT] = [20, 16];
const someBoxes = fc.array(fc.tuple(fc.nat(19), fc.nat(15), fc.nat(8), fc.nat(8)), { maxLength: 4 });

/** Boxes over each other, each with a label of its own. */
function painted(boxes: readonly (readonly [number, number, number, number])[]): Uint8Array {
  const labels = new Uint8Array(WIDTH * HEIGHT);
  boxes.forEach(([x, y, w, h], k) => {
    for (let yy = y; yy < Math.min(HEIGHT, y + h); yy++) labels.fill(k + 1, yy * WIDTH + x, yy * WIDTH + Math.min(WIDTH, x + w));
  });
  return labels;
}

/** Whether a cell has another label in a square around it. */
function differs(labels: Uint8Array, x: number, y: number, r: number): boolean {
  for (let yy = Math.max(0, y - r); yy <= Math.min(HEIGHT - 1, y + r); yy++)
    for (let xx = Math.max(0, x - r); xx <= Math.min(WIDTH - 1, x + r); xx++) if (labels[yy * WIDTH + xx] !== labels[y * WIDTH + x]) return true;
  return false;
}

describe('places near edges', () => {
  it('hold every cell that has another label within reach, and leave plain places out', () => {
    fc.assert(
      fc.property(someBoxes, fc.integer({ min: 1, max: 5 }), (boxes, reach) => {
        const labels = painted(boxes);
        const { rowFirst, start, end } = nearEdges(labelEdges(labels, WIDTH, HEIGHT), reach);
        const marked = new Uint8Array(labels.length);
        for (let s = 0; s < start.length; s++) marked.fill(1, start[s], end[s]);
        for (let y = 0; y < HEIGHT; y++)
          for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) expect([Math.floor(start[s] / WIDTH), Math.floor((end[s] - 1) / WIDTH)]).toEqual([y, y]);
        for (let y = 0; y < HEIGHT; y++) {
          for (let x = 0; x < WIDTH; x++) {
            if (differs(labels, x, y, reach)) expect(marked[y * WIDTH + x]).toBe(1);
            if (!differs(labels, x, y, reach + 2)) expect(marked[y * WIDTH + x]).toBe(0);
          }
        }
      }),
      { seed: 66, numRuns: 80 },
    );
  });

  it('of one label are those of the label beside all others', () => {
    fc.assert(
      fc.property(someBoxes, fc.integer({ min: 1, max: 5 }), fc.nat(4), (boxes, reach, label) => {
        const labels = painted(boxes);
        const alone = labels.map((each) => (each === label ? 1 : 0));
        expect(nearEdges(labelEdges(labels, WIDTH, HEIGHT), reach, label)).toEqual(nearEdges(labelEdges(alone, WIDTH, HEIGHT), reach));
      }),
      { seed: 67, numRuns: 80 },
    );
  });
});

describe('distance near edges', () => {
  it('is the distance everywhere as far as the edges reach', () => {
    fc.assert(
      fc.property(someBoxes, fc.integer({ min: 2, max: 6 }), (boxes, reach) => {
        const cells = painted(boxes).map((label) => (label === 0 ? 0 : 1));
        const where = nearEdges(labelEdges(cells, WIDTH, HEIGHT), reach);
        for (const isZero of [true, false]) {
          const near = distanceNear(cells, isZero, where, WIDTH, HEIGHT, new Float32Array(cells.length));
          const exact = isZero ? distanceInside(cells, WIDTH, HEIGHT, 'free') : distanceTo(cells, WIDTH, HEIGHT);
          for (let s = 0; s < where.start.length; s++) {
            for (let i = where.start[s]; i < where.end[s]; i++) if (exact[i] <= reach) expect(near[i]).toBeCloseTo(exact[i], 4);
          }
        }
      }),
      { seed: 68, numRuns: 80 },
    );
  });
});
