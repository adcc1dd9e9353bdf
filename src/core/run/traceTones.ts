import type { Rgb } from '../colour/oklab.ts';
import { rgbFromHex } from '../colour/hex.ts';
import { traceMesh, type ArcMesh } from '../outline/mesh/arcMesh.ts';
import { meshRegions, type MeshRegions } from '../outline/mesh/meshRegions.ts';
import type { OutlineOptions } from '../outline/traceOutline.ts';
import type { Art } from '../raster/art.ts';
import { BACK, backDetail, DETAIL } from '../separate/backDetail.ts';
import { LEAST_NOISE_PX2 } from '../clean/settling/settledTones.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { lightnessTones } from '../separate/lightnessTones.ts';
import { within, type Task } from '../task/task.ts';
import type { HeldTone, OneToneSeparation, Separation } from '../separate/separation.ts';

/** Ways that give several films. */
export type FilmsSeparation = Exclude<Separation, OneToneSeparation>;

/** The art's tones and the edges between them: all that a change of films, names or order leaves as it is. */
export interface TracedTones {
  readonly tones: FlatTones & { readonly steps?: readonly number[] };
  readonly mesh: ArcMesh;
  readonly regions: MeshRegions;
  /** The art by whose colours the edges were placed. */
  readonly art: Art;
  /** Of photos: how much of it is how light, 256 counts. */
  readonly histogram?: Float64Array;
}

/** Detail that was calmed over a width is followed within this share of it: closer there is nothing of the art. */
const CALM_FOLLOWS = 0.1;

/** What the traced tones of an art depend on, as text. */
export function tonesKey(separation: FilmsSeparation, options: OutlineOptions): string {
  const { way } = separation;
  if (way === 'flat')
    return JSON.stringify([way, separation.count, separation.palette?.map(({ colour }) => colour), separation.kept?.map(({ colour }) => colour), options]);
  if (way === 'tones') return JSON.stringify([way, separation.count, separation.steps, options]);
  return JSON.stringify([way, separation.fineness, separation.threshold, options]);
}

/** Brings art to the tones of its way and traces the edges between them. @throws AppError `nothingToCut`, `oneColour`, `tooIntricate`. */
export function* traceTones(separation: FilmsSeparation, art: Art, options: OutlineOptions): Task<TracedTones> {
  const leastAreaPx2 = Math.max(LEAST_NOISE_PX2 * Math.max(1, art.frame.scale ** 2), options.leastAreaPx2);
  if (separation.way === 'flat') {
    const rgbOf = ({ colour }: HeldTone): Rgb => rgbFromHex(colour) as Rgb;
    const tones = yield* within(
      flatTones(art, { count: separation.palette?.map(rgbOf) ?? separation.count, held: separation.kept?.map(rgbOf) ?? [], leastAreaPx2: options.leastAreaPx2 }),
      0,
      0.6,
    );
    const mesh = yield* within(traceMesh(art, tones.labels, tones.tones, options), 0.6, 1);
    yield 1;
    const regions = meshRegions(mesh);
    yield 1;
    return { tones, mesh, regions, art };
  }
  const tones = yield* within(
    separation.way === 'tones'
      ? byLightness(separation.count, separation.steps, art, leastAreaPx2)
      : detailed(separation.fineness, separation.threshold, art, leastAreaPx2),
    0,
    0.4,
  );
  const calmed = tones.calmedPx === undefined ? options : { ...options, calm: { labels: [BACK, DETAIL] as const, followPx: tones.calmedPx * CALM_FOLLOWS } };
  const mesh = yield* within(traceMesh(tones.grey, tones.labels, tones.tones, calmed), 0.4, 1);
  yield 1;
  return { tones, mesh, regions: meshRegions(mesh), art: tones.grey, histogram: tones.histogram };
}

type GreyTones = FlatTones & { readonly grey: Art; readonly steps: readonly number[]; readonly histogram: Float64Array; readonly calmedPx?: number };

const byLightness = (count: number, steps: readonly number[] | undefined, art: Art, leastAreaPx2: number): Task<GreyTones> =>
  lightnessTones(art, { count, ...(steps === undefined ? {} : { steps }), leastAreaPx2 });

function* detailed(fineness: number, threshold: number | 'auto', art: Art, leastAreaPx2: number): Task<GreyTones> {
  const tones = yield* backDetail(art, { fineness, threshold, leastAreaPx2 });
  return { ...tones, steps: [tones.threshold] };
}
