import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAppError } from '../../core/errors/appError.ts';
import { boundsOf, ringCount } from '../../core/outline/curves.ts';
import { nestRings } from '../../core/outline/nestRings.ts';
import { curvesFromPathData } from '../../core/outline/pathData.ts';
import type { ImportedDrawing } from '../drawing.ts';
import { readDxf } from './readDxf.ts';
import { writeDxf } from './writeDxf.ts';

const read = (text: string): ImportedDrawing => readDxf(new TextEncoder().encode(text), 'drawing.dxf');

/** A DXF of entities, each a list of codes and values. */
const dxf = (entities: readonly (readonly (string | number)[])[], { units = 4, blocks = [] }: { units?: number; blocks?: readonly (string | number)[] } = {}): string => {
  const pairs = [0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, units, 0, 'ENDSEC', ...blocks, 0, 'SECTION', 2, 'ENTITIES', ...entities.flat(), 0, 'ENDSEC', 0, 'EOF'];
  return `${pairs.join('\n')}\n`;
};
const line = (x1: number, y1: number, x2: number, y2: number, layer = '0'): (string | number)[] => [0, 'LINE', 8, layer, 10, x1, 20, y1, 30, 0, 11, x2, 21, y2, 31, 0];

describe('a DXF drawing', () => {
  it('comes back the same from what Limner writes', () => {
    const curves = nestRings(curvesFromPathData('M10 10C20 0 40 0 50 10L50 40L10 40ZM20 20L20 30L40 30L40 20Z'));
    const film = { id: 'Pennant red', name: 'Pennant red', colour: '#b3262e' };
    const drawing = read(writeDxf([{ film, curves }], 50));
    expect(drawing.layers).toHaveLength(1);
    expect(ringCount(drawing.layers[0].curves)).toBe(2);
    expect(Math.abs(areaOf(drawing.layers[0].curves) - areaOf(curves))).toBeLessThan(0.01);
    const [before, after] = [boundsOf(curves), boundsOf(drawing.layers[0].curves)];
    expect((after?.right ?? 0) - (after?.left ?? 0)).toBeCloseTo((before?.right ?? 0) - (before?.left ?? 0), 2);
  });

  it('joins lines whose ends meet, and leaves doubles out', () => {
    const square = [line(0, 0, 10, 0), line(10, 10, 10, 0.01), line(10, 10, 0, 10), line(0, 10, 0, 0), line(0, 0, 10, 0)];
    const { layers, leftOut } = read(dxf(square));
    expect([ringCount(layers[0].curves), layers[0].openEnds, areaOf(layers[0].curves).toFixed(1)]).toEqual([1, 0, '100.0']);
    expect(leftOut.some(({ what, count }) => what.includes('twice') && count === 1)).toBe(true);
    expect(read(dxf([line(0, 0, 10, 0), line(10, 0, 10, 10)])).layers[0].openEnds).toBe(1);
  });

  it('has arcs, circles, ellipses, bulges and splines as curves', () => {
    const circle = read(dxf([[0, 'CIRCLE', 8, 'a', 10, 20, 20, 20, 40, 10]]));
    expect(Math.abs(areaOf(circle.layers[0].curves) - Math.PI * 100)).toBeLessThan(0.01);
    const ellipse = read(dxf([[0, 'ELLIPSE', 8, 'a', 10, 0, 20, 0, 11, 10, 21, 0, 40, 0.5, 41, 0, 42, 2 * Math.PI]]));
    expect(Math.abs(areaOf(ellipse.layers[0].curves) - Math.PI * 50)).toBeLessThan(0.01);
    // A slot: two sides and two half rounds.
    const slot = read(dxf([[0, 'LWPOLYLINE', 8, 'a', 90, 4, 70, 1, 10, 0, 20, 0, 42, 0, 10, 20, 20, 0, 42, 1, 10, 20, 20, 10, 42, 0, 10, 0, 20, 10, 42, 1]]));
    expect(Math.abs(areaOf(slot.layers[0].curves) - (200 + Math.PI * 25))).toBeLessThan(0.01);
    const half = read(dxf([[0, 'ARC', 8, 'a', 10, 0, 20, 0, 40, 10, 50, 0, 51, 180], line(-10, 0, 10, 0, 'a')]));
    expect(Math.abs(areaOf(half.layers[0].curves) - Math.PI * 50)).toBeLessThan(0.01);
    const spline = read(dxf([[0, 'SPLINE', 8, 'a', 70, 8, 71, 3, 72, 8, 73, 4, 74, 0, ...[0, 0, 0, 0, 1, 1, 1, 1].flatMap((v) => [40, v]), 10, 0, 20, 0, 30, 0, 10, 0, 20, 10, 30, 0, 10, 10, 20, 10, 30, 0, 10, 10, 20, 0, 30, 0], line(10, 0, 0, 0, 'a')]));
    // The area under one cubic, by Green's theorem.
    expect(areaOf(spline.layers[0].curves)).toBeCloseTo(60, 6);
  });

  it('is in the units that its header names, with its layers', () => {
    const { layers, widthMm } = read(dxf([line(0, 0, 1, 0, 'hull'), line(1, 0, 1, 1, 'hull'), line(1, 1, 0, 0, 'hull'), [0, 'CIRCLE', 8, 'sun', 10, 3, 20, 3, 40, 1]], { units: 1 }));
    expect(layers.map(({ name }) => name)).toEqual(['hull', 'sun']);
    expect(areaOf(layers[0].curves)).toBeCloseTo(25.4 ** 2 / 2, 3);
    expect(widthMm).toBeCloseTo(4 * 25.4, 3);
  });

  it('has its blocks where they are put, turned and in rows', () => {
    const blocks = [0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 2, 'dot', 70, 0, 10, 0, 20, 0, 30, 0, 3, 'dot', ...[0, 'CIRCLE', 8, '0', 10, 5, 20, 0, 40, 1], 0, 'ENDBLK', 8, '0', 0, 'ENDSEC'];
    const { layers } = read(dxf([[0, 'INSERT', 8, 'dots', 2, 'dot', 10, 100, 20, 50, 41, 2, 42, 2, 50, 90, 70, 3, 44, 20]], { blocks }));
    expect(ringCount(layers[0].curves)).toBe(3);
    expect(areaOf(layers[0].curves)).toBeCloseTo(3 * Math.PI * 4, 2);
  });

  it('refuses what is none, and never breaks on damaged files', () => {
    const code = (bytes: Uint8Array): string => {
      try {
        readDxf(bytes, 'x.dxf');
        return 'fine';
      } catch (error) {
        if (!isAppError(error)) throw error;
        return error.code;
      }
    };
    for (const text of ['', 'hello', 'AutoCAD Binary DXF\r\n\x1a\0', dxf([])]) expect(code(new TextEncoder().encode(text))).toBe('badDrawing');
    const whole = dxf([line(0, 0, 10, 0), [0, 'LWPOLYLINE', 8, 'a', 90, 3, 70, 1, 10, 0, 20, 0, 42, 0.5, 10, 20, 20, 0, 10, 20, 20, 10], [0, 'SPLINE', 8, 'a', 70, 8, 71, 3, 72, 8, 73, 4, ...[0, 0, 0, 0, 1, 1, 1, 1].flatMap((v) => [40, v]), 10, 0, 20, 0, 10, 0, 20, 10, 10, 10, 20, 10, 10, 10, 20, 0]]);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.constantFrom(...'0123456789.-eA\n ')), { minLength: 1, maxLength: 6 }), fc.nat(whole.length), (changes, cut) => {
        const letters = [...whole];
        for (const [at, to] of changes) letters[at] = to;
        code(new TextEncoder().encode(letters.join('').slice(0, cut % 3 === 0 ? cut : whole.length)));
      }),
      { seed: 21, numRuns: 500 },
    );
  }, 60_000);
});
