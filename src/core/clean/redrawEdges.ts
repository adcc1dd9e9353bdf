import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { labelEdges, nearEdges } from '../raster/nearEdges.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { byRows, within, type Task } from '../task/task.ts';
import { ToneMix } from './toneMix.ts';
import { SetsAround } from './setsAround.ts';

/** How far from an edge a pixel may still be a mixture, px: soft edges and JPEG blocks spread no further. */
const REACH = 3;
/** Away from the edge itself a share this small is noise. */
const NOISE = 0.07;
const ROWS_PER_TURN = 64;

/** Every pixel as a mixture of two tones. */
export interface Mixtures {
  /** The tone that the pixel is a mixture with; its own where it is none. */
  readonly other: Uint8Array;
  /** Share of the pixel's own tone, 0 to 255. */
  readonly share: Uint8Array;
  /** The art's colours, edges redrawn as `redrawEdges` gives them, RGBA bytes. */
  readonly drawn: Uint8Array;
}

/**
 * The art in its tones with edges as sharp as they came: a pixel near an edge becomes the mixture of the tones around it that its own colour is nearest to, so
 * that it still says where inside of it the edge runs; all others become their tone.
 * @param labels index into `tones` for every pixel. @returns the colours; alpha has no part in it.
 */
export function* redrawEdges(art: Art, labels: Uint8Array, tones: readonly Rgb[]): Task<Rgba8> {
  const { drawn } = yield* mixturesAtEdges(art, labels, tones);
  return makeRgba8(art.width, art.height, drawn, art.colour.opaque === true);
}

/** The mixtures that pixels near edges are, each told as its own tone and the one that has most of the rest. */
export function* mixturesAtEdges({ colour, alpha, width, height }: Art, labels: Uint8Array, tones: readonly Rgb[]): Task<Mixtures> {
  const mixtures = { other: labels.slice(), share: new Uint8Array(labels.length).fill(255), drawn: new Uint8Array(colour.data) };
  yield* within(byRows(height, (y) => inTones(labels, tones, mixtures.drawn, y * width, (y + 1) * width)), 0, 0.2);
  const edges = labelEdges(labels, width, height);
  yield 0.3;
  const { rowFirst, start, end } = nearEdges(edges, REACH);
  yield 0.4;
  const mix = new ToneMix(colour, tones);
  const near = new SetsAround(labels, alpha, width, height, REACH);
  const beside = new SetsAround(labels, alpha, width, height, 1);
  for (let y = 0; y < height; y++) {
    near.toRow(y);
    beside.toRow(y);
    for (let s = rowFirst[y]; s < rowFirst[y + 1]; s++) mixStretch(labels, mixtures, mix, near, beside, y * width, start[s], end[s]);
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield 0.4 + (0.6 * y) / height;
  }
  return mixtures;
}

function inTones(labels: Uint8Array, tones: readonly Rgb[], out: Uint8Array, from: number, to: number): void {
  for (let i = from, j = 4 * from; i < to; i++, j += 4) {
    const tone = tones[labels[i]];
    out[j] = tone.r;
    out[j + 1] = tone.g;
    out[j + 2] = tone.b;
  }
}

/** Pixels `from` to `to` of the row that begins at `row`. */
function mixStretch(labels: Uint8Array, { other, share, drawn }: Mixtures, mix: ToneMix, near: SetsAround, beside: SetsAround, row: number, from: number, to: number): void {
  for (let i = from; i < to; i++) {
    const nextTo = beside.around(i - row) | (1 << labels[i]);
    if (!mix.isOf(i, nextTo, near.around(i - row))) continue;
    other[i] = mix.otherThan(labels[i]);
    share[i] = Math.round(255 * (other[i] === labels[i] ? 1 : mix.shareOf(labels[i])));
    if (isDrawn(mix, labels[i], nextTo)) mix.write(drawn, i);
  }
}

/** Whether a pixel is drawn as the mixture found: away from the edge itself a small share of others is noise. */
const isDrawn = (mix: ToneMix, own: number, beside: number): boolean => (beside & ~(1 << own)) !== 0 || mix.shareOf(own) <= 1 - NOISE;
