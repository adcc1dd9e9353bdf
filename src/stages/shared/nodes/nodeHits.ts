import type { FilmPaths, NodeRef, SideRef } from '../../../core/outline/edit/editFilms.ts';
import { nodeAt, placeOn, sideAt, sideCount, type EditPath, type Point } from '../../../core/outline/edit/editPath.ts';
import { doMeet, isWithin, pathBox } from '../../../core/outline/edit/pathBox.ts';

export type Hit =
  | { readonly kind: 'handle'; readonly ref: NodeRef; readonly which: 'in' | 'out' }
  | { readonly kind: 'node'; readonly ref: NodeRef }
  | { readonly kind: 'side'; readonly side: SideRef };

/** A node given back by the engine lies this near to where it was left, px. */
const SAME_PX = 0.01;
/** Places at which a side is probed. */
const PROBES = 24;

const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** What lies under the pointer: a handle of a chosen node, else a node, else a side; upper films before lower ones. */
export function hitAt(films: readonly FilmPaths[], chosen: readonly NodeRef[], at: Point, withinPx: number): Hit | undefined {
  for (const ref of chosen) {
    const node = films.find(({ id }) => id === ref.film)?.paths[ref.path]?.nodes[ref.node];
    for (const which of ['in', 'out'] as const) if (node?.[which] !== undefined && apart(node[which], at) <= withinPx) return { kind: 'handle', ref, which };
  }
  const ref = nearestNode(films, at, withinPx);
  if (ref !== undefined) return { kind: 'node', ref };
  const side = nearestSide(films, at, withinPx);
  return side === undefined ? undefined : { kind: 'side', side };
}

function nearestNode(films: readonly FilmPaths[], at: Point, withinPx: number): NodeRef | undefined {
  let best: NodeRef | undefined;
  let least = withinPx;
  for (const { id, paths } of [...films].reverse()) {
    for (const [path, outline] of paths.entries()) {
      if (!isWithin(pathBox(outline), at, least)) continue;
      for (const [node, place] of outline.nodes.entries()) {
        if (Math.abs(place.x - at.x) > least || Math.abs(place.y - at.y) > least) continue;
        const away = apart(place, at);
        if (away > least || (best !== undefined && away === least)) continue;
        least = away;
        best = { film: id, path, node };
      }
    }
  }
  return best;
}

function nearestSide(films: readonly FilmPaths[], at: Point, withinPx: number): SideRef | undefined {
  let best: SideRef | undefined;
  let least = withinPx;
  for (const { id, paths } of [...films].reverse()) {
    for (const [path, outline] of paths.entries()) {
      if (!isWithin(pathBox(outline), at, least)) continue;
      for (let k = 0; k < sideCount(outline); k++) {
        if (!mayPass(outline, k, at, least)) continue;
        const side = sideAt(outline, k);
        const { t, away } = nearestOn(side, at);
        if (away >= least) continue;
        least = away;
        best = { film: id, path, side: k, t };
      }
    }
  }
  return best;
}

/** Whether a side may pass within a distance of a place: all of a curve lies among its ends and handles. */
function mayPass(path: EditPath, k: number, at: Point, within: number): boolean {
  const from = nodeAt(path, k);
  const to = nodeAt(path, k + 1);
  const out = from.out ?? from;
  const arriving = to.in ?? to;
  return (
    at.x >= Math.min(from.x, out.x, arriving.x, to.x) - within &&
    at.x <= Math.max(from.x, out.x, arriving.x, to.x) + within &&
    at.y >= Math.min(from.y, out.y, arriving.y, to.y) - within &&
    at.y <= Math.max(from.y, out.y, arriving.y, to.y) + within
  );
}

/** The place of a side nearest to a point: probed, then narrowed down between its neighbours. */
function nearestOn(side: Parameters<typeof placeOn>[0], at: Point): { t: number; away: number } {
  let t = 0;
  let away = Infinity;
  for (let k = 0; k <= PROBES; k++) {
    const here = apart(placeOn(side, k / PROBES), at);
    if (here >= away) continue;
    away = here;
    t = k / PROBES;
  }
  for (let step = 0.5 / PROBES; step > 1e-4; step /= 2) {
    for (const next of [t - step, t + step]) {
      const here = next > 0 && next < 1 ? apart(placeOn(side, next), at) : Infinity;
      if (here >= away) continue;
      away = here;
      t = next;
    }
  }
  return { t: Math.max(0.02, Math.min(0.98, t)), away };
}

/** The node of a film at a place; undefined when there is none any more. */
export function refAt(films: readonly FilmPaths[], { film, ...at }: Point & { readonly film: string }): NodeRef | undefined {
  const paths = films.find(({ id }) => id === film)?.paths ?? [];
  for (const [path, outline] of paths.entries()) {
    if (!isWithin(pathBox(outline), at, SAME_PX)) continue;
    const node = outline.nodes.findIndex((each) => apart(each, at) < SAME_PX);
    if (node >= 0) return { film, path, node };
  }
  return undefined;
}

/** The nodes in a frame. */
export function nodesWithin(films: readonly FilmPaths[], a: Point, b: Point): NodeRef[] {
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const frame = { left, top, right, bottom };
  return films.flatMap(({ id, paths }) => paths.flatMap((path, k) => (doMeet(pathBox(path), frame) ? path.nodes.flatMap((place, node) => (isWithin(frame, place, 0) ? [{ film: id, path: k, node }] : [])) : [])));
}
