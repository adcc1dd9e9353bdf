import type { Bounds } from '../../../core/outline/curves.ts';
import type { EditPath } from '../../../core/outline/edit/editPath.ts';
import { doMeet, pathBox } from '../../../core/outline/edit/pathBox.ts';
import { strokeCutLine } from '../../../ui/draw/cutLines.ts';
import { toScreenX, toScreenY, type Size, type Viewport } from '../../../ui/viewport.ts';
import { lineOf, type Lines } from './pathLines.ts';

/** A cut line with its casing reaches so far beyond its path, CSS px. */
const BESIDE = 3;
/** With more of the paths changed than this all are drawn anew. */
const FEW_CHANGED = 40;

/**
 * Lines that stay on a canvas of their own while the view does: an edit draws anew what lies where it was, and not the ten thousand outlines around it. What is
 * passed in must not be changed in place.
 */
export class LineLayer {
  private canvas: HTMLCanvasElement | undefined;
  private view = '';
  private drawn: readonly Lines[] = [];

  /** @param context whose transform is the pixel ratio alone. */
  draw(context: CanvasRenderingContext2D, view: Viewport, size: Size, lines: readonly Lines[]): void {
    const ratio = context.getTransform().a;
    const layer = this.layerFor(ratio, size);
    if (layer === undefined) return;
    const key = [view.x, view.y, view.scale, ratio, size.width, size.height].join(' ');
    const changed = key === this.view ? this.changedIn(lines) : undefined;
    if (changed === undefined) {
      layer.clearRect(0, 0, size.width, size.height);
      for (const { line, box } of lines) if (isIn(view, size, box)) strokeCutLine(layer, line, view);
    } else for (const box of changed) redraw(layer, view, box, lines);
    this.view = key;
    this.drawn = lines;
    context.drawImage(layer.canvas, 0, 0, size.width, size.height);
  }

  private layerFor(ratio: number, size: Size): CanvasRenderingContext2D | undefined {
    const canvas = (this.canvas ??= document.createElement('canvas'));
    const [width, height] = [Math.max(1, Math.round(size.width * ratio)), Math.max(1, Math.round(size.height * ratio))];
    if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
    const context = canvas.getContext('2d') ?? undefined;
    context?.setTransform(ratio, 0, 0, ratio, 0, 0);
    return context;
  }

  /** Where lines are others than those that are drawn; undefined where too many are. */
  private changedIn(lines: readonly Lines[]): Bounds[] | undefined {
    const gone = pathsNotIn(this.drawn, lines);
    const come = pathsNotIn(lines, this.drawn);
    return gone.length + come.length > FEW_CHANGED ? undefined : [...gone, ...come].map(pathBox);
  }
}

/** The paths of lines that others do not have. */
function pathsNotIn(lines: readonly Lines[], others: readonly Lines[]): EditPath[] {
  const known = new Set(others);
  const rest = lines.filter((each) => !known.has(each));
  if (rest.length === 0) return [];
  const paths = new Set(others.flatMap((each) => each.paths));
  return rest.flatMap((each) => each.paths.filter((path) => !paths.has(path)));
}

const isIn = (view: Viewport, size: Size, { left, top, right, bottom }: Bounds): boolean =>
  toScreenX(view, right) > -BESIDE && toScreenX(view, left) < size.width + BESIDE && toScreenY(view, bottom) > -BESIDE && toScreenY(view, top) < size.height + BESIDE;

/** Draws anew all that lies in a box. */
function redraw(layer: CanvasRenderingContext2D, view: Viewport, { left, top, right, bottom }: Bounds, lines: readonly Lines[]): void {
  if (!(right >= left && bottom >= top)) return;
  const reach = BESIDE / view.scale;
  const around = grown({ left, top, right, bottom }, reach);
  const [x, y] = [Math.floor(toScreenX(view, around.left)), Math.floor(toScreenY(view, around.top))];
  const [width, height] = [Math.ceil(toScreenX(view, around.right)) - x, Math.ceil(toScreenY(view, around.bottom)) - y];
  layer.save();
  layer.beginPath();
  layer.rect(x, y, width, height);
  layer.clip();
  layer.clearRect(x, y, width, height);
  const near = grown(around, reach);
  for (const { paths, box } of lines) if (doMeet(box, near)) for (const path of paths) if (doMeet(pathBox(path), near)) strokeCutLine(layer, lineOf(path), view);
  layer.restore();
}

const grown = ({ left, top, right, bottom }: Bounds, by: number): Bounds => ({ left: left - by, top: top - by, right: right + by, bottom: bottom + by });
