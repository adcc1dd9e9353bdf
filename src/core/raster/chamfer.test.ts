import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CHAMFER_PX, chamferInside } from './chamfer.ts';
import { distanceInside } from './distance.ts';
import { finish } from '../task/task.ts';

const [WIDTH, HEIGHT] = [40, 30];

describe('the chamfer distance', () => {
  it('is within 8 % of the true one, and 0 where nothing is', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: WIDTH * HEIGHT - 1 }), { minLength: 0, maxLength: 12 }), (holes) => {
        const cells = new Uint8Array(WIDTH * HEIGHT).fill(1);
        for (const i of holes) cells[i] = 0;
        const [near, exact] = [finish(chamferInside(cells, WIDTH, HEIGHT)), distanceInside(cells, WIDTH, HEIGHT)];
        for (let i = 0; i < cells.length; i++) {
          if (cells[i] === 0) expect(near[i]).toBe(0);
          else expect(Math.abs(near[i] / CHAMFER_PX / exact[i] - 1)).toBeLessThan(0.08);
        }
      }),
      { seed: 17, numRuns: 60 },
    );
  });
});
