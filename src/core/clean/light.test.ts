import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../tests/fixtures/shapes.ts';
import { artFromPicture, withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { levelLight } from './levelLight.ts';
import { pickLines } from './pickLines.ts';
import { applyLevels, fullContrast, levelsTable } from './levels.ts';

const WIDTH = 240;
const HEIGHT = 180;

/** Reflectance 0 to 1 under a light, both by place; with the sensor's noise. */
function lit(reflectance: (x: number, y: number) => number, light: (x: number, y: number) => number, sigma = 2): Art {
  const data = new Uint8Array(WIDTH * HEIGHT * 4);
  const random = randomFrom(4);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const noise = sigma * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      const value = Math.max(0, Math.min(255, Math.round(255 * reflectance(x, y) * light(x, y) + noise)));
      data.set([value, Math.round(value * 0.97), Math.round(value * 0.9), 255], (y * WIDTH + x) * 4);
    }
  }
  return artFromPicture(makeRgba8(WIDTH, HEIGHT, data, true));
}

const stroke = (x: number, y: number): number => (Math.abs(y - 60) < 3 || Math.abs(x - 120) < 3 ? 0.1 : 1);
const broad = (x: number, y: number): number => (x > 60 && x < 190 && y > 40 && y < 150 ? 0.12 : 1);
const slope = (x: number, y: number): number => 0.95 - 0.35 * (x / WIDTH) - 0.1 * (y / HEIGHT);
const vignette = (x: number, y: number): number => 0.95 - 0.4 * Math.hypot(x / WIDTH - 0.5, y / HEIGHT - 0.5) ** 2;
const green = (art: Art, x: number, y: number): number => art.colour.data[(y * WIDTH + x) * 4 + 1];

describe('light levelling', () => {
  it('makes paper white under a slope and a vignette, and keeps strokes dark', () => {
    for (const light of [slope, vignette]) {
      const { art } = finish(levelLight(lit(stroke, light)));
      for (const [x, y] of [
        [8, 8],
        [230, 8],
        [8, 170],
        [230, 170],
        [60, 120],
        [200, 100],
      ])
        expect(green(art, x, y)).toBeGreaterThan(243);
      for (const [x, y] of [
        [40, 60],
        [220, 60],
        [120, 20],
        [120, 170],
      ])
        expect(green(art, x, y)).toBeLessThan(70);
    }
  });

  it('does not take a broad dark area for shadow', () => {
    const { art } = finish(levelLight(lit(broad, slope)));
    for (const [x, y] of [
      [70, 50],
      [125, 95],
      [180, 140],
    ])
      expect(green(art, x, y)).toBeLessThan(60);
    for (const [x, y] of [
      [20, 90],
      [225, 90],
      [120, 12],
      [120, 170],
    ])
      expect(green(art, x, y)).toBeGreaterThan(238);
  });

  it('leaves even paper as it is but for its tone, says how far the light fell off, and does nothing at strength 0', () => {
    const even = lit(stroke, () => 0.95);
    expect(finish(levelLight(even)).fallOffPercent).toBeLessThan(4);
    expect(finish(levelLight(lit(stroke, slope))).fallOffPercent).toBeGreaterThan(25);
    expect([...finish(levelLight(even, 0)).art.colour.data]).toEqual([...even.colour.data]);
  });

  it('leaves even tones even where art fills its frame, and a thin light line on them lighter', () => {
    // Sky above, a green bank, blue water with one white line of foam.
    const tones = { sky: [156, 201, 230], bank: [60, 122, 75], water: [36, 80, 154], foam: [255, 255, 255] } as const;
    const toneAt = (x: number, y: number): keyof typeof tones =>
      y < 50 + 8 * Math.sin(x / 30) ? 'sky' : y < 100 ? 'bank' : y === 140 && x > 150 && x < 190 ? 'foam' : 'water';
    const picture = Uint8Array.from({ length: WIDTH * HEIGHT * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : tones[toneAt((i >> 2) % WIDTH, Math.floor((i >> 2) / WIDTH))][i % 4],
    );
    const { art } = finish(levelLight(artFromPicture(makeRgba8(WIDTH, HEIGHT, picture, true))));
    const seen = new Map<string, Set<number>>();
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) seen.set(toneAt(x, y), (seen.get(toneAt(x, y)) ?? new Set()).add(green(art, x, y)));
    for (const values of seen.values()) expect(Math.max(...values) - Math.min(...values)).toBeLessThanOrEqual(1);
    const [sky, foam] = ['sky', 'foam'].map((tone) => Math.max(...(seen.get(tone) ?? [])));
    expect(foam - sky).toBeGreaterThan(20);
  });

  it('never looks at clear pixels, and lives with art that is all clear or all dark', () => {
    const art = lit(stroke, slope);
    const halfClear = withAlpha(
      art,
      art.alpha.map((_, i) => (i % WIDTH < 120 ? 0 : 255)),
    );
    expect(green(finish(levelLight(halfClear)).art, 200, 100)).toBeGreaterThan(240);
    expect(finish(levelLight(withAlpha(art, new Uint8Array(art.alpha.length)))).art.width).toBe(WIDTH);
    expect(
      finish(
        levelLight(
          lit(
            () => 0.05,
            () => 1,
          ),
        ),
      ).art.width,
    ).toBe(WIDTH);
  });
});

const alphaAt = (art: Art, x: number, y: number): number => art.alpha[y * WIDTH + x];

describe('line pick', () => {
  const pencil = (_x: number, y: number): number => (Math.abs(y - 110) < 1.5 ? 0.78 : 1);

  it('leaves edges where they are drawn: mixed pixels keep the share of ink that they hold, under a slope too', () => {
    // A slanting edge whose pixels hold every share; sampled ten by ten.
    const shareAt = (x: number, y: number): number => {
      let hits = 0;
      for (let k = 0; k < 100; k++) if (x + ((k % 10) + 0.5) / 10 - 80 > 0.31 * (y + (Math.floor(k / 10) + 0.5) / 10) && x < 140) hits++;
      return hits / 100;
    };
    for (const light of [() => 0.97, slope]) {
      const { art } = finish(
        pickLines(
          lit((x, y) => 1 - 0.88 * shareAt(x, y), light, 0.5),
          0.5,
        ),
      );
      let [off, count] = [0, 0];
      for (let y = 20; y < HEIGHT - 20; y++) {
        for (let x = 70; x < 136; x++) {
          const share = shareAt(x, y);
          if (share <= 0.02 || share >= 0.98) continue;
          off += Math.abs(alphaAt(art, x, y) / 255 - share);
          count++;
        }
      }
      expect(count).toBeGreaterThan(100);
      expect(off / count).toBeLessThan(0.05);
    }
  });

  it('keeps ink under any light and drops paper and pencil', () => {
    for (const light of [slope, vignette]) {
      const { art } = finish(
        pickLines(
          lit((x, y) => stroke(x, y) * pencil(x, y), light),
          0.3,
        ),
      );
      for (const [x, y] of [
        [40, 60],
        [220, 60],
        [120, 20],
        [120, 170],
      ])
        expect(alphaAt(art, x, y)).toBe(255);
      for (const [x, y] of [
        [8, 8],
        [230, 170],
        [60, 140],
        [30, 110],
        [200, 110],
      ])
        expect(alphaAt(art, x, y)).toBe(0);
    }
  });

  it('keeps the middle of a broad filled area', () => {
    const { art } = finish(pickLines(lit(broad, slope), 0.4));
    expect(alphaAt(art, 125, 95)).toBe(255);
    expect(alphaAt(art, 20, 90)).toBe(0);
  });

  it('takes more the more detail is wanted, never less', () => {
    const art = lit((x, y) => stroke(x, y) * pencil(x, y), slope);
    let before = 0;
    for (const detail of [0, 0.25, 0.5, 0.75, 1]) {
      const { inkShare } = finish(pickLines(art, detail));
      expect(inkShare).toBeGreaterThanOrEqual(before);
      before = inkShare;
    }
    expect(alphaAt(finish(pickLines(art, 1)).art, 30, 110)).toBeGreaterThan(128);
  });

  it('keeps what was clear clear, and the width of a stroke', () => {
    const art = lit(stroke, () => 0.95, 1);
    const half = withAlpha(
      art,
      art.alpha.map((_, i) => (i % WIDTH < 100 ? 0 : 255)),
    );
    expect(alphaAt(finish(pickLines(half, 0.4)).art, 40, 60)).toBe(0);
    const { art: picked } = finish(pickLines(art, 0.4));
    let covered = 0;
    for (let y = 45; y < 75; y++) covered += alphaAt(picked, 40, y) / 255;
    expect(covered).toBeCloseTo(5, -0.5);
  });
});

describe('line pick by one threshold', () => {
  const even = lit(
    (x, y) => stroke(x, y),
    () => 1,
    2,
  );

  it('keeps ink under even light, found or given, with its edges inside the pixel', () => {
    for (const threshold of ['found', 128] as const) {
      const { art, inkShare } = finish(pickLines(even, 0.5, threshold));
      expect([alphaAt(art, 40, 60), alphaAt(art, 40, 120)]).toEqual([255, 0]);
      expect(inkShare).toBeGreaterThan(0.005);
      expect(inkShare).toBeLessThan(0.5);
    }
    // A mid-grey mark beside the ink: with little detail it goes, with much it stays.
    const marked = lit(
      (x, y) => Math.min(stroke(x, y), Math.hypot(x - 200, y - 40) < 8 ? 0.5 : 1),
      () => 1,
      2,
    );
    const [faint, full] = [0, 1].map((detail) => alphaAt(finish(pickLines(marked, detail, 'found')).art, 200, 40));
    expect(faint).toBeLessThan(20);
    expect(full).toBeGreaterThan(235);
  });

  it('takes a darker threshold for less and keeps what was clear', () => {
    const shares = [60, 128, 200].map((threshold) => finish(pickLines(even, 0, threshold)).inkShare);
    expect(shares[0]).toBeLessThanOrEqual(shares[1]);
    expect(shares[1]).toBeLessThanOrEqual(shares[2]);
    const cleared = { ...even, alpha: new Uint8Array(even.alpha.length) };
    expect(finish(pickLines(cleared, 0.5, 'found')).inkShare).toBe(0);
  });
});

describe('levels', () => {
  const plain = { black: 0, white: 255, gamma: 1, saturation: 1, invert: false };

  it('leaves everything alone at its defaults, and inverting twice too', () => {
    const art = lit(stroke, slope);
    expect([...applyLevels(art.colour, plain).data]).toEqual([...art.colour.data]);
    const twice = applyLevels(applyLevels(art.colour, { ...plain, invert: true }), { ...plain, invert: true });
    expect([...twice.data]).toEqual([...art.colour.data]);
  });

  it('never turns the order of two tones round', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 1, max: 55 }), fc.double({ min: 0.1, max: 10, noNaN: true }), (black, span, gamma) => {
        const table = levelsTable({ ...plain, black, white: black + span, gamma });
        for (let v = 1; v < 256; v++) expect(table[v]).toBeGreaterThanOrEqual(table[v - 1]);
        expect([table[black], table[black + span]]).toEqual([0, 255]);
      }),
      { seed: 8, numRuns: 60 },
    );
  });

  it('shifts by brightness and turns about the middle by contrast', () => {
    expect([0, 128, 255].map((v) => levelsTable({ ...plain, brightness: 0.5 })[v])).toEqual([64, 192, 255]);
    expect([...levelsTable({ ...plain, contrast: -1 })].every((v) => v === 128)).toBe(true);
    const hard = levelsTable({ ...plain, contrast: 0.5 });
    expect([hard[40], hard[215]]).toEqual([0, 255]);
    expect(hard[127] + hard[128]).toBe(255);
    expect([...levelsTable({ ...plain, brightness: 0, contrast: 0 })]).toEqual([...levelsTable(plain)]);
  });

  it('brings a pale drawing to full black and white, and says when there is nothing to stretch', () => {
    const pale = lit(
      (x, y) => 0.72 + 0.2 * stroke(x, y),
      () => 1,
      1,
    );
    const points = fullContrast(pale.colour)!;
    const black = applyLevels(pale.colour, { ...plain, ...points });
    expect(black.data[(60 * WIDTH + 40) * 4]).toBeLessThan(20);
    expect(black.data[(120 * WIDTH + 40) * 4]).toBeGreaterThan(235);
    expect(
      fullContrast(
        lit(
          () => 0.5,
          () => 1,
          0,
        ).colour,
      ),
    ).toBeUndefined();
  });

  it('takes the colour out and keeps the lightness', () => {
    const grey = applyLevels(makeRgba8(1, 1, new Uint8Array([180, 90, 40, 77])), { ...plain, saturation: 0 });
    expect(grey.data[0]).toBe(grey.data[2]);
    expect(grey.data[1]).toBeCloseTo(0.2126 * 180 + 0.7152 * 90 + 0.0722 * 40, -0.5);
    expect(grey.data[3]).toBe(77);
  });
});
