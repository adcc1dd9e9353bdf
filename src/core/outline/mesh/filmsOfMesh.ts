import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import type { Curves } from '../curves.ts';
import type { ArcMesh, MeshOptions } from './arcMesh.ts';
import { EdgePlaces } from './edgePlaces.ts';
import { filmOutline } from './filmOutline.ts';
import type { MeshRegions } from './meshRegions.ts';
import { reachedOutline } from './reachFilm.ts';
import { sidesOfRegions, stackedRegions, stackOrder } from './stackFilms.ts';

/** How films meet: each upper one on a full lower one, or each cut out of the others. */
export type Meet = 'stacked' | 'inset';

/** What is cut of one film. */
export interface FilmCurves {
  /** Number of the film. */
  readonly film: number;
  readonly curves: Curves;
}

export interface FilmsOptions {
  /** Film of each label, 0 to `films` − 1; −1 for the background and what is clear. */
  readonly filmOfLabel: (label: number) => number;
  readonly films: number;
  /** Single regions that are given another film, or none: by a pixel in them. */
  readonly spots?: readonly { readonly x: number; readonly y: number; readonly film: number }[] | undefined;
  readonly meet: Meet;
  /** In which the films lie over each other, lowest first; the one with the least edge when absent. */
  readonly order?: readonly number[] | undefined;
  /** How far inset films run on under their upper neighbours, and what places the edges then. */
  readonly reach?: { readonly px: number; readonly art: Art; readonly tones: readonly Rgb[]; readonly options: MeshOptions } | undefined;
}

/** Reads the films off a mesh, lowest first. */
export function filmsOfMesh(mesh: ArcMesh, regions: MeshRegions, { filmOfLabel, films, spots, meet, order, reach }: FilmsOptions): FilmCurves[] {
  const filmOf = Int32Array.from(regions.label, filmOfLabel);
  for (const { x, y, film } of spots ?? []) {
    const region = regions.at(x, y);
    // What lies around the whole picture is never film.
    if (region >= 0 && regions.firstPixel[region] >= 0) filmOf[region] = film;
  }
  const ranks = order === undefined ? stackOrder(mesh, regions, filmOf, films) : Int32Array.from({ length: films }, (_, film) => order.indexOf(film));
  const lowestFirst = Array.from({ length: films }, (_, film) => film).sort((a, b) => ranks[a] - ranks[b]);
  if (meet === 'inset' && reach !== undefined && reach.px > 0) {
    const places = new EdgePlaces(reach.art, reach.tones, mesh.arcs.cells, mesh.arcs.stride);
    const rankOfCell = regions.spread(Array.from(filmOf, (film) => (film < 0 ? -1 : ranks[film])));
    return lowestFirst.map((film) => ({ film, curves: reachedOutline(mesh, rankOfCell, ranks[film], reach.px, places, reach.options) }));
  }
  const covered = meet === 'stacked' ? stackedRegions(mesh, regions, filmOf, ranks) : ownRegions(filmOf, films);
  return lowestFirst.map((film) => ({ film, curves: filmOutline(mesh, sidesOfRegions(regions, covered.subarray(film * regions.count, (film + 1) * regions.count))) }));
}

function ownRegions(filmOf: Int32Array, films: number): Uint8Array {
  const covered = new Uint8Array(films * filmOf.length);
  for (let r = 0; r < filmOf.length; r++) if (filmOf[r] >= 0) covered[filmOf[r] * filmOf.length + r] = 1;
  return covered;
}
