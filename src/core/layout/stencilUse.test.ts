import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import type { Design } from '../assemble/design.ts';
import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { mirrorAbout, translation } from '../geometry/affine.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { newJob } from '../job/newJob.ts';
import { sheetsOf } from '../run/sheetsOf.ts';
import { halvesDiffer, leastDownMm, usedStencil } from './stencilUse.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const heart = figureCurves({ form: 'heart', widthMm: 120, heightMm: 100 });
const designOf = (curves: Curves): Design => {
  const { right, bottom } = boundsOf(curves) as Bounds;
  return { layers: [{ filmId: 'film-1', curves }], widthMm: mm(right), heightMm: mm(bottom) };
};
const lopsided = designOf(joinCurves([heart, transformCurves(figureCurves({ form: 'round', widthMm: 50, heightMm: 50 }), translation(125, 20))]));
const middlesOf = (curves: Curves): [number, number][] => Array.from(curves.parent.keys()).map((ring) => {
  const own = curves.coords.subarray(curves.coordStart[ring], curves.coordStart[ring + 1]);
  const [x, y] = [own.filter((_, k) => k % 2 === 0), own.filter((_, k) => k % 2 === 1)];
  return [(Math.min(...x) + Math.max(...x)) / 2, (Math.min(...y) + Math.max(...y)) / 2];
});

describe('half a stencil', () => {
  it('painted, turned over about its holes and painted again, is the whole of it', () => {
    const design = designOf(heart);
    expect(halvesDiffer(library, design)).toBeLessThan(0.01);
    const { design: half, holes } = usedStencil(library, design, { manner: 'half', holeMm: 4 });
    const own = half.layers[0].curves;
    expect(areaOf(own)).toBeCloseTo(areaOf(heart) / 2, 0);
    const axis = mirrorAbout(design.widthMm / 2);
    const both = joinOverlaps(library, joinCurves([own, transformCurves(own, axis)]));
    expect(areaOf(combineCurves(library, 'cutOut', heart, both)) + areaOf(combineCurves(library, 'cutOut', both, heart))).toBeLessThan(1);
    for (const [k, [x, y]] of middlesOf(transformCurves(holes, axis)).entries()) expect([x, y]).toEqual([expect.closeTo(middlesOf(holes)[k][0], 6), expect.closeTo(middlesOf(holes)[k][1], 6)]);
  });

  it('is cut whole, and told by how much, where its halves are not alike', () => {
    expect(halvesDiffer(library, lopsided)).toBeGreaterThan(0.15);
    const fresh = newJob('Gate');
    const job = { ...fresh, process: 'stencil' as const, layout: { ...fresh.layout, stencil: { manner: 'half' as const, holeMm: 4 } } };
    const [whole] = sheetsOf(job, { design: lopsided }, library);
    expect(whole.halvesDiffer).toBeGreaterThan(0.15);
    expect(areaOf(whole.parts[0].curves)).toBeCloseTo(areaOf(lopsided.layers[0].curves), 3);
    const [half] = sheetsOf(job, { design: designOf(heart) }, library);
    expect(half.parts.map(({ id }) => id)).toEqual(['design', 'holes']);
    expect(half.used.widthMm).toBeLessThan(100);
  });
});

describe('a stencil that is laid again and again', () => {
  it('has holes a step apart, above and below, and room for them on its sheet', () => {
    const design = designOf(heart);
    const { holes } = usedStencil(library, design, { manner: 'repeat', everyMm: 150, holeMm: 5 });
    const middles = middlesOf(holes);
    expect(middles).toHaveLength(4);
    const xs = [...new Set(middles.map(([x]) => Math.round(x * 1000) / 1000))].sort((a, b) => a - b);
    expect(xs[1] - xs[0]).toBeCloseTo(150, 6);
    for (const [, y] of middles) expect(y < 0 || y > design.heightMm).toBe(true);
    const fresh = newJob('Gate');
    const [sheet] = sheetsOf({ ...fresh, process: 'stencil', layout: { ...fresh.layout, stencil: { manner: 'repeat', everyMm: 150, holeMm: 5 } } }, { design }, library);
    // Everything that is cut lies within what the sheet says it uses.
    for (const { partId, at } of sheet.placements) {
      const box = boundsOf(transformCurves(sheet.parts.find(({ id }) => id === partId)?.curves as Curves, at)) as Bounds;
      expect(box.left).toBeGreaterThan(sheet.used.xMm - 1e-6);
      expect(box.top).toBeGreaterThan(sheet.used.yMm - 1e-6);
      expect(box.right).toBeLessThan(sheet.used.xMm + sheet.used.widthMm + 1e-6);
      expect(box.bottom).toBeLessThan(sheet.used.yMm + sheet.used.heightMm + 1e-6);
    }
  });

  it('over a surface has its lower holes where the upper ones come to lie a row further down, clear of the art', () => {
    const design = designOf(heart);
    for (const [wanted, downMm] of [[10, design.heightMm + 8], [300, 300]] as const) {
      const { holes, design: laid } = usedStencil(library, design, { manner: 'repeat', everyMm: 150, downMm: wanted, holeMm: 5 });
      const ys = [...new Set(middlesOf(holes).map(([, y]) => Math.round(y * 1000) / 1000))].sort((a, b) => a - b);
      expect(ys).toHaveLength(2);
      expect(ys[1] - ys[0]).toBeCloseTo(downMm, 3);
      expect(ys[0] + 2.5).toBeLessThan(0);
      expect(ys[1] - 2.5).toBeGreaterThan(design.heightMm - 1e-3);
      expect(laid.heightMm).toBeGreaterThan(ys[1] + 2.5 - 1e-3);
    }
    expect(leastDownMm(100, 5)).toBe(108);
  });

  it('is laid as any other where the process cuts no openings', () => {
    const fresh = newJob('Gate');
    const [sheet] = sheetsOf({ ...fresh, process: 'htv', layout: { ...fresh.layout, stencil: { manner: 'repeat', holeMm: 5 } } }, { design: designOf(heart) }, library);
    expect(sheet.parts.map(({ id }) => id)).toEqual(['design']);
  });
});
