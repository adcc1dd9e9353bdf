import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { paintedArt } from '../../../tests/fixtures/shapes.ts';
import { hexFromRgb } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { finish } from '../task/task.ts';
import { shadedAreas } from './shadedAreas.ts';
import { shadeGroups } from './shadeGroups.ts';

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
  return { flat, shadow: [...shadeGroups(art, flat).ofGround].map((k) => hexFromRgb(flat.tones[k])) };
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

  it('is nothing where the shadow has an edge, or there is none', () => {
    expect(found(buoy(0.4, 1)).shadow).toEqual([]);
    expect(found(buoy(0, 20)).shadow).toEqual([]);
  });
});

/** Levels of a colour a share of the way to another. */
const between = (a: Rgb, b: Rgb, share: number): Rgb => ({
  r: Math.round(a.r + (b.r - a.r) * share),
  g: Math.round(a.g + (b.g - a.g) * share),
  b: Math.round(a.b + (b.b - a.b) * share),
});
const CREAM: Rgb = { r: 250, g: 232, b: 190 };
const SKY: Rgb = { r: 150, g: 205, b: 235 };
const RED: Rgb = { r: 180, g: 40, b: 46 };

/** A badge that goes from sky to navy, with a red hull and a sail that goes from cream to red-brown on it. */
const badge = (paint: (tone: Rgb) => Rgb = (tone) => tone): Art =>
  paintedArt(SIDE, SIDE, (x, y) => {
    if (Math.hypot(x - 150, y - 150) > 130) return PAPER;
    if (y > 190 && y < 225 && Math.abs(x - 150) < 80) return paint(RED);
    if (x > 90 && x < 145 && y > 60 && y < 180) return between(CREAM, { r: 120, g: 80, b: 20 }, (y - 60) / 120);
    return between(SKY, NAVY, Math.max(0, Math.min(1, (y - 20) / 260)));
  });

describe('the shades of an area', () => {
  const grouped = (art: Art) => {
    const flat = finish(flatTones(art, { count: 'auto', leastAreaPx2: 5 }));
    return { flat, ...shadeGroups(art, flat) };
  };

  it('are one group: a badge and a sail with a gradient each, a flat hull and the paper by themselves', async () => {
    for (const art of [badge(), await asJpeg(badge(), 80)]) {
      const found = finish(shadedAreas(art, 5));
      if (found === undefined) throw new Error('no areas');
      const { flat, groupOf } = found;
      expect([flat.tones.length > 8, new Set(groupOf).size]).toEqual([true, 4]);
      const groupAt = (x: number, y: number): number => groupOf[flat.labels.data[y * SIDE + x]];
      // Also the lightest and the darkest end of each gradient.
      expect([groupAt(150, 23), groupAt(220, 150)]).toEqual([groupAt(150, 277), groupAt(150, 277)]);
      expect([groupAt(115, 63), groupAt(115, 120)]).toEqual([groupAt(115, 177), groupAt(115, 177)]);
      expect(new Set([groupAt(150, 270), groupAt(115, 80), groupAt(150, 205)]).size).toBe(3);
      expect([groupAt(5, 5), flat.ground]).toEqual([flat.ground, groupOf[flat.ground]]);
    }
  });

  it('are told from light areas on a ground whose lightest place is as light', () => {
    const sail = paintedArt(SIDE, SIDE, (x, y) => {
      if (x > 110 && x < 190 && y > 60 && y < 240) return { r: 253, g: 253, b: 253 };
      return between({ r: 232, g: 241, b: 243 }, { r: 134, g: 169, b: 176 }, Math.min(1, Math.hypot(x - 80, y - 80) / 290));
    });
    const found = finish(shadedAreas(sail, 5));
    const groupAt = (x: number, y: number): number | undefined => found?.groupOf[found.flat.labels.data[y * SIDE + x]];
    expect([new Set(found?.groupOf).size, groupAt(82, 82), groupAt(295, 295)]).toEqual([2, found?.flat.ground, found?.flat.ground]);
    expect(groupAt(150, 150)).not.toBe(found?.flat.ground);
  });

  it('leave the shadow of shaded art out too', () => {
    const shaded = buoy(0.3, 26);
    const { groupOf, ofGround, flat } = grouped(
      paintedArt(SIDE, SIDE, (x, y) => {
        const i = 4 * (Math.floor(y) * SIDE + Math.floor(x));
        const [r, g, b] = shaded.colour.data.subarray(i, i + 3);
        // The buoy itself goes from navy to a pale blue.
        return between({ r, g, b }, { r: 170, g: 200, b: 235 }, Math.hypot(x - 140, y - 130) < 80 ? Math.max(0, Math.min(1, (x - 80) / 110)) : 0);
      }),
    );
    expect([new Set(groupOf).size, ofGround.size > 0, ofGround.has(flat.ground)]).toEqual([3, true, false]);
  });

  it('are none in flat art, however few px its tones have, and in art that is blurred all over', async () => {
    const flat = grouped(await asJpeg(buoy(0, 20), 40));
    expect([flat.hasShadedArea, flat.ofGround.size]).toEqual([false, 0]);
    const blurred = paintedArt(SIDE, SIDE, (x) => between(between(PAPER, RED, Math.max(0, Math.min(1, (x - 60) / 40))), NAVY, Math.max(0, Math.min(1, (x - 180) / 40))));
    expect(grouped(blurred)).toMatchObject({ hasShadedArea: false, groupOf: grouped(blurred).flat.tones.map((_, k) => k) });
  });
});
