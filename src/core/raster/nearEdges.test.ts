import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nearEdges } from './nearEdges.ts';

describe('places near edges', () => {
  it('hold every cell that has another label within reach, and leave plain places out', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(19), fc.nat(15), fc.nat(4), fc.nat(4)), { maxLength: 3 }), fc.integer({ min: 1, max: 5 }), (boxes, reach) => {
        const [width, height] = [20, 16];
        const labels = new Uint8Array(width * height);
        boxes.forEach(([x, y, w, h], k) => {
          for (let yy = y; yy < Math.min(height, y + h); yy++) labels.fill(k + 1, yy * width + x, yy * width + Math.min(width, x + w));
        });
        const { rowFirst, start, end } = nearEdges(labels, width, height, reach);
        const marked = new Uint8Array(labels.length);
        for (let s = 0; s < start.length; s++) marked.fill(1, start[s], end[s]);
        for (let y = 0; y < height; y++) for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) expect([Math.floor(start[s] / width), Math.floor((end[s] - 1) / width)]).toEqual([y, y]);
        for (let y = 0; y < height; y++) {
          for (let x = 0; x < width; x++) {
            const differs = (r: number): boolean => {
              for (let yy = Math.max(0, y - r); yy <= Math.min(height - 1, y + r); yy++) for (let xx = Math.max(0, x - r); xx <= Math.min(width - 1, x + r); xx++) if (labels[yy * width + xx] !== labels[y * width + x]) return true;
              return false;
            };
            if (differs(reach)) expect(marked[y * width + x]).toBe(1);
            if (!differs(reach + 2)) expect(marked[y * width + x]).toBe(0);
          }
        }
      }),
      { seed: 66, numRuns: 80 },
    );
  });
});
