import { describe, expect, it } from 'vitest';
import { artFromShare, artFromText, sampled } from '../../../../tests/fixtures/shapes.ts';
import { artFromPicture, withAlpha, type Art } from '../../raster/art.ts';
import { finish } from '../../task/task.ts';
import { mendGaps } from '../mendGaps.ts';
import { drawIn, type DrawInStep } from './strokes.ts';
import { enlarge } from '../enlarge.ts';
import type { StepContext } from './step.ts';

const contextOf = (art: Art): StepContext => ({ picture: art, finished: { by: 'width', sizeMm: 100, turnDeg: 0 }, enlarge });
const drawn = (art: Art, strokes: DrawInStep['strokes']): Art =>
  finish(drawIn.run(art, { kind: 'drawIn', id: 'd', enabled: true, v: 1, strokes }, contextOf(art))).art;
const pixel = ({ width, colour: { data }, alpha }: Art, x: number, y: number): number[] => [
  ...data.slice(4 * (y * width + x), 4 * (y * width + x) + 3),
  alpha[y * width + x],
];

describe('drawing in', () => {
  const paper = artFromText(Array.from({ length: 12 }, () => '............'));

  it('lays ink over the art, mixed at its rim, in the order of the strokes', () => {
    const art = drawn(paper, [
      { radiusPx: 2, points: [1, 6, 11, 6], colour: '#b3262e' },
      { radiusPx: 1, points: [6, 2, 6, 10], colour: '#24509a' },
    ]);
    expect(pixel(art, 3, 5)).toEqual([0xb3, 0x26, 0x2e, 255]);
    expect(pixel(art, 5, 5)).toEqual([0x24, 0x50, 0x9a, 255]);
    expect(pixel(art, 3, 1)).toEqual([255, 255, 255, 255]);
    const half = drawn(paper, [{ radiusPx: 1.5, points: [-5, 6, 20, 6], colour: '#000000' }]);
    // From 4.5 to 7.5: the rows at 4 and 7 are half ink.
    expect([pixel(half, 6, 3)[0], pixel(half, 6, 4)[0], pixel(half, 6, 5)[0], pixel(half, 6, 7)[0]]).toEqual([255, 127, 0, 127]);
    expect(pixel(paper, 3, 5)).toEqual([255, 255, 255, 255]);
  });

  it('makes clear places ink, without the colour that lies hidden there', () => {
    const clear = withAlpha(paper, new Uint8Array(144));
    const art = drawn(clear, [{ radiusPx: 1.5, points: [-5, 6, 20, 6], colour: '#204060' }]);
    expect(pixel(art, 6, 5)).toEqual([0x20, 0x40, 0x60, 255]);
    expect(pixel(art, 6, 4)).toEqual([0x20, 0x40, 0x60, 128]);
    expect(pixel(art, 6, 1)[3]).toBe(0);
  });

  it('finds its place on cropped and reduced art, and stays within a colour where asked', () => {
    const moved = drawn({ ...paper, frame: { leftPx: 100, topPx: 50, scale: 0.5 } }, [{ radiusPx: 4, points: [102, 62, 122, 62], colour: '#000000' }]);
    expect(pixel(moved, 6, 6)[0]).toBe(0);
    const rows = artFromText(['....####', '....####', '....####', '....####']);
    const within = drawn(rows, [{ radiusPx: 4, points: [1, 2, 7, 2], colour: '#b3262e', within: 5 }]);
    expect([pixel(within, 1, 2)[0], pixel(within, 6, 2)[0]]).toEqual([0xb3, 0]);
  });
});

describe('gap mending in a frame', () => {
  it('closes breaks inside of it and leaves all others', () => {
    const lines = artFromShare(sampled(120, 90, (x, y) => (Math.abs(y - 30) < 2 || Math.abs(y - 60) < 2) && Math.abs(x - 60) > 4));
    const gapsOf = (frame?: Parameters<typeof mendGaps>[3]): number[] =>
      finish(mendGaps(artFromPicture(lines.colour), 13, [], frame)).joints.map(({ points }) => Math.round(points[1]));
    expect(gapsOf().sort()).toEqual([30, 60]);
    expect(gapsOf({ xPx: 40, yPx: 45, widthPx: 40, heightPx: 30 })).toEqual([60]);
    expect(gapsOf({ xPx: 0, yPx: 0, widthPx: 20, heightPx: 20 })).toEqual([]);
  });
});
