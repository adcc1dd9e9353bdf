import { colourNames } from '../colour/colourName.ts';
import { hexFromRgb, rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import type { Curves } from '../outline/curves.ts';
import { nodeCount, ringCount } from '../outline/curves.ts';
import { meshOptionsFrom, traceMesh, type ArcMesh } from '../outline/mesh/arcMesh.ts';
import { filmsOfMesh } from '../outline/mesh/filmsOfMesh.ts';
import { meshRegions, type MeshRegions } from '../outline/mesh/meshRegions.ts';
import { traceOutline, type OutlineOptions } from '../outline/traceOutline.ts';
import { artXFromPicture, artYFromPicture, type Art } from '../raster/art.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { lightnessTones } from '../separate/lightnessTones.ts';
import { oneTone, type OneTone } from '../separate/oneTone.ts';
import { within, type Task } from '../task/task.ts';
import type { Film, FlatSeparation, Job, TonesSeparation } from './job.ts';

/** A film with its outline, in art px. */
export interface TracedFilm {
  readonly film: Film;
  readonly outline: Curves;
}

/** A tone of the art as the palette shows it. */
export interface ToneFact {
  /** `#rrggbb`. */
  readonly colour: string;
  /** Of the art's pixels that are there, 0 to 1. */
  readonly share: number;
  /** Film that it becomes; null for the background. */
  readonly film: string | null;
}

export interface SeparatedArt {
  /** Lowest first. */
  readonly films: readonly TracedFilm[];
  /** Of one tone: its threshold and histogram. */
  readonly tone?: OneTone;
  /** Of several: the palette, most frequent first, or darkest first for tones of lightness. */
  readonly tones?: readonly ToneFact[];
  /** Lightness at which the tones of a photo pass into each other. */
  readonly steps?: readonly number[];
  /** Root mean square distance of the art's edges from the curves, art px; of several tones. */
  readonly strayPx?: number;
}

/** The art's tones and the edges between them: all that a change of films, names or order leaves as it is. */
export interface TracedTones {
  readonly tones: FlatTones & { readonly steps?: readonly number[] };
  readonly mesh: ArcMesh;
  readonly regions: MeshRegions;
  /** The art by whose colours the edges were placed. */
  readonly art: Art;
}

/** Gives what was made for a key before, or makes and keeps it. */
export type Remember = (key: string, make: () => Task<TracedTones>) => Task<TracedTones>;
const forget: Remember = (_key, make) => make();

/** Bits of a tone smaller than this are noise, px². */
const LEAST_NOISE_PX2 = 5;

/**
 * Clean art to films by the job's way of separating.
 * @param pxPerMm art pixels on one mm of the finished design.
 * @param remember keeps tones and mesh between calls with the same art.
 * @throws AppError `nothingToCut`, `oneColour`, `tooIntricate`.
 */
export function* separateArt(job: Pick<Job, 'separation' | 'assembly'>, art: Art, options: OutlineOptions, pxPerMm: number, remember: Remember = forget): Task<SeparatedArt> {
  const { separation } = job;
  if (separation.way === 'oneTone') {
    const tone = oneTone(art, separation);
    yield 0.2;
    return { films: [{ film: job.assembly.films[0], outline: yield* within(traceOutline(tone.share, options), 0.2, 1) }], tone };
  }
  const key = JSON.stringify([separation.way, separation.count, separation.way === 'flat' ? separation.palette?.map(({ colour }) => colour) : separation.steps, options]);
  const traced = yield* remember(key, () => traceTones(separation, art, options));
  const facts = toneFacts(separation, traced.tones);
  const { films, order } = filmsOf(separation, job.assembly.films, facts);
  const filmOfTone = facts.map(({ film }) => films.findIndex(({ id }) => id === film));
  const outlines = filmsOfMesh(traced.mesh, traced.regions, {
    filmOfLabel: (label) => (label === CLEAR ? -1 : filmOfTone[label]),
    films: films.length,
    spots: spotsOf(separation, art, films),
    meet: separation.meet,
    order,
    reach: { px: (separation.reachMm ?? 0) * pxPerMm, art: traced.art, tones: traced.tones.tones, options: meshOptionsFrom(options) },
  });
  const traces = outlines.map(({ film, curves }): TracedFilm => ({ film: films[film], outline: curves })).filter(({ outline }) => ringCount(outline) > 0);
  const { steps } = traced.tones;
  return { films: traces, tones: facts, strayPx: traced.mesh.strayPx, ...(steps === undefined ? {} : { steps }) };
}

function* traceTones(separation: FlatSeparation | TonesSeparation, art: Art, options: OutlineOptions): Task<TracedTones> {
  const leastAreaPx2 = Math.max(LEAST_NOISE_PX2, options.leastAreaPx2);
  const meshOptions = meshOptionsFrom(options);
  if (separation.way === 'tones') {
    const { count, steps } = separation;
    const tones = yield* within(lightnessTones(art, { count, ...(steps === undefined ? {} : { steps }), leastAreaPx2 }), 0, 0.4);
    const mesh = yield* within(traceMesh(tones.grey, tones.labels, tones.tones, meshOptions), 0.4, 1);
    return { tones, mesh, regions: meshRegions(mesh), art: tones.grey };
  }
  const held = separation.palette?.map(({ colour }) => rgbFromHex(colour) as Rgb);
  const tones = yield* within(flatTones(art, { count: held ?? separation.count, leastAreaPx2 }), 0, 0.6);
  const mesh = yield* within(traceMesh(art, tones.labels, tones.tones, meshOptions), 0.6, 1);
  return { tones, mesh, regions: meshRegions(mesh), art };
}

/** The tones with their share of the art and the film that each becomes: as held, or one for each but the background. */
function toneFacts(separation: FlatSeparation | TonesSeparation, { labels, tones, ground }: FlatTones): ToneFact[] {
  const counts = new Float64Array(256);
  for (const label of labels.data) counts[label]++;
  const there = Math.max(1, labels.data.length - counts[CLEAR]);
  const held = separation.way === 'flat' ? separation.palette : undefined;
  return tones.map((tone, k) => ({ colour: held?.[k].colour ?? hexFromRgb(tone), share: counts[k] / there, film: held === undefined ? (k === ground ? null : `${separation.way === 'tones' ? 'shade' : 'tone'}-${k + 1}`) : held[k].film }));
}

/** The films in effect and, where they are held, the order in which they lie over each other: that of the rack. */
function filmsOf(separation: FlatSeparation | TonesSeparation, rack: readonly Film[], facts: readonly ToneFact[]): { films: Film[]; order?: readonly number[] } {
  const pointed = separation.way === 'flat' ? (separation.spots ?? []) : [];
  const wanted = [...new Set([...facts, ...pointed].flatMap(({ film }) => film ?? []))];
  if (wanted.length === 0) throw new AppError('nothingToCut');
  const named = nameTones(facts);
  if (separation.way === 'flat' && separation.palette !== undefined) {
    const films = [...rack.filter(({ id }) => wanted.includes(id)), ...wanted.filter((id) => rack.every((film) => film.id !== id)).flatMap((id) => named.get(id) ?? [])];
    return { films, order: films.map((_, k) => k) };
  }
  // Names and colours that were given to tones of lightness are held on the rack.
  const films = wanted.map((id) => (separation.way === 'tones' ? rack.find((film) => film.id === id) : undefined) ?? (named.get(id) as Film));
  // Each darker tone lies on the lighter ones.
  return separation.way === 'tones' ? { films, order: films.map((_, k) => k).reverse() } : { films };
}

/** The areas that were pointed at, in art px. */
function spotsOf(separation: FlatSeparation | TonesSeparation, { frame }: Art, films: readonly Film[]): { x: number; y: number; film: number }[] {
  if (separation.way !== 'flat') return [];
  return (separation.spots ?? []).map(({ xPx, yPx, film }) => ({ x: Math.floor(artXFromPicture(frame, xPx)), y: Math.floor(artYFromPicture(frame, yPx)), film: films.findIndex(({ id }) => id === film) }));
}

/** A film for each tone, in the tone's own colour and named by it. */
function nameTones(facts: readonly ToneFact[]): Map<string, Film> {
  const films = facts.filter(({ film }) => film !== null);
  const names = colourNames(films.map(({ colour }) => rgbFromHex(colour) as Rgb));
  const named = new Map<string, Film>();
  for (const [k, { film, colour }] of films.entries()) if (film !== null && !named.has(film)) named.set(film, { id: film, name: names[k], colour });
  return named;
}

export const nodesOfFilms = (films: readonly TracedFilm[]): number => films.reduce((sum, { outline }) => sum + nodeCount(outline), 0);
