import { describe, expect, it } from 'vitest';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { figuresOf, figuresTogether } from './figures.ts';
import { mostLayers } from './mostLayers.ts';

const square = (x: number, y: number, size: number): string => `M${x} ${y}L${x + size} ${y}L${x + size} ${y + size}L${x} ${y + size}Z`;
const curves = (...paths: string[]) => nestRings(curvesFromPathData(paths.join('')));

describe('figures', () => {
  it('count pieces, openings, cut length and area', () => {
    const { weedingS, ...figures } = figuresOf(curves(square(0, 0, 40), square(10, 10, 10), square(100, 0, 3)));
    expect(figures).toEqual({ pieces: 2, nodes: 12, areaMm2: 1600 - 100 + 9, cutLengthMm: 160 + 40 + 12, smallestMm2: 9 });
    expect(weedingS).toBeGreaterThan(0);
  });

  it('expect more time for more and smaller pieces', () => {
    const many = Array.from({ length: 16 }, (_, k) => square(20 * (k % 4), 20 * Math.floor(k / 4), 10));
    const one = figuresOf(curves(square(0, 0, 40)));
    expect(figuresOf(curves(...many)).weedingS).toBeGreaterThan(3 * one.weedingS);
    const small = Array.from({ length: 16 }, (_, k) => square(20 * (k % 4), 20 * Math.floor(k / 4), 3));
    expect(figuresOf(curves(...small)).weedingS).toBeGreaterThan(figuresOf(curves(...many)).weedingS);
  });

  it('add up over films; the smallest piece is that of all', () => {
    const films = [figuresOf(curves(square(0, 0, 40))), figuresOf(curves(square(0, 0, 5))), figuresOf(curves())];
    expect(figuresTogether(films)).toMatchObject({ pieces: 2, nodes: 8, areaMm2: 1625, cutLengthMm: 180, smallestMm2: 25 });
    expect(figuresTogether([])).toMatchObject({ pieces: 0, smallestMm2: 0, weedingS: 0 });
  });
});

describe('films over each other', () => {
  it('are most where they say, on so much of it', () => {
    const { layers, share, x, y } = mostLayers([curves(square(0, 0, 100)), curves(square(50, 50, 50)), curves(square(80, 80, 20))]);
    expect(layers).toBe(3);
    expect(share).toBeCloseTo(0.04, 2);
    expect([x, y].every((place) => place > 79 && place < 100)).toBe(true);
  });

  it('are counted without any, with one, and with openings', () => {
    expect(mostLayers([]).layers).toBe(0);
    expect(mostLayers([curves(square(0, 0, 10))])).toMatchObject({ layers: 1, share: 1 });
    expect(mostLayers([curves(square(0, 0, 100), square(20, 20, 60)), curves(square(30, 30, 30))]).layers).toBe(1);
  });
});
