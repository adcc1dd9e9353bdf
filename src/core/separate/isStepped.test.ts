import { describe, expect, it } from 'vitest';
import { artFromShare, BLACK, disc } from '../../../tests/fixtures/shapes.ts';
import type { Art } from '../raster/art.ts';
import { CLEAR, makeLabelMap } from '../raster/labelMap.ts';
import { makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { flatTones, type FlatTones } from './flatTones.ts';
import { isStepped } from './isStepped.ts';

const read = (art: Art): boolean => isStepped(art, finish(flatTones(art, { count: 2, leastAreaPx2: 0 })));

describe('art whose edges run in steps', () => {
  const round = disc(80, 80, 40.3, 40.2, 30);

  const clearLabels = { labels: makeLabelMap(80, 80, round.data.map((share) => (share < 128 ? CLEAR : 0))), tones: [BLACK] } as unknown as FlatTones;

  it('has no mixed pixels beside them', () => {
    expect(read(artFromShare(makeShareMap(80, 80, round.data.map((share) => (share < 128 ? 0 : 255)))))).toBe(true);
    expect(read(artFromShare(round))).toBe(false);
  });

  it('may lie on a clear ground', () => {
    const onClear = (alpha: Uint8Array): Art => ({ ...artFromShare(makeShareMap(80, 80, new Uint8Array(6400).fill(255))), alpha });
    expect(isStepped(onClear(round.data.map((share) => (share < 128 ? 0 : 255))), clearLabels)).toBe(true);
    expect(isStepped(onClear(round.data), clearLabels)).toBe(false);
  });

  it('may have been compressed lightly', () => {
    const rippled = round.data.map((share, i) => (share < 128 ? (i * 7) % 40 : 255 - ((i * 5) % 40)));
    expect(read(artFromShare(makeShareMap(80, 80, rippled)))).toBe(true);
  });
});
