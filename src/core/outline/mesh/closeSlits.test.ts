import { describe, expect, it } from 'vitest';
import { closeSlits } from './closeSlits.ts';

const [WIDTH, HEIGHT] = [40, 30];
/** A slit across, a broad opening, and a slit of which one end lies under another film, all closed off; and one that runs out of the raster. */
const openings = (): Uint8Array => {
  const open = new Uint8Array(WIDTH * HEIGHT);
  const bar = (x0: number, y0: number, x1: number, y1: number): void => {
    for (let y = y0; y < y1; y++) open.fill(1, y * WIDTH + x0, y * WIDTH + x1);
  };
  bar(4, 4, 30, 6);
  bar(4, 10, 14, 20);
  bar(20, 12, 30, 14);
  bar(34, 20, 40, 22);
  return open;
};
const at = (open: Uint8Array, x: number, y: number): number => open[y * WIDTH + x];

describe('slits that a reach leaves', () => {
  it('are closed where they are no broader than the film reaches from both sides, and lie under what it may run under', () => {
    const open = openings();
    closeSlits(open, WIDTH, HEIGHT, (i) => (i % WIDTH >= 26 && i >= 11 * WIDTH ? 0 : 1.5));
    expect([at(open, 10, 4), at(open, 29, 5), at(open, 8, 15), at(open, 22, 12), at(open, 28, 13), at(open, 36, 20)]).toEqual([0, 0, 1, 1, 1, 1]);
  });

  it('leaves all else as it is', () => {
    const open = openings();
    closeSlits(open, WIDTH, HEIGHT, () => 0);
    expect([...open]).toEqual([...openings()]);
  });
});
