import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { USUAL_WEED_LINES, type Layout } from '../layout/layout.ts';
import { weedLines } from '../layout/weedLines.ts';
import { shareAlong, withFoundWeedLines, withOwnWeedLine } from './weedLineEdits.ts';

const box = { xMm: 10, yMm: 10, widthMm: 240, heightMm: 80 };
const sheet = { parts: [{ id: 'a', curves: figureCurves({ form: 'round', widthMm: 40, heightMm: 40 }) }], placements: [{ partId: 'a', at: translation(40, 30) }], boxes: [box] };
const line = (strip: number) => ({ film: 'film-1', sheet: 1, box: 0, strip });
const drawn = ({ weedLines: settings = USUAL_WEED_LINES }: Pick<Layout, 'weedLines'>) => weedLines(sheet, settings);
/** Where lines begin and end, up and down. */
const ends = (layout: Pick<Layout, 'weedLines'>): number[][] => {
  const { curves } = drawn(layout);
  return Array.from(curves.parent.keys()).map((ring) => [...curves.coords.subarray(curves.coordStart[ring], curves.coordStart[ring + 1])]);
};

describe('weed lines by hand', () => {
  it('lie where they were put, and still break off before a piece', () => {
    const found: Pick<Layout, 'weedLines'> = { weedLines: { ...USUAL_WEED_LINES } };
    expect(drawn(found).places.map(({ strip, isOwn }) => [strip, isOwn])).toEqual([[1, false], [2, false]]);
    const moved = withOwnWeedLine(found, line(1), shareAlong({ isUpright: true }, box, { x: 60, y: 0 }));
    expect(drawn(moved).places[0]).toMatchObject({ atMm: 60, isOwn: true, isLeftOut: false });
    // Through the middle of the round: in two bits, 1.5 mm off it.
    const own = ends(moved).filter(([x]) => x === 60);
    expect(own.map(([, from, , to]) => [from, to])).toEqual([[10, expect.closeTo(28.5, 1)], [expect.closeTo(71.5, 1), 90]]);
    // Once more: it is the same line.
    const again = withOwnWeedLine(moved, line(1), 0.5);
    expect(again.weedLines.own).toHaveLength(1);
  });

  it('are left out one by one, and put back one by one or all', () => {
    const found: Pick<Layout, 'weedLines'> = { weedLines: { ...USUAL_WEED_LINES } };
    const without = withOwnWeedLine(found, line(2));
    expect(drawn(without).places.map(({ isLeftOut }) => isLeftOut)).toEqual([false, true]);
    expect(ends(without).length).toBe(ends(found).length - 1);
    const both = withOwnWeedLine(without, line(1));
    expect(ends(both)).toEqual([]);
    expect(ends(withFoundWeedLines(both, line(1)))).toEqual(ends(without));
    expect(withFoundWeedLines(both)).toEqual(found);
  });

  it('are those of their sheet and box alone', () => {
    const elsewhere = weedLines(sheet, { ...USUAL_WEED_LINES, own: [{ box: 1, strip: 1 }] });
    expect(elsewhere.places.some(({ isOwn }) => isOwn)).toBe(false);
    expect(shareAlong({ isUpright: false }, box, { x: 0, y: 500 })).toBe(1);
  });
});
