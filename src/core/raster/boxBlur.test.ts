import { describe, expect, it } from 'vitest';
import { blurred } from '../clean/planes.ts';
import { randomFrom } from '../../../tests/fixtures/shapes.ts';
import { boxBlurred } from './boxBlur.ts';

describe('blur by running means', () => {
  it('comes near the Gaussian of the same spread, along the border less so', () => {
    const random = randomFrom(2);
    const [width, height] = [90, 70];
    const plane = Float32Array.from({ length: width * height }, (_, i) => ((i % width) + Math.floor(i / width) < 80 ? 220 : 30) + 20 * random());
    for (const sigma of [3, 5.5, 9]) {
      const exact = blurred(plane, width, height, sigma);
      const near = boxBlurred(plane, width, height, sigma);
      const isInner = (i: number): boolean =>
        Math.min(i % width, width - 1 - (i % width), Math.floor(i / width), height - 1 - Math.floor(i / width)) >= 2 * sigma;
      const off = near.map((value, i) => Math.abs(value - exact[i]));
      expect(Math.max(...off.filter((_, i) => isInner(i)))).toBeLessThan(3);
      expect(Math.max(...off)).toBeLessThan(12);
    }
  });

  it('keeps even planes even and has the variance that is asked for', () => {
    expect(boxBlurred(new Float32Array(200).fill(77), 20, 10, 4).every((value) => Math.abs(value - 77) < 1e-3)).toBe(true);
    const point = new Float32Array(201 * 201);
    point[100 * 201 + 100] = 1;
    for (const sigma of [2.5, 4, 7.3, 15]) {
      const spread = boxBlurred(point, 201, 201, sigma);
      let variance = 0;
      let sum = 0;
      spread.forEach((value, i) => {
        variance += value * ((i % 201) - 100) ** 2;
        sum += value;
      });
      expect(sum).toBeCloseTo(1, 3);
      expect(Math.abs(Math.sqrt(variance / sum) / sigma - 1)).toBeLessThan(0.1);
    }
  });

  it('takes rasters narrower than its reach', () => {
    expect(boxBlurred(Float32Array.from([0, 100]), 2, 1, 5)).toHaveLength(2);
    expect(boxBlurred(Float32Array.from([0, 100, 50]), 1, 3, 5).every(Number.isFinite)).toBe(true);
  });
});
