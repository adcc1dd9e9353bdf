import type { Design } from '../assemble/design.ts';
import { rgbFromHex } from '../colour/hex.ts';
import { filmDifference } from '../colour/filmDifference.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { largestPlace } from '../operate/pieceMarks.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import type { Finding } from './cutCheck.ts';

/** What is known of the films of a design, lowest first. */
export interface CheckedFilm {
  readonly id: string;
  readonly colour: string;
  /** Whether another film holds on top of it. */
  readonly takesFilm: boolean;
}

/** A film that differs less from its blank is hardly seen on it, CIEDE2000. */
export const HARDLY_SEEN = 4;
/** So little of a film on one that takes none is not told, mm². */
const LEAST_MM2 = 1;

/**
 * Films that will hardly be seen on their blank, and films that lie on one that takes none on top of it: where most of it does.
 * @param films those of the design's layers. @param library what combines outlines; without it only colours are looked at.
 */
export function rackCheck(design: Pick<Design, 'layers'>, films: readonly CheckedFilm[], blankColour: string, library?: PolygonLibrary): Finding[] {
  const ofFilm = new Map(films.map((film) => [film.id, film]));
  const blank = rgbFromHex(blankColour);
  const hardly = design.layers.flatMap(({ filmId, curves }): Finding[] => {
    const own = rgbFromHex(ofFilm.get(filmId)?.colour ?? '');
    if (own === undefined || blank === undefined || ringCount(curves) === 0) return [];
    const difference = filmDifference(own, blank);
    return difference < HARDLY_SEEN ? [{ kind: 'likeBlank', filmId, ...placeOf(curves), size: difference }] : [];
  });
  return [...hardly, ...(library === undefined ? [] : holdNone(library, design, ofFilm))];
}

function holdNone(library: PolygonLibrary, { layers }: Pick<Design, 'layers'>, films: ReadonlyMap<string, CheckedFilm>): Finding[] {
  return layers.flatMap((below, k) => {
    if (films.get(below.filmId)?.takesFilm !== false) return [];
    return layers.slice(k + 1).flatMap(({ filmId, curves }): Finding[] => {
      const on = commonOf(library, below.curves, curves);
      const size = piecesOf(on).reduce((sum, { area }) => sum + area, 0);
      return size < LEAST_MM2 ? [] : [{ kind: 'holdsNone', filmId, ...placeOf(on), size }];
    });
  });
}

/** What two films have in common, worked out once: a change of a colour asks again and again. */
function commonOf(library: PolygonLibrary, below: Curves, above: Curves): Curves {
  const own = known.get(below) ?? new WeakMap<Curves, Curves>();
  known.set(below, own);
  const made = own.get(above) ?? combineCurves(library, 'common', below, above);
  own.set(above, made);
  return made;
}
const known = new WeakMap<Curves, WeakMap<Curves, Curves>>();

function placeOf(curves: Curves): { xMm: number; yMm: number } {
  const { x, y } = largestPlace(curves);
  return { xMm: x, yMm: y };
}
