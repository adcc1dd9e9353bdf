import { describe, expect, it } from 'vitest';
import { disc } from '../../../tests/fixtures/shapes.ts';
import { chordDistance2, chordsOf, eachCellNear } from './chords.ts';
import { outlineOf } from './traceOutline.ts';

const round = outlineOf(disc(60, 60, 30.2, 29.7, 18));
const chords = chordsOf(round);

describe('chords of an outline', () => {
  it('close each ring and tell how far any place lies from it', () => {
    expect(new Set(chords.ends).size).toBe(chords.ends.length);
    for (const [x, y] of [
      [30.2, 29.7],
      [2, 3],
      [50, 40],
      [30, 5],
    ] as const) {
      const nearest = Math.sqrt(Math.min(...Array.from(chords.ends.keys(), (k) => chordDistance2(chords, k, x, y))));
      expect(Math.abs(nearest - Math.abs(Math.hypot(x - 30.2, y - 29.7) - 18))).toBeLessThan(0.06);
    }
  });

  it('are visited at every cell that the outline passes, and inside the raster only', () => {
    const seen = new Set<number>();
    eachCellNear(chords, 60, 60, (i, x, y, chord) => {
      expect(i).toBe(y * 60 + x);
      expect(x >= 0 && y >= 0 && x < 60 && y < 60).toBe(true);
      expect(chord).toBeLessThan(chords.ends.length);
      seen.add(i);
    });
    for (let k = 0; k < 720; k++) {
      const at = (k / 720) * 2 * Math.PI;
      expect(seen.has(Math.floor(29.7 + 18 * Math.sin(at)) * 60 + Math.floor(30.2 + 18 * Math.cos(at)))).toBe(true);
    }
    let outside = 0;
    eachCellNear(chords, 20, 20, (_i, x, y) => void (outside += x >= 20 || y >= 20 ? 1 : 0));
    expect(outside).toBe(0);
  });
});
