import { AppError } from '../errors/appError.ts';
import type { Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { cubicEnlarged } from './cubicEnlarged.ts';
import { isRestless } from './isRestless.ts';
import { edgePairs, steepened, type EdgePairs } from './steepEdges.ts';

/** Most pixels of an enlarged picture: enlarging is for small art. */
export const MAX_ENLARGED_PIXELS = 24_000_000;
/** Times the result is shrunk again, compared with the picture, and corrected by what differs. */
const ROUNDS = 3;
/** In restless art what differs is mostly noise and compression, and only a share of it is put back: edges would follow it to and fro. */
const FROM_RESTLESS = 0.3;

/**
 * Enlarges flat art without steps or blur. Cubic convolution gives a smooth picture; across each edge it is made as steep as a sharp edge of the larger picture
 * is; and what the result, averaged over the old pixels, differs from the picture is put back, from restless art in part, so that edges stand where the old
 * mixed pixels say (M. Irani & S. Peleg, "Improving resolution by image registration", CVGIP 53(3), 1991, doi:10.1016/1049-9652(91)90045-L).
 * @param isUneasy whether the art is restless; of a part of one, whether the whole is. Looked at when absent. @throws AppError `enlargedTooLarge`.
 */
export function* enlarge(art: Art, times: 2 | 4, isUneasy?: boolean): Task<Art> {
  const { width, height } = art;
  assertEnlargeable(art, times);
  const [outWidth, outHeight] = [width * times, height * times];
  const source = channelsOf(art);
  const restless = isUneasy ?? (yield* within(isRestless(art.colour), 0, 0.02));
  const putBack = restless ? FROM_RESTLESS : 1;
  const colour = yield* enlargedChannels(source.slice(0, 3), width, height, times, putBack);
  const isPlain = source[3].every((v) => v === 255);
  const [alpha] = isPlain ? [undefined] : yield* enlargedChannels([source[3]], width, height, times, 1);
  const data = new Uint8Array(outWidth * outHeight * 4).fill(255);
  const alphaOut = new Uint8Array(outWidth * outHeight).fill(255);
  for (let i = 0, j = 0; i < alphaOut.length; i++, j += 4) {
    for (let c = 0; c < 3; c++) data[j + c] = clampByte(colour[c][i]);
    if (alpha !== undefined) alphaOut[i] = clampByte(alpha[i]);
  }
  const frame = { ...art.frame, scale: art.frame.scale * times };
  return { kind: 'art', width: outWidth, height: outHeight, colour: makeRgba8(outWidth, outHeight, data, true), alpha: alphaOut, frame };
}

/** @throws AppError `enlargedTooLarge`. */
export function assertEnlargeable({ width, height }: Art, times: number): void {
  if (width * height * times * times > MAX_ENLARGED_PIXELS) throw new AppError('enlargedTooLarge', { times, megapixels: MAX_ENLARGED_PIXELS / 1e6 });
}

const clampByte = (value: number): number => (value <= 0 ? 0 : value >= 255 ? 255 : Math.round(value));

function channelsOf({ colour, alpha }: Art): Float32Array[] {
  const channels = [0, 1, 2].map((c) => {
    const plane = new Float32Array(alpha.length);
    for (let i = 0, j = c; i < plane.length; i++, j += 4) plane[i] = colour.data[j];
    return plane;
  });
  return [...channels, Float32Array.from(alpha)];
}

function* enlargedChannels(source: readonly Float32Array[], width: number, height: number, times: number, putBack: number): Task<Float32Array[]> {
  const pairs: EdgePairs = edgePairs(source, width, height);
  yield 0.1;
  const smooth: Float32Array[] = [];
  for (const plane of source) {
    smooth.push(cubicEnlarged(plane, width, height, times));
    yield 0.1;
  }
  let steep = steepened(smooth, pairs, width, height, times);
  for (let round = 1; round < ROUNDS; round++) {
    yield 0.1 + (0.9 * round) / ROUNDS;
    const rest = source.map((plane, c) => differences(plane, steep[c], width, height, times));
    for (const [c, plane] of smooth.entries()) {
      smooth[c] = added(plane, cubicEnlarged(rest[c], width, height, times), putBack);
      yield 0.1 + (0.9 * round) / ROUNDS;
    }
    steep = steepened(smooth, pairs, width, height, times);
  }
  return steep;
}

function added(a: Float32Array, b: Float32Array, share: number): Float32Array {
  for (let i = 0; i < a.length; i++) a[i] += share * b[i];
  return a;
}

/** What each old pixel has over the mean of the new ones in it. */
function differences(source: Float32Array, large: Float32Array, width: number, height: number, times: number): Float32Array {
  const out = new Float32Array(source.length);
  const share = 1 / (times * times);
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      let sum = 0;
      for (let dy = 0; dy < times; dy++) for (let dx = 0, j = (y * times + dy) * width * times + x * times; dx < times; dx++, j++) sum += large[j];
      out[i] = source[i] - sum * share;
    }
  }
  return out;
}
