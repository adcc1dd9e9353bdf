import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/fixtures/shapes.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { findSubject } from './findSubject.ts';
import { MARK } from './marks.ts';

const [WIDTH, HEIGHT] = [160, 120];
const isBoat = (x: number, y: number): boolean => ((x - 80) / 45) ** 2 + ((y - 64) / 30) ** 2 < 1;

/** A painted boat on ground that grows darker to one side, with grain. */
function photograph(grain: number): Rgba8 {
  const random = randomFrom(8);
  const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  for (let y = 0, i = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++, i += 4) {
      const light = 1 - 0.25 * (x / WIDTH);
      const colour = isBoat(x, y) ? (y < 64 ? [40, 70, 150] : [180, 50, 40]) : [222, 214, 200];
      for (let c = 0; c < 3; c++) data[i + c] = Math.max(0, Math.min(255, Math.round(colour[c] * light + grain * (random() - 0.5))));
    }
  }
  return makeRgba8(WIDTH, HEIGHT, data, true);
}

/** Share of the pixels of both that are of both. */
function overlap(subject: Uint8Array): number {
  let [both, any] = [0, 0];
  for (let i = 0; i < subject.length; i++) {
    const truth = isBoat(i % WIDTH, Math.floor(i / WIDTH));
    if (truth && subject[i] !== 0) both++;
    if (truth || subject[i] !== 0) any++;
  }
  return both / any;
}

describe('the subject of a photograph', () => {
  it('is found on ground whose light falls off, plain and with grain', () => {
    for (const grain of [0, 14]) {
      const { subject, isSure } = finish(findSubject(photograph(grain), new Uint8Array(WIDTH * HEIGHT)));
      expect([grain, isSure, overlap(subject) > 0.96]).toEqual([grain, true, true]);
    }
  });

  it('keeps what is marked to be kept, and not what is marked as ground', () => {
    const marks = new Uint8Array(WIDTH * HEIGHT);
    for (let y = 50; y < 58; y++) marks.fill(MARK.clear, y * WIDTH + 60, y * WIDTH + 100);
    for (let y = 8; y < 14; y++) marks.fill(MARK.keep, y * WIDTH + 10, y * WIDTH + 20);
    const { subject } = finish(findSubject(photograph(0), marks));
    expect(subject[54 * WIDTH + 80]).toBe(0);
    expect(subject[10 * WIDTH + 15]).toBe(1);
    expect(subject[80 * WIDTH + 80]).toBe(1);
  });

  it('shows the ground under the subject as it goes on', () => {
    const { ground } = finish(findSubject(photograph(0), new Uint8Array(WIDTH * HEIGHT)));
    const at = 64 * WIDTH + 80;
    const expected = [222, 214, 200].map((v) => v * (1 - 0.25 * (80 / WIDTH)));
    ground.colour.planes.forEach((plane, c) => expect(Math.abs(plane[at] - expected[c])).toBeLessThan(10));
  });
});
