import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { thinPlaces } from '../outline/thinPlaces.ts';
import { cutsWell, fontNamed, MANNERS, SHIPPED_FONTS } from './fonts.ts';
import { letterCurves } from './letterCurves.ts';

describe('the shipped fonts', () => {
  it('are forty at least, in every manner, each found by its name however it is written', () => {
    expect(SHIPPED_FONTS.length).toBeGreaterThanOrEqual(40);
    expect(new Set(SHIPPED_FONTS.map(({ manner }) => manner))).toEqual(new Set(MANNERS));
    for (const font of SHIPPED_FONTS) expect(fontNamed(font.name.toUpperCase().replaceAll(' ', '-'))).toBe(font);
  });

  it('have strokes as thin as is told of them', async () => {
    const library = await loadPolygons();
    for (const font of SHIPPED_FONTS.filter((_, k) => k % 4 === 0)) {
      const { curves } = letterCurves(library, await loadFont(font.name), { text: 'HAMBURGEVONS\nhamburgefontsivd', font: font.name, heightMm: 100, spacing: 0.3, join: true });
      const widths = thinPlaces(curves, 40)
        .map(({ widthMm }) => widthMm)
        .sort((a, b) => a - b);
      expect(Math.abs((widths[Math.floor(widths.length * 0.1)] ?? 40) / 100 - font.thinnest), font.name).toBeLessThan(0.006);
    }
  }, 60_000);

  it('cut well from a height on', () => {
    const oswald = fontNamed('Oswald')!;
    expect([cutsWell(oswald, 20, 0.8), cutsWell(oswald, 5, 0.8)]).toEqual([true, false]);
  });
});
