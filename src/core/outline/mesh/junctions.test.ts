import { describe, expect, it } from 'vitest';
import { paintedArt, randomFrom } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import { makeLabelMap } from '../../raster/labelMap.ts';
import { arcPoints } from './arcPoints.ts';
import { crackArcs } from './crackArcs.ts';
import { EdgePlaces } from './edgePlaces.ts';
import { junctions } from './junctions.ts';
import { saddleRule } from './saddles.ts';
import { finish } from '../../task/task.ts';

const TONES: readonly Rgb[] = [{ r: 240, g: 236, b: 220 }, { r: 30, g: 60, b: 130 }, { r: 190, g: 50, b: 40 }];
const SIDE = 40;

/** A painting of the three tones, its arcs and where they meet. @param toneAt of a place, px. */
function painted(toneAt: (x: number, y: number) => number) {
  const art = paintedArt(SIDE, SIDE, (x, y) => TONES[toneAt(x, y)]);
  const labels = makeLabelMap(SIDE, SIDE, Uint8Array.from({ length: SIDE * SIDE }, (_, k) => toneAt((k % SIDE) + 0.5, Math.floor(k / SIDE) + 0.5)));
  const holder: { places?: EdgePlaces } = {};
  const arcs = finish(crackArcs(labels, (cells, stride) => {
    holder.places = new EdgePlaces(art, TONES, cells, stride);
    return saddleRule(holder.places, cells, stride);
  }));
  const places = holder.places as EdgePlaces;
  const points = Array.from({ length: arcs.count }, (_, k) => arcPoints(arcs, k, places));
  return { arcs, points, places };
}

describe('where an edge runs inside its pixels', () => {
  it('is told to a twentieth of a pixel for a straight one, whatever way it runs', () => {
    const random = randomFrom(4);
    for (let round = 0; round < 24; round++) {
      const [rad, off] = [Math.PI * random(), 4 * (random() - 0.5)];
      const [nx, ny] = [Math.cos(rad), Math.sin(rad)];
      const { points } = painted((x, y) => (nx * (x - SIDE / 2) + ny * (y - SIDE / 2) < off ? 0 : 1));
      const away = points.flatMap(({ ring }) => Array.from({ length: ring.n }, (_, k) => Math.abs(nx * (ring.x[k] - SIDE / 2) + ny * (ring.y[k] - SIDE / 2) - off)).filter((each, k) => Math.min(ring.x[k], ring.y[k], SIDE - ring.x[k], SIDE - ring.y[k]) > 3 && each < 2));
      expect(away.length).toBeGreaterThan(20);
      expect(away.reduce((sum, each) => sum + each, 0) / away.length).toBeLessThan(0.05);
    }
  });

  it('is not moved by a soft edge, whose width it tells', () => {
    for (const soft of [0, 2]) {
      const art = paintedArt(SIDE, SIDE, (x) => {
        const share = soft === 0 ? (x < 17.375 ? 0 : 1) : Math.max(0, Math.min(1, (x - 17.375) / soft + 0.5));
        const mixed = (key: 'r' | 'g' | 'b'): number => TONES[0][key] + (TONES[1][key] - TONES[0][key]) * share;
        return { r: mixed('r'), g: mixed('g'), b: mixed('b') };
      });
      const labels = makeLabelMap(SIDE, SIDE, Uint8Array.from({ length: SIDE * SIDE }, (_, k) => (k % SIDE < 17 ? 0 : 1)));
      const holder: { places?: EdgePlaces } = {};
      const arcs = finish(crackArcs(labels, (cells, stride) => {
        holder.places = new EdgePlaces(art, TONES, cells, stride);
        return saddleRule(holder.places, cells, stride);
      }));
      const inner = Array.from({ length: arcs.count }, (_, k) => k).filter((k) => Math.max(arcs.left[k], arcs.right[k]) < 2);
      const widths = inner.map((k) => {
        const { ring, edgeWidthPx } = arcPoints(arcs, k, holder.places as EdgePlaces);
        for (let p = 0; p < ring.n; p++) expect(Math.abs(ring.x[p] - 17.375)).toBeLessThan(0.04);
        return edgeWidthPx;
      });
      expect(widths.length).toBeGreaterThan(0);
      for (const width of widths) expect(Math.abs(width - Math.max(1, soft))).toBeLessThan(0.6);
    }
  });
});

describe('where three tones meet', () => {
  it('is placed within half a pixel, and on average far better than the corner of pixels says', () => {
    const random = randomFrom(9);
    let [placed, corner, count] = [0, 0, 0];
    for (let round = 0; round < 30; round++) {
      const [x0, y0, turn] = [SIDE / 2 + random(), SIDE / 2 + random(), 2 * Math.PI * random()];
      const { arcs, points } = painted((x, y) => {
        const rad = (Math.atan2(y - y0, x - x0) - turn + 4 * Math.PI) % (2 * Math.PI);
        return rad < 2 ? 0 : rad < 4 ? 1 : 2;
      });
      const { ends } = junctions(arcs, points, 0.42);
      for (let k = 0; k < arcs.count; k++) {
        for (const [slot, node] of [[2 * k, arcs.from[k]], [2 * k + 1, arcs.to[k]]]) {
          const [column, row] = [(node % arcs.stride) - 1, Math.floor(node / arcs.stride) - 1];
          const end = ends[slot];
          if (node < 0 || end === undefined || Math.hypot(column - x0, row - y0) > 3) continue;
          const away = Math.hypot(end.x - x0, end.y - y0);
          expect(away).toBeLessThan(0.5);
          placed += away;
          corner += Math.hypot(column - x0, row - y0);
          count++;
        }
      }
    }
    expect(count).toBeGreaterThan(80);
    expect(placed / count).toBeLessThan(0.15);
    expect(placed).toBeLessThan(0.4 * corner);
  });

  it('lets an edge pass straight on where a third one ends at it', () => {
    const { arcs, points } = painted((x, y) => (y < 20.4 ? 0 : x < 19.7 ? 1 : 2));
    const { ends } = junctions(arcs, points, 0.42);
    const level = ends.flatMap((end, slot) => (end !== undefined && Math.hypot(end.x - 19.7, end.y - 20.4) < 1 && arcs.left[slot >> 1] * arcs.right[slot >> 1] === 0 && arcs.left[slot >> 1] !== arcs.right[slot >> 1] ? [end] : []));
    expect(level).toHaveLength(2);
    for (const { dx, dy, y } of level) expect([Math.abs(dy) < 0.05 * Math.abs(dx), Math.abs(y - 20.4) < 0.1]).toEqual([true, true]);
  });
});
