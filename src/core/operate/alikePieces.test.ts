import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { FIGURE_FORMS } from '../figure/figure.ts';
import { followedBy, mirrorAbout, rotation, scaling, translation } from '../geometry/affine.ts';
import { ringCount } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { alikePieces } from './alikePieces.ts';
import { hitsAt, liesIn } from './partHits.ts';
import { piecesIndex } from './piecesIndex.ts';

describe('pieces like one of them', () => {
  const drop = figureCurves({ form: 'speech', widthMm: 20, heightMm: 14, cornerMm: 2, at: 0.2, tailMm: 4 });
  it('are found however they are turned and mirrored, in their size only', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.boolean(), fc.double({ min: 0.985, max: 1.015, noNaN: true }), (turn, mirrored, size) => {
        const moved = transformCurves(drop, followedBy(followedBy(scaling(size), mirrored ? mirrorAbout(3) : scaling(1)), followedBy(rotation(turn, 0, 0), translation(60, 7))));
        const larger = transformCurves(drop, followedBy(scaling(1.2), translation(0, 90)));
        const all = joinCurves([drop, moved, larger, figureCurves({ form: 'round', widthMm: 18, heightMm: 18 })]);
        const pieces = piecesOf(all);
        expect(alikePieces(all, pieces, pieces[0])).toEqual([0, 1]);
      }),
      { seed: 12, numRuns: 60 },
    );
  });

  it('are told from every other form of the same size', () => {
    const forms = Object.values(FIGURE_FORMS).map(({ first }) => figureCurves(first(30, 30)));
    const all = joinCurves(forms);
    const pieces = piecesOf(all);
    for (const [k, piece] of pieces.entries()) {
      const alike = alikePieces(all, pieces, piece);
      expect(alike).toContain(k);
      // A ribbon's two tails are alike.
      expect(alike.length).toBeLessThanOrEqual(2);
    }
  });
});

describe('what is pointed at', () => {
  const disc = figureCurves({ form: 'round', widthMm: 20, heightMm: 20 });
  const ring = figureCurves({ form: 'ring', widthMm: 20, heightMm: 20, bandMm: 3 });
  const part = (id: string, filmId: string, curves: typeof disc, cutsOut?: boolean) => ({ id, box: { left: 0, top: 0, right: 20, bottom: 20 }, layers: [{ filmId, curves }], ...(cutsOut === true ? { cutsOut } : {}) });
  it('is the uppermost film first, then the uppermost part, and what lies under them', () => {
    const parts = [part('low', 'gold', disc), part('high', 'navy', disc), part('ring', 'navy', ring), part('hole', 'x', disc, true)];
    expect(hitsAt(parts, ['navy', 'gold'], 10, 10).map(({ partId }) => partId)).toEqual(['low', 'high', 'hole']);
    expect(hitsAt(parts, ['navy', 'gold'], 1.5, 10).map(({ partId }) => partId)).toEqual(['low', 'ring', 'high', 'hole']);
    expect(hitsAt(parts, ['navy', 'gold'], -0.4, 10)).toEqual([]);
    expect(hitsAt(parts, ['navy', 'gold'], -0.4, 10, 0.5)).toHaveLength(4);
  });

  it('is known by its box too', () => {
    expect(piecesIndex(ring).boxes[0]).toMatchObject({ left: expect.closeTo(0, 1), right: expect.closeTo(20, 1) });
    expect(liesIn(piecesIndex(disc).boxes[0], { left: -1, top: -1, right: 21, bottom: 21 })).toBe(true);
    expect(ringCount(ring)).toBe(2);
  });
});
