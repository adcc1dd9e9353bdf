import { describe, expect, it } from 'vitest';
import { artFromShare, disc, randomFrom } from '../../../tests/fixtures/shapes.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { makeRgba8, makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { evenTones } from './evenTones.ts';

const rampOf = (perPixel: number): Art =>
  artFromPicture(makeRgba8(96, 64, new Uint8Array(96 * 64 * 4).map((_, i) => (i % 4 === 3 ? 255 : Math.min(255, 40 + perPixel * ((i >> 2) % 96)))), true));

describe('evenTones', () => {
  it('finds the tones of a flat drawing, noise or not', () => {
    const drawing = artFromShare(disc(96, 64, 48, 32, 20));
    expect(finish(evenTones(drawing))?.tones).toHaveLength(2);
    const random = randomFrom(3);
    const data = drawing.colour.data.map((value, i) => (i % 4 === 3 ? value : Math.max(0, Math.min(255, value + Math.round(20 * (random() - 0.5))))));
    expect(finish(evenTones({ ...drawing, colour: makeRgba8(96, 64, data, true) }))?.tones).toHaveLength(2);
  });

  it('takes no shade for bands of even tones, however steep it is', () => {
    for (const perPixel of [1, 2, 4]) expect(finish(evenTones(rampOf(perPixel)))).toBeUndefined();
  });

  it('says nothing of a drawing whose ground is shaded, of one tone, and of noise', () => {
    const drawing = artFromShare(disc(96, 64, 48, 32, 20));
    const shaded = drawing.colour.data.map((value, i) => (i % 4 === 3 ? value : Math.max(0, value - ((i >> 2) % 96))));
    expect(finish(evenTones({ ...drawing, colour: makeRgba8(96, 64, shaded, true) }))).toBeUndefined();
    expect(finish(evenTones(artFromShare(makeShareMap(32, 32, new Uint8Array(1024)))))).toBeUndefined();
    const random = randomFrom(5);
    expect(finish(evenTones(artFromPicture(makeRgba8(96, 64, new Uint8Array(96 * 64 * 4).map((_, i) => (i % 4 === 3 ? 255 : Math.floor(256 * random()))), true))))).toBeUndefined();
  });
});
