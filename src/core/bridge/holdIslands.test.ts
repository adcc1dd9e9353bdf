import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { withBridgeAcross, withBridgeMoved, withoutBridge, withoutOwnBridges } from '../edit/bridgeEdits.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation, translation } from '../geometry/affine.ts';
import { letterCurves } from '../lettering/letterCurves.ts';
import { SHIPPED_FONTS } from '../lettering/fonts.ts';
import type { Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';
import { holdIslands, type DesignBridge } from './holdIslands.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const islandsOf = (curves: Curves): number => piecesOf(curves).reduce((sum, { holes }) => sum + holes.length, 0);
const cut = (from: Curves, what: Curves, x: number, y: number, turn = 0): Curves => combineCurves(library, 'cutOut', from, transformCurves(transformCurves(what, rotation(turn, 0, 0)), translation(x, y)));
const board = figureCurves({ form: 'rectangle', widthMm: 120, heightMm: 80 });

describe('bridges', () => {
  it('leave no island in lettering of any font, none narrower than asked, and little of the outlines covered', async () => {
    let [widths, outlines] = [0, 0];
    for (const font of SHIPPED_FONTS.filter((_, k) => k % 3 === 0)) {
      const { curves } = letterCurves(library, await loadFont(font.name), { text: 'ABDOPQ\nabdegopq\n04689&', font: font.name, heightMm: 70, join: true });
      const { curves: held, bridges } = holdIslands(library, curves, { widthMm: 2, leastIslandMm2: 2 });
      expect([font.name, islandsOf(held)]).toEqual([font.name, 0]);
      // What holds is film between openings: it is as broad as was asked wherever a bridge is.
      const thin = thinPlaces(held, 1.9, 'outside');
      for (const { from, to } of bridges) {
        const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
        expect(thin.filter((place) => Math.hypot(place.xMm - x, place.yMm - y) < 0.5), font.name).toEqual([]);
      }
      const islands = piecesOf(curves).flatMap(({ holes }) => holes);
      outlines += islands.reduce((sum, ring) => sum + ringLength(curves, ring), 0);
      widths += bridges.reduce((sum, { widthMm }) => sum + widthMm, 0);
    }
    expect(widths / outlines).toBeLessThan(0.04);
  }, 120_000);

  it('hold drawn islands wherever they lie, also in each other and beside each other', () => {
    const island = fc.record({ form: fc.constantFrom('heart', 'round', 'star' as const), x: fc.double({ min: 5, max: 90, noNaN: true }), y: fc.double({ min: 5, max: 55, noNaN: true }), size: fc.double({ min: 4, max: 22, noNaN: true }), turn: fc.double({ min: 0, max: 6.2, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(island, { minLength: 1, maxLength: 7 }), (islands) => {
        let openings = board;
        for (const { form, x, y, size, turn } of islands) {
          const figure = form === 'star' ? figureCurves({ form, widthMm: size, heightMm: size, corners: 5, depth: 0.5 }) : figureCurves({ form, widthMm: size, heightMm: size });
          openings = cut(openings, figure, x, y, turn);
          // An opening in the island, with an island of its own.
          const inner = figureCurves({ form: 'ring', widthMm: size / 2, heightMm: size / 2, bandMm: size / 8 });
          if (size > 12) openings = combineCurves(library, 'join', openings, transformCurves(inner, translation(x, y)));
        }
        const { curves: held } = holdIslands(library, openings, { widthMm: 1.2, leastIslandMm2: 1 });
        expect(islandsOf(held)).toBe(0);
      }),
      { seed: 40, numRuns: 40 },
    );
  }, 60_000);

  it('go where the way is shortest, on the middle of a straight edge, and small islands fall out', () => {
    const opening = cut(board, figureCurves({ form: 'rectangle', widthMm: 40, heightMm: 20 }), 40, 4);
    const { bridges, islands, fellOut } = holdIslands(library, cut(opening, figureCurves({ form: 'round', widthMm: 1, heightMm: 1 }), 20, 60), { widthMm: 2, leastIslandMm2: 2 });
    expect([islands, fellOut, bridges.length]).toEqual([1, 1, 1]);
    const [first] = bridges;
    expect(Math.abs(first.from.x - first.to.x)).toBeLessThan(0.01);
    expect([Math.abs(first.from.x - 60) < 6, first.to.y < 0.5, first.from.y > 3.9]).toEqual([true, true, true]);
  });

  it('are moved, doubled and taken out one by one, and stay so', () => {
    const opening = cut(cut(board, figureCurves({ form: 'rectangle', widthMm: 30, heightMm: 30 }), 10, 20), figureCurves({ form: 'rectangle', widthMm: 30, heightMm: 30 }), 70, 20);
    const room = { widthMm: 120, heightMm: 80 };
    const hold = (own?: ReturnType<typeof withoutOwnBridges>): DesignBridge[] =>
      holdIslands(library, opening, { widthMm: 2, leastIslandMm2: 2, own: own?.islands?.map((each) => ({ ...each, x: each.x * 120, y: each.y * 80, bridges: each.bridges.map((bridge) => ({ ...bridge, x: bridge.x * 120, y: bridge.y * 80 })) })) }).bridges.map((bridge) => ({ ...bridge, filmId: 'f' }));
    const found = hold();
    const left = found.find(({ island }) => island.x < 60)!;
    const others = found.filter(({ island }) => island.x > 60);
    // To the lower edge of its island.
    const moved = withBridgeMoved(undefined, found, left, { x: 24, y: 52 }, room);
    const after = hold(moved);
    expect(after.some(({ from, to }) => Math.abs(from.x - 24) < 0.5 && to.y > 79)).toBe(true);
    expect(after.filter(({ island }) => island.x > 60)).toEqual(others);
    const doubled = hold(withBridgeAcross(moved, after, after.find(({ isOwn }) => isOwn)!, room));
    expect(doubled.filter(({ island }) => island.x < 60)).toHaveLength(after.filter(({ island }) => island.x < 60).length + 1);
    const [last] = after.filter(({ island }) => island.x < 60);
    const settings = withoutBridge(moved, after, last, room);
    // Left as it is because somebody said so.
    expect(islandsOf(holdIslands(library, opening, { widthMm: 2, leastIslandMm2: 2, own: settings.islands?.map((each) => ({ ...each, x: each.x * 120, y: each.y * 80 })) }).curves)).toBe(1);
    expect(withoutOwnBridges(settings).islands).toBeUndefined();
  });
});

/** Length of one ring as chords. */
function ringLength(curves: Curves, ring: number): number {
  let length = 0;
  for (let i = curves.coordStart[ring]; i + 3 < curves.coordStart[ring + 1]; i += 2) length += Math.hypot(curves.coords[i + 2] - curves.coords[i], curves.coords[i + 3] - curves.coords[i + 1]);
  return length;
}
