import { describe, expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { artFromShare, polygon, randomFrom } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { settledTones } from './settling/settledTones.ts';
import { tidyEdges } from './tidyEdges.ts';

const WATER: Rgb = { r: 36, g: 80, b: 154 };
const SAND: Rgb = { r: 227, g: 207, b: 164 };
const SKY: Rgb = { r: 156, g: 201, b: 230 };
const [WIDTH, HEIGHT] = [240, 200];

/** Sand in water, its upper edge nearly level so that it passes from row to row, and a patch of the sky's tone, which lies between the two. */
function beach(): Art {
  const sand = artFromShare(polygon(WIDTH, HEIGHT, [[30.2, 96.4], [214.7, 88.1], [209.3, 160.6], [41.1, 168.2]]), SAND, WATER); // prettier-ignore
  const data = new Uint8Array(sand.colour.data);
  for (let y = 10; y < 50; y++) for (let x = 20; x < 90; x++) data.set([SKY.r, SKY.g, SKY.b], 4 * (y * WIDTH + x));
  return artFromPicture(makeRgba8(WIDTH, HEIGHT, data, true));
}

const areasOf = (art: Art): number => labelRegions(finish(settledTones(art, { count: 'auto' })).labels, art.width, art.height, 'each', false).count;

describe('edge tidying', () => {
  it('leaves no crumbs of a third tone along an edge that compression has tinted', async () => {
    const tidied = finish(tidyEdges(await asJpeg(beach(), 40), 1)).art;
    expect(areasOf(tidied)).toBe(3);
  });

  it('takes teeth out of a straight edge and keeps the corners at its ends', () => {
    const random = randomFrom(5);
    const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
    const teeth = Array.from({ length: WIDTH }, () => (random() < 0.5 ? 0 : 1));
    const isSand = (x: number, y: number): boolean => x >= 40 && x < 200 && y >= 60 + teeth[x] && y < 150;
    for (let y = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) data.set(isSand(x, y) ? [SAND.r, SAND.g, SAND.b] : [WATER.r, WATER.g, WATER.b], 4 * (y * WIDTH + x));
    const { art } = finish(tidyEdges(artFromPicture(makeRgba8(WIDTH, HEIGHT, data, true)), 1));
    const redAt = (x: number, y: number): number => (art.colour.data[4 * (y * WIDTH + x)] - WATER.r) / (SAND.r - WATER.r);
    // How far down the edge lies in each column.
    const heights = Array.from({ length: 140 }, (_, k) => 70 - Array.from({ length: 20 }, (__, y) => redAt(50 + k, 50 + y)).reduce((a, b) => a + b, 0));
    const mean = heights.reduce((a, b) => a + b, 0) / heights.length;
    const spread = Math.sqrt(heights.reduce((sum, h) => sum + (h - mean) ** 2, 0) / heights.length);
    expect([Math.abs(mean - 60.5) < 0.15, spread < 0.25]).toEqual([true, true]);
    expect([redAt(40, 149), redAt(199, 149), redAt(39, 149), redAt(200, 149)].map(Math.round)).toEqual([1, 1, 0, 0]);
  });
});
