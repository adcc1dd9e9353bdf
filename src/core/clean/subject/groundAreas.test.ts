import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/fixtures/shapes.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { planesOf } from '../planes.ts';
import { basinsOf } from './basins.ts';
import { DOUBTFUL, GROUND, groundAreas, SUBJECT } from './groundAreas.ts';
import { MARK } from './marks.ts';
import { sharpEdges } from './sharpEdges.ts';
import { finish } from '../../task/task.ts';

const [WIDTH, HEIGHT] = [150, 110];
const PAPER = [236, 231, 220];
const HULL = [40, 64, 130];
const within = (x: number, y: number, cx: number, cy: number, r: number): boolean => Math.hypot(x - cx, y - cy) < r;

/** Paper whose light falls off, with what a painter puts on it. */
function sheet(paint: (x: number, y: number) => readonly number[] | undefined, light = (x: number, y: number): number => 1 - 0.2 * ((x + y) / (WIDTH + HEIGHT))): Rgba8 {
  const random = randomFrom(3);
  const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  for (let y = 0, i = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++, i += 4) {
      const colour = paint(x, y) ?? PAPER;
      for (let c = 0; c < 3; c++) data[i + c] = Math.max(0, Math.min(255, Math.round(colour[c] * light(x, y) + 3 * (random() - 0.5))));
    }
  }
  return makeRgba8(WIDTH, HEIGHT, data, true);
}

/** What the area of a place is taken for. */
function takenFor(picture: Rgba8, marks: Uint8Array = new Uint8Array(WIDTH * HEIGHT)): (x: number, y: number) => number {
  const colours = planesOf(picture);
  const { sharp, noise } = sharpEdges(picture, colours);
  const basins = basinsOf(sharp, WIDTH, HEIGHT);
  const taken = finish(groundAreas(basins, sharp, colours, noise, marks));
  return (x, y) => taken[basins.labels[y * WIDTH + x]];
}
const stroke = (mark: number, cx: number, cy: number, r: number): Uint8Array => Uint8Array.from({ length: WIDTH * HEIGHT }, (_, k) => (within(k % WIDTH, Math.floor(k / WIDTH), cx, cy, r) ? mark : 0));

describe('areas of a sheet', () => {
  const ring = sheet((x, y) => (within(x, y, 75, 55, 36) && !within(x, y, 75, 55, 20) ? HULL : undefined));

  it('are ground along the border, and where they look as the ground would: inside of a ring too', () => {
    const at = takenFor(ring);
    expect([at(5, 5), at(145, 105), at(75, 55)]).toEqual([GROUND, GROUND, GROUND]);
    expect([at(75, 27), at(47, 55)]).toEqual([SUBJECT, SUBJECT]);
  });

  it('are the subject where another colour fills what is enclosed', () => {
    const at = takenFor(sheet((x, y) => (within(x, y, 75, 55, 20) ? [200, 60, 50] : within(x, y, 75, 55, 36) ? HULL : undefined)));
    expect([at(75, 55), at(75, 27), at(5, 55)]).toEqual([SUBJECT, SUBJECT, GROUND]);
  });

  it('are ground under a soft shadow', () => {
    const shadow = (x: number, y: number): number => 1 - 0.4 * Math.exp(-(((x - 110) / 22) ** 2 + ((y - 80) / 18) ** 2));
    const at = takenFor(sheet((x, y) => (within(x, y, 60, 50, 24) ? HULL : undefined), shadow));
    expect([at(110, 80), at(140, 15)]).toEqual([GROUND, GROUND]);
    expect(at(60, 50)).toBe(SUBJECT);
  });

  it('are what strokes say', () => {
    expect(takenFor(ring, stroke(MARK.keep, 75, 55, 12))(75, 55)).toBe(SUBJECT);
    const at = takenFor(ring, stroke(MARK.clear, 75, 27, 7));
    expect(at(75, 27)).not.toBe(SUBJECT);
    // A stroke on a little of the wide ground does not make all of it the subject.
    expect([GROUND, DOUBTFUL]).toContain(takenFor(ring, stroke(MARK.keep, 8, 8, 4))(140, 100));
  });
});
