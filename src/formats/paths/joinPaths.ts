import { CurvesBuilder, type Curves } from '../../core/outline/curves.ts';
import type { DrawnPath, DrawnPoint, DrawnSide } from './drawnPath.ts';

export interface JoinedPaths {
  /** Rings without nesting. */
  readonly closed: Curves;
  readonly open: Curves;
  /** Ends that were brought together, and paths that lay there twice. */
  readonly joined: number;
  readonly doubles: number;
}

/** Joins paths whose ends lie within a tolerance of each other to rings, and leaves out those that lie there twice. */
export function joinPaths(paths: readonly DrawnPath[], toleranceMm: number): JoinedPaths {
  const single = withoutDoubles(paths, toleranceMm);
  const ends = new Map<string, number[]>();
  const keysOf = ({ x, y }: DrawnPoint): string[] => {
    const [cx, cy] = [Math.floor(x / toleranceMm), Math.floor(y / toleranceMm)];
    return Array.from({ length: 9 }, (_, k) => `${cx + (k % 3) - 1} ${cy + Math.floor(k / 3) - 1}`);
  };
  const cellOf = ({ x, y }: DrawnPoint): string => `${Math.floor(x / toleranceMm)} ${Math.floor(y / toleranceMm)}`;
  const loose = single.filter((path) => !isClosed(path, toleranceMm));
  loose.forEach((path, k) => {
    for (const end of [path.start, endOf(path)]) {
      const cell = cellOf(end);
      const there = ends.get(cell);
      if (there === undefined) ends.set(cell, [k]);
      else there.push(k);
    }
  });
  const used = new Set<number>();
  let joined = 0;
  /** The next path that begins or ends near a point. */
  const nextAt = (point: DrawnPoint): DrawnPath | undefined => {
    for (const key of keysOf(point)) {
      for (const k of ends.get(key) ?? []) {
        if (used.has(k)) continue;
        const path = loose[k];
        const turned = near(endOf(path), point, toleranceMm);
        if (!turned && !near(path.start, point, toleranceMm)) continue;
        used.add(k);
        joined++;
        return turned ? backwards(path) : path;
      }
    }
    return undefined;
  };
  const chains = loose.flatMap((path, k) => {
    if (used.has(k)) return [];
    used.add(k);
    const grown = grow(grow(path, nextAt, toleranceMm, false), nextAt, toleranceMm, true);
    return [grown];
  });
  const closed = new CurvesBuilder();
  const open = new CurvesBuilder();
  for (const path of [...single.filter((each) => isClosed(each, toleranceMm)), ...chains]) {
    const isRing = isClosed(path, toleranceMm);
    if (isRing) joined++;
    draw(isRing ? closed : open, path, isRing);
  }
  return { closed: closed.build(), open: open.build(), joined: Math.max(0, joined - single.length + loose.length), doubles: paths.length - single.length };
}

/** Goes on at the end of a path, or at its start, as long as others begin there. */
function grow(path: DrawnPath, nextAt: (point: DrawnPoint) => DrawnPath | undefined, toleranceMm: number, atStart: boolean): DrawnPath {
  let grown = atStart ? backwards(path) : path;
  const sides: DrawnSide[] = [...grown.sides];
  for (;;) {
    grown = { start: grown.start, sides };
    if (isClosed(grown, toleranceMm)) break;
    const next = nextAt(endOf(grown));
    if (next === undefined) break;
    sides.push(...next.sides);
  }
  return grown;
}

function withoutDoubles(paths: readonly DrawnPath[], toleranceMm: number): DrawnPath[] {
  const seen = new Set<string>();
  const rounded = ({ x, y }: DrawnPoint): string => `${Math.round(x / toleranceMm)},${Math.round(y / toleranceMm)}`;
  const textOf = ({ start, sides }: DrawnPath): string => [rounded(start), ...sides.map(({ handles, to }) => `${handles === undefined ? '' : handles.map(rounded).join(' ')} ${rounded(to)}`)].join(';');
  return paths.filter((path) => {
    if (path.sides.length === 0) return false;
    const [there, back] = [textOf(path), textOf(backwards(path))];
    if (seen.has(there) || seen.has(back)) return false;
    seen.add(there);
    return true;
  });
}

const endOf = ({ sides }: DrawnPath): DrawnPoint => sides[sides.length - 1].to;
const near = (a: DrawnPoint, b: DrawnPoint, toleranceMm: number): boolean => Math.hypot(a.x - b.x, a.y - b.y) <= toleranceMm;
const isClosed = (path: DrawnPath, toleranceMm: number): boolean => (path.sides.length > 1 || path.sides[0].handles !== undefined) && near(path.start, endOf(path), toleranceMm);

function backwards({ start, sides }: DrawnPath): DrawnPath {
  const points = [start, ...sides.map(({ to }) => to)];
  return {
    start: points[points.length - 1],
    sides: sides.map(({ handles }, k): DrawnSide => ({ ...(handles === undefined ? {} : { handles: [handles[1], handles[0]] as const }), to: points[k] })).reverse(),
  };
}

function draw(builder: CurvesBuilder, { start, sides }: DrawnPath, isRing: boolean): void {
  builder.start(start.x, start.y, -1);
  sides.forEach(({ handles, to }, k) => {
    const end = isRing && k === sides.length - 1 ? start : to;
    if (handles === undefined) builder.line(end.x, end.y);
    else builder.cubic(handles[0].x, handles[0].y, handles[1].x, handles[1].y, end.x, end.y);
  });
  builder.close();
}
