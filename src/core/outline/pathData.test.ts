import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { curvesFromPathData, isPathData, pathData } from './pathData.ts';
import { scanPath } from './scanPath.ts';

describe('path data', () => {
  it('is read number for number as the language itself reads it', () => {
    const digits = fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 19 }).map((list) => list.join(''));
    const number = fc.tuple(fc.boolean(), digits, fc.option(digits)).filter(([, whole, rest]) => whole !== '' || (rest ?? '') !== '').map(([minus, whole, rest]) => `${minus ? '-' : ''}${whole}${rest === null ? '' : `.${rest}`}`);
    fc.assert(
      fc.property(number, number, (x, y) => {
        const seen: number[] = [];
        expect(scanPath(`M${x} ${y}L1 1`, (command, [a, b]) => void (command === 'M' && seen.push(a, b)))).toBe(true);
        expect(seen).toEqual([Number(x), Number(y)]);
      }),
      { seed: 18, numRuns: 2000 },
    );
  });

  it('comes back as it was written, outlines closed and open', () => {
    const text = 'M0 0L10 0C10 5.523 5.523 10 0 10ZM-1.5 2L3 4L5 -6';
    expect(pathData(curvesFromPathData(text))).toBe(text);
    expect(curvesFromPathData('').parent).toHaveLength(0);
  });

  it('may have spaces where numbers end', () => expect(isPathData('M 0 0 L 10 0 C 1 2 3 4 5 6 Z M1 1 L 2 2 ')).toBe(true));

  it('may have powers of ten where it was not written by pathData, and is no path data of a job then', () => {
    expect([...curvesFromPathData('M1e2 -6.1e-16L2.5e+1 1.23456789012345678e-7').coords]).toEqual([100, -6.1e-16, 25, 1.23456789012345678e-7]);
    expect(isPathData('M1e2 0L1 1')).toBe(false);
    expect(() => curvesFromPathData('M1e 0L1 1')).toThrow(RangeError);
  });

  it.each(['L1 1', 'M0 0', 'M0 0Z', 'M0 0M1 1L2 2', 'M0 0L1', 'M0 0L1 2 3', 'M0 0L1 e', 'M0 0L1 1.2.3', 'M0 0L1 --1', 'M0 0L1 1 ZZ', 'm0 0L1 1', 'M0 0L1 .', ' M0 0L1 1', 'M0 0 H5', `M0 0L1 ${'9'.repeat(400)}`])('is not %s', (text) => {
    expect(isPathData(text)).toBe(false);
    expect(() => curvesFromPathData(text)).toThrow(RangeError);
  });
});
