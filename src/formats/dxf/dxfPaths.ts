import { arcPath, type DrawnPath, type DrawnPoint, type DrawnSide } from '../paths/drawnPath.ts';
import { numberOf, numbersOf, type DxfEntity } from './dxfFile.ts';

const FULL = 2 * Math.PI;
/** Bulges below this are straight. */
const LEAST_BULGE = 1e-9;

/** The path of an entity in its own units; undefined for what draws none, or none that is understood. */
export function pathOfEntity(entity: DxfEntity): DrawnPath | undefined {
  const number = (code: number): number => numberOf(entity, code, 0);
  const rad = (code: number): number => (number(code) * Math.PI) / 180;
  switch (entity.kind) {
    case 'LINE':
      return { start: { x: number(10), y: number(20) }, sides: [{ to: { x: number(11), y: number(21) } }] };
    case 'LWPOLYLINE':
      return polyline(lightVertices(entity), (number(70) & 1) === 1);
    case 'POLYLINE':
      // Meshes of faces are no outlines.
      return (number(70) & 0x50) !== 0 ? undefined : polyline(entity.vertices.map((vertex) => ({ x: numberOf(vertex, 10, 0), y: numberOf(vertex, 20, 0), bulge: numberOf(vertex, 42, 0) })), (number(70) & 1) === 1);
    case 'CIRCLE':
      return arcPath({ a: number(40), b: 0, c: 0, d: number(40), e: number(10), f: number(20) }, 0, FULL);
    case 'ARC':
      return arcPath({ a: number(40), b: 0, c: 0, d: number(40), e: number(10), f: number(20) }, rad(50), turnTo(rad(50), rad(51)));
    case 'ELLIPSE': {
      const [mx, my, ratio] = [number(11), number(21), numberOf(entity, 40, 1)];
      return arcPath({ a: mx, b: my, c: -my * ratio, d: mx * ratio, e: number(10), f: number(20) }, number(41), turnTo(number(41), numberOf(entity, 42, FULL)));
    }
    case 'SPLINE':
      return spline(entity);
    default:
      return undefined;
  }
}

interface Vertex extends DrawnPoint {
  readonly bulge: number;
}

/** The vertices of a light polyline: each x begins one. */
function lightVertices({ groups }: DxfEntity): Vertex[] {
  const vertices: { x: number; y: number; bulge: number }[] = [];
  for (const { code, value } of groups) {
    if (code === 10) vertices.push({ x: Number(value), y: 0, bulge: 0 });
    const last = vertices[vertices.length - 1];
    if (last === undefined) continue;
    if (code === 20) last.y = Number(value);
    if (code === 42) last.bulge = Number(value);
  }
  return vertices;
}

/** Counter-clockwise from one angle to another, a full turn when they are the same. */
function turnTo(from: number, to: number): number {
  const turn = (((to - from) % FULL) + FULL) % FULL;
  return turn < 1e-9 ? FULL : turn;
}

function polyline(vertices: readonly Vertex[], isClosed: boolean): DrawnPath | undefined {
  if (vertices.length < 2) return undefined;
  const sides: DrawnSide[] = [];
  for (let k = 0; k < vertices.length - (isClosed ? 0 : 1); k++) {
    const [a, b] = [vertices[k], vertices[(k + 1) % vertices.length]];
    sides.push(...bulged(a, b, a.bulge));
  }
  return { start: { x: vertices[0].x, y: vertices[0].y }, sides };
}

/** A side that bulges: the tangent of a quarter of its turn, counter-clockwise above 0. */
function bulged(a: DrawnPoint, b: DrawnPoint, bulge: number): readonly DrawnSide[] {
  const to = { x: b.x, y: b.y };
  if (Math.abs(bulge) < LEAST_BULGE) return [{ to }];
  const turn = 4 * Math.atan(bulge);
  const off = (1 - bulge * bulge) / (4 * bulge);
  const [cx, cy] = [(a.x + b.x) / 2 - off * (b.y - a.y), (a.y + b.y) / 2 + off * (b.x - a.x)];
  const radius = Math.hypot(a.x - cx, a.y - cy);
  const round = arcPath({ a: radius, b: 0, c: 0, d: radius, e: cx, f: cy }, Math.atan2(a.y - cy, a.x - cx), turn);
  return [...round.sides.slice(0, -1), { ...round.sides[round.sides.length - 1], to }];
}

/** A B-spline of degree up to three as cubics: the handles of each span are values of its blossom (L. Ramshaw, CAGD 6, 1989, doi:10.1016/0167-8396(89)90032-0). */
function spline(entity: DxfEntity): DrawnPath | undefined {
  const degree = numberOf(entity, 71, 3);
  const knots = numbersOf(entity, 40);
  const points = pointsOf(entity, 10, 20);
  if (points.length === 0) {
    const through = pointsOf(entity, 11, 21);
    return through.length < 2 ? undefined : { start: through[0], sides: through.slice(1).map((to) => ({ to })) };
  }
  const isRational = (numberOf(entity, 70, 0) & 4) !== 0 && new Set(numbersOf(entity, 41)).size > 1;
  if (!(degree >= 1 && degree <= 3) || isRational || knots.length !== points.length + degree + 1) return undefined;
  const blossom = (span: number, at: readonly number[]): DrawnPoint => {
    const own = Array.from({ length: degree + 1 }, (_, k): DrawnPoint => points[span - degree + k]);
    for (let level = 1; level <= degree; level++) {
      for (let k = degree; k >= level; k--) {
        const [low, high] = [knots[span - degree + k], knots[span + 1 + k - level]];
        const share = high === low ? 0 : (at[level - 1] - low) / (high - low);
        own[k] = { x: own[k - 1].x + (own[k].x - own[k - 1].x) * share, y: own[k - 1].y + (own[k].y - own[k - 1].y) * share };
      }
    }
    return own[degree];
  };
  const sides: DrawnSide[] = [];
  let start: DrawnPoint | undefined;
  for (let span = degree; span < points.length; span++) {
    const [u, v] = [knots[span], knots[span + 1]];
    if (!(v > u)) continue;
    const values = (...which: readonly number[]): DrawnPoint => blossom(span, which.slice(0, degree));
    const first = values(u, u, u);
    const last = values(v, v, v);
    start ??= first;
    if (degree === 1) sides.push({ to: last });
    else if (degree === 3) sides.push({ handles: [values(u, u, v), values(u, v, v)], to: last });
    else {
      const middle = values(u, v);
      const third = (end: DrawnPoint): DrawnPoint => ({ x: end.x + (2 / 3) * (middle.x - end.x), y: end.y + (2 / 3) * (middle.y - end.y) });
      sides.push({ handles: [third(first), third(last)], to: last });
    }
  }
  return start === undefined ? undefined : { start, sides };
}

function pointsOf({ groups }: DxfEntity, xCode: number, yCode: number): DrawnPoint[] {
  const points: { x: number; y: number }[] = [];
  for (const { code, value } of groups) {
    if (code === xCode) points.push({ x: Number(value), y: 0 });
    else if (code === yCode && points.length > 0) points[points.length - 1].y = Number(value);
  }
  return points;
}
