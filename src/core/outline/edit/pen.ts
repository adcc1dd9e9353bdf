import { distance } from './nodeEdits.ts';
import type { EditPath, Point } from './editPath.ts';

/** A path with a corner more at its end. */
export const penDown = ({ nodes }: EditPath, { x, y }: Point): EditPath => ({ closed: false, nodes: [...nodes, { x, y }] });

/** The path whose last node is curved: the handle that leads on lies at a place, the other one opposite to it. */
export function penPulled({ nodes }: EditPath, to: Point): EditPath {
  const last = nodes.at(-1);
  if (last === undefined) return { closed: false, nodes };
  const { x, y } = last;
  return { closed: false, nodes: [...nodes.slice(0, -1), { x, y, out: { x: to.x, y: to.y }, in: { x: 2 * x - to.x, y: 2 * y - to.y } }] };
}

/** The path without its last node. */
export const penBack = ({ nodes }: EditPath): EditPath => ({ closed: false, nodes: nodes.slice(0, -1) });

/** Whether a place is the first node of a path that can be closed there. */
export const closesAt = ({ nodes }: EditPath, at: Point, within: number): boolean => nodes.length >= 2 && distance(nodes[0], at) <= within;

/** What was drawn, closed or as an open line; undefined where it is neither. Handles at open ends say nothing. */
export function penDone({ nodes }: EditPath, closed: boolean): EditPath | undefined {
  const isArea = closed && (nodes.length > 2 || (nodes.length === 2 && nodes.some((node) => node.in !== undefined)));
  if (isArea) return { closed: true, nodes };
  return nodes.length < 2 ? undefined : { closed: false, nodes };
}
