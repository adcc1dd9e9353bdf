import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { paintedArt } from '../../../tests/fixtures/shapes.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { toneLabels } from './settling/toneLabels.ts';
import { findPalette } from './palette.ts';
import { PLAIN } from './plainPixels.ts';

const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const CREAM: Rgb = { r: 245, g: 233, b: 209 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };
const GREEN: Rgb = { r: 60, g: 122, b: 75 };
const INK: Rgb = { r: 28, g: 27, b: 34 };
const SAND: Rgb = { r: 227, g: 207, b: 164 };
const YELLOW: Rgb = { r: 242, g: 182, b: 50 };
const GREY: Rgb = { r: 200, g: 202, b: 206 };

const tonesOf = (art: Art): readonly Rgb[] => finish(toneLabels(art, 'auto', 'none')).tones;
/** Of art of which every pixel is read. */
const paletteOf = ({ colour, alpha }: Art): readonly Rgb[] => findPalette(colour, new Uint8Array(alpha.length).fill(PLAIN), 'auto');
const has = (tones: readonly Rgb[], tone: Rgb): boolean => tones.some((other) => colourDifference(tone, other) < 5);
const mixed = (a: Rgb, b: Rgb, share: number): Rgb => ({ r: a.r + (b.r - a.r) * share, g: a.g + (b.g - a.g) * share, b: a.b + (b.b - a.b) * share });

describe('the number of tones', () => {
  it('counts near tones with broad areas that meet at an edge, and not the shades of one', () => {
    const edge = tonesOf(paintedArt(160, 120, (x) => (x < 80 ? WHITE : CREAM)));
    expect([edge.length, has(edge, WHITE), has(edge, CREAM)]).toEqual([2, true, true]);
    // The same two colours, passing slowly into each other.
    expect(tonesOf(paintedArt(160, 120, (x) => mixed(WHITE, CREAM, Math.max(0, Math.min(1, (x - 20) / 120)))))).toHaveLength(1);
    // Further apart than a glance tells, and apart on the picture.
    expect(tonesOf(paintedArt(160, 120, (x) => (x < 60 ? WHITE : x < 80 ? BLUE : CREAM)))).toHaveLength(3);
  });

  it('counts a dot that is hardly a thousandth of the picture, whatever lies between its colour and others', () => {
    // Green lies near to the way from blue to a yellowish tone; a dot of it is no mixture, for it has an inside.
    const dot = (radius: number): readonly Rgb[] =>
      tonesOf(paintedArt(300, 300, (x, y) => (Math.hypot(x - 220, y - 200) < radius ? GREEN : x < 110 ? BLUE : x < 160 ? { r: 84, g: 164, b: 40 } : WHITE)));
    expect(has(dot(7), GREEN)).toBe(true);
    expect(has(dot(0), GREEN)).toBe(false);
  });

  it('counts a small patch of which little is inside beside a near tone, unless others mix to it', () => {
    const found = (tone: Rgb): readonly Rgb[] =>
      paletteOf(paintedArt(200, 200, (x, y) => (x >= 150 && x < 156 && y >= 150 && y < 157 ? tone : x < 60 ? SAND : WHITE)));
    expect(has(found(YELLOW), YELLOW)).toBe(true);
    expect(found(YELLOW)).toHaveLength(3);
    expect(found(mixed(SAND, WHITE, 0.5))).toHaveLength(2);
  });

  it('joins what is no tone before two that are', () => {
    // Two near tones, small, and specks of a third one in which nothing is inside: it costs more to join those, being far from all.
    const art = paintedArt(200, 200, (x, y) =>
      y >= 180 && y < 188 && x >= 20 && x < 28 ? SAND : y >= 180 && y < 188 && x >= 60 && x < 68 ? YELLOW : Math.floor(y) === 20 && x < 60 && Math.floor(x) % 2 === 0 ? INK : WHITE,
    );
    const tones = paletteOf(art);
    expect([has(tones, SAND), has(tones, YELLOW), has(tones, INK)]).toEqual([true, true, false]);
  });

  it('takes hairlines that lie between rows of pixels for one ink', () => {
    // Lines of 0.9 px at all angles: darker where they fill a pixel, paler where they lie between two.
    const lines = tonesOf(
      paintedArt(120, 120, (x, y) => {
        const turn = Math.atan2(y - 60, x - 60);
        const off = Math.min(
          ...[0, 1, 2, 3, 4, 5, 6].map((k) => Math.abs(Math.hypot(x - 60, y - 60) * Math.sin(turn - 0.21 - (k * Math.PI) / 7))),
          Math.abs(Math.hypot(x - 60, y - 60) - 44),
        );
        return mixed(WHITE, INK, Math.max(0, Math.min(1, 0.95 - off)));
      }),
    );
    expect(lines).toHaveLength(2);
  });

  it('counts the ink of one line along coloured areas after strong compression, which has no plain pixels and no ground on both sides', async () => {
    const line = (x: number): number => 40.3 + x * 0.19;
    const art = paintedArt(400, 400, (x, y) => {
      const below = y - line(x);
      if (x < 30 || x > 370 || below < 0) return WHITE;
      if (below < 5) return INK;
      const [at, which] = [Math.abs((x % 68) - 34), Math.floor(x / 68) % 3];
      return below < 5 + 90 * (1 - at / 32) ? [BLUE, YELLOW, GREEN][which] : WHITE;
    });
    const tones = tonesOf(await asJpeg(art, 40));
    expect([tones.length, tones.some((tone) => colourDifference(tone, INK) < 12)]).toEqual([5, true]);
  });

  it('keeps a pale line for a tone of its own beside black ones', () => {
    const tones = tonesOf(
      paintedArt(220, 160, (x, y) => (Math.abs(Math.hypot(x - 60, y - 80) - 40) < 1.5 ? GREY : Math.abs(Math.hypot(x - 160, y - 80) - 40) < 1.5 ? INK : WHITE)),
    );
    expect([tones.length, has(tones, GREY), has(tones, INK)]).toEqual([3, true, true]);
  });

  it('counts a pale line that a darker area beside it could mix to, when it is broad enough to have that colour itself', () => {
    const navy: Rgb = { r: 33, g: 55, b: 96 };
    const grey: Rgb = { r: 201, g: 201, b: 198 };
    /** A sail held by a line of some breadth, before a mast. */
    const sail = (breadth: number, line: Rgb): readonly Rgb[] =>
      tonesOf(paintedArt(400, 300, (x, y) => (x > 280 && x < 320 ? navy : Math.abs(Math.hypot(x - 130, y - 150) - 90.3) < breadth / 2 ? line : WHITE)));
    expect([sail(3, grey).length, has(sail(3, grey), grey)]).toEqual([3, true]);
    // Hairlines of the mast's own colour are as pale here and there, and no tone.
    for (const breadth of [0.4, 0.8, 1.5, 2]) expect(sail(breadth, navy)).toHaveLength(2);
  });
});

describe('a number that is given', () => {
  it('finds tones as pale and as near to each other as that takes', async () => {
    const pale: readonly Rgb[] = [
      { r: 255, g: 253, b: 248 },
      { r: 251, g: 227, b: 228 },
      { r: 232, g: 241, b: 242 },
      { r: 214, g: 234, b: 223 },
    ];
    const art = paintedArt(240, 180, (x, y) => (Math.hypot(x - 120, y - 90) > 84 ? pale[0] : y > 40 && y < 110 && x > 60 && x < 112 ? pale[2] : y > 50 && y < 110 && x > 124 && x < 170 ? pale[3] : pale[1]));
    for (const each of [art, await asJpeg(art, 85)]) {
      const tones = finish(toneLabels(each, 4, 'none')).tones;
      expect(pale.map((tone) => tones.some((other) => colourDifference(tone, other) < 1.5))).toEqual([true, true, true, true]);
    }
  });
});
