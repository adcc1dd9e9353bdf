import { makeRgba8, type Rgba8 } from './raster.ts';

/**
 * What was taken from one picture to the other, made visible: middle grey where nothing changed, lighter and darker by `gain` times the change in each channel.
 * @throws RangeError when the sizes differ.
 */
export function amplifiedDifference(before: Rgba8, after: Rgba8, gain: number): Rgba8 {
  const { width, height } = before;
  if (after.width !== width || after.height !== height)
    throw new RangeError(`a picture of ${width} × ${height} has no difference to one of ${after.width} × ${after.height}`);
  const out = new Uint8Array(before.data.length);
  const table = Uint8Array.from({ length: 511 }, (_, d) => Math.max(0, Math.min(255, Math.round(128 + (d - 255) * gain))));
  for (let i = 0; i < out.length; i += 4) {
    for (let c = i; c < i + 3; c++) out[c] = table[before.data[c] - after.data[c] + 255];
    out[i + 3] = 255;
  }
  return makeRgba8(width, height, out, true);
}
