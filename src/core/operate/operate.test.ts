import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { DesignLayer } from '../assemble/design.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { IDENTITY, scaling } from '../geometry/affine.ts';
import { letterCurves } from '../lettering/letterCurves.ts';
import { boundsOf, nodeCount, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { isProperlyNested } from '../outline/checkCurves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { piecesOf } from '../outline/pieces.ts';
import type { Operation } from './operation.ts';
import { operationSchema } from './operation.ts';
import { operate, type OperateWith } from './operate.ts';
import { innerPlace } from './pieceMarks.ts';
import { pieceAt } from './piecesIndex.ts';

const library = await loadPolygons();
const using: OperateWith = { library, order: [], toMm: IDENTITY, fromMm: IDENTITY, perMm: 1 };
const path = (d: string): Curves => nestRings(curvesFromPathData(d));
const square = (x: number, y: number, side: number): string => `M${x} ${y}L${x + side} ${y}L${x + side} ${y + side}L${x} ${y + side}Z`;
const layer = (curves: Curves, filmId = 'ink'): DesignLayer => ({ filmId, curves });
const word = await loadFont('Lora').then((face) => letterCurves(library, face, { text: 'BOAT', font: 'Lora', heightMm: 20 }).curves);

/** The layers after one operation, its settings as a job would have them. */
function after(layers: readonly DesignLayer[], operation: Omit<Extract<Operation, { kind: Operation['kind'] }>, 'id'> & Record<string, unknown>, change: Partial<OperateWith> = {}) {
  const checked = operationSchema.parse({ id: 'one', ...operation });
  return operate(layers, [checked], { ...using, ...change });
}
const filmOf = (layers: readonly DesignLayer[], filmId: string): Curves => layers.find((each) => each.filmId === filmId)?.curves as Curves;

describe('operations on a part', () => {
  it('thicken it, and leave its openings open', () => {
    const ring = layer(figureCurves({ form: 'ring', widthMm: 20, heightMm: 20, bandMm: 8 }));
    const thick = filmOf(after([ring], { kind: 'thicken', byMm: 3 } as never).layers, 'ink');
    expect(boundsOf(thick)?.right).toBeCloseTo(23, 3);
    // An opening 4 mm across would have closed; a third of it is left.
    expect(ringCount(thick)).toBe(2);
    expect(Math.abs(ringArea(thick, 1))).toBeCloseTo(Math.PI * (2 * 0.35) ** 2, 0);
    const letters = after([layer(word)], { kind: 'thicken', byMm: 1.2 } as never).layers[0].curves;
    expect(letters.parent.filter((around) => around >= 0)).toHaveLength(word.parent.filter((around) => around >= 0).length);
    expect(areaOf(filmOf(after([ring], { kind: 'thicken', byMm: -1 } as never).layers, 'ink'))).toBeCloseTo(Math.PI * (81 - 9), 1);
  });

  it('put a border below it as broad as asked, its openings filled or not, its corners of three kinds', () => {
    const frame = layer(path(square(0, 0, 30) + square(10, 10, 10)));
    const border = (corners: string, openings: string): readonly DesignLayer[] => after([frame], { kind: 'border', film: 'edge', widthMm: 2, corners, openings } as never).layers;
    expect(border('sharp', 'filled').map(({ filmId }) => filmId)).toEqual(['edge', 'ink']);
    expect(areaOf(filmOf(border('sharp', 'filled'), 'edge'))).toBeCloseTo(34 ** 2, 4);
    expect(areaOf(filmOf(border('sharp', 'kept'), 'edge'))).toBeCloseTo(34 ** 2 - 36, 4);
    expect(areaOf(filmOf(border('flat', 'filled'), 'edge'))).toBeCloseTo(34 ** 2 - 8, 4);
    expect(areaOf(filmOf(border('round', 'filled'), 'edge'))).toBeCloseTo(900 + 240 + 4 * Math.PI, 1);
    // On a film that is pressed later it is cut out around the part instead of covering it.
    const above = after([frame], { kind: 'border', film: 'edge', widthMm: 2, corners: 'sharp', openings: 'filled' } as never, { order: ['ink', 'edge'] }).layers;
    expect(areaOf(filmOf(above, 'edge'))).toBeCloseTo(34 ** 2 - 800, 4);
  });

  it('draw a line along its edge, outside and inside', () => {
    const disc = layer(figureCurves({ form: 'round', widthMm: 40, heightMm: 40 }));
    const outside = after([disc], { kind: 'edgeLine', film: 'edge', awayMm: 2, widthMm: 1, corners: 'round' } as never).layers;
    expect(areaOf(filmOf(outside, 'edge'))).toBeCloseTo(Math.PI * (23 ** 2 - 22 ** 2), 1);
    const inside = after([disc], { kind: 'edgeLine', film: 'edge', awayMm: -2, widthMm: 1, corners: 'round' } as never).layers;
    expect(areaOf(filmOf(inside, 'edge'))).toBeCloseTo(Math.PI * (18 ** 2 - 17 ** 2), 1);
    // Of its own film it is a slit.
    const slit = after([disc], { kind: 'edgeLine', film: 'ink', awayMm: -2, widthMm: 1, corners: 'round' } as never).layers;
    expect(areaOf(filmOf(slit, 'ink'))).toBeCloseTo(Math.PI * (400 - 18 ** 2 + 17 ** 2), 1);
  });

  it('lay a field behind it, or knock it out of one: film and word are the field then', () => {
    const { left, top, right, bottom } = boundsOf(word)!;
    const whole = (right - left + 10) * (bottom - top + 10);
    const settings = { kind: 'field', film: 'bar', form: 'rectangle', paddingMm: 5, cornerMm: 0 };
    const laid = after([layer(word)], { ...settings, knocksOut: false } as never).layers;
    expect([laid.map(({ filmId }) => filmId), areaOf(laid[0].curves)]).toEqual([['bar', 'ink'], expect.closeTo(whole, 4)]);
    const out = after([layer(word)], { ...settings, knocksOut: true } as never).layers;
    expect([out.length, areaOf(out[0].curves)]).toEqual([1, expect.closeTo(whole - areaOf(word), 1)]);
    expect(isProperlyNested(out[0].curves, 0.01)).toBe(true);
  });

  it('lay a shadow below it: a copy, or all that it passes over', () => {
    const disc = layer(figureCurves({ form: 'round', widthMm: 10, heightMm: 10 }));
    const copy = after([disc], { kind: 'shadow', film: 'dark', xMm: 3, yMm: 4, isLong: false } as never).layers;
    expect(boundsOf(copy[0].curves)).toMatchObject({ left: expect.closeTo(3, 6), bottom: expect.closeTo(14, 6) });
    const long = after([disc], { kind: 'shadow', film: 'dark', xMm: 3, yMm: 4, isLong: true } as never).layers;
    expect(areaOf(long[0].curves)).toBeCloseTo(Math.PI * 25 + 10 * 5, 2);
    const ring = layer(figureCurves({ form: 'ring', widthMm: 20, heightMm: 20, bandMm: 2 }));
    const swept = after([ring], { kind: 'shadow', film: 'dark', xMm: 0, yMm: 4, isLong: true } as never).layers[0].curves;
    // The opening of 16 mm is seen where neither the ring nor anything of its way is.
    expect(ringCount(swept)).toBe(2);
    expect(areaOf(swept)).toBeCloseTo(Math.PI * 100 + 20 * 4 - lens(8, 4), 1);
  });

  it('take corners off and leave all else', () => {
    const board = layer(path(square(0, 0, 30)));
    const round = after([board], { kind: 'corners', radiusMm: 4, manner: 'round' } as never).layers[0].curves;
    expect([areaOf(round), nodeCount(round)]).toEqual([expect.closeTo(900 - (4 - Math.PI) * 16, 1), 8]);
    const clipped = after([board], { kind: 'corners', radiusMm: 4, manner: 'clipped' } as never).layers[0].curves;
    expect([areaOf(clipped), nodeCount(clipped)]).toEqual([expect.closeTo(900 - 32, 6), 8]);
    const large = after([layer(path(square(0, 0, 300)))], { kind: 'corners', radiusMm: 100, manner: 'round' } as never).layers[0].curves;
    expect(Math.abs(areaOf(large) - (90_000 - (4 - Math.PI) * 10_000))).toBeLessThan(0.3);
    // No more than there is room for.
    expect(areaOf(after([board], { kind: 'corners', radiusMm: 400, manner: 'round' } as never).layers[0].curves)).toBeCloseTo(Math.PI * 225, 0);
  });

  it('split it with and without a gap', () => {
    const disc = layer(figureCurves({ form: 'round', widthMm: 20, heightMm: 20 }));
    const halves = (gapMm: number): Curves => after([disc], { kind: 'split', from: { x: 10, y: 0 }, to: { x: 10, y: 5 }, gapMm } as never).layers[0].curves;
    expect(piecesOf(halves(0)).map(({ area }) => area)).toEqual([expect.closeTo(Math.PI * 50, 2), expect.closeTo(Math.PI * 50, 2)]);
    expect(areaOf(halves(2))).toBeLessThan(Math.PI * 100 - 39);
  });

  it('take pieces off and put them on other films, by a place in each', () => {
    const dots = layer(path(square(0, 0, 10) + square(20, 0, 10) + square(40, 0, 10)));
    const off = after([dots], { kind: 'takeOff', pieces: [{ film: 'ink', x: 25, y: 5 }] } as never);
    expect([areaOf(off.layers[0].curves), off.notes]).toEqual([200, []]);
    const moved = after([dots], { kind: 'film', film: 'sail', pieces: [{ film: 'ink', x: 25, y: 5 }] } as never).layers;
    expect(moved.map(({ filmId, curves }) => [filmId, areaOf(curves)])).toEqual([['ink', 200], ['sail', 100]]);
    // Marks in px of a picture of ten to a mm.
    const scaled = after([dots], { kind: 'takeOff', pieces: [{ film: 'ink', x: 250, y: 50 }] } as never, { toMm: scaling(0.1), fromMm: scaling(10) });
    expect(areaOf(scaled.layers[0].curves)).toBe(200);
  });

  it('say which pieces are not there any more, and which is nearest', () => {
    const dots = layer(path(square(0, 0, 10) + square(20, 0, 10)));
    const { layers, notes } = after([dots], { kind: 'takeOff', pieces: [{ film: 'ink', x: 33, y: 5 }, { film: 'gone', x: 0, y: 0 }] } as never);
    expect(areaOf(layers[0].curves)).toBe(200);
    expect(notes).toMatchObject([{ operation: 'one', lost: 2 }]);
    const nearest = notes[0].marks.find(({ mark }) => mark.x === 33)?.nearest;
    expect(nearest).toMatchObject({ film: 'ink', x: expect.closeTo(25, 6) });
  });

  it('change some pieces only', () => {
    const dots = layer(path(square(0, 0, 10) + square(40, 0, 10)));
    const thick = after([dots], { kind: 'thicken', byMm: 1, pieces: [{ film: 'ink', x: 5, y: 5 }] } as never).layers[0].curves;
    expect(areaOf(thick)).toBeCloseTo(200 + 40 + Math.PI, 2);
  });

  it('fill what lines enclose, under the lines by a reach, without leaking through a gap', () => {
    const lines = layer(path(square(0, 0, 40) + square(2, 2, 16) + square(20, 2, 18) + square(25, 8, 6)));
    const at = [{ x: 5, y: 5 }, { x: 22, y: 4 }];
    const filled = after([lines], { kind: 'fill', film: 'sail', at, reachMm: 0, gapMm: 0 } as never);
    // The island in the second area stays what it is.
    expect(areaOf(filled.layers[0].curves)).toBeCloseTo(256 + 324 - 36, 4);
    const reaching = after([lines], { kind: 'fill', film: 'sail', at: [at[0]], reachMm: 0.5, gapMm: 0 } as never);
    expect(areaOf(reaching.layers[0].curves)).toBeCloseTo(256 + 32 + Math.PI / 4, 1);
    // A second fill sees the same areas: what the first laid down is no line.
    const two = operate([lines], [{ id: 'a', kind: 'fill', film: 'sail', at: [at[0]], reachMm: 0.5, gapMm: 0 }, { id: 'b', kind: 'fill', film: 'hull', at: [at[1]], reachMm: 0.5, gapMm: 0 }], using);
    expect(two.notes.map(({ enclosed }) => piecesOf(enclosed!).length)).toEqual([2, 2]);
    expect(areaOf(filmOf(two.layers, 'hull'))).toBeGreaterThan(324);
    const open = layer(path('M0 0L40 0L40 40L21 40L21 38L38 38L38 2L2 2L2 38L20 38L20 40L0 40Z'));
    expect(after([open], { kind: 'fill', film: 'sail', at: [at[0]], reachMm: 0, gapMm: 0 } as never).notes).toMatchObject([{ lost: 1 }]);
    const mended = after([open], { kind: 'fill', film: 'sail', at: [at[0]], reachMm: 0, gapMm: 1.5 } as never);
    expect(mended.notes).toMatchObject([{ lost: 0 }]);
    expect(piecesOf(mended.notes[0].enclosed!)).toMatchObject([{ area: expect.closeTo(36 * 36, -1) }]);
    expect(areaOf(mended.layers[0].curves)).toBeGreaterThan(36 * 36 - 1);
    expect(areaOf(mended.layers[0].curves)).toBeLessThan(36 * 36 + 3);
  });

  it('tidy: fewer nodes within the tolerance, specks gone, gaps closed, rounds round', () => {
    const many = path(`M${Array.from({ length: 120 }, (_, k) => `${(20 + 15 * Math.cos((k * Math.PI) / 60)).toFixed(4)} ${(20 + 15 * Math.sin((k * Math.PI) / 60)).toFixed(4)}`).join('L')}Z`);
    const settings = { kind: 'tidy', withinMm: 0.05, leastMm2: 0, gapMm: 0, straight: true };
    const round = after([layer(many)], settings as never).layers[0].curves;
    expect([nodeCount(round), areaOf(round)]).toEqual([4, expect.closeTo(Math.PI * 225, 0)]);
    const specks = layer(path(square(0, 0, 20) + square(30, 0, 0.5) + square(5, 5, 0.4)));
    expect(areaOf(after([specks], { ...settings, leastMm2: 1 } as never).layers[0].curves)).toBeCloseTo(400, 6);
    const two = layer(path(square(0, 0, 20) + square(20.4, 0, 20)));
    expect(piecesOf(after([two], { ...settings, gapMm: 0.5 } as never).layers[0].curves)).toHaveLength(1);
    const letters = after([layer(word)], { ...settings, withinMm: 0.02, straight: false } as never).layers[0].curves;
    expect(Math.abs(areaOf(letters) - areaOf(word))).toBeLessThan(0.5);
    expect(nodeCount(letters)).toBeLessThanOrEqual(nodeCount(word));
  });

  it('repeat it in rows and around a centre', () => {
    const dot = layer(figureCurves({ form: 'round', widthMm: 4, heightMm: 4 }));
    const rows = after([dot], { kind: 'rows', columns: 3, rows: 2, xMm: 10, yMm: 20 } as never).layers[0].curves;
    expect([piecesOf(rows).length, boundsOf(rows)?.right, boundsOf(rows)?.bottom]).toEqual([6, expect.closeTo(24, 6), expect.closeTo(24, 6)]);
    const ring = after([dot], { kind: 'around', count: 12, radiusMm: 30, turns: true } as never).layers[0].curves;
    expect([piecesOf(ring).length, boundsOf(ring)?.bottom]).toEqual([12, expect.closeTo(64, 6)]);
    expect(operationSchema.safeParse({ id: 'a', kind: 'rows', columns: 200, rows: 200, xMm: 1, yMm: 1 }).success).toBe(false);
  });

  it('add a seam allowance and keep the line as a mark', () => {
    const [made] = after([layer(path(square(0, 0, 30)))], { kind: 'allowance', widthMm: 6, corners: 'sharp' } as never).layers;
    expect([areaOf(made.curves), areaOf(made.marks!)]).toEqual([expect.closeTo(42 ** 2, 4), 900]);
  });

  it('are done in their order, and those that are off not at all', () => {
    const operations = [
      { id: 'a', kind: 'thicken', byMm: 2 },
      { id: 'b', kind: 'corners', radiusMm: 3, manner: 'round', enabled: false },
      { id: 'c', kind: 'thicken', byMm: -2 },
    ] as const;
    const board = layer(path(square(0, 0, 30)));
    expect(areaOf(operate([board], operations, using).layers[0].curves)).toBeCloseTo(900, 1);
    expect(areaOf(operate([board], [...operations].reverse(), using).layers[0].curves)).toBeCloseTo(26 ** 2 + 4 * 26 * 2 + 4 * Math.PI, 1);
  });

  it('find any piece again by the place that is said to be inside of it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 12 }), fc.double({ min: 0.05, max: 0.9, noNaN: true }), fc.double({ min: 2, max: 60, noNaN: true }), (corners, depth, sizeMm) => {
        const star = figureCurves({ form: 'star', corners, depth, widthMm: sizeMm, heightMm: sizeMm });
        for (const curves of [star, word]) {
          const pieces = piecesOf(curves);
          for (const [k, piece] of pieces.entries()) {
            const { x, y } = innerPlace(curves, piece);
            expect(pieceAt(curves, x, y)).toBe(k);
          }
        }
      }),
      { seed: 9, numRuns: 20 },
    );
  });
});

/** What two rounds of a radius whose middles are apart have in common. */
const lens = (r: number, d: number): number => 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);
