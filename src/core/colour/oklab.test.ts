import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { DifferenceTable } from './differenceTable.ts';
import { colourName, colourNames } from './colourName.ts';
import { hexFromRgb, lumaOf, rgbFromHex } from './hex.ts';
import { colourDifference, rgbFromOklab, writeOklab } from './oklab.ts';

const channel = fc.integer({ min: 0, max: 255 });
const colour = fc.record({ r: channel, g: channel, b: channel });

describe('oklab', () => {
  it('agrees with the published values of the primaries', () => {
    const lab = new Float64Array(3);
    writeOklab(255, 0, 0, lab);
    expect(lab[0]).toBeCloseTo(62.796, 1);
    expect(lab[1]).toBeCloseTo(22.486, 1);
    expect(lab[2]).toBeCloseTo(12.585, 1);
    writeOklab(255, 255, 255, lab);
    expect(lab[0]).toBeCloseTo(100, 2);
    expect(Math.abs(lab[1]) + Math.abs(lab[2])).toBeLessThan(0.01);
  });

  it('measures 100 from black to white and nothing from a colour to itself', () => {
    expect(colourDifference({ r: 0, g: 0, b: 0 }, { r: 255, g: 255, b: 255 })).toBeCloseTo(100, 1);
    expect(colourDifference({ r: 31, g: 62, b: 93 }, { r: 31, g: 62, b: 93 })).toBe(0);
  });

  it('gives the same answer from the table, rounded to a tenth', () => {
    fc.assert(
      fc.property(colour, fc.array(colour, { minLength: 1, maxLength: 40 }), (from, others) => {
        const table = new DifferenceTable(from);
        for (const other of [...others, ...others]) {
          const exact = Math.min(25.5, colourDifference(from, other));
          expect(Math.abs(table.level(other.r, other.g, other.b) / 10 - exact)).toBeLessThanOrEqual(0.0501);
        }
      }),
      { seed: 3 },
    );
  });
});

describe('hex', () => {
  it('reads back what it writes', () => {
    fc.assert(
      fc.property(colour, (c) => void expect(rgbFromHex(hexFromRgb(c))).toEqual(c)),
      { seed: 4 },
    );
    expect(rgbFromHex('red')).toBeUndefined();
    expect(rgbFromHex('#12345')).toBeUndefined();
  });

  it('weighs green most', () => {
    expect(lumaOf({ r: 0, g: 255, b: 0 })).toBeGreaterThan(lumaOf({ r: 255, g: 0, b: 0 }));
    expect(lumaOf({ r: 255, g: 255, b: 255 })).toBeCloseTo(255, 9);
  });
});

describe('back from OKLab', () => {
  it('gives every sRGB colour again', () => {
    const channel = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(channel, channel, channel, (r, g, b) => {
        const lab = new Float64Array(3);
        writeOklab(r, g, b, lab);
        expect(rgbFromOklab(lab[0], lab[1], lab[2])).toEqual({ r, g, b });
      }),
      { seed: 9, numRuns: 300 },
    );
  });
});

describe('colour names', () => {
  it('are the plain words of the shop', () => {
    const named = (hex: string): string => colourName(rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 });
    expect(['#16161c', '#ffffff', '#8a8d92', '#b3262e', '#24509a', '#9cc9e6', '#f2b632', '#3c7a4b', '#e3cfa4', '#6b4a2b', '#1b2a4a', '#1b5e20', '#20504f'].map(named)).toEqual([
      'black',
      'white',
      'grey',
      'red',
      'blue',
      'light blue',
      'yellow',
      'green',
      'sand',
      'brown',
      'dark blue',
      'dark green',
      'dark turquoise',
    ]);
  });

  it('tell the light and the dark one of colours of one name apart by that', () => {
    const named = (...hexes: string[]): string[] => colourNames(hexes.map((hex) => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 }));
    expect(named('#2f7f8a', '#8dc3cf')).toEqual(['Turquoise', 'Light turquoise']);
    expect(named('#8dc3cf', '#4d8f99', '#1f5a62')).toEqual(['Light turquoise', 'Turquoise', 'Dark turquoise']);
    expect(named('#1f5a62', '#205c64')).toEqual(['Dark turquoise', 'Dark turquoise 2']);
  });

  it('tell like colours apart by number', () => {
    expect(
      colourNames([
        { r: 0, g: 0, b: 0 },
        { r: 4, g: 4, b: 4 },
        { r: 255, g: 255, b: 255 },
      ]),
    ).toEqual(['Black', 'Black 2', 'White']);
  });
});
