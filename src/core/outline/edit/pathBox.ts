import type { Bounds } from '../curves.ts';
import { NEAR_PX, type EditPath, type Point } from './editPath.ts';

/** Paths are never changed in place: the box of one is read once. */
const boxes = new WeakMap<EditPath, Bounds>();

/** The box around the nodes and handles of a path, and so around all of it. */
export function pathBox(path: EditPath): Bounds {
  const known = boxes.get(path);
  if (known !== undefined) return known;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const add = ({ x, y }: Point): void => {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  };
  for (const node of path.nodes) {
    add(node);
    if (node.in !== undefined) add(node.in);
    if (node.out !== undefined) add(node.out);
  }
  const box = { left, top, right, bottom };
  boxes.set(path, box);
  return box;
}

/** Whether a place lies in a box, or within so much of it. */
export const isWithin = ({ left, top, right, bottom }: Bounds, { x, y }: Point, margin: number): boolean =>
  x >= left - margin && x <= right + margin && y >= top - margin && y <= bottom + margin;

export const doMeet = (a: Bounds, b: Bounds): boolean => a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;

/** Whether a path may have a node at a place. */
export const mayReach = (path: EditPath, at: Point): boolean => isWithin(pathBox(path), at, NEAR_PX);
