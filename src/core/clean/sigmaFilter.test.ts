import { readFile } from 'node:fs/promises';
import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { kernelModule, KERNELS } from '../../../scripts/kernels.mjs';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { sigmaFilter } from './sigmaFilter.ts';

afterEach(() => vi.unstubAllGlobals());

describe('the sigma filter', () => {
  it('gives the same bytes with SIMD and without, whatever the picture, its size and its alpha', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 23 }),
        fc.integer({ min: 1, max: 90 }),
        fc.integer({ min: 0, max: 255 }),
        fc.boolean(),
        fc.constantFrom(4, 40, 256),
        fc.nat(),
        (width, height, reach, mend, spread, seed) => {
          let state = seed >>> 0;
          const data = Uint8Array.from({ length: width * height * 4 }, () => {
            state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
            return (100 + ((state >>> 16) % spread)) & 255;
          });
          const picture = makeRgba8(width, height, data);
          const fast = finish(sigmaFilter(picture, reach, mend)).data;
          vi.stubGlobal('WebAssembly', undefined);
          const plain = finish(sigmaFilter(picture, reach, mend)).data;
          vi.unstubAllGlobals();
          expect([...fast]).toEqual([...plain]);
        },
      ),
      { seed: 19, numRuns: 80 },
    );
  });

  it('runs the kernel that its text says', async () => {
    for (const path of KERNELS) expect(await readFile(new URL(`../../../${path}.ts`, import.meta.url), 'utf8')).toBe(await kernelModule(path));
  });
});
