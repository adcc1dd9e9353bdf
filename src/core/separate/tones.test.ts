import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { artFromText, BLACK, paintedArt, randomFrom, WHITE } from '../../../tests/fixtures/shapes.ts';
import { toneLabels } from '../clean/settling/toneLabels.ts';
import type { Rgb } from '../colour/oklab.ts';
import { artFromPicture, withAlpha } from '../raster/art.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../raster/labelMap.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { dropSlivers } from '../clean/settling/dropSlivers.ts';
import { flatTones } from './flatTones.ts';
import { lightnessSteps, lightnessTones } from './lightnessTones.ts';
import { sweepLabels } from '../clean/settling/sweepLabels.ts';

const SAND: Rgb = { r: 227, g: 207, b: 164 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };

const labelsFrom = (rows: readonly string[]): LabelMap =>
  makeLabelMap(
    rows[0].length,
    rows.length,
    Uint8Array.from(rows.join(''), (c) => (c === ' ' ? CLEAR : Number(c))),
  );
const asText = ({ width, height, data }: LabelMap): string[] =>
  Array.from({ length: height }, (_, y) => Array.from(data.subarray(y * width, (y + 1) * width), (label) => (label === CLEAR ? ' ' : String(label))).join(''));

describe('sweepLabels', () => {
  it('gives small bits the label that touches them most, bits inside bits too', () => {
    expect(asText(sweepLabels(labelsFrom(['000000', '011100', '012100', '011122', '000022']), 3))).toEqual(['000000', '011100', '011100', '011122', '000022']);
    expect(asText(sweepLabels(labelsFrom(['0000000', '0111110', '0122210', '0123210', '0122210', '0111110', '0000000']), 12))).toEqual([
      '0000000',
      '0111110',
      '0111110',
      '0111110',
      '0111110',
      '0111110',
      '0000000',
    ]);
  });

  it('leaves nothing smaller than the size unless it is all there is, and changes nothing a second time', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), fc.integer({ min: 2, max: 9 }), (seed, least) => {
        const random = randomFrom(seed);
        const swept = sweepLabels(
          makeLabelMap(
            14,
            11,
            Uint8Array.from({ length: 154 }, () => Math.floor(random() * 3)),
          ),
          least,
        );
        const again = sweepLabels(swept, least);
        const regions = labelRegions(again.data, 14, 11, 'each', true);
        if (regions.count > 1) expect(Math.min(...regions.area)).toBeGreaterThanOrEqual(least);
        expect([...sweepLabels(again, least).data]).toEqual([...again.data]);
      }),
      { seed: 8, numRuns: 80 },
    );
  });

  it('does not change the map that comes in', () => {
    const map = labelsFrom(['000', '010', '000']);
    sweepLabels(map, 3);
    expect(asText(map)).toEqual(['000', '010', '000']);
  });
});

describe('dropSlivers', () => {
  const strip = (colour: Rgb): { labels: LabelMap; data: Uint8Array } => {
    const labels = makeLabelMap(
      12,
      9,
      Uint8Array.from({ length: 108 }, (_, i) => (i % 12 < 5 ? 0 : i % 12 === 5 ? 2 : 1)),
    );
    const data = new Uint8Array(108 * 4).fill(255);
    labels.data.forEach((label, i) => {
      const { r, g, b } = label === 2 ? colour : [SAND, BLUE][label];
      data.set([r, g, b], 4 * i);
    });
    return { labels, data };
  };
  const tones = [SAND, BLUE, { r: 140, g: 110, b: 120 }];

  it('parts a strip of mixed pixels between the two tones that it is a mixture of', () => {
    const { labels, data } = strip({ r: 128, g: 140, b: 155 });
    const out = finish(dropSlivers(labels, makeRgba8(12, 9, data), tones));
    expect(new Set(out.data.subarray(12, 96))).toEqual(new Set([0, 1]));
  });

  it('keeps a thin line that has its own colour', () => {
    const { labels, data } = strip({ r: 142, g: 106, b: 118 });
    expect([...finish(dropSlivers(labels, makeRgba8(12, 9, data), tones)).data]).toEqual([...labels.data]);
  });

  it('takes the blur of an edge for no line of a tone that looks like it, and keeps a line as broad as two pixels', () => {
    const [ink, pink, between] = [
      { r: 28, g: 27, b: 34 },
      { r: 240, g: 143, b: 176 },
      { r: 161, g: 80, b: 111 },
    ];
    const beside = (broad: number, colour: Rgb): { before: LabelMap; after: LabelMap } => {
      const before = makeLabelMap(
        12,
        9,
        Uint8Array.from({ length: 108 }, (_, i) => (i % 12 < 5 ? 0 : i % 12 < 5 + broad ? 2 : 1)),
      );
      const data = new Uint8Array(108 * 4).fill(255);
      before.data.forEach((label, i) => {
        const { r, g, b } = [ink, pink, colour][label];
        data.set([r, g, b], 4 * i);
      });
      return { before, after: finish(dropSlivers(before, makeRgba8(12, 9, data), [ink, pink, between])) };
    };
    const tonesInside = ({ data }: LabelMap): Set<number> => new Set(data.subarray(12, 96));
    // A pixel broad: that very colour, or one that compression has pulled off the way.
    for (const colour of [between, { r: 150, g: 100, b: 90 }]) expect(tonesInside(beside(1, colour).after)).toEqual(new Set([0, 1]));
    expect(tonesInside(beside(2, { r: 130, g: 100, b: 80 }).after)).toEqual(new Set([0, 1]));
    const line = beside(2, between);
    expect([...line.after.data]).toEqual([...line.before.data]);
  });
});

describe('thin lines', () => {
  const INK: Rgb = { r: 28, g: 27, b: 34 };
  const GREEN: Rgb = { r: 60, g: 122, b: 75 };
  const WHITE: Rgb = { r: 255, g: 255, b: 255 };
  /** A field with a line of a width around it, slanting so that every pixel of the line is mixed otherwise. */
  const framed = (width: number, field: Rgb): ReturnType<typeof paintedArt> =>
    paintedArt(90, 70, (x, y) => {
      const off = Math.max(Math.abs(0.97 * (x - 45) + 0.24 * (y - 35)) - 26, Math.abs(-0.24 * (x - 45) + 0.97 * (y - 35)) - 19);
      return off > width ? WHITE : off > 0 ? INK : field;
    });
  const inkIn = (art: ReturnType<typeof paintedArt>, count: number | 'auto'): { pieces: number; area: number; tones: number } => {
    const { labels, tones } = finish(flatTones(art, { count, leastAreaPx2: 5 }));
    const ink = tones.findIndex(({ r, g, b }) => r + g + b < 150);
    const regions = labelRegions(labels.data, labels.width, labels.height, ink, true);
    return { pieces: regions.count, area: regions.area.reduce((sum, area) => sum + area, 0), tones: tones.length };
  };

  it('around a field are one piece and found as a tone of their own, down to a pixel and a half', () => {
    for (const width of [1.5, 2, 3]) {
      for (const count of [3, 'auto'] as const) {
        const { pieces, area, tones } = inkIn(framed(width, GREEN), count);
        expect([pieces, tones]).toEqual([1, 3]);
        // Round the field of 52 × 38 px.
        expect(Math.abs(area / (2 * (52 + 38) * width + 4 * width * width) - 1)).toBeLessThan(0.25);
      }
    }
  });

  it('have the tone that explains their colours, not one that their mixture happens to be near', () => {
    // A green disc beside a hairline of ink whose pixels are all grey.
    const art = paintedArt(90, 60, (x, y) =>
      Math.hypot(x - 20, y - 30) < 14 ? GREEN : x > 70 && y > 40 ? INK : Math.abs(0.25 * (x - 62) + 0.97 * (y - 22)) < 0.45 && x > 40 && x < 84 ? INK : WHITE,
    );
    const { labels, tones } = finish(flatTones(art, { count: 3, leastAreaPx2: 5 }));
    const green = tones.findIndex(({ r, g }) => g > r + 30);
    const right = labels.data.filter((label, i) => label === green && i % 90 > 38);
    expect(right).toHaveLength(0);
  });

  it('are not made of single pixels, nor of mixtures between two areas', () => {
    const dotted = artFromPicture(
      makeRgba8(
        80,
        60,
        Uint8Array.from({ length: 80 * 60 * 4 }, (_, i) => {
          const [x, y] = [(i >> 2) % 80, Math.floor((i >> 2) / 80)];
          const tone = x < 40 ? WHITE : x % 4 === 1 && y % 4 === 2 ? INK : SAND;
          return [tone.r, tone.g, tone.b, 255][i & 3];
        }),
      ),
    );
    expect(finish(flatTones(dotted, { count: 'auto', leastAreaPx2: 5 })).tones).toHaveLength(2);
    const soft = paintedArt(80, 60, (x) =>
      x < 38
        ? RED
        : x > 42
          ? WHITE
          : { r: RED.r + ((255 - RED.r) * (x - 38)) / 4, g: RED.g + ((255 - RED.g) * (x - 38)) / 4, b: RED.b + ((255 - RED.b) * (x - 38)) / 4 },
    );
    expect(finish(flatTones(soft, { count: 'auto', leastAreaPx2: 5 })).tones).toHaveLength(2);
  });

  it('go where tints ran into each other, and stay where the line is drawn', () => {
    const ORANGE: Rgb = { r: 232, g: 122, b: 44 };
    const PURPLE: Rgb = { r: 107, g: 63, b: 127 };
    const BROWN: Rgb = { r: 122, g: 74, b: 43 };
    // Lightness changes at once, tint over three pixels: what is between has the lightness of the one and half the tint of the other.
    const labels = makeLabelMap(
      16,
      12,
      Uint8Array.from({ length: 192 }, (_, i) => (i % 16 < 8 ? 0 : i % 16 < 10 ? 2 : 1)),
    );
    const picture = (middle: Rgb): ReturnType<typeof makeRgba8> => {
      const data = new Uint8Array(192 * 4).fill(255);
      labels.data.forEach((label, i) =>
        data.set([[ORANGE, PURPLE, middle][label].r, [ORANGE, PURPLE, middle][label].g, [ORANGE, PURPLE, middle][label].b], 4 * i),
      );
      return makeRgba8(16, 12, data);
    };
    const tones = [ORANGE, PURPLE, BROWN];
    expect(new Set(finish(dropSlivers(labels, picture({ r: 132, g: 72, b: 83 }), tones)).data.subarray(16, 176))).toEqual(new Set([0, 1]));
    expect([...finish(dropSlivers(labels, picture(BROWN), tones)).data]).toEqual([...labels.data]);
  });
});

describe('flatTones', () => {
  const paint = (x: number, y: number): Rgb => (Math.hypot(x - 20.4, y - 21.3) < 12.2 ? RED : x > 40.3 && y > 8 && y < 36 ? BLUE : SAND);

  it('finds how many tones there are, and which is the background', () => {
    const { tones, labels, ground } = finish(flatTones(paintedArt(64, 48, paint), { count: 'auto', leastAreaPx2: 4 }));
    expect(tones).toHaveLength(3);
    expect(tones[ground]).toMatchObject(SAND);
    expect(tones[labels.data[21 * 64 + 20]]).toMatchObject(RED);
  });

  it('counts clear surroundings as the background', () => {
    const art = paintedArt(64, 48, paint);
    const alpha = Uint8Array.from(art.alpha, (_, i) => (paint((i % 64) + 0.5, Math.floor(i / 64) + 0.5) === SAND ? 0 : 255));
    const { tones, ground, labels } = finish(flatTones(withAlpha(art, alpha), { count: 3, leastAreaPx2: 4 }));
    expect([tones.length, ground, labels.data[0]]).toEqual([2, CLEAR, CLEAR]);
  });

  it('says when there is nothing to part', () => {
    expect(codeOf(() => finish(flatTones(artFromText(['....', '....', '....']), { count: 3, leastAreaPx2: 1 })))).toBe('oneColour');
    const checker = artFromText(Array.from({ length: 12 }, (_, y) => '#.'.repeat(7).slice(y % 2, (y % 2) + 13)));
    expect(codeOf(() => finish(flatTones(checker, { count: 'auto', leastAreaPx2: 1 })))).toBe('tooIntricate');
    expect(codeOf(() => finish(flatTones(artFromText(['    ', '    ', '    ']), { count: 3, leastAreaPx2: 1 })))).toBe('nothingToCut');
  });
});

describe('bits of a few pixels', () => {
  const isBit = (x: number, y: number): boolean => (Math.floor(x) === 20 && y > 14 && y < 17) || (Math.floor(x) === 30 && Math.floor(y) === 15);
  const isField = (x: number, y: number): boolean => Math.hypot(x - 32, y - 24) < 18.2;
  const wedge = (x: number, y: number): boolean => y > 44 && x > 4 && x < 60 - (y - 44) * 8;

  it('stay in calm art, down to two of them', () => {
    const art = paintedArt(64, 48, (x, y) => (isField(x, y) && !isBit(x, y) ? BLACK : WHITE));
    const { labels } = finish(flatTones(art, { count: 2, leastAreaPx2: 0 }));
    expect(labels.data[14 * 64 + 20]).toBe(labels.data[0]);
    expect(labels.data[16 * 64 + 20]).toBe(labels.data[0]);
    expect(labels.data[15 * 64 + 30]).toBe(labels.data[24 * 64 + 32]);
  });

  it('are noise where there is any, and tips of larger areas are none', () => {
    const noisy = paintedArt(64, 48, (x, y) => {
      const off = ((Math.floor(x) * 7919 + Math.floor(y) * 104_729) % 41) - 20;
      const { r, g, b } = isField(x, y) && !isBit(x, y) ? { r: 60, g: 60, b: 60 } : { r: 200, g: 200, b: 200 };
      return { r: r + off, g: g + off, b: b + off };
    });
    const { labels } = finish(flatTones(noisy, { count: 2, leastAreaPx2: 0 }));
    expect(labels.data[15 * 64 + 20]).toBe(labels.data[24 * 64 + 32]);
    const art = paintedArt(64, 48, (x, y) => (wedge(x, y) ? BLACK : WHITE));
    expect(finish(toneLabels(art, 2, 'ofBits')).labels).toEqual(finish(toneLabels(art, 2, 'none')).labels);
  });
});

describe('lightnessTones', () => {
  it('puts the steps between the heaps of a histogram', () => {
    const histogram = new Float64Array(256);
    for (const [at, count] of [
      [20, 50],
      [24, 40],
      [120, 30],
      [126, 60],
      [240, 100],
    ])
      histogram[at] = count;
    const steps = lightnessSteps(histogram, 3);
    expect(steps).toEqual([72, 183]);
    expect(lightnessSteps(histogram, 5)).toHaveLength(4);
    expect(lightnessSteps(new Float64Array(256).fill(1, 7, 9), 4)).toHaveLength(1);
  });

  it('labels a ramp from dark to light in order, the lightest as the blank', () => {
    const ramp = artFromPicture(
      makeRgba8(
        120,
        20,
        Uint8Array.from({ length: 9600 }, (_, i) => (i % 4 === 3 ? 255 : Math.floor((Math.floor(i / 4) % 120) * 2.1))),
      ),
    );
    const { labels, tones, ground, steps } = finish(lightnessTones(ramp, { count: 4, leastAreaPx2: 4 }));
    expect([tones.length, ground, steps.length]).toEqual([4, 3, 3]);
    const row = [...labels.data.subarray(10 * 120, 11 * 120)];
    expect(row).toEqual([...row].sort((a, b) => a - b));
    expect(new Set(row).size).toBe(4);
  });

  it('takes steps that are set by hand', () => {
    const ramp = artFromPicture(
      makeRgba8(
        256,
        4,
        Uint8Array.from({ length: 4096 }, (_, i) => (i % 4 === 3 ? 255 : Math.floor(i / 4) % 256)),
      ),
    );
    const { labels } = finish(lightnessTones(ramp, { count: 3, steps: [60, 200], leastAreaPx2: 1 }));
    const row = [...labels.data.subarray(256, 512)];
    expect(Math.abs(row.indexOf(1) - 60)).toBeLessThanOrEqual(1);
    expect(Math.abs(row.indexOf(2) - 200)).toBeLessThanOrEqual(1);
  });
});
