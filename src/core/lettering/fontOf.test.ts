import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { translation } from '../geometry/affine.ts';
import { coverageOf } from '../outline/coverage.ts';
import { boundsOf, type Bounds } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { finish } from '../task/task.ts';
import { fontOf, type FontGuess } from './fontOf.ts';
import { letterCurves } from './letterCurves.ts';

const library = await loadPolygons();
const NAMES = ['Oswald', 'Archivo Black', 'Lora', 'Playfair Display', 'Graduate', 'Fredoka', 'Alfa Slab One', 'Pirata One', 'Bebas Neue', 'Montserrat'];
const faces = await Promise.all(NAMES.map((name) => loadFont(name)));
const MARGIN = 6;

/** What fonts are likest to a text that is drawn in one of them. */
function guesses(text: string, font: string, heightPx: number, thickenMm = 0): FontGuess[] {
  const face = faces[NAMES.indexOf(font)];
  const { curves } = letterCurves(library, face, { text, font, heightMm: heightPx, ...(thickenMm === 0 ? {} : { thickenMm }) });
  const { left, top, right, bottom } = boundsOf(curves) as Bounds;
  const [width, height] = [Math.ceil(right - left) + 2 * MARGIN, Math.ceil(bottom - top) + 2 * MARGIN];
  const share = coverageOf(transformCurves(curves, translation(MARGIN + 0.3 - left, MARGIN + 0.4 - top)), width, height);
  return finish(fontOf(share, width, height, faces));
}

/** Characters that two texts have in the same order. */
function inCommon(a: string, b: string): number {
  let row = new Array<number>(b.length + 1).fill(0);
  for (const character of a) row = row.reduce<number[]>((next, above, k) => [...next, k === 0 ? 0 : character === b[k - 1] ? row[k - 1] + 1 : Math.max(above, next[k - 1])], []);
  return row[b.length];
}

describe('which font this is', () => {
  it('is told by the letters, small and large, and how high its capitals are', () => {
    for (const [k, font] of NAMES.entries()) {
      // Each is measured against all of them; every second one keeps the test short.
      if (k % 2 === 1) continue;
      const heightPx = 18 + 5 * ((k / 2) % 4);
      const [first, second] = guesses(['Rowing Club', 'Regatta 1886', 'Village Pond'][k % 3], font, heightPx);
      expect([first.font, Math.abs(first.heightPx / heightPx - 1) < 0.01, first.score > second.score]).toEqual([font, true, true]);
      // Most of what it says is read: some fonts draw two letters alike.
      const said = ['Rowing Club', 'Regatta 1886', 'Village Pond'][k % 3];
      expect(inCommon(first.text.toLowerCase(), said.toLowerCase()) / said.length, `${font}: ${first.text}`).toBeGreaterThan(0.7);
    }
  }, 60_000);

  it('is told of letters that came out thicker or thinner', () => {
    for (const thicker of [0.25, -0.25]) {
      const [first] = guesses('Harbour Mile', 'Lora', 30, thicker);
      expect([first.font, Math.abs(first.heightPx / 30 - 1) < 0.01]).toEqual(['Lora', true]);
    }
  }, 60_000);

  it('ranks all fonts, and refuses what has no letters', () => {
    const all = guesses('Oars', 'Oswald', 24);
    expect(all.map(({ font }) => font).sort()).toEqual([...NAMES].sort());
    for (const { score } of all) expect(score).toBeGreaterThan(0);
    expect(() => finish(fontOf(new Uint8Array(100), 10, 10, faces))).toThrow();
  }, 60_000);
});
