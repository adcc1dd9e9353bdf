import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { paintedArt, randomFrom, WHITE } from '../../../tests/fixtures/shapes.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { CLEAR, makeLabelMap } from '../raster/labelMap.ts';
import { splitTone } from './splitTone.ts';

const CREAM: Rgb = { r: 239, g: 227, b: 200 };
const PALE: Rgb = { r: 250, g: 246, b: 236 };
const labels = (of: (x: number) => number) =>
  makeLabelMap(
    60,
    40,
    Uint8Array.from({ length: 2400 }, (_, i) => of(i % 60)),
  );

describe('parting a tone by colour', () => {
  it('finds the two colours, the more frequent first, through noise', () => {
    const random = randomFrom(3);
    const art = paintedArt(60, 40, (x) => (x < 40 ? CREAM : PALE));
    const noisy = {
      ...art.colour,
      data: art.colour.data.map((value, i) => (i % 4 === 3 ? 255 : Math.max(0, Math.min(255, value + Math.round((random() - 0.5) * 8))))),
    };
    const [first, second] = splitTone(
      noisy,
      labels(() => 0),
      0,
    );
    expect(colourDifference(first, CREAM)).toBeLessThan(1);
    expect(colourDifference(second, PALE)).toBeLessThan(1);
  });

  it('looks at its own pixels only, and not at those along its edges', () => {
    const art = paintedArt(60, 40, (x) => (x < 30.5 ? CREAM : WHITE));
    expect(
      codeOf(() =>
        splitTone(
          art.colour,
          labels((x) => (x < 31 ? 0 : CLEAR)),
          0,
        ),
      ),
    ).toBe('toneIsEven');
  });

  it('says when there are no two', () => {
    const even = paintedArt(60, 40, () => CREAM);
    expect(
      codeOf(() =>
        splitTone(
          even.colour,
          labels(() => 0),
          0,
        ),
      ),
    ).toBe('toneIsEven');
    expect(
      codeOf(() =>
        splitTone(
          even.colour,
          labels(() => 0),
          5,
        ),
      ),
    ).toBe('toneIsEven');
  });
});
