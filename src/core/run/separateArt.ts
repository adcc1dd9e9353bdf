import { lumaOf, rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { assertWithinFrame } from '../outline/checkCurves.ts';
import { nodeCount, ringCount, type Curves } from '../outline/curves.ts';
import { filmOfRegions, filmsOfMesh, wholeOutline, type Meeting } from '../assemble/filmsOfMesh.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { withoutSmallPieces } from '../outline/mesh/smallPieces.ts';
import { traceOutline, type OutlineOptions } from '../outline/traceOutline.ts';
import { withoutSmallRings } from '../outline/withoutSmallRings.ts';
import { artXFromPicture, artYFromPicture, type Art } from '../raster/art.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { oneTone, type OneTone } from '../separate/oneTone.ts';
import { within, type Task } from '../task/task.ts';
import { filmsOf, toneFacts } from './filmsOf.ts';
import { BACK_FILM, oneFilmOf } from '../film/filmRoles.ts';
import type { OneToneSeparation } from '../separate/separation.ts';
import type { ToneFact } from '../separate/toneFact.ts';
import { ownFilms, type TracedPart } from '../job/tracedPart.ts';
import type { Film } from '../film/film.ts';
import { tonesKey, traceTones, type FilmsSeparation, type TracedTones } from './traceTones.ts';

/** A film with its outline, in art px. */
export interface TracedFilm {
  readonly film: Film;
  readonly outline: Curves;
}

export interface SeparatedArt {
  /** Lowest first. */
  readonly films: readonly TracedFilm[];
  /** Everything that any film covers, as one outline; made when it is asked for. */
  readonly whole: () => Curves;
  /** Of one tone: its threshold and histogram. */
  readonly tone?: OneTone;
  /** Of several: the palette, most frequent first, or darkest first for tones of lightness. */
  readonly tones?: readonly ToneFact[];
  /** Lightness at which the tones of a photo pass into each other, and how much of it is how light (256 counts). */
  readonly steps?: readonly number[];
  readonly histogram?: Float64Array;
  /** Root mean square distance of the art's edges from the curves, art px; of several tones. */
  readonly strayPx?: number;
}

/** What of a part is read. */
export type Separable = Pick<TracedPart, 'separation' | 'films'> & Partial<Pick<TracedPart, 'id'>> & { readonly outline: Pick<TracedPart['outline'], 'leastPieceMm2'> };

/** Gives what was made for a key before, or makes and keeps it. */
export type Remember = (key: string, make: () => Task<TracedTones>) => Task<TracedTones>;
const forget: Remember = (_key, make) => make();

/**
 * Clean art to films by the part's way of separating.
 * @param resolutionOf art pixels on one mm of the finished design, from everything that is cut.
 * @param remember keeps tones and mesh between calls with the same art.
 * @throws AppError `nothingToCut`, `oneColour`, `tooIntricate`.
 */
export function* separateArt(
  part: Separable,
  art: Art,
  options: OutlineOptions,
  resolutionOf: (whole: Curves) => number,
  remember: Remember = forget,
): Task<SeparatedArt> {
  const { separation } = part;
  if (separation.way === 'oneTone') return yield* oneFilm({ ...part, separation }, art, options, resolutionOf);
  const settled = yield* within(
    remember(tonesKey(separation, options), () => traceTones(separation, art, options)),
    0,
    0.8,
  );
  return yield* within(filmsOfTones({ ...part, separation }, art, options, resolutionOf, settled), 0.8, 1);
}

type Separated<Ways> = Omit<Separable, 'separation'> & { readonly separation: Ways };

/** The ink of one colour. */
function* oneFilm(part: Separated<OneToneSeparation>, art: Art, options: OutlineOptions, resolutionOf: (whole: Curves) => number): Task<SeparatedArt> {
  const tone = oneTone(art, part.separation);
  yield 0.2;
  const traced = yield* within(traceOutline(tone.share, options), 0.2, 1);
  const without = (leastPx2: number): Curves => withoutSmallRings(traced, leastPx2);
  const outline = atItsSize(part.outline.leastPieceMm2, resolutionOf, traced, without, (kept) => kept);
  assertWithinFrame(outline, art.width, art.height);
  return { films: [{ film: oneFilmOf(part.films, part.separation.film), outline }], whole: () => outline, tone };
}

/** A film for each tone, or as the part has it. */
function* filmsOfTones(
  part: Separated<FilmsSeparation>,
  art: Art,
  options: OutlineOptions,
  resolutionOf: (whole: Curves) => number,
  traced: TracedTones,
): Task<SeparatedArt> {
  const { separation } = part;
  const { leastPieceMm2 } = part.outline;
  const facts = toneFacts(separation, traced.tones, ownFilms(part.id));
  yield 0;
  const { films, order } = filmsOf(separation, part.films, facts);
  const filmOfTone = facts.map(({ film }) => films.findIndex(({ id }) => id === film));
  const keepsDarker = separation.way !== 'backDetail' && separation.keeps === 'darker';
  const all = filmOfRegions(traced.regions, (label) => (label === CLEAR ? -1 : filmOfTone[label]), spotsOf(separation, art, films));
  const wholeOf = (regionFilms: Int32Array): Curves => wholeOutline(traced.mesh, traced.regions, regionFilms);
  const filmOf = atItsSize(leastPieceMm2, resolutionOf, all, (leastPx2) => withoutSmallPieces(traced.mesh, traced.regions, all, leastPx2), wholeOf);
  let made: Curves | undefined;
  const whole = (): Curves => (made ??= wholeOf(filmOf));
  const outlines = yield* filmsOfMesh(traced.mesh, traced.regions, {
    filmOf,
      films: films.length,
      meet: meetingsOf(separation, films, () => (ringCount(whole()) === 0 ? 1 : resolutionOf(whole()))),
      order,
      ...(keepsDarker ? { lightness: films.map(({ colour }) => lumaOf(rgbFromHex(colour) as Rgb)) } : {}),
      edges: { art: traced.art, tones: traced.tones.tones, options },
  });
  // The back lies under everything, also under detail that touches none of it.
  const back = separation.way !== 'backDetail' ? undefined : separation.back === 'full' ? withoutOpenings(whole()) : whole();
  // Where three tones meet a bit of one may be an area of some pixels whose outline is next to nothing, and reach may run on to where nothing else of it is.
  const leastPx2 = leastPieceMm2 === 0 || ringCount(whole()) === 0 ? 0 : leastPieceMm2 * resolutionOf(whole()) ** 2;
  const traces = outlines
    .map(({ film, curves }): TracedFilm => ({ film: films[film], outline: withoutSmallRings(back !== undefined && films[film].id === BACK_FILM.id ? back : curves, leastPx2) }))
    .filter(({ outline }) => ringCount(outline) > 0);
  for (const { outline } of traces) assertWithinFrame(outline, art.width, art.height);
  const {
    tones: { steps },
    histogram,
  } = traced;
  return {
    films: traces,
    whole,
    tones: facts,
    strayPx: traced.mesh.strayPx,
    ...(steps === undefined ? {} : { steps }),
    ...(histogram === undefined ? {} : { histogram }),
  };
}

/** The size of what is left changes when small bits are left out, and with it what is small: looked at so often. */
const SIZE_ROUNDS = 3;

/**
 * Leaves out what is smaller than a limit in mm² at the size that the design has without it.
 * @param all everything. @param without what is left of it above a limit in px². @param wholeOf its outline, by which the size goes.
 */
function atItsSize<Value>(
  leastMm2: number,
  resolutionOf: (whole: Curves) => number,
  all: Value,
  without: (leastPx2: number) => Value,
  wholeOf: (left: Value) => Curves,
): Value {
  let left = all;
  let before = 0;
  for (let round = 0; leastMm2 > 0 && round < SIZE_ROUNDS; round++) {
    const whole = wholeOf(left);
    if (ringCount(whole) === 0) break;
    const resolution = resolutionOf(whole);
    if (Math.abs(resolution - before) <= 1e-6 * resolution) break;
    left = without(leastMm2 * resolution ** 2);
    before = resolution;
  }
  return left;
}

/** How two films meet: as their pair says, else as all do. */
function meetingsOf(separation: FilmsSeparation, films: readonly Film[], pxPerMm: () => number): (film: number, other: number) => Meeting {
  if (separation.way === 'backDetail') return () => ({ meet: 'stacked', reachPx: 0 });
  const reachPx = (reachMm: number | undefined): number => (reachMm === undefined || reachMm === 0 ? 0 : reachMm * pxPerMm());
  const common: Meeting = { meet: separation.meet, reachPx: reachPx(separation.reachMm) };
  const keyOf = (a: string, b: string): string => JSON.stringify([a, b].sort());
  const pairs = new Map(
    (separation.pairs ?? []).map(({ films: [a, b], meet, reachMm }): [string, Meeting] => [
      keyOf(a, b),
      { meet, reachPx: reachPx(reachMm ?? separation.reachMm) },
    ]),
  );
  if (pairs.size === 0) return () => common;
  return (film, other) => pairs.get(keyOf(films[film].id, films[other].id)) ?? common;
}

/** The areas that were pointed at, in art px. */
function spotsOf(separation: FilmsSeparation, { frame }: Art, films: readonly Film[]): { x: number; y: number; film: number }[] {
  if (separation.way !== 'flat') return [];
  return (separation.spots ?? []).map(({ xPx, yPx, film }) => ({
    x: Math.floor(artXFromPicture(frame, xPx)),
    y: Math.floor(artYFromPicture(frame, yPx)),
    film: films.findIndex(({ id }) => id === film),
  }));
}

export const nodesOfFilms = (films: readonly TracedFilm[]): number => films.reduce((sum, { outline }) => sum + nodeCount(outline), 0);
