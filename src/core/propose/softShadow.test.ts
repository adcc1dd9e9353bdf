import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { paintedArt } from '../../../tests/fixtures/shapes.ts';
import { hexFromRgb } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { finish } from '../task/task.ts';
import { softShadow } from './softShadow.ts';

const PAPER: Rgb = { r: 250, g: 249, b: 246 };
const NAVY: Rgb = { r: 34, g: 55, b: 95 };
const GREY: Rgb = { r: 110, g: 109, b: 108 };
const SIDE = 300;

/** A buoy on paper, as dark beside it as is said and fading over so many px; and a grey tag. */
const buoy = (dark: number, fadesPx: number, tag = GREY): Art =>
  paintedArt(SIDE, SIDE, (x, y) => {
    if (Math.hypot(x - 140, y - 130) < 80) return NAVY;
    if (x > 20 && x < 70 && y > 230 && y < 270) return tag;
    const away = Math.hypot(x - 150, y - 142) - 80;
    const light = 1 - dark * Math.max(0, Math.min(1, 0.5 - away / fadesPx));
    return { r: Math.round(PAPER.r * light), g: Math.round(PAPER.g * light), b: Math.round(PAPER.b * light) };
  });
const found = (art: Art): { flat: FlatTones; shadow: readonly string[] } => {
  const flat = finish(flatTones(art, { count: 'auto', leastAreaPx2: 5 }));
  return { flat, shadow: [...softShadow(art, flat)].map((k) => hexFromRgb(flat.tones[k])) };
};

describe('the soft shadow of flat art', () => {
  it('is every tone that only fades from the ground, and no area of its own', async () => {
    for (const art of [buoy(0.3, 26), await asJpeg(buoy(0.3, 26), 80)]) {
      const { flat, shadow } = found(art);
      // Paper, navy and the grey tag stay.
      expect([shadow.length > 0, flat.tones.length - shadow.length]).toEqual([true, 3]);
    }
  });

  it('keeps a tone that is an area somewhere else', () => {
    const { flat, shadow } = found(buoy(0.4, 26, { r: 190, g: 189, b: 187 }));
    const at = flat.labels.data[250 * SIDE + 45];
    expect([at !== flat.ground, shadow.includes(hexFromRgb(flat.tones[at]))]).toEqual([true, false]);
  });

  it('is nothing in art that is shaded itself', () => {
    const shaded = buoy(0.3, 26);
    const art = paintedArt(SIDE, SIDE, (x, y) => {
      const i = 4 * (Math.floor(y) * SIDE + Math.floor(x));
      const [r, g, b] = shaded.colour.data.subarray(i, i + 3);
      // The buoy itself goes from navy to a pale blue.
      const light = Math.hypot(x - 140, y - 130) < 80 ? Math.max(0, Math.min(1, (x - 80) / 110)) : 0;
      return { r: Math.round(r + (170 - r) * light), g: Math.round(g + (200 - g) * light), b: Math.round(b + (235 - b) * light) };
    });
    expect(found(art).shadow).toEqual([]);
  });

  it('is nothing where the shadow has an edge, or there is none', () => {
    expect(found(buoy(0.4, 1)).shadow).toEqual([]);
    expect(found(buoy(0, 20)).shadow).toEqual([]);
  });
});
