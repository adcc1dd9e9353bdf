import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../../core/figure/figureCurves.ts';
import { translation } from '../../core/geometry/affine.ts';
import type { CutPlan, PathRole } from '../../core/layout/cutPlan.ts';
import { boundsOf, CurvesBuilder, type Bounds, type Curves } from '../../core/outline/curves.ts';
import { flatten } from '../../core/outline/flatten.ts';
import { transformCurves } from '../../core/outline/transformCurves.ts';
import { isAppError } from '../../core/errors/appError.ts';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { plotterDrawing } from './plotterDrawing.ts';
import { readPlotter, type PlotterFile } from './readPlotter.ts';
import { writePlotter, type PlotterSettings } from './writePlotter.ts';

const FILM = { id: 'a', name: 'Navy', colour: '#22375f' };
const HEIGHT_MM = 200;
const planOf = (...runs: readonly (readonly [PathRole, Curves])[]): CutPlan => ({ film: FILM, widthMm: 300, heightMm: HEIGHT_MM, runs: runs.map(([role, curves]) => ({ role, curves, order: Int32Array.from(curves.parent.keys()) })) });
const read = (text: string): PlotterFile => readPlotter(new TextEncoder().encode(text), 'a.hpgl');
const boat = transformCurves(figureCurves({ form: 'star', widthMm: 40, heightMm: 30, corners: 7, depth: 0.4, cornerMm: 3 }), translation(50, 60));

const lengthOf = (points: readonly { x: number; y: number }[]): number => points.slice(1).reduce((sum, { x, y }, k) => sum + Math.hypot(x - points[k].x, y - points[k].y), 0);
const placesOf = ({ strokes }: PlotterFile): { x: number; y: number }[][] => strokes.map(({ start, sides }) => [start, ...sides.map(({ to }) => to)]);

/** Length of a ring that is closed. */
function ringLength(curves: Curves): number {
  const { points } = flatten(curves, 0.0001);
  const places = Array.from({ length: points.length / 2 }, (_, k) => ({ x: points[2 * k], y: points[2 * k + 1] }));
  return lengthOf([...places, places[0]]);
}

/** A closed curve of chance: a round whose radius waves. */
const rings = fc.record({ radius: fc.double({ min: -1, max: 4, noNaN: true }).map((power) => 2 ** power * 1.6), wave: fc.double({ min: 0, max: 0.25, noNaN: true }), waves: fc.integer({ min: 2, max: 9 }), x: fc.double({ min: 80, max: 120, noNaN: true }) }).map(({ radius, wave, waves, x }) => {
  const at = (k: number, scale = 1): [number, number] => {
    const angle = (k / 48) * 2 * Math.PI;
    const r = radius * (1 + wave * Math.cos(waves * angle)) * scale;
    return [x + r * Math.cos(angle), 100 + r * Math.sin(angle)];
  };
  const builder = new CurvesBuilder();
  builder.start(...at(0), -1);
  for (let k = 0; k < 48; k++) {
    // Catmull and Rom's handles.
    const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = [at(k - 1), at(k), at(k + 1), at(k + 2)];
    builder.cubic(bx + (cx - ax) / 6, by + (cy - ay) / 6, cx - (dx - bx) / 6, cy - (dy - by) / 6, ...at((k + 1) % 48));
  }
  builder.close();
  return builder.build();
});

describe('plotter language', () => {
  it('is as long as what is cut: small rings to a step, sheets of them within a tenth of a per cent', () => {
    fc.assert(
      fc.property(fc.array(rings, { minLength: 30, maxLength: 30 }), (all) => {
        const strokes = placesOf(read(writePlotter(planOf(...all.map((ring) => ['cut', ring] as const)))));
        const lengths = all.map(ringLength);
        strokes.forEach((places, k) => expect(Math.abs(lengthOf(places) - lengths[k])).toBeLessThan(0.1 + lengths[k] / 500));
        const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
        expect(Math.abs(sum(strokes.map(lengthOf)) / sum(lengths) - 1)).toBeLessThan(0.001);
      }),
      { seed: 8, numRuns: 12 },
    );
  });

  it('with fine steps comes back within a hundredth of a mm, and closed', () => {
    fc.assert(
      fc.property(rings, (ring) => {
        const [places] = placesOf(read(writePlotter(planOf(['cut', ring]), { fine: true })));
        expect(places[0]).toEqual(places.at(-1));
        const { points } = flatten(ring, 0.0005);
        for (let k = 0; k < places.length; k += 9) {
          const { x, y } = places[k];
          let least = Infinity;
          for (let i = 0; i < points.length; i += 2) {
            const next = (i + 2) % points.length;
            const [dx, dy] = [points[next] - points[i], points[next + 1] - points[i + 1]];
            const share = Math.max(0, Math.min(1, ((x - points[i]) * dx + (HEIGHT_MM - y - points[i + 1]) * dy) / (dx * dx + dy * dy || 1)));
            least = Math.min(least, Math.hypot(x - points[i] - share * dx, HEIGHT_MM - y - points[i + 1] - share * dy));
          }
          expect(least).toBeLessThan(0.01);
        }
      }),
      { seed: 9, numRuns: 15 },
    );
  });

  it('says the same told from place to place', () => {
    const plan = planOf(['cut', boat], ['box', figureCurves({ form: 'rectangle', widthMm: 120, heightMm: 110 })]);
    const [absolute, relative] = [read(writePlotter(plan)), read(writePlotter(plan, { relative: true }))];
    const rounded = (file: PlotterFile) => placesOf(file).map((places) => places.map(({ x, y }) => [Math.round(x * 1000) + 0, Math.round(y * 1000) + 0]));
    expect(rounded(relative)).toEqual(rounded(absolute));
    expect(absolute.strokes).toHaveLength(2);
  });

  it('tells tool, speed and force where it is asked to, and marks go with the pen', () => {
    const plan = planOf(['mark', boat], ['cut', boat]);
    const text = writePlotter(plan, { cut: { tool: 'knife', forceG: 90, speedMmS: 300 } });
    expect(read(text)).toMatchObject({ forceG: 90, speedMmS: 300 });
    expect(read(text).strokes.map(({ tool }) => tool)).toEqual([2, 1]);
    expect(writePlotter(plan)).not.toMatch(/VS|FS/);
    expect(read(writePlotter(plan, { cut: { tool: 'pen', forceG: 90, speedMmS: 300 } })).strokes.map(({ tool }) => tool)).toEqual([2, 2]);
  });

  it('has passes, overcut and the holder’s way where the machine does not see to them', () => {
    const square = transformCurves(figureCurves({ form: 'rectangle', widthMm: 40, heightMm: 40 }), translation(20, 20));
    const compensated: PlotterSettings['compensated'] = { tool: 'knife', passes: 2, overcutMm: 0.5, bladeOffsetMm: 0.25 };
    const [places] = placesOf(read(writePlotter(planOf(['cut', square]), { compensated })));
    // Twice around, on by the overcut, and eight quarter swings of a quarter of a mm.
    expect(lengthOf(places)).toBeGreaterThan(320.5);
    expect(lengthOf(places)).toBeLessThan(320.5 + 9 * 0.25 * (Math.PI / 2) + 0.2);
  });

  it('never has more places in an instruction than old machines hold', () => {
    const longest = Math.max(...[...writePlotter(planOf(['cut', figureCurves({ form: 'round', widthMm: 190, heightMm: 190 })]), { fine: true }).matchAll(/PD([^;]*);/g)].map(([, values]) => values.split(',').length / 2));
    expect(longest).toBeLessThanOrEqual(120);
  });
});

describe('reading plotter language', () => {
  it('knows scaling, arcs, circles and boxes of other programs', () => {
    const file = read('IN;SP3;IP0,0,4000,4000;SC0,100,0,100;PU10,10;PD20,10;PU50,50;CI10;PU60,20;PD;AA50,20,180;PU0,0;EA30,20;LBNOT CUT\u0003;XX5;PU;');
    expect(file.strokes.map(({ tool }) => tool)).toEqual([3, 3, 3, 3]);
    expect(file.leftOut).toEqual(new Map([['XX', 1]]));
    const [line, circle, arc, box] = placesOf(file);
    const within = (places: { x: number; y: number }[], want: number[][]) => places.forEach(({ x, y }, k) => expect([x, y]).toEqual(want[k].map((v) => expect.closeTo(v, 6))));
    within(line, [[10, 10], [20, 10]]);
    expect(circle.every(({ x, y }) => Math.abs(Math.hypot(x - 50, y - 50) - 10) < 1e-6)).toBe(true);
    expect([arc[0], arc.at(-1)]).toEqual([{ x: expect.closeTo(60, 6), y: expect.closeTo(20, 6) }, { x: expect.closeTo(40, 6), y: expect.closeTo(20, 6) }]);
    within(box, [[0, 0], [30, 0], [30, 20], [0, 20], [0, 0]]);
  });

  it('brings rings that are closed and lines that are not, each tool a layer', () => {
    const drawing = plotterDrawing(new TextEncoder().encode(writePlotter(planOf(['mark', boat], ['cut', boat], ['weedLine', line([10, 20], [70, 20])]))), 'a.plt');
    expect(drawing.layers.map(({ name, openEnds }) => [name, openEnds])).toEqual([['Tool 1', 1], ['Tool 2', 0]]);
    const { left, right } = boundsOf(boat) as Bounds;
    expect(drawing.widthMm).toBeCloseTo(Math.max(right, 70) - Math.min(left, 10), 1);
  });

  it('says what is none, and survives whatever bytes', () => {
    expect(codeOf(() => read('<svg/>'))).toBe('badDrawing');
    expect(codeOf(() => read(''))).toBe('badDrawing');
    const good = new TextEncoder().encode(writePlotter(planOf(['cut', boat]), { fine: true, relative: true }));
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(good.length - 1), fc.integer({ min: 0, max: 255 })), { minLength: 1, maxLength: 40 }), (changes) => {
        const bytes = good.slice();
        for (const [at, value] of changes) bytes[at] = value;
        try {
          for (const { widthMm } of [plotterDrawing(bytes, 'a.plt')]) expect(Number.isFinite(widthMm)).toBe(true);
        } catch (error) {
          if (!isAppError(error)) throw error;
        }
      }),
      { seed: 4, numRuns: 500 },
    );
  });
});

function line([x, y]: readonly [number, number], [toX, toY]: readonly [number, number]): Curves {
  const builder = new CurvesBuilder();
  builder.start(x, y, -1);
  builder.line(toX, toY);
  builder.close();
  return builder.build();
}
