import type { FilmPaths, NodeRef, SideRef } from '../../../core/outline/edit/editFilms.ts';
import { isEnd, placeOn, sideAt, type EditPath, type Point } from '../../../core/outline/edit/editPath.ts';
import { pathBox } from '../../../core/outline/edit/pathBox.ts';
import type { Bounds } from '../../../core/outline/curves.ts';
import { strokeCutLine } from '../../../ui/draw/cutLines.ts';
import type { LineLayer } from './LineLayer.ts';
import { lineOf, linesOf } from './pathLines.ts';
import { toScreenX, toScreenY, type Size, type Viewport } from '../../../ui/viewport.ts';

export interface NodeScene {
  readonly films: readonly FilmPaths[];
  readonly chosen: readonly NodeRef[];
  /** Where a node would be added. */
  readonly side?: SideRef | undefined;
  readonly frame?: { readonly from: Point; readonly to: Point } | undefined;
  /** Keeps what many outlines look like. */
  readonly layer?: LineLayer;
}

/** With more nodes chosen than this, handles would hide the art. */
export const MOST_HANDLED = 8;

/** So few outlines in view are drawn one by one: of what is drawn together much lies far outside. */
const FEW = 400;

const PAPER = '#fffdf8';
const MADDER = '#9e2f4b';

/** With more nodes in view than this they would hide the art, and take long to draw: those that are chosen are shown alone. */
export const MOST_MARKED = 4000;

/** Outlines with their nodes: round where the outline is open, the chosen ones full and with their handles. */
export function drawNodes(context: CanvasRenderingContext2D, view: Viewport, { films, chosen, side, frame, layer }: NodeScene, size: Size): void {
  const x = (point: Point): number => toScreenX(view, point.x);
  const y = (point: Point): number => toScreenY(view, point.y);
  const isIn = (point: Point): boolean => x(point) > -9 && y(point) > -9 && x(point) < size.width + 9 && y(point) < size.height + 9;
  const isBoxIn = ({ left, top, right, bottom }: Bounds): boolean => x({ x: right, y: 0 }) > -9 && x({ x: left, y: 0 }) < size.width + 9 && y({ x: 0, y: bottom }) > -9 && y({ x: 0, y: top }) < size.height + 9;
  const inView: { readonly film: string; readonly k: number; readonly path: EditPath }[] = [];
  for (const { id, paths } of films) for (const [k, path] of paths.entries()) if (isBoxIn(pathBox(path))) inView.push({ film: id, k, path });
  if (inView.length <= FEW) for (const { path } of inView) strokeCutLine(context, lineOf(path), view);
  else if (layer !== undefined) layer.draw(context, view, size, films.flatMap(({ paths }) => linesOf(paths)));
  else for (const { paths } of films) for (const { box, line } of linesOf(paths)) if (isBoxIn(box)) strokeCutLine(context, line, view);
  context.save();
  context.lineWidth = 1.4;
  context.strokeStyle = MADDER;
  const mark = (point: Point, full: boolean, isEnd: boolean): void => {
    context.fillStyle = full ? MADDER : PAPER;
    context.beginPath();
    if (isEnd) context.arc(x(point), y(point), 4.5, 0, 2 * Math.PI);
    else context.rect(x(point) - (full ? 4 : 3), y(point) - (full ? 4 : 3), full ? 8 : 6, full ? 8 : 6);
    context.fill();
    context.stroke();
  };
  const chosenOf = new Map<string, Set<number>>();
  for (const { film, path, node } of chosen) chosenOf.set(`${film} ${path}`, (chosenOf.get(`${film} ${path}`) ?? new Set()).add(node));
  const isMarked = countIn(inView, isIn) <= MOST_MARKED;
  for (const { film, k, path } of inView) {
    const own = chosenOf.size === 0 ? undefined : chosenOf.get(`${film} ${k}`);
    if (!isMarked && own === undefined) continue;
    for (const [node, place] of path.nodes.entries()) if ((isMarked || own?.has(node) === true) && isIn(place)) mark(place, own?.has(node) === true, isEnd(path, node));
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

/** How many nodes are in view, counted no further than is marked. */
function countIn(paths: readonly { readonly path: EditPath }[], isIn: (point: Point) => boolean): number {
  let count = 0;
  for (const { path } of paths) {
    for (const place of path.nodes) if (isIn(place)) count++;
    if (count > MOST_MARKED) break;
  }
  return count;
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
