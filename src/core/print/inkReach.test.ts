import { describe, expect, it } from 'vitest';
import { makeRgba8 } from '../raster/raster.ts';
import { beyondInk } from './inkReach.ts';
import { printFacts, printWarnings } from './motif.ts';

const flat = (...colours: [number, number, number][]): ReturnType<typeof makeRgba8> => makeRgba8(colours.length * 20, 20, Uint8Array.from(Array.from({ length: 20 }, () => colours.flatMap((colour) => Array.from({ length: 20 }, () => [...colour, 255]).flat())).flat()));

describe('what inks reach', () => {
  it('is paper, greys, and muted colours', () => {
    for (const colour of [[255, 255, 255], [128, 128, 128], [30, 30, 30], [34, 55, 95], [194, 90, 53], [226, 190, 116], [120, 140, 90]] as const) expect(beyondInk({ r: colour[0], g: colour[1], b: colour[2] }), String(colour)).toBeLessThan(2.5);
  });

  it('is not the light of a screen: its green, its blue, its violet', () => {
    for (const colour of [[0, 255, 0], [0, 0, 255], [0, 255, 255], [170, 0, 255], [255, 0, 255]] as const) expect(beyondInk({ r: colour[0], g: colour[1], b: colour[2] }), String(colour)).toBeGreaterThan(6);
  });

  it('is told of a motif, with how much of it and which colour lies farthest out', () => {
    const facts = printFacts(flat([34, 55, 95], [0, 255, 0], [194, 90, 53], [226, 190, 116]));
    expect(facts.beyondInkShare).toBeCloseTo(0.25, 6);
    expect(printWarnings(facts, 300, 'white').join()).toContain('25 % of it is more vivid than inks print');
    expect(printWarnings(facts, 300, 'white').join()).toContain('#00ff00');
    expect(printWarnings(printFacts(flat([34, 55, 95], [226, 190, 116])), 300, 'white')).toEqual([]);
  });
});
