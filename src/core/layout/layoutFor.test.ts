import { describe, expect, it } from 'vitest';
import { isByItself, layoutFor, withFilmByItself, withLayoutOf } from './layoutFor.ts';
import { layoutSchema, usualLayout, type Layout } from './layout.ts';
import { SHEETS } from './sheetStock.ts';

const common: Layout = { ...usualLayout('htv'), weedLines: { on: true, everyMm: 80, awayMm: 1.5, own: [{ film: 'gold', sheet: 1, box: 0, strip: 1, share: 0.4 }] }, turned: true };
const apart = withFilmByItself(common, 'gold', true);

describe('a film that is laid out by itself', () => {
  it('begins as all are, and is as all are again', () => {
    expect(layoutFor(apart, 'gold')).toEqual(common);
    expect([isByItself(apart, 'gold'), isByItself(apart, 'navy')]).toEqual([true, false]);
    expect(layoutSchema.parse(JSON.parse(JSON.stringify(apart)))).toEqual(apart);
    expect(withFilmByItself(apart, 'gold', true)).toEqual(apart);
    expect(withFilmByItself(apart, 'gold', false)).toEqual(common);
  });

  it('changes alone in what is its own, and with the others in what is not', () => {
    const changed = withLayoutOf(apart, 'gold', { sheet: SHEETS[0], copies: 3, turned: false, gapMm: 9, mirror: 'never', weedLines: { on: false, everyMm: 40, awayMm: 2 } });
    expect(layoutFor(changed, 'gold')).toMatchObject({ sheet: SHEETS[0], copies: 3, turned: false, gapMm: 9, mirror: 'never', weedLines: { on: false, everyMm: 40 } });
    expect(layoutFor(changed, 'navy')).toMatchObject({ sheet: common.sheet, copies: 1, turned: true, gapMm: common.gapMm, mirror: 'never', weedLines: { on: true, everyMm: 80 } });
    expect(layoutSchema.safeParse(changed).success).toBe(true);
  });

  it('stays as it is when the others change', () => {
    const changed = withLayoutOf(apart, 'navy', { copies: 5, box: { on: false, marginMm: 3 } });
    expect([layoutFor(changed, 'navy').copies, layoutFor(changed, 'gold').copies, layoutFor(changed, 'gold').box.on]).toEqual([5, 1, true]);
  });

  it('keeps which of its weed lines were moved in the list of all', () => {
    const moved = withLayoutOf(apart, 'gold', { weedLines: { ...(common.weedLines as NonNullable<Layout['weedLines']>), own: [{ film: 'gold', sheet: 1, box: 0, strip: 2 }] } });
    expect(moved.weedLines?.own).toEqual([{ film: 'gold', sheet: 1, box: 0, strip: 2 }]);
    expect(layoutFor(moved, 'gold').weedLines?.own).toEqual(moved.weedLines?.own);
  });

  it('has no weed lines where it was given none, whatever the others have', () => {
    const bare = withFilmByItself({ ...usualLayout('htv') }, 'gold', true);
    expect(layoutFor(withLayoutOf(bare, 'navy', { weedLines: { on: true, everyMm: 80, awayMm: 1 } }), 'gold').weedLines?.on).toBe(false);
  });
});
