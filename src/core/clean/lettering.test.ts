import { describe, expect, it } from 'vitest';
import { artFromShare, sampled } from '../../../tests/fixtures/shapes.ts';
import type { RectPx } from '../raster/crop.ts';
import { finish } from '../task/task.ts';
import { letteringMask } from './lettering.ts';
import { inkMask, lineEnds } from './lineEnds.ts';
import { mendGaps } from './mendGaps.ts';

const WIDTH = 260;
const HEIGHT = 200;
/** Letters of five by seven squares. */
const GLYPHS: Readonly<Record<string, readonly string[]>> = {
  F: ['#####', '#    ', '#    ', '#### ', '#    ', '#    ', '#    '],
  L: ['#    ', '#    ', '#    ', '#    ', '#    ', '#    ', '#####'],
  E: ['#####', '#    ', '#    ', '#### ', '#    ', '#    ', '#####'],
  T: ['#####', '  #  ', '  #  ', '  #  ', '  #  ', '  #  ', '  #  '],
};
type Inside = (x: number, y: number) => boolean;
/** A word with squares of so many px, with its upper left corner at a place, turned about it. */
const word =
  (text: string, left: number, top: number, square: number, turnRad = 0): Inside =>
  (px, py) => {
    const x = ((px - left) * Math.cos(turnRad) + (py - top) * Math.sin(turnRad)) / square;
    const y = ((py - top) * Math.cos(turnRad) - (px - left) * Math.sin(turnRad)) / square;
    return x >= 0 && y >= 0 && GLYPHS[text[Math.floor(x / 6)]]?.[Math.floor(y)]?.[Math.floor(x % 6)] === '#';
  };
const brokenRing: Inside = (x, y) => Math.abs(Math.hypot(x - 60, y - 130) - 45) <= 2.5 && !(Math.abs(x - 60) < 4 && y > 130);
const ofAll =
  (...parts: readonly Inside[]): Inside =>
  (x, y) =>
    parts.some((inside) => inside(x, y));
const maskOf = (inside: Inside): { ink: Uint8Array; mask: Uint8Array } => {
  const share = sampled(WIDTH, HEIGHT, inside);
  const ink = inkMask(share);
  return { ink, mask: letteringMask(ink, WIDTH, HEIGHT, finish(lineEnds(share))) };
};
const jointsOf = (inside: Inside, frame?: RectPx): number => finish(mendGaps(artFromShare(sampled(WIDTH, HEIGHT, inside)), 12, [], frame)).joints.length;

describe('lettering', () => {
  it('is all ink of a word, straight or aslant, and not the drawing beside it', () => {
    for (const turn of [0, 0.35]) {
      const { ink, mask } = maskOf(word('FLEET', 20, 10, 6, turn));
      expect(ink.reduce((sum, value) => sum + value, 0)).toBeGreaterThan(2000);
      expect([...mask]).toEqual([...ink]);
    }
    const both = maskOf(ofAll(word('FLEET', 20, 10, 6), brokenRing));
    expect(both.mask.some((value, i) => value === 1 && i >= 80 * WIDTH)).toBe(false);
    expect(both.mask.every((value, i) => i >= 60 * WIDTH || value === both.ink[i])).toBe(true);
  });

  it('is neither two letters, nor dashes in a row, nor an outline in pieces', () => {
    const dashes: Inside = (x, y) => Math.abs(y - 40) <= 3 && x > 10 && x < 250 && x % 40 > 10;
    const pieces: Inside = (x, y) => Math.abs(Math.hypot(x - 130, y - 100) - 80) <= 3 && ((Math.atan2(y - 100, x - 130) + Math.PI) * 80) % 72 > 8;
    for (const drawing of [word('EF', 20, 10, 6), dashes, pieces]) expect(maskOf(drawing).mask.some((value) => value === 1)).toBe(false);
    expect(jointsOf(dashes)).toBeGreaterThanOrEqual(4);
    expect(jointsOf(pieces)).toBeGreaterThanOrEqual(6);
  });

  it('is left as it is where a drawing beside it is mended', () => {
    expect(jointsOf(word('FLEET', 20, 10, 6))).toBe(0);
    // A frame round it is a person's word.
    expect(jointsOf(word('FLEET', 20, 10, 6), { xPx: 0, yPx: 0, widthPx: WIDTH, heightPx: 70 })).toBeGreaterThan(0);
    expect(jointsOf(ofAll(word('FLEET', 20, 10, 6), brokenRing))).toBe(1);
  });
});
