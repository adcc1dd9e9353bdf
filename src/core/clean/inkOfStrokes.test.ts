import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { finish } from '../task/task.ts';
import { toneLabels } from './settling/toneLabels.ts';
import { inkOfStrokes } from './inkOfStrokes.ts';

const opaque = (count: number): Uint8Array => new Uint8Array(count).fill(255);
const apart = (a: Rgb, b: Rgb): number => Math.hypot(a.r - b.r, a.g - b.g, a.b - b.b);
/** Rows of short strokes, as small lettering is. */
const strokes = (ink: Rgb, thickPx: number): ReturnType<typeof paintedArt> =>
  paintedArt(96, 64, (x, y) => (x > 8 && x < 88 && y > 8 && y < 56 && y % 9 < 6 && (x + y / 3) % 5 < thickPx ? ink : WHITE));

describe('the ink of strokes without plain places', () => {
  it('is found, whatever its colour', () => {
    const channel = fc.integer({ min: 0, max: 150 });
    fc.assert(
      fc.property(channel, channel, channel, fc.double({ min: 1.3, max: 2.4, noNaN: true }), (r, g, b, thickPx) => {
        const { colour, alpha } = strokes({ r, g, b }, thickPx);
        const ink = inkOfStrokes(colour, alpha, WHITE);
        expect(ink === undefined ? Infinity : apart(ink, { r, g, b })).toBeLessThan(60);
      }),
      { numRuns: 30 },
    );
  });

  it('is not invented: on a plain picture, under noise, and for a few specks there is none', () => {
    const noisy = paintedArt(96, 64, (x, y) => ({ ...WHITE, g: 225 + ((Math.floor(x) * 31 + Math.floor(y) * 17) % 31) }));
    expect(inkOfStrokes(noisy.colour, noisy.alpha, WHITE)).toBeUndefined();
    const specks = paintedArt(96, 64, (x, y) => ((Math.floor(x) === 20 && Math.floor(y) % 9 === 0) || Math.floor(x + y) === 400 ? { r: 0, g: 0, b: 0 } : WHITE));
    expect(inkOfStrokes(specks.colour, opaque(96 * 64), WHITE)).toBeUndefined();
  });

  it('does not count what is clear', () => {
    const { colour, alpha } = strokes({ r: 20, g: 20, b: 60 }, 2);
    expect(inkOfStrokes(colour, alpha.map((_, i) => (i % 96 < 90 ? 0 : 255)), WHITE)).toBeUndefined();
  });

  it('makes two tones of lettering that compression has left none of', () => {
    const { colour, ...rest } = strokes({ r: 30, g: 40, b: 80 }, 1.8);
    // Ripples around all strokes, as strong as compression leaves them.
    const rippled = { ...rest, colour: { ...colour, data: colour.data.map((value, i) => (i % 4 === 3 ? 255 : Math.max(0, Math.min(255, value + (((i * 7919) % 13) - 6) * 4)))) } };
    const { tones } = finish(toneLabels(rippled, 'auto', 'none'));
    expect(tones).toHaveLength(2);
    expect(Math.min(...tones.map((tone) => apart(tone, { r: 30, g: 40, b: 80 })))).toBeLessThan(60);
  });
});
