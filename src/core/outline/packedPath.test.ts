import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldsToEdit } from '../../../tests/fixtures/tracedFields.ts';
import { trimNumber } from '../units/parseLength.ts';
import { heldPathOf } from './heldOutline.ts';
import { packPath, unpackPath } from './packedPath.ts';
import { finish } from '../task/task.ts';

const MOST = 1_000_000;
const packed = (text: string): Uint8Array<ArrayBuffer> | undefined => finish(packPath(text));
const unpacked = (bytes: Uint8Array, maxChars: number): string => finish(unpackPath(bytes, maxChars));

describe('a packed path', () => {
  it('comes back letter for letter, and takes half of the room', () => {
    for (const { paths } of fieldsToEdit) {
      const text = heldPathOf(paths);
      const bytes = packed(text);
      expect(bytes?.length).toBeLessThan(text.length * 0.55);
      expect(unpacked(bytes as Uint8Array, MOST)).toBe(text);
    }
  });

  it('holds any place up to a thousand million, to a millionth', () => {
    const number = fc.oneof(fc.double({ min: -999_999_999, max: 999_999_999, noNaN: true }), fc.double({ min: -10, max: 10, noNaN: true }), fc.integer({ min: -3000, max: 3000 }));
    const place = fc.tuple(number, number).map((pair) => pair.map((value) => trimNumber(value, 6)).join(' '));
    const side = fc.oneof(place.map((to) => `L${to}`), fc.tuple(place, place, place).map((places) => `C${places.join(' ')}`));
    const ring = fc.tuple(place, fc.array(side, { minLength: 1, maxLength: 8 }), fc.boolean()).map(([from, sides, isClosed]) => `M${from}${sides.join('')}${isClosed ? 'Z' : ''}`);
    fc.assert(
      fc.property(fc.array(ring, { maxLength: 300 }), (rings) => {
        const text = rings.join('');
        expect(unpacked(packed(text) as Uint8Array, text.length + 1)).toBe(text);
      }),
      { seed: 18, numRuns: 60 },
    );
  });

  it.each(['M1 2l3 4', 'M01 2L3 4', 'M1.50 2L3 4', 'M1. 2L3 4', 'M.5 2L3 4', 'M-0 2L3 4', 'M1  2L3 4', 'M 1 2L3 4', 'M1 2 L3 4', 'M1.1234567 2L3 4', 'M1234567890 2L3 4', 'M1 2L3', 'M1,2L3 4', 'M1e3 2L3 4'])('is not made of %s, which would not come back so', (text) => expect(packed(text)).toBeUndefined());

  it('is refused when it is broken, too long, or of another form', () => {
    const whole = packed('M1.5 2L3 4L-7.25 0Z') as Uint8Array<ArrayBuffer>;
    for (const bytes of [new Uint8Array(0), Uint8Array.of(2, ...whole.slice(1)), whole.slice(0, -2), Uint8Array.of(1, 9), Uint8Array.of(1, 0, ...new Array<number>(9).fill(255))]) expect(() => unpacked(bytes, MOST)).toThrow(RangeError);
    expect(() => unpacked(whole, 10)).toThrow(RangeError);
    const far = packed('M999999999 0L0 0Z') as Uint8Array<ArrayBuffer>;
    expect(() => unpacked(Uint8Array.of(1, ...far.slice(1, -3), ...far.slice(1)), MOST)).toThrow(RangeError);
  });
});
