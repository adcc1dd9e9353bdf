import type { FilmPaths, NodeRef, SideRef } from '../../../core/outline/edit/editFilms.ts';
import { curvesFromPaths, isEnd, placeOn, sideAt, type Point } from '../../../core/outline/edit/editPath.ts';
import { pathFromCurves } from '../../../ui/draw/curvePath.ts';
import { strokeCutLine } from '../../../ui/draw/cutLines.ts';
import { toScreenX, toScreenY, type Size, type Viewport } from '../../../ui/viewport.ts';

export interface NodeScene {
  readonly films: readonly FilmPaths[];
  readonly chosen: readonly NodeRef[];
  /** Where a node would be added. */
  readonly side?: SideRef | undefined;
  readonly frame?: { readonly from: Point; readonly to: Point } | undefined;
}

/** With more nodes chosen than this, handles would hide the art. */
export const MOST_HANDLED = 8;

const PAPER = '#fffdf8';
const MADDER = '#9e2f4b';

/** Outlines with their nodes: round where the outline is open, the chosen ones full and with their handles. */
export function drawNodes(context: CanvasRenderingContext2D, view: Viewport, { films, chosen, side, frame }: NodeScene, size: Size): void {
  for (const { paths } of films) strokeCutLine(context, pathFromCurves(curvesFromPaths(paths)), view);
  context.save();
  context.lineWidth = 1.4;
  context.strokeStyle = MADDER;
  const x = (point: Point): number => toScreenX(view, point.x);
  const y = (point: Point): number => toScreenY(view, point.y);
  const isIn = (point: Point): boolean => x(point) > -9 && y(point) > -9 && x(point) < size.width + 9 && y(point) < size.height + 9;
  const mark = (point: Point, full: boolean, isEnd: boolean): void => {
    context.fillStyle = full ? MADDER : PAPER;
    context.beginPath();
    if (isEnd) context.arc(x(point), y(point), 4.5, 0, 2 * Math.PI);
    else context.rect(x(point) - (full ? 4 : 3), y(point) - (full ? 4 : 3), full ? 8 : 6, full ? 8 : 6);
    context.fill();
    context.stroke();
  };
  for (const { id, paths } of films) {
    for (const [k, path] of paths.entries()) {
      for (const [node, place] of path.nodes.entries()) {
        if (isIn(place)) mark(place, chosen.some((ref) => ref.film === id && ref.path === k && ref.node === node), isEnd(path, node));
      }
    }
  }
  for (const ref of chosen.length > MOST_HANDLED ? [] : chosen) {
    const node = films.find(({ id }) => id === ref.film)?.paths[ref.path]?.nodes[ref.node];
    for (const handle of [node?.in, node?.out]) {
      if (node === undefined || handle === undefined) continue;
      context.beginPath();
      context.moveTo(x(node), y(node));
      context.lineTo(x(handle), y(handle));
      context.stroke();
      context.beginPath();
      context.arc(x(handle), y(handle), 3.5, 0, 2 * Math.PI);
      context.fillStyle = PAPER;
      context.fill();
      context.stroke();
    }
  }
  if (side !== undefined) drawAdding(context, films, side, x, y);
  if (frame !== undefined) {
    context.setLineDash([4, 3]);
    context.strokeRect(x(frame.from), y(frame.from), x(frame.to) - x(frame.from), y(frame.to) - y(frame.from));
  }
  context.restore();
}

function drawAdding(context: CanvasRenderingContext2D, films: readonly FilmPaths[], side: SideRef, x: (point: Point) => number, y: (point: Point) => number): void {
  const path = films.find(({ id }) => id === side.film)?.paths[side.path];
  if (path === undefined) return;
  const at = placeOn(sideAt(path, side.side), side.t);
  context.beginPath();
  context.moveTo(x(at) - 6, y(at));
  context.lineTo(x(at) + 6, y(at));
  context.moveTo(x(at), y(at) - 6);
  context.lineTo(x(at), y(at) + 6);
  context.stroke();
}
