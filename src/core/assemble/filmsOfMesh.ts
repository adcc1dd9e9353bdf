import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import type { Curves } from '../outline/curves.ts';
import { within, type Task } from '../task/task.ts';
import type { ArcMesh, MeshOptions } from '../outline/mesh/arcMesh.ts';
import { EdgePlaces } from '../outline/mesh/edgePlaces.ts';
import { filmOutline } from '../outline/mesh/filmOutline.ts';
import { regionAt, spreadOverCells, type MeshRegions } from '../outline/mesh/meshRegions.ts';
import { reachedOutline, type Under } from './reachFilm.ts';
import type { Meet } from '../separate/separation.ts';
import { coveredRegions, sidesOfRegions, stackOrder } from './stackFilms.ts';

/** How two films meet, and how far the one that reaches runs on where they are inset, px. */
export interface Meeting {
  readonly meet: Meet;
  readonly reachPx: number;
}

/** What is cut of one film. */
export interface FilmCurves {
  /** Number of the film. */
  readonly film: number;
  readonly curves: Curves;
}

/** A region that is given another film than its label has, or none: by a pixel in it. */
export interface FilmSpot {
  readonly x: number;
  readonly y: number;
  readonly film: number;
}

/**
 * Film of each region: that of its label unless a spot says otherwise. Later spots win.
 * @param filmOfLabel 0 and up; −1 for the background and what is clear.
 */
export function filmOfRegions(regions: MeshRegions, filmOfLabel: (label: number) => number, spots: readonly FilmSpot[] = []): Int32Array {
  const filmOf = Int32Array.from(regions.label, filmOfLabel);
  for (const { x, y, film } of spots) {
    const region = regionAt(regions, x, y);
    // What lies around the whole picture is never film.
    if (region >= 0 && regions.firstPixel[region] >= 0) filmOf[region] = film;
  }
  return filmOf;
}

/** Everything that any film covers, as one outline. */
export const wholeOutline = (mesh: ArcMesh, regions: MeshRegions, filmOf: Int32Array): Curves =>
  filmOutline(
    mesh,
    sidesOfRegions(
      regions,
      Uint8Array.from(filmOf, (film) => (film >= 0 ? 1 : 0)),
    ),
  );

export interface FilmsOptions {
  /** Film of each region, 0 to `films` − 1; −1 for none. */
  readonly filmOf: Int32Array;
  readonly films: number;
  /** How a film meets another. The same for all pairs of films, or by the two. */
  readonly meet: Meet | ((film: number, other: number) => Meeting);
  /** In which the films lie over each other, lowest first; the one with the least edge when absent. */
  readonly order?: readonly number[] | undefined;
  /** Lightness of each film, where of two inset films the darker one keeps its true edge; the upper one does when absent. */
  readonly lightness?: readonly number[] | undefined;
  /** What places the edges of films that run on under others. */
  readonly edges?: { readonly art: Art; readonly tones: readonly Rgb[]; readonly options: MeshOptions } | undefined;
}

/** Reads the films off a mesh, lowest first. Where none runs on under part of another, their outlines are arcs of the mesh and nothing else. */
export function* filmsOfMesh(mesh: ArcMesh, regions: MeshRegions, { filmOf, films, meet, order, lightness, edges }: FilmsOptions): Task<FilmCurves[]> {
  const ranks = order === undefined ? stackOrder(mesh, regions, filmOf, films) : Int32Array.from({ length: films }, (_, film) => order.indexOf(film));
  const lowestFirst = Array.from({ length: films }, (_, film) => film).sort((a, b) => ranks[a] - ranks[b]);
  const meetingOf = typeof meet === 'function' ? meet : (): Meeting => ({ meet, reachPx: 0 });
  const isAbove = (film: number, other: number): boolean => ranks[other] > ranks[film];
  const covered = coveredRegions(mesh, regions, filmOf, films, (film, other) => isAbove(film, other) && meetingOf(film, other).meet === 'stacked');
  const under = (film: number, other: number): Under => {
    const { meet: way, reachPx } = meetingOf(film, other);
    if (way === 'middle') return isAbove(film, other) ? 'middle' : 0;
    const reaches = lightness === undefined || lightness[film] === lightness[other] ? isAbove(film, other) : lightness[film] > lightness[other];
    return way === 'inset' && reaches ? reachPx : 0;
  };
  const places = edges === undefined ? undefined : new EdgePlaces(edges.art, edges.tones, mesh.arcs.cells, mesh.arcs.stride);
  const outlines: FilmCurves[] = [];
  for (const [k, film] of lowestFirst.entries()) {
    const covers = covered.subarray(film * regions.count, (film + 1) * regions.count);
    const reaches = Array.from({ length: films }, (_, other) => (other === film ? 0 : under(film, other)));
    const own = filmOutline(mesh, sidesOfRegions(regions, covers));
    if (edges === undefined || places === undefined || reaches.every((reach) => reach === 0)) {
      outlines.push({ film, curves: own });
      continue;
    }
    // What a film covers already is its own here, whichever film lies on it.
    const cells = spreadOverCells(
      regions,
      Array.from(filmOf, (other, region) => (covers[region] === 1 ? film : other)),
    );
    outlines.push({ film, curves: yield* within(reachedOutline(mesh, own, cells, film, reaches, places, edges.options), k / films, (k + 1) / films) });
  }
  return outlines;
}
