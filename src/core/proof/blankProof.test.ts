import { describe, expect, it } from 'vitest';
import type { Design } from '../assemble/design.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { scaling } from '../geometry/affine.ts';
import { flatten } from '../outline/flatten.ts';
import { BLANKS } from '../process/blanks.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { mm } from '../units/length.ts';
import { blankProof } from './blankProof.ts';
import { blankShape } from './blankShape.ts';

const blank = (name: string) => BLANKS.find((each) => each.blank.name === name)!.blank;
const square = (side: number): Design => ({ layers: [{ filmId: 'f', curves: figureCurves({ form: 'rectangle', widthMm: side, heightMm: side }) }], widthMm: mm(side), heightMm: mm(side) });
const film = { id: 'f', name: 'Pennant red', colour: '#b3262e' };
const isRed = ({ width, data }: Rgba8, x: number, y: number): boolean => data[4 * (y * width + x)] > 110 && data[4 * (y * width + x) + 1] < 90;
/** How far red reaches across the row in which it reaches farthest, px. */
const redAcross = (picture: Rgba8): number => Math.max(...Array.from({ length: picture.height }, (_, y) => Array.from({ length: picture.width }, (__, x) => x).filter((x) => isRed(picture, x, y)).length));

describe('the finished blank', () => {
  it('shows films in their colour, at true scale and in their place', () => {
    for (const name of ['Shirt, adult L', 'Tote bag', 'Soap bar', 'Wooden sign']) {
      const own = blank(name);
      const side = own.heightMm / 2;
      const { picture, pxPerMm } = blankProof({ blank: own, process: 'htv', place: { xMm: 10, yMm: 12 }, design: square(side), films: [film], sidePx: 700 });
      expect(Math.max(picture.width, picture.height)).toBe(700);
      expect(Math.abs(redAcross(picture) / pxPerMm - side), name).toBeLessThan(2 / pxPerMm);
    }
  });

  it('wraps around what is round: narrower towards the sides, gone behind', () => {
    const mug = blank('Mug');
    const radius = blankShape(mug).radii?.upperMm as number;
    const wide = (side: number, turnRad = 0): number => {
      const { picture, pxPerMm } = blankProof({ blank: mug, process: 'decal', place: undefined, design: square(side), films: [film], sidePx: 800, turnRad });
      return redAcross(picture) / pxPerMm;
    };
    expect(wide(40)).toBeLessThan(40);
    expect(Math.abs(wide(40) - 2 * radius * Math.sin(20 / radius))).toBeLessThan(1.5);
    expect(wide(40, Math.PI)).toBe(0);
    expect(wide(40, 1.2)).toBeLessThan(wide(40));
  });

  it('prints see-through on clear paper and as it is on white', () => {
    const board = { ...blank('Wooden sign'), colour: '#808080' };
    const yellow = makeRgba8(10, 10, Uint8Array.from(Array.from({ length: 100 }, () => [200, 160, 0, 255]).flat()));
    const at = (onWhitePaper: boolean): number[] => {
      const { picture, pxPerMm } = blankProof({ blank: board, process: 'waterslide', place: { xMm: 100, yMm: 50 }, design: square(100), films: [film], printed: [{ picture: yellow, toDesign: scaling(10) }], onWhitePaper, sidePx: 600 });
      // The printable area begins at the room around the board and its edge.
      const middle = 4 * (Math.round((50 + 50 + 10 + 21) * pxPerMm) * picture.width + Math.round((100 + 50 + 10 + 21) * pxPerMm));
      return [...picture.data.subarray(middle, middle + 3)];
    };
    expect(at(true)).toEqual([200, 160, 0]);
    expect(at(false)).toEqual([100, 80, 0]);
  });
});

describe('films on the blank', () => {
  const board = { ...blank('Wooden sign'), colour: '#e8dcc0' };
  const two: Design = { layers: [{ filmId: 'a', curves: figureCurves({ form: 'rectangle', widthMm: 100, heightMm: 100 }) }, { filmId: 'b', curves: figureCurves({ form: 'rectangle', widthMm: 60, heightMm: 60 }) }], widthMm: mm(100), heightMm: mm(100) };
  const films = [{ id: 'a', name: 'Navy', colour: '#22375f' }, film];
  const shown = (more: object): Rgba8 => blankProof({ blank: board, process: 'htv', place: undefined, design: two, films, sidePx: 500, ...more }).picture;

  it('come down one after the other', () => {
    expect(redAcross(shown({ filmsOn: 1 }))).toBe(0);
    expect(redAcross(shown({ filmsOn: 2 }))).toBeGreaterThan(50);
    const [both, whole] = [shown({ filmsOn: 2 }).data, shown({}).data];
    expect(both.every((value, k) => value === whole[k])).toBe(true);
    const isNavy = ({ data }: Rgba8): boolean => Array.from({ length: data.length / 4 }, (_, k) => data[4 * k + 2] - data[4 * k]).some((more) => more > 40);
    expect([isNavy(shown({ filmsOn: 0 })), isNavy(shown({ filmsOn: 1 }))]).toEqual([false, true]);
  });

  it('look as what they are made of: grains of glitter, and thick film stands out more', () => {
    const colours = (picture: Rgba8): number => new Set(Array.from({ length: picture.data.length / 4 }, (_, k) => (picture.data[4 * k] << 16) | (picture.data[4 * k + 1] << 8) | picture.data[4 * k + 2])).size;
    const of = (look: 'matte' | 'glitter', thicknessMm: number): Rgba8 => shown({ stuff: [{ look, thicknessMm }, { look, thicknessMm }] });
    expect(colours(of('glitter', 0.14))).toBeGreaterThan(4 * colours(of('matte', 0.14)));
    const darkened = (picture: Rgba8): number => {
      const bare = shown({ filmsOn: 0 });
      let count = 0;
      for (let i = 0; i < picture.data.length; i += 4) if (picture.data[i + 1] < bare.data[i + 1] && picture.data[i + 1] > 120) count++;
      return count;
    };
    expect(darkened(of('matte', 0.6))).toBeGreaterThan(1.5 * darkened(of('matte', 0.1)));
  });
});

describe('the shape of a shirt', () => {
  it('has its collar so far above the area as is measured', () => {
    for (const belowCollarMm of [40, 75, 120]) {
      const { lines, box } = blankShape({ ...blank('Shirt, adult L'), belowCollarMm });
      const lowest = Math.max(...lines[0].map(([, y]) => y));
      expect(lowest).toBeCloseTo(-belowCollarMm, 6);
      expect(box.top).toBeLessThan(lowest);
    }
  });

  it('and of what tapers is narrower below', () => {
    const { body, radii } = blankShape(blank('Tapered tumbler'));
    expect(radii?.lowerMm).toBeCloseTo(222 / 2 / Math.PI, 6);
    const { points } = flatten(body, 0.5);
    const widest = (from: number, to: number): number => Math.max(...Array.from({ length: points.length / 2 }, (_, k) => [points[2 * k], points[2 * k + 1]]).filter(([, y]) => y >= from && y < to).map(([x]) => x));
    expect(widest(-20, 0) - widest(90, 120)).toBeGreaterThan(5);
  });
});
