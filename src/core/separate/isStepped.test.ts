import { describe, expect, it } from 'vitest';
import { artFromShare, disc } from '../../../tests/fixtures/shapes.ts';
import type { Art } from '../raster/art.ts';
import { makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { flatTones } from './flatTones.ts';
import { isStepped } from './isStepped.ts';

const read = (art: Art): boolean => isStepped(art, finish(flatTones(art, { count: 2, leastAreaPx2: 0 })));

describe('art whose edges run in steps', () => {
  const round = disc(80, 80, 40.3, 40.2, 30);

  it('has no mixed pixels beside them', () => {
    expect(read(artFromShare(makeShareMap(80, 80, round.data.map((share) => (share < 128 ? 0 : 255)))))).toBe(true);
    expect(read(artFromShare(round))).toBe(false);
  });

  it('may have been compressed lightly', () => {
    const rippled = round.data.map((share, i) => (share < 128 ? (i * 7) % 40 : 255 - ((i * 5) % 40)));
    expect(read(artFromShare(makeShareMap(80, 80, rippled)))).toBe(true);
  });
});
