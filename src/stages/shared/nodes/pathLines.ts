import { nodeAt, sideCount, type EditPath } from '../../../core/outline/edit/editPath.ts';
import { pathBox } from '../../../core/outline/edit/pathBox.ts';
import type { Bounds } from '../../../core/outline/curves.ts';

/** Paths that are drawn as one: few enough that an edit makes little anew, and many enough that a frame draws few. */
const TOGETHER = 64;

/** What is drawn of some paths, and where. */
export interface Lines {
  readonly paths: readonly EditPath[];
  readonly line: Path2D;
  readonly box: Bounds;
}

const single = new WeakMap<EditPath, Path2D>();

/** The line of one path. */
export function lineOf(path: EditPath): Path2D {
  const known = single.get(path);
  if (known !== undefined) return known;
  const line = drawn([path]);
  single.set(path, line);
  return line;
}

/** By the first of the paths: edited paths are never changed in place, and most of them stay in an edit. */
const made = new WeakMap<EditPath, Lines>();

/** The lines of paths, in bunches; those whose paths are the same as before are not made again. */
export function linesOf(paths: readonly EditPath[]): Lines[] {
  const all: Lines[] = [];
  for (let from = 0; from < paths.length; from += TOGETHER) {
    const count = Math.min(TOGETHER, paths.length - from);
    const known = made.get(paths[from]);
    if (known?.paths.length === count && known.paths.every((path, k) => path === paths[from + k])) {
      all.push(known);
      continue;
    }
    const bunch = paths.slice(from, from + count);
    const lines = { paths: bunch, line: drawn(bunch), box: boxOf(bunch) };
    made.set(paths[from], lines);
    all.push(lines);
  }
  return all;
}

function drawn(paths: readonly EditPath[]): Path2D {
  const line = new Path2D();
  for (const path of paths) {
    if (path.nodes.length < 2) continue;
    line.moveTo(path.nodes[0].x, path.nodes[0].y);
    for (let k = 0; k < sideCount(path); k++) {
      const [from, to] = [nodeAt(path, k), nodeAt(path, k + 1)];
      if (from.out === undefined && to.in === undefined) line.lineTo(to.x, to.y);
      else line.bezierCurveTo((from.out ?? from).x, (from.out ?? from).y, (to.in ?? to).x, (to.in ?? to).y, to.x, to.y);
    }
    if (path.closed) line.closePath();
  }
  return line;
}

function boxOf(paths: readonly EditPath[]): Bounds {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const path of paths) {
    const box = pathBox(path);
    left = Math.min(left, box.left);
    top = Math.min(top, box.top);
    right = Math.max(right, box.right);
    bottom = Math.max(bottom, box.bottom);
  }
  return { left, top, right, bottom };
}
