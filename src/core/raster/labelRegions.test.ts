import { describe, expect, it } from 'vitest';
import { fillRegions, labelRegions, largestRegion } from './labelRegions.ts';

describe('regions', () => {
  it('are filled by choice, and leave the rest of a mask as it is', () => {
    const cells = Uint8Array.from([1, 1, 0, 1, 0, 0, 0, 1, 1, 0, 0, 1]);
    const regions = labelRegions(cells, 4, 3, 1, false);
    expect([...regions.area]).toEqual([2, 3, 1]);
    expect([...fillRegions(regions, [0, 1, 0], new Uint8Array(12))]).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1]);
    expect([
      ...fillRegions(
        regions,
        [1, 0, 1],
        Uint8Array.from({ length: 12 }, (_, i) => (i === 5 ? 1 : 0)),
      ),
    ]).toEqual([1, 1, 0, 0, 0, 1, 0, 0, 1, 0, 0, 0]);
  });

  it('have a largest one, the first of equals, also where there are hundreds of thousands', () => {
    const side = 1200;
    const dots = Uint8Array.from({ length: side * side }, (_, i) => ((i % side) % 2 === 0 && Math.floor(i / side) % 2 === 0 ? 1 : 0));
    dots[side * 500 + 1] = 1;
    const regions = labelRegions(dots, side, side, 1, false);
    expect(regions.count).toBe(360000 - 1);
    expect(regions.area[largestRegion(regions)]).toBe(3);
    expect(largestRegion({ area: Float64Array.from([2, 5, 5, 1]) })).toBe(1);
    expect(largestRegion({ area: new Float64Array(0) })).toBe(-1);
  });
});
