import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { mm } from './length.ts';
import { formatLength, parseLength, trimNumber } from './parseLength.ts';

describe('parseLength', () => {
  it.each([
    ['200', 'mm', 200],
    ['200mm', 'in', 200],
    ['20 cm', 'mm', 200],
    ['3 1/2', 'in', 88.9],
    ['3-1/2"', 'mm', 88.9],
    ['7/8 in', 'mm', 22.225],
    ['3,5', 'mm', 3.5],
    ['.5', 'in', 12.7],
    ['-4', 'mm', -4],
  ] as const)('reads %s with %s assumed', (text, unit, expected) => {
    expect(parseLength(text, unit)).toBeCloseTo(expected, 9);
  });

  it.each(['', 'wide', '3 apples', '1/0', '--3', '3 1/2 1/4', '1e400'])('refuses %j', (text) => {
    expect(parseLength(text, 'mm')).toBeUndefined();
  });

  it('never throws and never gives a non-finite length, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        const value = parseLength(text, 'mm');
        expect(value === undefined || Number.isFinite(value)).toBe(true);
      }),
      { seed: 11 },
    );
  });

  it('reads back what it writes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100000 }), (tenths) => {
        const length = mm(tenths / 10);
        expect(parseLength(formatLength(length, 'mm'), 'in')).toBeCloseTo(length, 9);
      }),
      { seed: 12 },
    );
  });

  it('drops trailing zeros and negative zero', () => {
    expect([trimNumber(1.5, 4), trimNumber(-0.00001, 4), trimNumber(12, 4), trimNumber(0.12345, 4), trimNumber(100, 0)]).toEqual([
      '1.5',
      '0',
      '12',
      '0.1235',
      '100',
    ]);
    expect(trimNumber(10, 0)).toBe('10');
    expect(trimNumber(1.5, 3)).toBe('1.5');
    expect(trimNumber(-0.001, 1)).toBe('0');
  });

  it('rounds a number as toFixed does, whatever its size and digits', () => {
    const trimmed = (text: string): string => (text.includes('.') ? text.replace(/\.?0+$/, '') : text).replace(/^-0$/, '0');
    const halves = fc.tuple(fc.integer({ min: -200_000, max: 200_000 }), fc.integer({ min: 0, max: 7 })).map(([whole, places]) => (whole + 0.5) / 10 ** places);
    const any = fc.oneof(fc.double({ min: -3000, max: 3000 }), fc.double({ noNaN: true, min: -1e20, max: 1e20 }), halves, fc.integer());
    fc.assert(
      fc.property(any, fc.integer({ min: 0, max: 12 }), (value, digits) => {
        expect(trimNumber(value, digits)).toBe(trimmed(value.toFixed(digits)));
      }),
      { seed: 18, numRuns: 5000 },
    );
  });
});
