import { describe, expect, it } from 'vitest';
import { disc, polygon } from '../../../tests/fixtures/shapes.ts';
import { makeShareMap, type ShareMap } from '../raster/raster.ts';
import { ringThrough, type Ring } from './corners.ts';
import { isolines } from './isoline.ts';
import { withoutSteps } from './withoutSteps.ts';

/** Each pixel of one tone or the other. */
const stepped = ({ width, height, data }: ShareMap): ShareMap => makeShareMap(width, height, data.map((share) => (share < 128 ? 0 : 255)));

/** The longest half-way line of a share map. */
function edgeOf(share: ShareMap): Ring {
  const { points, starts } = isolines(share).rings;
  const lengths = Array.from({ length: starts.length - 1 }, (_, k) => starts[k + 1] - starts[k]);
  const longest = lengths.indexOf(Math.max(...lengths));
  const places = points.subarray(2 * starts[longest], 2 * starts[longest + 1]);
  return ringThrough(places.filter((_, k) => k % 2 === 0), places.filter((_, k) => k % 2 === 1), true);
}

const off = ({ n, x, y }: Ring, distance: (x: number, y: number) => number): { mean: number; most: number } => {
  const all = Array.from({ length: n }, (_, k) => Math.abs(distance(x[k], y[k])));
  return { mean: all.reduce((sum, each) => sum + each, 0) / n, most: Math.max(...all) };
};

describe('an edge in steps', () => {
  it.each([6.2, 17.4, 38.7])('of a disc with a radius of %d px is led around it', (radius) => {
    const fromDisc = (x: number, y: number): number => Math.hypot(x - 50.3, y - 50.2) - radius;
    const edge = edgeOf(stepped(disc(100, 100, 50.3, 50.2, radius)));
    const led = withoutSteps(edge) as Ring;
    expect(off(led, fromDisc).mean).toBeLessThan(0.55 * off(edge, fromDisc).mean);
    expect(off(led, fromDisc).most).toBeLessThan(0.4);
  });

  it('of a band at any angle becomes nearly straight between its corners', () => {
    // The nearer to level, the longer the steps.
    for (const [angle, most] of [[0.06, 0.75], [0.31, 0.5], [0.5, 0.5], [1.2, 0.5]]) {
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const band = [[-60, -9], [60, -9], [60, 9], [-60, 9]].map(([u, v]) => [80.3 + u * c - v * s, 80.6 + u * s + v * c] as const);
      const edge = edgeOf(stepped(polygon(160, 160, band)));
      // How much one side bends, far from its corners: where all of it lies is known to half a pixel at best.
      const bend = ({ n, x, y }: Ring): number => {
        const away: number[] = [];
        for (let k = 0; k < n; k++) {
          const [u, v] = [(x[k] - 80.3) * c + (y[k] - 80.6) * s, (y[k] - 80.6) * c - (x[k] - 80.3) * s];
          if (v > 0 && Math.abs(u) < 50) away.push(v);
        }
        const mean = away.reduce((sum, each) => sum + each, 0) / away.length;
        return Math.sqrt(away.reduce((sum, each) => sum + (each - mean) ** 2, 0) / away.length);
      };
      expect([angle, bend(withoutSteps(edge) as Ring) < most * bend(edge)]).toEqual([angle, true]);
    }
  });

  it('keeps the right-angled corners of the drawing where they are', () => {
    // A square with one round side.
    const shape = makeShareMap(80, 80, new Uint8Array(6400).map((_, i) => {
      const [x, y] = [(i % 80) + 0.5, Math.floor(i / 80) + 0.5];
      return y > 40 && y < 60 && x > 20 && x < 60 ? 255 : y <= 40 && Math.hypot(x - 40, y - 40) < 20 ? 255 : 0;
    }));
    const led = withoutSteps(edgeOf(shape)) as Ring;
    for (const corner of [20, 60]) {
      const nearest = Math.min(...Array.from({ length: led.n }, (_, k) => Math.hypot(led.x[k] - corner, led.y[k] - 60)));
      expect(nearest).toBeLessThan(0.6);
    }
    expect(off(led, (x, y) => (y > 57 && y < 59 ? Math.min(Math.abs(x - 20), Math.abs(x - 60)) : 0)).most).toBeLessThan(1e-9);
  });
});

describe('any other edge', () => {
  it('stays as it is where its shape repeats a few places all around, which lie half-way by chance', () => {
    for (let radius = 5.3; radius < 5.6; radius += 0.01) expect([radius, withoutSteps(edgeOf(disc(48, 40, 24, 20, radius)))]).toEqual([radius, undefined]);
  });

  it('stays as it is where it is level and upright between corners: bars a pixel or two wide, and blocks', () => {
    for (const wide of [1, 2, 3]) {
      const rows = new Uint8Array(60 * 60);
      const fill = (x: number, y: number, width: number, height: number): void => void Array.from({ length: height }, (_, k) => rows.fill(255, (y + k) * 60 + x, (y + k) * 60 + x + width));
      for (const [x, y, width, height] of [[10, 10, wide, 40], [10, 10, 24, wide], [10, 28, 18, wide], [10, 50 - wide, 24, wide]]) fill(x, y, width, height);
      const edge = edgeOf(makeShareMap(60, 60, rows));
      expect(withoutSteps(edge) ?? edge).toEqual(edge);
    }
    const blocks = new Uint8Array(60 * 60).map((_, i) => {
      const [x, y] = [Math.floor((i % 60) / 4), Math.floor(i / 240)];
      return x > 2 && x < 12 && y > 2 && y < 12 && (x * 7 + y * 5) % 3 !== 0 ? 255 : 0;
    });
    expect(withoutSteps(edgeOf(makeShareMap(60, 60, blocks)))).toBeUndefined();
  });

  it('stays as it is: with mixed pixels, upright and level alone, or too short to tell', () => {
    expect(withoutSteps(edgeOf(disc(60, 60, 30.2, 30.4, 20)))).toBeUndefined();
    expect(withoutSteps(edgeOf(polygon(60, 60, [[10, 10], [50, 10], [50, 44], [10, 44]])))).toBeUndefined();
    // Level and upright sides without a mixed pixel, with round corners that have them.
    const rounded = (x: number, y: number): number => Math.hypot(Math.max(0, Math.abs(x - 40) - 24), Math.max(0, Math.abs(y - 30) - 14)) - 6;
    const share = makeShareMap(80, 60, new Uint8Array(4800).map((_, i) => Math.round(255 * Math.max(0, Math.min(1, 0.5 - rounded((i % 80) + 0.5, Math.floor(i / 80) + 0.5))))));
    expect(withoutSteps(edgeOf(share))).toBeUndefined();
    expect(withoutSteps(edgeOf(stepped(disc(12, 12, 6, 6, 1.6))))).toBeUndefined();
  });
});
