import { z } from 'zod';
import { combineCurves } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { filmId, MAX_FILMS } from '../film/film.ts';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves } from '../outline/transformCurves.ts';
import type { DesignLayer } from './design.ts';

const meetSchema = z.enum(['stacked', 'inset']);
const reachMm = z.number().min(0).max(20);

/** How the films of a whole design lie on each other, whatever parts they come from. */
export const layeringSchema = z.strictObject({
  /** Upper films on full lower ones, or cut out of them. */
  meet: meetSchema,
  /** How far an inset film runs on under those above it. */
  reachMm,
  /** Two films that meet otherwise than the rest. */
  pairs: z.array(z.strictObject({ films: z.tuple([filmId, filmId]), meet: meetSchema, reachMm: reachMm.optional() })).max(MAX_FILMS ** 2).optional(),
  /** Films on which what overlaps is cut as one. */
  joined: z.array(filmId).max(MAX_FILMS).optional(),
});
export type Layering = z.infer<typeof layeringSchema>;

export const STACKED: Layering = { meet: 'stacked', reachMm: 0 };

/** Whether any two films may be inset. */
export const isAnyInset = ({ meet, pairs = [] }: Layering): boolean => meet === 'inset' || pairs.some((pair) => pair.meet === 'inset');

/** How two films meet. */
export function meetingOf({ meet, reachMm: reach, pairs = [] }: Layering, one: string, other: string): { readonly meet: Layering['meet']; readonly reachMm: number } {
  const own = pairs.find(({ films: [a, b] }) => (a === one && b === other) || (a === other && b === one));
  return { meet: own?.meet ?? meet, reachMm: own?.reachMm ?? reach };
}

/**
 * Cuts out of every film what lies on it and is inset, less the reach.
 * @param parts the films of each part, as they lie; what cuts is no film. @param films in the order of pressing, lowest first.
 */
export function withMeeting<Part extends { readonly layers: readonly DesignLayer[]; readonly cutsOut?: boolean | undefined }>(library: PolygonLibrary, parts: readonly Part[], films: readonly string[], layering: Layering): Part[] {
  const there = parts.filter(({ cutsOut }) => cutsOut !== true);
  const wholes = new Map(films.map((film) => [film, joinCurves(there.flatMap(({ layers }) => layers.flatMap(({ filmId: id, curves }) => (id === film ? [curves] : []))))]));
  const covers = new Map(films.map((film, k) => [film, coverOf(library, film, films.slice(k + 1), wholes, layering)]));
  const cut = (layer: DesignLayer): DesignLayer => {
    const cover = covers.get(layer.filmId);
    return cover === undefined || !overlap(layer.curves, cover) ? layer : { ...layer, curves: combineCurves(library, 'cutOut', layer.curves, cover) };
  };
  return parts.map((part) => (part.cutsOut === true ? part : { ...part, layers: part.layers.map(cut) }));
}

/** What is cut out of a film for those above it; undefined for nothing. */
function coverOf(library: PolygonLibrary, film: string, above: readonly string[], wholes: ReadonlyMap<string, Curves>, layering: Layering): Curves | undefined {
  const byReach = new Map<number, Curves[]>();
  for (const upper of above) {
    const { meet, reachMm: reach } = meetingOf(layering, film, upper);
    const whole = wholes.get(upper);
    if (meet === 'inset' && whole !== undefined && ringCount(whole) > 0) byReach.set(reach, [...(byReach.get(reach) ?? []), whole]);
  }
  // What lies side by side on two films is one cover: the film does not run on under where they meet.
  const covers = [...byReach].map(([reach, curves]) => offsetCurves(library, curves.reduce((all, each) => combineCurves(library, 'join', all, each)), -reach));
  return covers.length === 0 ? undefined : covers.reduce((all, each) => combineCurves(library, 'join', all, each));
}

/** Whether the boxes of two outlines do: others have nothing to do with each other. */
export function overlap(a: Curves, b: Curves): boolean {
  const [p, q] = [boundsOf(a), boundsOf(b)];
  return p !== undefined && q !== undefined && p.left < q.right && q.left < p.right && p.top < q.bottom && q.top < p.bottom;
}
