import type { DesignLayer } from '../assemble/design.ts';
import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves, strokeCurves, type OffsetCorners } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { roundCorners } from '../combine/roundCorners.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { followedBy, placed, rotation, translation, type Affine } from '../geometry/affine.ts';
import { CROWDED_MM } from '../outline/crowdedNodes.ts';
import { boundsOf, CurvesBuilder, ringCount, type Bounds, type Curves } from '../outline/curves.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { enclosedCurves, fillAt } from './enclosed.ts';
import type { Operation } from './operation.ts';
import { markedPieces, together, type LostMark } from './pieceMarks.ts';
import { mendCurves } from './mendCurves.ts';
import { shadowCurves } from './shadowCurves.ts';
import { thickenCurves } from './thicken.ts';
import { tidyCurves } from './tidyCurves.ts';

/** What operations are done with. */
export interface OperateWith {
  readonly library: PolygonLibrary;
  /** Films in the order of pressing, as far as it is known. */
  readonly order: readonly string[];
  /** From the frame of the marks to the part's own mm, and back. */
  readonly toMm: Affine;
  readonly fromMm: Affine;
  /** Own mm of the part on one mm of the design. */
  readonly perMm: number;
}

/** What is to be told of an operation. */
export interface OperationNote {
  readonly operation: string;
  /** Places that it did not find by now. */
  readonly lost: number;
  /** Of pieces: what was marked, and what is nearest to it. */
  readonly marks: readonly LostMark[];
  /** What lines enclose for it, in the frame of the marks. */
  readonly enclosed?: Curves | undefined;
}

export interface Operated {
  /** Lowest first. */
  readonly layers: readonly DesignLayer[];
  readonly notes: readonly OperationNote[];
}

type Of<Kind extends Operation['kind']> = Extract<Operation, { kind: Kind }>;

/** Does a part's operations one after the other. An operation that finds none of its pieces does nothing. @param layers of the part in its own mm, lowest first. */
export function operate(layers: readonly DesignLayer[], operations: readonly Operation[], using: OperateWith): Operated {
  const notes: OperationNote[] = [];
  let now = layers;
  /** Films that fills have laid down: they are no lines to the next one. */
  const fills = new Set<string>();
  for (const operation of operations) {
    if (operation.enabled === false) continue;
    if (operation.kind === 'fill' && now.every(({ filmId }) => filmId !== operation.film)) fills.add(operation.film);
    const done = operation.kind === 'fill' ? fill(now, operation, using, fills) : oneOperation(now, operation, using);
    now = done.layers.filter(({ curves, marks }) => ringCount(curves) > 0 || marks !== undefined);
    if (done.lost !== undefined || done.enclosed !== undefined) notes.push({ operation: operation.id, lost: done.lost?.count ?? 0, marks: done.lost?.marks ?? [], ...(done.enclosed === undefined ? {} : { enclosed: done.enclosed }) });
  }
  return { layers: now, notes };
}

interface Done {
  readonly layers: readonly DesignLayer[];
  readonly lost?: { readonly count: number; readonly marks?: readonly LostMark[] } | undefined;
  readonly enclosed?: Curves;
}

function oneOperation(layers: readonly DesignLayer[], operation: Exclude<Operation, { kind: 'fill' }>, using: OperateWith): Done {
  const { library, perMm } = using;
  switch (operation.kind) {
    case 'thicken':
      return each(layers, operation, using, (curves) => thickenCurves(library, curves, operation.byMm * perMm));
    case 'corners':
      return each(layers, operation, using, (curves) => roundCorners(curves, { radiusMm: operation.radiusMm * perMm, manner: operation.manner }));
    case 'line':
      return each(layers, operation, using, (curves) => strokeCurves(library, curves, (operation.widthMm / 2) * perMm, operation.corners, operation.ends));
    case 'tidy':
      return each(layers, operation, using, (curves) =>
        tidyCurves(library, curves, { withinMm: operation.withinMm * perMm, leastMm2: operation.leastMm2 * perMm ** 2, gapMm: operation.gapMm * perMm, straight: operation.straight, square: operation.square, strokesMm: (operation.strokesMm ?? 0) * perMm }),
      );
    case 'mend':
      return { layers: layers.map((layer) => mended(layer, operation, using)) };
    case 'join':
      return { layers: layers.map((layer) => ({ ...layer, curves: joinOverlaps(library, layer.curves) })) };
    case 'allowance':
      return allowance(layers, operation, using);
    case 'border':
    case 'edgeLine':
      return aroundSome(layers, operation, using);
    case 'field':
      return field(layers, operation, using);
    case 'shadow':
      return { layers: laidBelow(layers, operation.film, shadowCurves(library, wholeOf(library, layers), operation.xMm * perMm, operation.yMm * perMm, operation.isLong), using) };
    case 'split':
      return split(layers, operation, using);
    case 'takeOff':
      return takeOff(layers, operation, using);
    case 'film':
      return otherFilm(layers, operation, using);
    case 'rows':
      return repeated(layers, rowPlaces(operation, perMm));
    case 'around':
      return repeated(layers, roundPlaces(operation, perMm, boxOf(layers)));
  }
}

/** A layer with its weak places mended, where the operation is for its film. */
function mended(layer: DesignLayer, { only, at, stripMm, openGapMm, closeGapMm, leastMm2, tipDeg, radiusMm, teethMm }: Of<'mend'>, { library, perMm, toMm }: OperateWith): DesignLayer {
  if (only !== undefined && layer.filmId !== only) return layer;
  const own = at?.filter(({ film }) => film === layer.filmId).map(({ x, y }) => placed(toMm, x, y));
  if (own?.length === 0) return layer;
  const scaled = (value: number | undefined): number | undefined => (value === undefined ? undefined : value * perMm);
  const gapMm = scaled(openGapMm ?? closeGapMm);
  const settings = { stripMm: scaled(stripMm), gapMm, gapsAre: openGapMm === undefined ? ('closed' as const) : ('opened' as const), pieceMm2: leastMm2 === undefined ? undefined : leastMm2 * perMm ** 2, tipDeg, tipRadiusMm: scaled(radiusMm), teethMm: scaled(teethMm), closeMm: scaled(CROWDED_MM), at: own };
  return { ...layer, curves: mendCurves(library, layer.curves, settings) };
}

/** Changes the outlines of each film, or those of the pieces that the operation is for. */
function each(layers: readonly DesignLayer[], { pieces }: { readonly pieces?: Of<'thicken'>['pieces'] }, using: OperateWith, change: (curves: Curves) => Curves): Done {
  if (pieces === undefined) return { layers: layers.map((layer) => ({ ...layer, curves: change(layer.curves) })) };
  const { marked, rest, lost } = markedPieces(layers, pieces, using.toMm, using.fromMm);
  const changed = new Map(marked.map(({ filmId, curves }) => [filmId, change(curves)]));
  // What a piece grows over is one with it; all others keep their nodes.
  const put = (layer: DesignLayer): DesignLayer => {
    const own = changed.get(layer.filmId);
    return own === undefined ? layer : { ...layer, curves: ringCount(layer.curves) === 0 ? own : combineCurves(using.library, 'join', layer.curves, own) };
  };
  return { layers: rest.map(put), lost: lostOf(lost) };
}

const lostOf = (marks: readonly LostMark[]): Done['lost'] => (marks.length === 0 ? undefined : { count: marks.length, marks });

/** The pieces that an operation is for, or all. */
function chosen(layers: readonly DesignLayer[], pieces: Of<'thicken'>['pieces'], using: OperateWith): { readonly some: readonly DesignLayer[]; readonly lost?: Done['lost'] } {
  if (pieces === undefined) return { some: layers };
  const { marked, lost } = markedPieces(layers, pieces, using.toMm, using.fromMm);
  return { some: marked, lost: lostOf(lost) };
}

const wholeOf = (library: PolygonLibrary, layers: readonly DesignLayer[]): Curves => joinOverlaps(library, joinCurves(layers.map(({ curves }) => curves)));

function boxOf(layers: readonly DesignLayer[]): Bounds {
  return boundsOf(joinCurves(layers.map(({ curves }) => curves))) ?? { left: 0, top: 0, right: 0, bottom: 0 };
}

/** What outlines are without the layers whose films go on before theirs: those would be covered by it. */
export function seenBelow(layers: readonly DesignLayer[], filmId: string, curves: Curves, { library, order }: Pick<OperateWith, 'library' | 'order'>): Curves {
  const at = order.indexOf(filmId);
  const covered = at < 0 ? [] : layers.filter((layer) => layer.filmId !== filmId && order.includes(layer.filmId) && order.indexOf(layer.filmId) < at);
  return covered.reduce((left, layer) => combineCurves(library, 'cutOut', left, layer.curves), curves);
}

/** Puts outlines below all others; where their film goes on above one of those, they are cut out of it, so that they are seen all the same. */
function laidBelow(layers: readonly DesignLayer[], filmId: string, curves: Curves, using: Pick<OperateWith, 'library' | 'order'>): readonly DesignLayer[] {
  if (ringCount(curves) === 0) return layers;
  const own = layers.find((layer) => layer.filmId === filmId);
  const { library } = using;
  const seen = seenBelow(layers, filmId, curves, using);
  if (own === undefined) return [{ filmId, curves: seen }, ...layers];
  return layers.map((layer) => (layer === own ? { ...layer, curves: combineCurves(library, 'join', layer.curves, seen) } : layer));
}

function aroundSome(layers: readonly DesignLayer[], operation: Of<'border'> | Of<'edgeLine'>, using: OperateWith): Done {
  const { library, perMm } = using;
  const { some, lost } = chosen(layers, operation.pieces, using);
  const whole = wholeOf(library, some);
  if (ringCount(whole) === 0) return { layers, lost };
  const { film, corners } = operation;
  const moved = (byMm: number, of: Curves): Curves => offsetCurves(library, of, byMm * perMm, corners);
  if (operation.kind === 'border') {
    const grown = moved(operation.widthMm, whole);
    return { layers: laidBelow(layers, film, operation.openings === 'filled' ? withoutOpenings(grown) : grown, using), lost };
  }
  const edge = withoutOpenings(whole);
  const { awayMm, widthMm } = operation;
  const [outer, inner] = awayMm >= 0 ? [moved(awayMm + widthMm, edge), moved(awayMm, edge)] : [moved(awayMm, edge), moved(awayMm - widthMm, edge)];
  const line = combineCurves(library, 'cutOut', outer, inner);
  // Outside of the part it lies below; inside it would not be seen there.
  if (awayMm >= 0) return { layers: laidBelow(layers, film, line, using), lost };
  const own = layers.find((layer) => layer.filmId === film);
  if (own === undefined) return { layers: [...layers, { filmId: film, curves: line }], lost };
  return { layers: layers.map((layer) => (layer === own ? { ...layer, curves: combineCurves(library, 'cutOut', layer.curves, line) } : layer)), lost };
}

function field(layers: readonly DesignLayer[], { film, form, paddingMm, cornerMm, knocksOut }: Of<'field'>, using: OperateWith): Done {
  const { library, perMm } = using;
  const { left, top, right, bottom } = boxOf(layers);
  const padding = paddingMm * perMm;
  const round = form === 'round' ? Math.SQRT2 : 1;
  const [widthMm, heightMm] = [(right - left) * round + 2 * padding, (bottom - top) * round + 2 * padding];
  const shape = form === 'rectangle' ? ({ form, widthMm, heightMm, cornerMm: cornerMm * perMm } as const) : form === 'bar' ? ({ form, widthMm, heightMm, ends: 'round' } as const) : ({ form, widthMm, heightMm } as const);
  const behind = transformCurves(figureCurves(shape), translation((left + right - widthMm) / 2, (top + bottom - heightMm) / 2));
  if (!knocksOut) return { layers: laidBelow(layers, film, behind, using) };
  return { layers: [{ filmId: film, curves: combineCurves(library, 'cutOut', behind, wholeOf(library, layers)) }] };
}

function allowance(layers: readonly DesignLayer[], { pieces, widthMm, corners }: Of<'allowance'>, using: OperateWith): Done {
  const grow = (curves: Curves): Curves => offsetCurves(using.library, curves, widthMm * using.perMm, corners as OffsetCorners);
  const { some, lost } = chosen(layers, pieces, using);
  const done = each(layers, { pieces }, using, grow);
  const lines = new Map(some.map(({ filmId, curves }) => [filmId, curves]));
  const withMarks = done.layers.map((layer): DesignLayer => {
    const line = lines.get(layer.filmId);
    if (line === undefined) return layer;
    return { ...layer, marks: layer.marks === undefined ? line : joinCurves([layer.marks, line]) };
  });
  return { layers: withMarks, lost };
}

/** Larger than any design, mm. */
const FAR_MM = 1e4;

function split(layers: readonly DesignLayer[], { from, to, gapMm }: Of<'split'>, { library, toMm, perMm }: OperateWith): Done {
  const [p, q] = [placed(toMm, from.x, from.y), placed(toMm, to.x, to.y)];
  const length = Math.hypot(q.x - p.x, q.y - p.y);
  if (length === 0) return { layers };
  const [ux, uy] = [(q.x - p.x) / length, (q.y - p.y) / length];
  const half = (gapMm * perMm) / 2;
  const side = (way: 1 | -1): Curves => {
    const builder = new CurvesBuilder();
    const at = (along: number, across: number): [number, number] => [p.x + ux * along - uy * across * way, p.y + uy * along + ux * across * way];
    const corners = [at(-FAR_MM, half), at(FAR_MM, half), at(FAR_MM, FAR_MM), at(-FAR_MM, FAR_MM)];
    if (way === -1) corners.reverse();
    builder.start(...corners[0], -1);
    for (const corner of [...corners.slice(1), corners[0]]) builder.line(...corner);
    builder.close();
    return builder.build();
  };
  const halves = [side(1), side(-1)];
  return { layers: layers.map((layer) => ({ ...layer, curves: joinCurves(halves.map((plane) => combineCurves(library, 'common', layer.curves, plane))) })) };
}

function takeOff(layers: readonly DesignLayer[], { pieces }: Of<'takeOff'>, using: OperateWith): Done {
  const { rest, lost } = markedPieces(layers, pieces, using.toMm, using.fromMm);
  return { layers: rest, lost: lostOf(lost) };
}

function otherFilm(layers: readonly DesignLayer[], { pieces, film }: Of<'film'>, using: OperateWith): Done {
  const { marked, rest, lost } = markedPieces(layers, pieces, using.toMm, using.fromMm);
  const moved = marked.filter(({ filmId }) => filmId !== film);
  if (moved.length === 0) return { layers, lost: lostOf(lost) };
  // What lies on that film already stays in it.
  const kept = rest.map((layer) => (layer.filmId === film ? (layers.find(({ filmId }) => filmId === film) ?? layer) : layer));
  const outlines = moved.map(({ curves }) => curves);
  const own = kept.find(({ filmId }) => filmId === film);
  if (own === undefined) return { layers: [...kept, { filmId: film, curves: together(outlines) }], lost: lostOf(lost) };
  return { layers: kept.map((layer) => (layer === own ? { ...layer, curves: together([layer.curves, ...outlines]) } : layer)), lost: lostOf(lost) };
}

/** @param fills films that are no lines. */
function fill(layers: readonly DesignLayer[], { film, at, reachMm, gapMm }: Of<'fill'>, using: OperateWith, fills: ReadonlySet<string>): Done {
  const { library, perMm, toMm } = using;
  const lines = layers.flatMap(({ filmId, curves }) => (fills.has(filmId) ? [] : [curves]));
  const enclosed = enclosedCurves(library, lines, gapMm * perMm);
  const filled = fillAt(library, enclosed, at.map(({ x, y }) => placed(toMm, x, y)), reachMm * perMm);
  return { layers: laidBelow(layers, film, filled.curves, using), lost: filled.lost === 0 ? undefined : { count: filled.lost }, enclosed: transformCurves(enclosed, using.fromMm) };
}

function rowPlaces({ columns, rows, xMm, yMm }: Of<'rows'>, perMm: number): Affine[] {
  return Array.from({ length: columns * rows }, (_, k) => translation((k % columns) * xMm * perMm, Math.floor(k / columns) * yMm * perMm));
}

function roundPlaces({ count, radiusMm, turns }: Of<'around'>, perMm: number, { left, top, right, bottom }: Bounds): Affine[] {
  const [x, y] = [(left + right) / 2, (top + bottom) / 2];
  const centre = y + radiusMm * perMm;
  return Array.from({ length: count }, (_, k) => {
    const turned = rotation((2 * Math.PI * k) / count, x, centre);
    if (turns) return turned;
    const at = placed(turned, x, y);
    return followedBy(translation(-x, -y), translation(at.x, at.y));
  });
}

function repeated(layers: readonly DesignLayer[], places: readonly Affine[]): Done {
  const many = (curves: Curves): Curves => joinCurves(places.map((at) => transformCurves(curves, at)));
  return { layers: layers.map(({ filmId, curves, marks }) => ({ filmId, curves: many(curves), ...(marks === undefined ? {} : { marks: many(marks) }) })) };
}
