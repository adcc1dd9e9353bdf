import { isEnd, isNear, isSmooth, nodeAt, placeOn, sideAt, sideCount, type EditNode, type EditPath, type Point, type Side } from './editPath.ts';
import {
  cornered,
  distance,
  handleMoved,
  nodeAdded,
  nodeRemoved,
  sameSide,
  sideChanges,
  smoothed,
  splitSide,
  straightened,
  turnedSide,
  withNode,
  withReplaced,
  type Replacement,
} from './nodeEdits.ts';
import { mayReach } from './pathBox.ts';

/** The outlines of a film while they are edited. */
export interface FilmPaths {
  readonly id: string;
  readonly paths: readonly EditPath[];
}

/** A node of an outline of a film, each by its number. */
export interface NodeRef {
  readonly film: string;
  readonly path: number;
  readonly node: number;
}

/** A place on a side of an outline. */
export interface SideRef {
  readonly film: string;
  readonly path: number;
  readonly side: number;
  /** Along the side, 0 to 1. */
  readonly t: number;
}

/** Why an edit was not made: films meet at the node; the two nodes are not on one outline; they are not two open ends. */
export type Refusal = 'filmsMeet' | 'notOneOutline' | 'notEnds';
export type Edit = { readonly films: readonly FilmPaths[] } | { readonly refused: Refusal };

/**
 * Edits of nodes. Films that meet have the very same edge, and keep it: what changes on a shared edge changes in every film that has it. All give new films;
 * those that an edit did not touch are the same objects as before.
 */

const pathOf = (films: readonly FilmPaths[], ref: { readonly film: string; readonly path: number }): EditPath => {
  const path = films.find(({ id }) => id === ref.film)?.paths[ref.path];
  if (path === undefined) throw new RangeError(`no outline ${ref.path} of film ${ref.film}`);
  return path;
};

const mapPaths = (films: readonly FilmPaths[], change: (path: EditPath) => EditPath): FilmPaths[] =>
  films.map((film) => {
    const paths = film.paths.map(change);
    return paths.every((path, k) => path === film.paths[k]) ? film : { ...film, paths };
  });

const replaceAll = (films: readonly FilmPaths[], replacements: readonly Replacement[]): readonly FilmPaths[] =>
  replacements.reduce((all, each) => mapPaths(all, (path) => withReplaced(path, each)), films);

/** Moves nodes with their handles, and the nodes of other films at the same places. */
export function moveNodes(films: readonly FilmPaths[], refs: readonly NodeRef[], dx: number, dy: number): FilmPaths[] {
  const places = refs.map((ref) => nodeAt(pathOf(films, ref), ref.node));
  return mapPaths(films, (path) => {
    const here = places.filter((place) => mayReach(path, place));
    if (here.length === 0) return path;
    const nodes = path.nodes.map((node) => (here.some((place) => isNear(place, node)) ? movedNode(node, dx, dy) : node));
    return nodes.every((node, k) => node === path.nodes[k]) ? path : { ...path, nodes };
  });
}

function movedNode(node: EditNode, dx: number, dy: number): EditNode {
  const moved = ({ x, y }: Point): Point => ({ x: x + dx, y: y + dy });
  return { ...moved(node), ...(node.in === undefined ? {} : { in: moved(node.in) }), ...(node.out === undefined ? {} : { out: moved(node.out) }) };
}

/** Moves a handle; the other one of a node that is passed smoothly turns with it unless it moves `alone`. */
export function moveHandle(films: readonly FilmPaths[], ref: NodeRef, which: 'in' | 'out', to: Point, alone: boolean): readonly FilmPaths[] {
  const path = pathOf(films, ref);
  const node = handleMoved(nodeAt(path, ref.node), which, to, !alone && isSmooth(path, ref.node));
  return replaceSides(films, sideChanges(path, withNode(path, ref.node, node)));
}

/** Adds a node on a side. */
export const addNode = (films: readonly FilmPaths[], at: SideRef): readonly FilmPaths[] => replaceAll(films, [nodeAdded(pathOf(films, at), at.side, at.t)]);

/** Makes nodes corners, or lets the outline pass them smoothly. */
export function shapeNodes(films: readonly FilmPaths[], refs: readonly NodeRef[], shape: 'corner' | 'smooth'): readonly FilmPaths[] {
  return refs.reduce<readonly FilmPaths[]>((all, ref) => {
    const path = pathOf(all, ref);
    if (isEnd(path, ref.node)) return all;
    const node = shape === 'corner' ? cornered(path, ref.node) : smoothed(path, ref.node);
    // The order of a path's nodes does not change by this: later references hold.
    return replaceSides(all, sideChanges(path, withNode(path, ref.node, node)));
  }, films);
}

/** Side for side, so that nodes keep their numbers. */
const replaceSides = (films: readonly FilmPaths[], replacements: readonly Replacement[]): FilmPaths[] =>
  mapPaths(films, (path) =>
    replacements.reduce((now, { from: [from], to: [to] }) => {
      if (!mayReach(now, from.from) || !mayReach(now, from.to)) return now;
      for (let k = 0; k < sideCount(now); k++) {
        const node = nodeAt(now, k);
        if (!isNear(node, from.from) && !isNear(node, from.to)) continue;
        const side = sideAt(now, k);
        if (sameSide(side, from)) return withSide(now, k, to.out, to.in);
        if (sameSide(side, turnedSide(from))) return withSide(now, k, to.in, to.out);
      }
      return now;
    }, path),
  );

function withSide(path: EditPath, k: number, out: Point | undefined, arriving: Point | undefined): EditPath {
  const end = (k + 1) % path.nodes.length;
  return {
    ...path,
    nodes: path.nodes.map((node, at): EditNode => {
      if (at !== k && at !== end) return node;
      const { in: oldIn, out: oldOut } = node;
      const nextOut = at === k ? out : oldOut;
      const nextIn = at === end ? arriving : oldIn;
      return { x: node.x, y: node.y, ...(nextIn === undefined ? {} : { in: nextIn }), ...(nextOut === undefined ? {} : { out: nextOut }) };
    }),
  };
}

/** Removes nodes; a whole outline when all of its nodes are among them. */
export function removeNodes(films: readonly FilmPaths[], refs: readonly NodeRef[]): Edit {
  const places = refs.map((ref) => ({ ref, at: nodeAt(pathOf(films, ref), ref.node) }));
  const wholes = new Set(
    places
      .filter(({ ref }) => places.filter((other) => sameOutline(other.ref, ref)).length >= pathOf(films, ref).nodes.length)
      .map(({ ref }) => `${ref.film} ${ref.path}`),
  );
  let now: readonly FilmPaths[] = films;
  for (const { ref, at } of places) {
    if (wholes.has(`${ref.film} ${ref.path}`)) continue;
    const path = pathOf(now, ref);
    const node = path.nodes.findIndex((each) => isNear(each, at));
    if (node < 0) continue;
    if (isEnd(path, node)) {
      now = withPath(now, ref, { closed: false, nodes: node === 0 ? path.nodes.slice(1) : path.nodes.slice(0, -1) });
      continue;
    }
    const replacement = nodeRemoved(path, node);
    if (meetsWithin(now, replacement)) return { refused: 'filmsMeet' };
    now = replaceAll(now, [replacement]);
  }
  return { films: now.map((film) => without(film, wholes)) };
}

function without(film: FilmPaths, wholes: ReadonlySet<string>): FilmPaths {
  const paths = film.paths.filter((path, k) => !wholes.has(`${film.id} ${k}`) && path.nodes.length >= 2);
  return paths.length === film.paths.length ? film : { ...film, paths };
}

const sameOutline = (a: NodeRef, b: NodeRef): boolean => a.film === b.film && a.path === b.path;

/** Whether another outline has some of the sides but not all of them in a row: then a third film begins between them, and they cannot become one. */
function meetsWithin(films: readonly FilmPaths[], { from }: Replacement): boolean {
  return films.some(({ paths }) =>
    paths.some((path) => {
      if (!from.some((side) => mayReach(path, side.from) && mayReach(path, side.to))) return false;
      const has = from.map((side) => hasSide(path, side));
      return has.includes(true) && has.includes(false);
    }),
  );
}

/** Whether an outline has a side, in either direction. */
function hasSide(path: EditPath, side: Side): boolean {
  const turned = turnedSide(side);
  for (let k = 0; k < sideCount(path); k++) {
    const node = nodeAt(path, k);
    if (isNear(node, side.from) && sameSide(sideAt(path, k), side)) return true;
    if (isNear(node, side.to) && sameSide(sideAt(path, k), turned)) return true;
  }
  return false;
}

/** A straight line from one node to another of the same outline, along the way with fewer nodes, or the shorter one. */
export function straighten(films: readonly FilmPaths[], a: NodeRef, b: NodeRef): Edit {
  if (!sameOutline(a, b) || a.node === b.node) return { refused: 'notOneOutline' };
  const path = pathOf(films, a);
  const n = path.nodes.length;
  const [low, high] = [Math.min(a.node, b.node), Math.max(a.node, b.node)];
  const [on, back] = [high - low, n - (high - low)];
  const onward = !path.closed || on < back || (on === back && lengthBetween(path, low, on) <= lengthBetween(path, high, back));
  const replacement = straightened(path, onward ? low : high, onward ? on : back);
  return meetsWithin(films, replacement) ? { refused: 'filmsMeet' } : { films: replaceAll(films, [replacement]) };
}

const lengthBetween = (path: EditPath, first: number, count: number): number =>
  Array.from({ length: count }, (_, k) => distance(nodeAt(path, first + k), nodeAt(path, first + k + 1))).reduce((sum, each) => sum + each, 0);

/** Joins two open ends of a film with a line, or in one node where they lie within `oneNodePx` of each other. */
export function joinEnds(films: readonly FilmPaths[], a: NodeRef, b: NodeRef, oneNodePx: number): Edit {
  if (a.film !== b.film || !isEnd(pathOf(films, a), a.node) || !isEnd(pathOf(films, b), b.node) || (a.path === b.path && a.node === b.node))
    return { refused: 'notEnds' };
  const [first, second] = [pathOf(films, a), pathOf(films, b)];
  if (a.path === b.path) return { films: withPath(films, a, closedUp(first.nodes, oneNodePx)) };
  const before = a.node === 0 ? turnedNodes(first.nodes) : first.nodes;
  const after = b.node === 0 ? second.nodes : turnedNodes(second.nodes);
  const nodes = meeting(before[before.length - 1], after[0], oneNodePx);
  const joined: EditPath = { closed: false, nodes: [...before.slice(0, -1), ...nodes, ...after.slice(1)] };
  return {
    films: films.map((film) =>
      film.id === a.film ? { ...film, paths: film.paths.map((path, k) => (k === a.path ? joined : path)).filter((_, k) => k !== b.path) } : film,
    ),
  };
}

/** End and start of two outlines as one node, or as two with a line between. */
function meeting(end: EditNode, start: EditNode, oneNodePx: number): EditNode[] {
  if (distance(end, start) > oneNodePx) return [end, start];
  return [
    {
      x: (end.x + start.x) / 2,
      y: (end.y + start.y) / 2,
      ...(end.in === undefined ? {} : { in: end.in }),
      ...(start.out === undefined ? {} : { out: start.out }),
    },
  ];
}

function closedUp(nodes: readonly EditNode[], oneNodePx: number): EditPath {
  const last = nodes[nodes.length - 1];
  const joint = meeting(last, nodes[0], oneNodePx);
  return { closed: true, nodes: joint.length === 2 ? nodes : [joint[0], ...nodes.slice(1, -1)] };
}

const turnedNodes = (nodes: readonly EditNode[]): EditNode[] =>
  [...nodes]
    .reverse()
    .map(({ x, y, in: arriving, out }) => ({ x, y, ...(out === undefined ? {} : { in: out }), ...(arriving === undefined ? {} : { out: arriving }) }));

/**
 * Cuts an outline open at a node, in its own film only: a gap of `gapPx` is left out, so that both ends can be taken; as a tab, it holds a piece in the sheet.
 */
export function cutOpen(films: readonly FilmPaths[], ref: NodeRef, gapPx: number): Edit {
  const path = pathOf(films, ref);
  if (isEnd(path, ref.node)) return { refused: 'notOneOutline' };
  const n = path.nodes.length;
  const [before, after] = [sideAt(path, ref.node - 1), sideAt(path, ref.node)];
  const [, leaving] = splitSide(after, lengthShare(after, gapPx / 2));
  const [arriving] = splitSide(before, 1 - lengthShare(turnedSide(before), gapPx / 2));
  const start: EditNode = { x: leaving.from.x, y: leaving.from.y, ...(leaving.out === undefined ? {} : { out: leaving.out }) };
  const end: EditNode = { x: arriving.to.x, y: arriving.to.y, ...(arriving.in === undefined ? {} : { in: arriving.in }) };
  const firstAfter = withInOf(nodeAt(path, ref.node + 1), leaving.in);
  const lastBefore = withOutOf(nodeAt(path, ref.node - 1), arriving.out);
  if (path.closed) {
    const middle = Array.from({ length: n - 1 }, (_, k) => nodeAt(path, ref.node + 1 + k));
    middle[0] = withInOf(middle[0], leaving.in);
    middle[middle.length - 1] = withOutOf(middle[middle.length - 1], arriving.out);
    return { films: withPath(films, ref, { closed: false, nodes: [start, ...middle, end] }) };
  }
  const first: EditPath = { closed: false, nodes: [...path.nodes.slice(0, ref.node - 1), lastBefore, end] };
  const second: EditPath = { closed: false, nodes: [start, firstAfter, ...path.nodes.slice(ref.node + 2)] };
  return {
    films: films.map((film) => (film.id === ref.film ? { ...film, paths: [...film.paths.map((each, k) => (k === ref.path ? first : each)), second] } : film)),
  };
}

const withInOf = ({ in: _old, ...node }: EditNode, arriving: Point | undefined): EditNode => ({ ...node, ...(arriving === undefined ? {} : { in: arriving }) });
const withOutOf = ({ out: _old, ...node }: EditNode, out: Point | undefined): EditNode => ({ ...node, ...(out === undefined ? {} : { out }) });

/** Share t of a side at which `length` px are behind, at most a third of it. */
function lengthShare(side: Parameters<typeof placeOn>[0], length: number): number {
  let passed = 0;
  let last = placeOn(side, 0);
  for (let k = 1; k <= 32; k++) {
    const next = placeOn(side, k / 96);
    passed += distance(last, next);
    if (passed >= length) return k / 96;
    last = next;
  }
  return 1 / 3;
}

const withPath = (films: readonly FilmPaths[], ref: { readonly film: string; readonly path: number }, path: EditPath): FilmPaths[] =>
  films.map((film) => (film.id === ref.film ? { ...film, paths: film.paths.map((old, k) => (k === ref.path ? path : old)) } : film));
