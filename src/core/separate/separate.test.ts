import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { artFromShare, artFromText, BLACK, disc, randomFrom, sampled, WHITE } from '../../../tests/fixtures/shapes.ts';
import { artFromPicture, isOpaque, withAlpha } from '../raster/art.ts';
import { makeRgba8, wordsOf } from '../raster/raster.ts';
import { lumaAt, lumaHistogram } from '../raster/luma.ts';
import { ringArea, ringCount } from '../outline/curves.ts';
import { outlineOf } from '../outline/traceOutline.ts';
import { joinThinStrokes } from './joinThinStrokes.ts';
import { oneTone, type OneToneOptions } from './oneTone.ts';
import { otsu } from '../raster/otsu.ts';

const AUTO: OneToneOptions = { source: 'threshold', threshold: 'auto', inkIs: 'auto' };
const share = disc(48, 48, 24.3, 23.6, 15.2);

describe('luma', () => {
  it('takes clear for white and keeps black and white exact', () => {
    const art = artFromText(['#. ']);
    expect([0, 1, 2].map((i) => lumaAt(wordsOf(art.colour), art.alpha, i))).toEqual([0, 255, 255]);
    expect([lumaHistogram(art).there, isOpaque(art.alpha)]).toEqual([2, false]);
    expect([isOpaque(new Uint8Array(9).fill(255)), isOpaque(new Uint8Array(7).fill(255).fill(254, 6))]).toEqual([true, false]);
  });
});

describe('otsu', () => {
  it('parts two tones in the middle and is sure of it', () => {
    const histogram = new Float64Array(256);
    histogram[40] = 300;
    histogram[220] = 700;
    const cut = otsu(histogram);
    expect([cut.dark, cut.light]).toEqual([40, 220]);
    expect(cut.threshold).toBe(129);
    expect(cut.separation).toBeCloseTo(1, 6);
  });

  it('lives with an empty histogram', () => {
    expect(otsu(new Float64Array(256)).separation).toBe(0);
  });
});

describe('oneTone', () => {
  it('gives every mixed pixel its share of ink', () => {
    const tone = oneTone(artFromShare(share), AUTO);
    let worst = 0;
    for (let i = 0; i < share.data.length; i++) worst = Math.max(worst, Math.abs(tone.share.data[i] - share.data[i]));
    expect(worst).toBeLessThanOrEqual(3);
    expect(tone.ink).toEqual(BLACK);
  });

  it('takes the light tone for ink on a dark ground', () => {
    const tone = oneTone(artFromShare(share, WHITE, { r: 30, g: 40, b: 70 }), AUTO);
    expect(tone.inkIs).toBe('light');
    expect(tone.share.data[24 * 48 + 24]).toBe(255);
    expect(tone.share.data[0]).toBe(0);
  });

  it('holds a threshold that is set', () => {
    const grey = artFromShare(share, { r: 120, g: 120, b: 120 }, WHITE);
    const at = (threshold: number): number => oneTone(grey, { ...AUTO, threshold }).share.data[24 * 48 + 24];
    expect(at(200)).toBeGreaterThan(128);
    expect(at(60)).toBeLessThan(128);
  });

  it('takes everything that is not clear by its alpha', () => {
    const art = withAlpha(artFromShare(share), share.data.slice());
    const tone = oneTone(art, { ...AUTO, source: 'notClear' });
    expect([...tone.share.data]).toEqual([...share.data]);
  });

  it('says when there is nothing to tell apart', () => {
    const flat = artFromPicture(makeRgba8(8, 8, new Uint8Array(256).fill(255)));
    expect(codeOf(() => oneTone(flat, AUTO))).toBe('oneColour');
    // All that is there is a field of its size.
    expect(oneTone(flat, { ...AUTO, source: 'notClear' }).share.data.every((value) => value === 255)).toBe(true);
    expect(codeOf(() => oneTone(withAlpha(flat, new Uint8Array(64)), AUTO))).toBe('nothingToCut');
  });

  it('counts every pixel in its histogram', () => {
    const random = randomFrom(3);
    const art = artFromPicture(
      makeRgba8(
        20,
        10,
        new Uint8Array(800).map((_, i) => (i % 4 === 3 ? 255 : random() * 256)),
      ),
    );
    expect(lumaHistogram(art).histogram.reduce((sum, count) => sum + count, 0)).toBe(200);
  });
});

describe('strokes thinner than a pixel', () => {
  /** A stroke, above a block that shows how dark the ink is. */
  const stroke = (width: number, slope: number) =>
    sampled(90, 75, (x, y) => (x > 8 && x < 40 && y > 55 && y < 70) || (x > 8 && x < 80 && y > 12 + (x - 8) * slope && y < 12 + (x - 8) * slope + width));

  it('hold together, with about the ink that they have, and the shares of all else stay', () => {
    for (const width of [0.75, 0.85, 1]) {
      for (const slope of [0.13, 0.31, 0.52]) {
        const drawn = stroke(width, slope);
        const outline = outlineOf(oneTone(artFromShare(drawn), AUTO).share);
        const areas = Array.from({ length: ringCount(outline) }, (_, ring) => Math.abs(ringArea(outline, ring))).sort((a, b) => a - b);
        expect(areas).toHaveLength(2);
        expect(Math.abs(areas[0] / (72 * width) - 1)).toBeLessThan(0.2);
      }
    }
    // A gap of that width in ink parts it in two.
    const gap = sampled(60, 60, (x, y) => x > 8 && x < 52 && y > 8 && y < 52 && Math.abs(0.3 * (x - 30) + y - 30) > 0.42);
    expect(ringCount(outlineOf(oneTone(artFromShare(gap), AUTO).share))).toBe(2);
    const round = share.data.slice();
    joinThinStrokes(round, share.width, share.height);
    expect(round).toEqual(share.data);
  });

  it('are not made of two broad tips that touch', () => {
    const tips = sampled(60, 40, (x, y) => Math.abs(y - 20.4 - (x < 30.2 ? 0.25 : 0)) < Math.abs(x - 30.2) * 0.5 && Math.abs(x - 30.2) < 20);
    const kept = tips.data.slice();
    joinThinStrokes(kept, 60, 40);
    expect(kept).toEqual(tips.data);
  });

  it('that are faint all along stay below the threshold, and ends do not grow', () => {
    const faint = stroke(1, 0.31).data.map((value, i) => (i < 90 * 50 ? value * 0.45 : value));
    const kept = faint.slice();
    joinThinStrokes(kept, 90, 75);
    expect(kept).toEqual(faint);
    const rows = ['.........', '.........', '..9994...', '.........', '.........', '.........'];
    const end = Uint8Array.from(rows.join(''), (c) => (c === '.' ? 0 : Number(c) * 25));
    const before = end.slice();
    joinThinStrokes(end, 9, 6);
    expect(end).toEqual(before);
  });
});
