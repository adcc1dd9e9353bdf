import { describe, expect, it } from 'vitest';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { composeDesign, type PlacedLayers } from './composeDesign.ts';
import { layerOf, makeDesign } from './design.ts';

const square = (x: number, y: number, side: number): Curves => curvesFromPathData(`M${x} ${y}L${x + side} ${y}L${x + side} ${y + side}L${x} ${y + side}Z`);
const object = (films: string[], x = 0): PlacedLayers => ({ layers: films.map((filmId, k) => ({ filmId, curves: square(x + 2 * k, 0, 10) })) });
const orderOf = (objects: PlacedLayers[], rack: string[] = []): string[] => composeDesign(objects, rack).design.layers.map(({ filmId }) => filmId);

describe('the order of films in a design', () => {
  it('is that of its one object, whatever the rack says', () => {
    expect(orderOf([object(['white', 'navy', 'rust'])], ['rust', 'navy'])).toEqual(['white', 'navy', 'rust']);
  });

  it('is that of the rack for what lies on it, and the objects’ for the rest', () => {
    expect(orderOf([object(['white', 'navy']), object(['navy', 'gold'])], ['navy', 'white'])).toEqual(['navy', 'gold', 'white']);
    expect(orderOf([object(['white', 'navy']), object(['red', 'gold'])])).toEqual(['white', 'navy', 'red', 'gold']);
  });

  it('keeps what an object has below a film of another below it', () => {
    expect(orderOf([object(['navy']), object(['back', 'navy', 'shine'])], ['navy'])).toEqual(['back', 'navy', 'shine']);
  });
});

describe('objects put together', () => {
  it('share the layer of a film, and begin at 0, 0', () => {
    const { design, moved } = composeDesign([object(['navy'], 5), { ...object(['navy'], 5), placement: { a: 1, b: 0, c: 0, d: 1, e: 20, f: -4 } }], []);
    expect(ringCount(layerOf(design, 'navy').curves)).toBe(2);
    expect([design.widthMm, design.heightMm, moved.e, moved.f]).toEqual([30, 14, -5, 4]);
    expect(boundsOf(layerOf(design, 'navy').curves)).toMatchObject({ left: 0, top: 0 });
    expect(() => layerOf(design, 'gold')).toThrow(RangeError);
  });

  it('leave curves as they are where nothing is to be moved', () => {
    const sized = makeDesign([{ filmId: 'navy', curves: square(3, 7, 40) }], { by: 'width', sizeMm: 90, turnDeg: 0 });
    expect(composeDesign([{ layers: sized.layers }], []).design.layers[0].curves).toBe(sized.layers[0].curves);
  });

  it('are nothing to cut without an outline', () => {
    expect(() => composeDesign([{ layers: [] }], [])).toThrow(/nothingToCut/);
  });
});
