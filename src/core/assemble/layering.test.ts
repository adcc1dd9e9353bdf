import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { cutTwice } from '../check/cutTwice.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { composeDesign, type PlacedLayers } from './composeDesign.ts';
import { layerOf } from './design.ts';
import type { Layering } from './layering.ts';

const library = await loadPolygons();
const disc = (diameter: number, x = 0, y = 0): Curves => transformCurves(figureCurves({ form: 'round', widthMm: diameter, heightMm: diameter }), translation(x - diameter / 2, y - diameter / 2));
const board = (width: number, height: number, x = 0, y = 0): Curves => transformCurves(figureCurves({ form: 'rectangle', widthMm: width, heightMm: height }), translation(x - width / 2, y - height / 2));
const part = (id: string, ...layers: [string, Curves][]): PlacedLayers => ({ id, layers: layers.map(([filmId, curves]) => ({ filmId, curves })) });
const ORDER = ['white', 'navy', 'red'];
const composed = (layering: Layering, ...parts: PlacedLayers[]) => composeDesign(parts, ORDER, { library, layering });
const layersOf = (layering: Layering, ...parts: PlacedLayers[]) => composed(layering, ...parts).design;

describe('films of a whole design', () => {
  const three = [part('board', ['white', board(60, 60)]), part('disc', ['navy', disc(40)]), part('star', ['red', disc(20)])];

  it('lie whole on each other when they are stacked', () => {
    const design = layersOf({ meet: 'stacked', reachMm: 0 }, ...three);
    expect(areaOf(layerOf(design, 'white').curves)).toBeCloseTo(3600, 6);
    expect(areaOf(layerOf(design, 'navy').curves)).toBeCloseTo(areaOf(disc(40)), 6);
  });

  it('fit into each other when they are inset: nothing lies twice, nothing is left bare', () => {
    const design = layersOf({ meet: 'inset', reachMm: 0 }, ...three);
    const areas = ORDER.map((film) => areaOf(layerOf(design, film).curves));
    expect(areas.reduce((a, b) => a + b)).toBeCloseTo(3600, 2);
    expect(areas[2]).toBeCloseTo(areaOf(disc(20)), 6);
    for (const [low, high] of [[0, 1], [0, 2], [1, 2]]) expect(Math.abs(areaOf(combineCurves(library, 'common', layerOf(design, ORDER[low]).curves, layerOf(design, ORDER[high]).curves)))).toBeLessThan(0.02);
  });

  it('run on under what lies above by the reach, in whatever part they lie', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 4, noNaN: true }), fc.double({ min: -12, max: 12, noNaN: true }), (reachMm, x) => {
        const design = layersOf({ meet: 'inset', reachMm }, part('one', ['white', board(60, 60)], ['navy', disc(14, -15, x)]), part('two', ['red', disc(18, 12, x)]));
        const over = (film: string): number => areaOf(combineCurves(library, 'common', layerOf(design, 'white').curves, layerOf(design, film).curves));
        const band = (d: number): number => areaOf(disc(d)) - areaOf(offsetCurves(library, disc(d), -reachMm));
        expect(Math.abs(over('red') - band(18))).toBeLessThan(0.1);
        expect(Math.abs(over('navy') - band(14))).toBeLessThan(0.1);
      }),
      { seed: 5, numRuns: 12 },
    );
  });

  it('are not cut by a part that only cuts what lies below it', () => {
    const design = layersOf({ meet: 'inset', reachMm: 0 }, { ...part('cut', ['red', disc(20)]), cutsOut: true }, part('board', ['white', board(60, 60)]));
    expect(areaOf(layerOf(design, 'white').curves)).toBeCloseTo(3600, 6);
  });

  it('have pairs of their own, and a film whose overlaps are cut as one', () => {
    const design = layersOf({ meet: 'inset', reachMm: 0, pairs: [{ films: ['red', 'white'], meet: 'stacked' }] }, part('board', ['white', board(60, 60)]), part('star', ['red', disc(20)]));
    expect(areaOf(layerOf(design, 'white').curves)).toBeCloseTo(3600, 6);
    const two = [part('a', ['navy', disc(20)]), part('b', ['navy', disc(20, 10)])];
    expect(ringCount(layerOf(layersOf({ meet: 'stacked', reachMm: 0 }, ...two), 'navy').curves)).toBe(2);
    const joined = layersOf({ meet: 'stacked', reachMm: 0, joined: ['navy'] }, ...two);
    expect(ringCount(layerOf(joined, 'navy').curves)).toBe(1);
  });
});

describe('what would be cut twice', () => {
  const twice = (...curves: Curves[]) => cutTwice(library, [{ filmId: 'navy', curves: joinCurves(curves) }]);

  it('is told with its size and a place in it', () => {
    const found = twice(disc(20), disc(20, 12), board(6, 6, 40));
    expect(found).toHaveLength(1);
    const common = combineCurves(library, 'common', disc(20), disc(20, 12));
    expect(found[0].size).toBeCloseTo(areaOf(common), 4);
    expect([Math.abs(found[0].xMm - 6) < 4, Math.abs(found[0].yMm) < 8]).toEqual([true, true]);
  });

  it('also when one lies whole on another, or crosses it without a corner in it', () => {
    expect(twice(board(40, 40), disc(10))).toHaveLength(1);
    expect(twice(board(60, 4), board(4, 60))[0].size).toBeCloseTo(16, 6);
  });

  it('is nothing in an opening, beside, or along a common edge', () => {
    const ring = combineCurves(library, 'cutOut', disc(40), disc(30));
    expect(twice(ring, disc(20))).toEqual([]);
    expect(twice(board(20, 20), board(20, 20, 20))).toEqual([]);
    expect(twice(disc(10), disc(10, 11))).toEqual([]);
  });
});
