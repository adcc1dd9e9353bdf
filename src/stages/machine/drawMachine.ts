import type { Affine } from '../../core/geometry/affine.ts';
import type { MarkSeen } from '../../core/print/readPage.ts';
import type { MachineState } from '../../machines/machinePort.ts';
import type { PlotterFile } from '../../formats/plotter/readPlotter.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

type Context = CanvasRenderingContext2D;
type Strokes = PlotterFile['strokes'];

/** A program's strokes as paths, in mm of the machine's area, y down. */
export function strokePaths(strokes: Strokes, heightMm: number, origin: MachineState['origin']): Path2D[] {
  return strokes.map(({ start, sides }) => {
    const path = new Path2D();
    const x = (value: number): number => value + origin.xMm;
    const y = (value: number): number => heightMm - value - origin.yMm;
    path.moveTo(x(start.x), y(start.y));
    for (const { handles, to } of sides) {
      if (handles === undefined) path.lineTo(x(to.x), y(to.y));
      else path.bezierCurveTo(x(handles[0].x), y(handles[0].y), x(handles[1].x), y(handles[1].y), x(to.x), y(to.y));
    }
    return path;
  });
}

export interface MachineScene {
  readonly state: MachineState;
  /** Colour of the film that lies in it; bare mat when absent. */
  readonly film: string | undefined;
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  /** A printed page that lies in it, as its marks told; as it is told to lie before they did. */
  readonly page?: { readonly widthMm: number; readonly heightMm: number; readonly picture: HTMLImageElement | undefined; readonly toBed: Affine | undefined; readonly marks: readonly MarkSeen[] } | undefined;
  readonly paths: readonly Path2D[];
  readonly done: number;
}

/** The machine from above: its bed, the film on it, what is cut and what is still to come, and the carriage on its beam. */
export function drawMachine(context: Context, view: Viewport, { state, film, sheet, page, paths, done }: MachineScene): void {
  const { widthMm, heightMm } = state.area;
  const [left, top, width, height] = [toScreenX(view, 0), toScreenY(view, 0), widthMm * view.scale, heightMm * view.scale];
  context.save();
  context.fillStyle = '#d9cfc1';
  context.fillRect(left - 10, top - 10, width + 20, height + 20);
  context.fillStyle = '#efe7d8';
  context.fillRect(left, top, width, height);
  drawGrid(context, view, widthMm, heightMm);
  if (film !== undefined) {
    context.fillStyle = film;
    const [x, y] = [state.origin.xMm, heightMm - state.origin.yMm - sheet.heightMm];
    context.fillRect(toScreenX(view, Math.max(0, x)), toScreenY(view, Math.max(0, y)), (Math.min(widthMm, x + sheet.widthMm) - Math.max(0, x)) * view.scale, (Math.min(heightMm, y + sheet.heightMm) - Math.max(0, y)) * view.scale);
  }
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  if (page !== undefined) drawPage(context, page, heightMm, view.scale);
  context.lineJoin = 'round';
  paths.forEach((path, k) => {
    context.strokeStyle = '#fffdf8';
    context.lineWidth = 2.4 / view.scale;
    context.stroke(path);
    context.strokeStyle = k < done ? '#241b2f' : '#b9751a';
    context.lineWidth = (k < done ? 1.3 : 0.8) / view.scale;
    context.stroke(path);
  });
  context.restore();
  drawOriginMark(context, view, state);
  drawCarriage(context, view, state);
}

/** A page on the bed, and rings where its marks were found. */
function drawPage(context: Context, { widthMm, heightMm, picture, toBed, marks }: NonNullable<MachineScene['page']>, bedHeightMm: number, scale: number): void {
  const { a, b, c, d, e, f } = toBed ?? { a: 1, b: 0, c: 0, d: 1, e: 0, f: bedHeightMm - heightMm };
  context.save();
  context.transform(a, b, c, d, e, f);
  context.globalAlpha = toBed === undefined ? 0.55 : 1;
  context.fillStyle = '#fffdf8';
  context.fillRect(0, 0, widthMm, heightMm);
  if (picture !== undefined) context.drawImage(picture, 0, 0, widthMm, heightMm);
  context.restore();
  context.strokeStyle = '#33644f';
  context.lineWidth = 2 / scale;
  for (const mark of marks) {
    if ('why' in mark) continue;
    context.beginPath();
    context.arc(mark.xMm, mark.yMm, 5, 0, 2 * Math.PI);
    context.stroke();
  }
}

const GRID_MM = 50;
function drawGrid(context: Context, view: Viewport, widthMm: number, heightMm: number): void {
  context.strokeStyle = '#d9cfc1';
  context.lineWidth = 1;
  context.beginPath();
  for (let x = GRID_MM; x < widthMm; x += GRID_MM) {
    context.moveTo(toScreenX(view, x), toScreenY(view, 0));
    context.lineTo(toScreenX(view, x), toScreenY(view, heightMm));
  }
  for (let y = GRID_MM; y < heightMm; y += GRID_MM) {
    context.moveTo(toScreenX(view, 0), toScreenY(view, heightMm - y));
    context.lineTo(toScreenX(view, widthMm), toScreenY(view, heightMm - y));
  }
  context.stroke();
}

function drawOriginMark(context: Context, view: Viewport, { origin, area }: MachineState): void {
  const [x, y] = [toScreenX(view, origin.xMm), toScreenY(view, area.heightMm - origin.yMm)];
  context.save();
  context.strokeStyle = '#9e2f4b';
  context.lineWidth = 2;
  context.beginPath();
  context.moveTo(x, y - 22);
  context.lineTo(x, y);
  context.lineTo(x + 22, y);
  context.stroke();
  context.restore();
}

function drawCarriage(context: Context, view: Viewport, { at, origin, area, tool, status }: MachineState): void {
  const y = toScreenY(view, area.heightMm - origin.yMm - at.yMm);
  const x = toScreenX(view, origin.xMm + at.xMm);
  const [left, right] = [toScreenX(view, 0) - 18, toScreenX(view, area.widthMm) + 18];
  context.save();
  context.fillStyle = '#5d5364';
  context.fillRect(left, y - 27, right - left, 9);
  context.fillStyle = status === 'fault' ? '#9e2f4b' : '#241b2f';
  context.fillRect(x - 15, y - 34, 30, 24);
  // The tool: a knife comes to a point, a pen is round.
  context.beginPath();
  context.moveTo(x - 5, y - 10);
  context.lineTo(x + 5, y - 10);
  context.lineTo(x, y);
  context.closePath();
  context.fill();
  if (tool === 'pen') {
    context.beginPath();
    context.arc(x, y, 3, 0, 2 * Math.PI);
    context.fill();
  }
  context.restore();
}
