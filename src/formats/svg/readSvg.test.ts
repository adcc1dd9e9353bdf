import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { isAppError } from '../../core/errors/appError.ts';
import { figureCurves } from '../../core/figure/figureCurves.ts';
import { cutPlanOf } from '../../core/layout/cutPlan.ts';
import { laySheet } from '../../core/layout/laySheet.ts';
import { weedLines } from '../../core/layout/weedLines.ts';
import { boundsOf, nodeCount } from '../../core/outline/curves.ts';
import { mm } from '../../core/units/length.ts';
import { nestRings } from '../../core/outline/nestRings.ts';
import { curvesFromPathData } from '../../core/outline/pathData.ts';
import type { ImportedDrawing } from '../drawing.ts';
import { readSvg, type SvgOptions } from './readSvg.ts';
import { writeOutlineSvg, writeSheetSvg } from './writeSvg.ts';

const library = await loadPolygons();
const read = (text: string, options?: SvgOptions): ImportedDrawing => readSvg(library, new TextEncoder().encode(text), 'drawing.svg', options);
const page = (body: string, head = 'width="100mm" height="80mm" viewBox="0 0 100 80"'): string => `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${body}</svg>`;
const boxOf = (drawing: ImportedDrawing): number[] => {
  const box = boundsOf(drawing.layers[0].curves);
  return box === undefined ? [] : [box.left, box.top, box.right, box.bottom].map((v) => Math.round(v * 1000) / 1000);
};

describe('an SVG drawing', () => {
  it('comes in at its true size, whatever units it is written in', () => {
    const square = '<rect x="10" y="10" width="20" height="20"/>';
    for (const head of ['width="100mm" height="80mm" viewBox="0 0 100 80"', 'width="10cm" height="8cm" viewBox="0 0 100 80"', `width="${100 / 25.4}in" height="${80 / 25.4}in" viewBox="0 0 100 80"`, `width="${(100 * 96) / 25.4}" height="${(80 * 96) / 25.4}" viewBox="0 0 100 80"`, 'width="100mm" viewBox="0 0 100 80"']) {
      const drawing = read(page(square, head));
      expect([drawing.widthMm, drawing.heightMm].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([100, 80]);
      expect(boxOf(drawing)).toEqual([10, 10, 30, 30]);
    }
    // A px is a ninety-sixth of an inch; a view box of another shape lies in the middle.
    expect(boxOf(read(page('<rect width="96" height="96"/>', 'width="192" height="96"')))).toEqual([0, 0, 25.4, 25.4]);
    expect(boxOf(read(page('<rect width="10" height="10"/>', 'width="30mm" height="10mm" viewBox="0 0 10 10"')))).toEqual([10, 0, 20, 10]);
    expect(boxOf(read(page('<rect width="10" height="10"/>', 'width="30mm" height="10mm" viewBox="0 0 10 10" preserveAspectRatio="none"')))).toEqual([0, 0, 30, 10]);
  });

  it('has its shapes, nested transforms, used shapes and styles', () => {
    const drawing = read(
      page(`<style>.a{fill:#00f} #b{fill:rgb(0,128,0)} circle{fill:orange}</style><defs><rect id="r" width="10" height="5"/></defs>
      <g transform="translate(10 20) scale(2)"><use href="#r" class="a"/><g transform="rotate(90)"><use xlink:href="#r" x="5" class="a"/></g></g>
      <circle cx="50" cy="40" r="10"/><ellipse id="b" cx="80" cy="40" rx="5" ry="10"/><polygon points="0,0 10,0 0,10" style="fill:#123456"/><path d="M60 60q10 -10 20 0t10 5z" fill="red"/>`),
    );
    expect(drawing.layers.map(({ colour }) => colour)).toEqual(['#0000ff', '#ffa500', '#008000', '#123456', '#ff0000']);
    const [blue, orange, green, dark] = drawing.layers;
    expect(areaOf(blue.curves)).toBeCloseTo(400, 3);
    expect(boxOf(drawing)).toEqual([0, 20, 30, 50]);
    expect(Math.abs(areaOf(orange.curves) - Math.PI * 100)).toBeLessThan(0.2);
    expect(Math.abs(areaOf(green.curves) - Math.PI * 50)).toBeLessThan(0.1);
    expect(areaOf(dark.curves)).toBeCloseTo(50, 6);
  });

  it('fills by its rules: overlaps once, holes as they wind', () => {
    const both = 'M0 0H20V20H0ZM10 10H30V30H10Z';
    expect(areaOf(read(page(`<path d="${both}"/>`)).layers[0].curves)).toBeCloseTo(700, 6);
    const ring = 'M0 0H20V20H0ZM5 5H15V15H5Z';
    expect(areaOf(read(page(`<path d="${ring}" fill-rule="evenodd"/>`)).layers[0].curves)).toBeCloseTo(300, 6);
    expect(areaOf(read(page(`<path d="${ring}"/>`)).layers[0].curves)).toBeCloseTo(400, 6);
  });

  it('is cut by its clip paths', () => {
    const drawing = read(page('<clipPath id="c"><rect x="5" y="5" width="10" height="10"/></clipPath><g clip-path="url(#c)"><rect width="10" height="10" fill="#f00"/></g>'));
    expect(boxOf(drawing)).toEqual([5, 5, 10, 10]);
  });

  it('has its strokes as outlines, as lines or not at all', () => {
    const line = '<path d="M10 10H60" fill="none" stroke="#00f" stroke-width="4"/>';
    const outlined = read(page(line));
    expect(areaOf(outlined.layers[0].curves)).toBeCloseTo(50 * 4, 6);
    const drawn = (attributes: string): number => areaOf(read(page(`<path d="M10 10H60V40" fill="none" stroke="#00f" ${attributes}/>`)).layers[0].curves);
    expect(drawn('stroke-width="4"')).toBeCloseTo(80 * 4, 6);
    expect(drawn('stroke-width="4" style="stroke-linejoin: bevel; stroke-linecap: square"')).toBeCloseTo(80 * 4 - 2 + 16, 6);
    expect(drawn('stroke-width="4" stroke-linejoin="round" stroke-linecap="round"')).toBeCloseTo(80 * 4 - 4 + 5 * Math.PI, 1);
    expect(read(page(line.replace('"4"', '"4px"'))).layers[0].curves).toEqual(outlined.layers[0].curves);
    expect(read(page(line), { strokes: 'line' }).layers[0]).toMatchObject({ openEnds: 1 });
    expect(() => read(page(line), { strokes: 'drop' })).toThrow();
    // A hairline is what a knife follows.
    const hair = read(page('<path d="M10 10H60V30H10Z" fill="none" stroke="#00f" stroke-width="0.1"/>'));
    expect([hair.layers[0].openEnds, Math.round(areaOf(hair.layers[0].curves) * 1e6) / 1e6]).toEqual([0, 1000]);
  });

  it('says what it leaves out', () => {
    const { leftOut } = read(page('<rect width="5" height="5"/><text>Regatta</text><text>Row</text><image href="https://example.org/x.png"/><script>alert(1)</script><use href="other.svg#a"/>'));
    expect(leftOut.map(({ what, count }) => [what.split(':')[0].split(',')[0], count])).toEqual([
      ['text', 2],
      ['pictures', 1],
      ['scripts', 1],
      ['references to what lies outside of the file or is not there', 1],
    ]);
  });

  it('comes back the same from what Limner writes', () => {
    const curves = nestRings(curvesFromPathData('M10 10C20 0 40 0 50 10L50 40L10 40ZM20 20L20 30L40 30L40 20Z'));
    const film = { id: 'a', name: 'Pennant red', colour: '#b3262e', kind: 'htv' } as never;
    const drawing = read(writeOutlineSvg([{ film, curves }], 60, 50, 'round trip'));
    expect([drawing.widthMm, drawing.heightMm].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([60, 50]);
    expect(nodeCount(drawing.layers[0].curves)).toBe(nodeCount(curves));
    expect(Math.abs(areaOf(drawing.layers[0].curves) - areaOf(curves))).toBeLessThan(0.01);
  });

  it('is bounded and refuses what is no drawing, in words', () => {
    const code = (text: string): string => {
      try {
        read(text);
        return 'fine';
      } catch (error) {
        return isAppError(error) ? error.code : 'other';
      }
    };
    expect(code('no drawing')).toBe('badDrawing');
    expect(code(page(''))).toBe('badDrawing');
    expect(code(page('<g>'.repeat(300) + '<rect width="1" height="1"/>' + '</g>'.repeat(300)))).toBe('badDrawing');
    expect(code(`<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]>${page('<desc>&b;</desc><rect width="9" height="9"/>')}`)).toBe('badDrawing');
    expect(code(page('<g id="a"><use href="#a"/><rect width="5" height="5"/></g>'))).toBe('fine');
    expect(code(page('<path d="M0 0L1e30 NaN"/>'))).toBe('badDrawing');
  });

  it('takes of a sheet of its own the art alone, not its boxes and weed lines', () => {
    const heart = figureCurves({ form: 'ring', widthMm: 40, heightMm: 40, bandMm: 8 });
    const design = { layers: [{ filmId: 'a', curves: heart }], widthMm: mm(40), heightMm: mm(40) };
    const sheet = laySheet(design, 'a', { sheet: { widthMm: 200, heightMm: 200, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' }, mirrored: true, box: { on: true, marginMm: 10 }, copies: 2, gapMm: 3 });
    const plan = cutPlanOf({ ...sheet, weedLines: weedLines(sheet, { everyMm: 20, awayMm: 1 }).curves }, { id: 'a', name: 'Navy', colour: '#22375f' });
    for (const cutAs of ['lines', 'shapes'] as const) {
      const { layers, leftOut } = read(writeSheetSvg(plan, 'Rings', cutAs));
      expect(leftOut).toEqual([{ what: 'boxes, weed lines and marks of a sheet', count: 2 }]);
      expect(layers.reduce((sum, { curves }) => sum + curves.parent.length, 0)).toBe(4);
      expect(layers.reduce((sum, { curves }) => sum + areaOf(curves), 0)).toBeCloseTo(2 * areaOf(heart), 1);
    }
  });

  it('never hangs or breaks on damaged files', () => {
    const whole = page('<g transform="translate(3 4)"><path d="M0 0C5 5 10 5 15 0L10 20Z" class="a"/><circle cx="20" cy="20" r="9"/><use href="#x"/></g><rect id="x" width="4" height="4" clip-path="url(#c)"/><clipPath id="c"><rect width="2" height="9"/></clipPath>');
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.integer({ min: 32, max: 126 })), { minLength: 1, maxLength: 6 }), (changes) => {
        const letters = [...whole];
        for (const [at, to] of changes) letters[at] = String.fromCharCode(to);
        try {
          const { layers } = read(letters.join(''));
          for (const { curves } of layers) expect(curves.coords.every(Number.isFinite)).toBe(true);
        } catch (error) {
          if (!isAppError(error)) throw error;
        }
      }),
      { seed: 20, numRuns: 500 },
    );
  }, 60_000);
});
