import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { FIGURE_FORMS } from '../figure/figure.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { letterCurves } from './letterCurves.ts';
import type { Lettering } from './lettering.ts';
import { lettersAlong } from './lettersAlong.ts';
import { lettersInto } from './lettersInto.ts';

const library = await loadPolygons();
const face = await loadFont('Archivo Black');
const base: Lettering = { text: 'HARBOUR', font: face.name, heightMm: 8 };
const boxOf = (curves: Curves): Bounds => boundsOf(curves) as Bounds;
const along = (edge: Curves, more: Partial<NonNullable<Lettering['along']>> = {}, text = 'HARBOUR'): Curves => {
  const lettering: Lettering = { ...base, text, along: { part: 'edge', heads: 'out', at: 0, awayMm: 0, ...more } };
  return lettersAlong(library, letterCurves(library, face, lettering), edge, lettering) as Curves;
};
const round = figureCurves({ form: 'round', widthMm: 80, heightMm: 80 });

describe('letters along an outline', () => {
  it('stand on a circle as letters around a circle do', () => {
    const onCircle = letterCurves(library, face, { ...base, around: { diameterMm: 80, side: 'top' } }).curves;
    const set = along(round);
    const points = (curves: Curves): Float64Array => flatten(curves, 0.01).points;
    const [a, b] = [points(onCircle), points(set)];
    expect(a.length).toBe(b.length);
    // Around a circle the zero is its middle, here the corner of its box.
    const worst = a.reduce((most, value, k) => Math.max(most, Math.abs(value + 40 - b[k])), 0);
    expect(worst).toBeLessThan(0.02);
  });

  it('keep their area and lie outside of the outline, or inside with their heads in', () => {
    const shield = figureCurves(FIGURE_FORMS.shield.first(90, 100));
    const straight = areaOf(letterCurves(library, face, base).curves);
    for (const at of [0, 0.2, 0.5, 0.9]) {
      const out = along(shield, { at, awayMm: 1 });
      expect(areaOf(out)).toBeCloseTo(straight, 4);
      expect(areaOf(combineCurves(library, 'common', out, shield))).toBeLessThan(0.15 * straight);
      const inside = along(shield, { at, heads: 'in', awayMm: -1 });
      expect(areaOf(inside)).toBeCloseTo(straight, 4);
      expect(areaOf(combineCurves(library, 'common', inside, shield))).toBeGreaterThan(0.85 * straight);
    }
  });

  it('begin a second line further out, and make a text smaller that is longer than the outline', () => {
    const two = along(round, {}, 'HARBOUR\nROW');
    expect(boxOf(two).top).toBeLessThan(boxOf(along(round)).top - 8);
    const long = along(figureCurves({ form: 'round', widthMm: 20, heightMm: 20 }), {}, 'AROUND THE HARBOUR AND HOME');
    const { top, bottom } = boxOf(long);
    expect(bottom - top).toBeLessThan(20 + 2 * 8);
  });
});

describe('letters in a shape', () => {
  const into = (shape: Curves, paddingMm = 2, text = 'OAR'): Curves | undefined => {
    const lettering: Lettering = { ...base, text, into: { part: 'shape', paddingMm } };
    return lettersInto(library, letterCurves(library, face, lettering), shape, lettering);
  };
  it('fill it, keep their distance from its edge and their form', () => {
    for (const form of ['rectangle', 'round', 'shield', 'heart', 'star', 'drop', 'speech'] as const) {
      const shape = figureCurves(FIGURE_FORMS[form].first(120, 90));
      const set = into(shape) as Curves;
      const kept = combineCurves(library, 'cutOut', set, offsetCurves(library, shape, -2));
      expect([form, areaOf(kept) < 1e-3 * areaOf(set)]).toEqual([form, true]);
      // A little larger in its place it would not fit.
      const { left, right, top, bottom } = boxOf(set);
      const plain = boxOf(letterCurves(library, face, { ...base, text: 'OAR' }).curves);
      expect((right - left) / (bottom - top)).toBeCloseTo((plain.right - plain.left) / (plain.bottom - plain.top), 3);
    }
    const inFrame = boxOf(into(figureCurves({ form: 'rectangle', widthMm: 100, heightMm: 400, cornerMm: 0 })) as Curves);
    expect(inFrame.right - inFrame.left).toBeGreaterThan(95.5);
    expect(inFrame.right - inFrame.left).toBeLessThanOrEqual(96.01);
  });

  it('keep clear of openings, and say where there is no room', () => {
    const ring = combineCurves(library, 'cutOut', round, figureCurves({ form: 'round', widthMm: 40, heightMm: 40 }));
    const set = into(ring, 1) as Curves;
    expect(areaOf(combineCurves(library, 'cutOut', set, ring))).toBeLessThan(1e-3 * areaOf(set));
    expect(into(figureCurves({ form: 'round', widthMm: 3, heightMm: 3 }), 2)).toBeUndefined();
  });
});
