import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromShare, disc, paintedArt, randomFrom } from '../../../tests/fixtures/shapes.ts';
import { forEdges, writeForEdges, writeWeights } from '../colour/edgeMetric.ts';
import type { Rgb } from '../colour/oklab.ts';
import { artFromPicture } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { mixturesAtEdges, redrawEdges } from './redrawEdges.ts';
import { smoothArt } from './smoothArt.ts';
import { clearLifted } from './softenLift.ts';
import { ToneMix } from './toneMix.ts';

const TONES: readonly Rgb[] = [
  { r: 255, g: 255, b: 255 },
  { r: 28, g: 27, b: 34 },
  { r: 179, g: 38, b: 46 },
  { r: 242, g: 182, b: 50 },
];
const channel = fc.integer({ min: 0, max: 255 });
const colour = fc.record({ r: channel, g: channel, b: channel });

describe('the space in which edges are weighed', () => {
  it('is linear, and its products are those of the weights', () => {
    fc.assert(
      fc.property(colour, colour, (a, b) => {
        const [pa, pb] = [forEdges([a]), forEdges([b])];
        const middle = new Float64Array(3);
        writeForEdges((a.r + b.r) / 2, (a.g + b.g) / 2, (a.b + b.b) / 2, middle, 0);
        for (let c = 0; c < 3; c++) expect(middle[c]).toBeCloseTo((pa[c] + pb[c]) / 2, 8);
        const weights = new Float64Array(3);
        writeWeights(a.r, a.g, a.b, weights);
        expect(weights[0] * b.r + weights[1] * b.g + weights[2] * b.b).toBeCloseTo(pa[0] * pb[0] + pa[1] * pb[1] + pa[2] * pb[2], 5);
      }),
      { seed: 3, numRuns: 60 },
    );
  });
});

describe('mixtures of tones', () => {
  it('of two or three are found with their shares', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.15, max: 0.8, noNaN: true }), fc.double({ min: 0.15, max: 0.8, noNaN: true }), (u, v) => {
        const shares = [1, u / (1 - u), v / (1 - v)];
        const sum = shares.reduce((a, b) => a + b, 0);
        const of = (c: 'r' | 'g' | 'b'): number => Math.round(shares.reduce((total, share, k) => total + (share / sum) * TONES[k][c], 0));
        const mix = new ToneMix(makeRgba8(1, 1, Uint8Array.of(of('r'), of('g'), of('b'), 255), true), TONES);
        mix.find(0, 0b0111);
        // Where a third tone is hardly there the two others explain the pixel as well as it needs; the shares are always all of it.
        expect(mix.shareOf(0) + mix.shareOf(1) + mix.shareOf(2)).toBeCloseTo(1, 6);
        expect(Math.sqrt(mix.off2)).toBeLessThan(6.1);
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('of three equal parts are found as such, and of two nothing is left for a third', () => {
    const found = (r: number, g: number, b: number): number[] => {
      const mix = new ToneMix(makeRgba8(1, 1, Uint8Array.of(r, g, b, 255), true), TONES);
      mix.find(0, 0b0111);
      return [0, 1, 2].map((tone) => mix.shareOf(tone));
    };
    for (const share of found(154, 107, 112)) expect(share).toBeCloseTo(1 / 3, 1);
    const [white, ink, red] = found(142, 141, 145);
    expect([Math.round(100 * white), Math.round(100 * ink), red]).toEqual([50, 50, 0]);
  });

  it('add up to the pixel along an edge, and leave what lies away from it its tone', () => {
    const art = artFromShare(disc(60, 60, 30.3, 29.6, 18.4), TONES[1], TONES[0]);
    const labels = Uint8Array.from({ length: 3600 }, (_, i) => (art.colour.data[4 * i] < 141 ? 1 : 0));
    const { other, share } = finish(mixturesAtEdges(art, labels, TONES.slice(0, 2)));
    let ink = 0;
    for (let i = 0; i < 3600; i++) ink += labels[i] === 1 ? share[i] / 255 : other[i] === 1 ? 1 - share[i] / 255 : 0;
    expect(Math.abs(ink - Math.PI * 18.4 ** 2) / (2 * Math.PI * 18.4)).toBeLessThan(0.02);
    const redrawn = finish(redrawEdges(art, labels, TONES.slice(0, 2)));
    expect([...redrawn.data].every((value, k) => Math.abs(value - art.colour.data[k]) <= 14)).toBe(true);
  });

  it('are kept by smoothing, which takes the noise off all else', () => {
    const random = randomFrom(9);
    const clean = artFromShare(disc(80, 80, 40.4, 39.7, 24), TONES[1], { r: 230, g: 226, b: 214 });
    const data = new Uint8Array(clean.colour.data).map((value, k) =>
      k % 4 === 3 ? 255 : Math.max(0, Math.min(255, value + Math.round(8 * (random() - 0.5)))),
    );
    const smooth = finish(smoothArt(artFromPicture(makeRgba8(80, 80, data, true)), 12)).data;
    let [inside, edge] = [0, 0];
    for (let y = 4; y < 76; y++) {
      for (let x = 4; x < 76; x++) {
        const off = Math.abs(smooth[4 * (y * 80 + x)] - clean.colour.data[4 * (y * 80 + x)]);
        const far = Math.abs(Math.hypot(x + 0.5 - 40.4, y + 0.5 - 39.7) - 24);
        if (far > 4) inside = Math.max(inside, off);
        if (far < 1) edge = Math.max(edge, off);
      }
    }
    // A twentieth of the edge's height is a twentieth of a pixel; a plain mean over mixtures would be off by a half.
    expect([inside <= 3, edge <= 10]).toEqual([true, true]);
  });
});

describe('the edge of a lift', () => {
  const lift = (paint: (x: number, y: number) => Rgb, isLifted: (x: number, y: number) => boolean): Uint8Array => {
    const art = paintedArt(60, 40, paint);
    const lifted = Uint8Array.from({ length: 2400 }, (_, i) => (isLifted(i % 60, Math.floor(i / 60)) ? 1 : 0));
    return finish(clearLifted(art, { lifted, ground: TONES[0], everywhere: false })).alpha;
  };

  it('clears faint bits that hardly stand alone, and leaves a faint line whole', () => {
    const faint: Rgb = { r: 225, g: 225, b: 225 };
    const dot = (x: number, y: number): boolean => Math.floor(y) === 10 && Math.floor(x) === 20;
    const line = (_x: number, y: number): boolean => Math.floor(y) === 30;
    const alpha = lift(
      (x, y) => (dot(x, y) || line(x, y) ? faint : TONES[0]),
      (x, y) => !dot(x, y) && !line(x, y),
    );
    expect([alpha[10 * 60 + 20], alpha[30 * 60 + 30], alpha[5 * 60 + 5]]).toEqual([0, 255, 0]);
  });

  it('takes a mixture for that of the art beside it, not of what lies behind', () => {
    // White ground, a black line, red behind it: the grey pixels before the line are ground and black.
    const art = paintedArt(60, 40, (x) => (x < 30 ? TONES[0] : x < 34 ? TONES[1] : TONES[2]));
    const data = new Uint8Array(art.colour.data);
    for (let y = 0; y < 40; y++) data.set([141, 141, 144], 4 * (y * 60 + 30));
    const mixed = { ...art, colour: makeRgba8(60, 40, data, true) };
    const lifted = Uint8Array.from({ length: 2400 }, (_, i) => (i % 60 < 30 ? 1 : 0));
    const { alpha, colour: out } = finish(clearLifted(mixed, { lifted, ground: TONES[0], everywhere: false }));
    const at = 20 * 60 + 30;
    expect(Math.abs(alpha[at] - 128)).toBeLessThan(8);
    expect([...out.data.subarray(4 * at, 4 * at + 3)].every((value) => value < 60)).toBe(true);
    expect(alpha[at + 1]).toBe(255);
  });
});
