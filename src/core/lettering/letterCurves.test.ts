import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { SHIPPED_FONTS } from './fonts.ts';
import { letterCurves } from './letterCurves.ts';
import type { Lettering } from './lettering.ts';

const library = await loadPolygons();
const block = await loadFont('Archivo Black');
const script = await loadFont('Pacifico');
const boxOf = (curves: Curves): Bounds => boundsOf(curves) as Bounds;
const set = (text: string, more: Partial<Lettering> = {}, face = block): Curves => letterCurves(library, face, { text, font: face.name, heightMm: 20, ...more }).curves;

describe('lettering', () => {
  it('has capitals as high as it says, whatever the font', async () => {
    for (const { name } of SHIPPED_FONTS) {
      const face = await loadFont(name);
      const { top, bottom } = boxOf(set('H', { heightMm: 30 }, face));
      expect([name, Math.abs(bottom - top - 30) < 0.01]).toEqual([name, true]);
    }
  }, 60_000);

  it('is the font’s own outline: the area of its glyphs, at any size', () => {
    const exact = (text: string): number => block.shape(text).reduce((sum, { outline }) => sum + Math.abs(areaOfCommands(outline)), 0);
    const scale = 20 / block.capitalHeight;
    for (const text of ['ROW', 'Buoy', '46&7']) expect(Math.abs(areaOf(set(text)) - exact(text) * scale * scale) / areaOf(set(text))).toBeLessThan(1e-6);
    fc.assert(
      fc.property(fc.double({ min: 2, max: 300, noNaN: true }), (heightMm) => {
        expect(areaOf(set('Oar', { heightMm })) / heightMm ** 2).toBeCloseTo(areaOf(set('Oar')) / 400, 5);
      }),
      { seed: 31, numRuns: 15 },
    );
  });

  it('kerns, spaces, breaks lines and stands as it is told', () => {
    const widthOf = (text: string, more?: Partial<Lettering>): number => boxOf(set(text, more)).right - boxOf(set(text, more)).left;
    expect(widthOf('AV')).toBeLessThan(widthOf('A') + widthOf('V'));
    expect(widthOf('row', { spacing: 0.5 }) - widthOf('row')).toBeCloseTo(20, 6);
    const lines = set('HHHH\nH', { align: 'left' });
    expect(boxOf(lines).bottom - boxOf(lines).top).toBeCloseTo(20 + 32, 6);
    const leftOfSecond = (align: Lettering['align']): number => boxOf(set('HHHH\nI', { align })).left;
    expect(leftOfSecond('left')).toBeCloseTo(leftOfSecond('right'), 6);
    expect(widthOf('Regatta', { widthMm: 77 })).toBeCloseTo(77, 6);
    const heightOf = (text: string, more?: Partial<Lettering>): number => boxOf(set(text, more)).bottom - boxOf(set(text, more)).top;
    expect([widthOf('HHHH', { mostWidthMm: 40 }), heightOf('HHHH', { mostWidthMm: 40 }) < 19]).toEqual([expect.closeTo(40, 6), true]);
    expect([widthOf('HHHH', { mostWidthMm: 40, whenWider: 'narrower' }), heightOf('HHHH', { mostWidthMm: 40, whenWider: 'narrower' })]).toEqual([expect.closeTo(40, 6), expect.closeTo(20, 6)]);
    expect(widthOf('H', { mostWidthMm: 400 })).toBeCloseTo(widthOf('H'), 9);
    const two = { whenWider: 'twoLines', lineSpacing: 1.5 } as const;
    expect([heightOf('HHH HHH', { mostWidthMm: 100, ...two }), widthOf('HHH HHH', { mostWidthMm: 100, ...two })]).toEqual([expect.closeTo(50, 6), expect.closeTo(widthOf('HHH'), 6)]);
    // Broken nearest to the middle, and smaller where even that is too long; one word has no second line to go on.
    expect(widthOf('HH H HHH', { mostWidthMm: 100, ...two })).toBeCloseTo(widthOf('HH H'), 6);
    expect([widthOf('HHH HHH', { mostWidthMm: 30, ...two }), heightOf('HHHHHH', { mostWidthMm: 40, ...two }) < 19]).toEqual([expect.closeTo(30, 6), true]);
    expect(heightOf('HHH HHH', { mostWidthMm: 400, ...two })).toBeCloseTo(20, 6);
  });

  it('joins script letters into one cut, and leaves letters apart that do not touch', () => {
    const apart = set('oar', {}, script);
    const joined = set('oar', { join: true }, script);
    const outer = (curves: Curves): number => Array.from(curves.parent).filter((parent) => parent < 0).length;
    expect([outer(apart), outer(joined)]).toEqual([3, 1]);
    expect(areaOf(joined)).toBeLessThan(areaOf(apart));
    expect(outer(set('ROW', { join: true }))).toBe(3);
  });

  it('stands on a circle, over its top and along its bottom, and reads from the left on both', () => {
    const top = set('HHH', { around: { diameterMm: 100, side: 'top' } });
    // The feet stand on the circle: the middle one reaches from 50 to 70 above the middle.
    expect(boxOf(top).top).toBeCloseTo(-70, 1);
    const bottom = set('HHH', { around: { diameterMm: 100, side: 'bottom' } });
    expect(boxOf(bottom).bottom).toBeCloseTo(70, 0);
    for (const curves of [top, bottom]) expect(Math.abs(boxOf(curves).left + boxOf(curves).right)).toBeLessThan(0.5);
    const leftLetter = (side: 'top' | 'bottom'): number => boxOf(set('H I', { around: { diameterMm: 100, side } })).left;
    expect(leftLetter('top')).toBeLessThan(0);
    expect(leftLetter('bottom')).toBeLessThan(0);
  });

  it('gets thicker and thinner', () => {
    expect(areaOf(set('Row', { thickenMm: 0.5 }))).toBeGreaterThan(areaOf(set('Row')));
    expect(areaOf(set('Row', { thickenMm: -0.5 }))).toBeLessThan(areaOf(set('Row')));
  });

  it('says which characters a font does not have, and when nothing shows', () => {
    expect(letterCurves(library, block, { text: 'Row 船', font: 'x', heightMm: 20 }).missing).toEqual(['船']);
    expect(() => set('   ')).toThrow();
  });
});

/** Signed area of a glyph's outline (Green's theorem), units². */
function areaOfCommands(outline: readonly { step: string; x?: number; y?: number; x1?: number; y1?: number; x2?: number; y2?: number }[]): number {
  let [x, y, sx, sy, twice] = [0, 0, 0, 0, 0];
  const cross = (ax: number, ay: number, bx: number, by: number): number => ax * by - bx * ay;
  for (const c of outline) {
    if (c.step === 'close') {
      twice += cross(x, y, sx, sy);
      [x, y] = [sx, sy];
      continue;
    }
    const [ex, ey] = [c.x as number, c.y as number];
    if (c.step === 'move') [sx, sy] = [ex, ey];
    else if (c.step === 'line') twice += cross(x, y, ex, ey);
    else if (c.step === 'quadratic') twice += (2 * cross(x, y, c.x1 as number, c.y1 as number) + cross(x, y, ex, ey) + 2 * cross(c.x1 as number, c.y1 as number, ex, ey)) / 3;
    else {
      const [x1, y1, x2, y2] = [c.x1, c.y1, c.x2, c.y2] as [number, number, number, number];
      twice += (6 * cross(x, y, x1, y1) + 3 * cross(x, y, x2, y2) + cross(x, y, ex, ey) + 3 * cross(x1, y1, x2, y2) + 3 * cross(x1, y1, ex, ey) + 6 * cross(x2, y2, ex, ey)) / 10;
    }
    [x, y] = [ex, ey];
  }
  return twice / 2;
}
