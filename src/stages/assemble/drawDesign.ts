import type { Guide } from '../../core/assemble/placeOnBlank.ts';
import type { SnapLine } from '../../core/edit/snap.ts';
import type { Affine } from '../../core/geometry/affine.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import { canvasOf } from '../shared/bitmaps.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import type { EditPath, Point } from '../../core/outline/edit/editPath.ts';
import { fillPath, strokeCutLine, strokeHairline } from '../../ui/draw/cutLines.ts';
import type { Box, Size, Viewport } from '../../ui/viewport.ts';
import { drawNodes } from '../shared/nodes/drawNodes.ts';
import type { Handle } from './useHandles.ts';
import { say } from '../../core/words/say.ts';

type Context = CanvasRenderingContext2D;

/** A film of the design as it is drawn, mm of the design. */
export interface DrawnFilm {
  readonly path: Path2D;
  readonly colour: string;
  /** Of the colour of what it lies on: it gets a hairline, or it would not be seen. */
  readonly isLost: boolean;
  readonly marks?: Path2D | undefined;
}

const MADDER = '#9e2f4b';
const QUIET = '#7d7264';
const GUIDE = '#2f5d8a';

export function drawFilms(context: Context, view: Viewport, films: readonly DrawnFilm[], ground: string): void {
  for (const { path, colour } of films) fillPath(context, path, view, colour);
  for (const { path, isLost, marks, colour } of films) {
    // On the blank one sees film and not the knife.
    if (isLost) strokeHairline(context, path, view, ground);
    if (marks !== undefined) strokeHairline(context, marks, view, colour);
  }
}

/** The picture where its traced art lies. @param fromPicture from px of the picture to mm of the design. @param share how much of it is seen, 0 to 1, or that it is subtracted from what lies there. */
export function drawPictureOver(context: Context, view: Viewport, pixels: Rgba8, widthPx: number, fromPicture: Affine, share: number | 'difference'): void {
  const { a, b, c, d, e, f } = fromPicture;
  context.save();
  if (share === 'difference') context.globalCompositeOperation = 'difference';
  else context.globalAlpha = share;
  context.translate(view.x, view.y);
  context.scale(view.scale, view.scale);
  context.transform(a, b, c, d, e, f);
  const reduced = widthPx / pixels.width;
  context.scale(reduced, reduced);
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvasOf(pixels), 0, 0);
  context.restore();
}

/** Room around a film that stands by itself, a share of the design. */
const ROOM = 1.16;

/** Each film by itself in a row of fields, lowest first, the whole design faint behind it, and the corners that they are lined up by. @param box where all of it is to lie, mm. */
export function drawApart(context: Context, view: Viewport, films: readonly (DrawnFilm & { readonly name: string })[], design: Bounds, box: Box): void {
  const columns = Math.max(1, Math.round(Math.sqrt((films.length * box.width * design.bottom) / (box.height * design.right))));
  const rows = Math.ceil(films.length / columns);
  const scale = Math.min(box.width / (columns * ROOM * design.right), box.height / (rows * ROOM * design.bottom));
  const cell = { width: box.width / columns, height: box.height / rows };
  for (const [k, film] of films.entries()) {
    const x = box.x + (k % columns) * cell.width + (cell.width - design.right * scale) / 2;
    const y = box.y + Math.floor(k / columns) * cell.height + (cell.height - design.bottom * scale) / 2;
    const own = { scale: view.scale * scale, x: view.x + x * view.scale, y: view.y + y * view.scale };
    for (const { path } of films) fillPath(context, path, own, 'rgba(125, 114, 100, 0.13)');
    fillPath(context, film.path, own, film.colour);
    if (film.isLost) strokeHairline(context, film.path, own, film.colour);
    drawCorners(context, own, design);
    label(context, `${k + 1}  ${film.name}`, own.x + (design.right * own.scale) / 2, own.y + design.bottom * own.scale + 13, '#241b2f');
  }
}

/** Length of the crosses by which films are lined up, CSS px. */
const CROSS_PX = 7;
function drawCorners(context: Context, view: Viewport, { right, bottom }: Bounds): void {
  context.save();
  context.strokeStyle = QUIET;
  context.beginPath();
  for (const [x, y] of [[0, 0], [right, 0], [right, bottom], [0, bottom]]) {
    const [px, py] = [view.x + x * view.scale, view.y + y * view.scale];
    context.moveTo(px - CROSS_PX, py);
    context.lineTo(px + CROSS_PX, py);
    context.moveTo(px, py - CROSS_PX);
    context.lineTo(px, py + CROSS_PX);
  }
  context.stroke();
  context.restore();
}

const rect = (context: Context, view: Viewport, { left, top, right, bottom }: Bounds): void =>
  context.strokeRect(view.x + left * view.scale, view.y + top * view.scale, (right - left) * view.scale, (bottom - top) * view.scale);

/** What is selected and how large it is, in words on the part itself as on a workshop drawing. */
export function drawSelection(context: Context, view: Viewport, { design, boxes, pieces, measures }: { readonly design: Bounds; readonly boxes: readonly Bounds[]; readonly pieces: readonly Path2D[]; readonly measures?: readonly [width: string, height: string] | undefined }): void {
  context.save();
  context.strokeStyle = boxes.length === 0 ? MADDER : QUIET;
  context.setLineDash([6, 4]);
  rect(context, view, design);
  context.strokeStyle = MADDER;
  context.setLineDash([]);
  for (const box of boxes) rect(context, view, box);
  context.restore();
  for (const path of pieces) strokeCutLine(context, path, view, { core: MADDER, casing: '#fffdf8' });
  if (measures !== undefined && boxes.length === 1) drawMeasures(context, view, boxes[0], measures);
}

function drawMeasures(context: Context, view: Viewport, box: Bounds, [width, height]: readonly [string, string]): void {
  const [left, right, bottom] = [view.x + box.left * view.scale, view.x + box.right * view.scale, view.y + box.bottom * view.scale];
  const middle = view.y + ((box.top + box.bottom) / 2) * view.scale;
  label(context, width, (left + right) / 2, bottom + 12);
  label(context, height, right + 8 + textWidth(context, height) / 2, middle);
}

const FONT = "12px 'Hanken Grotesk Variable', sans-serif";
function textWidth(context: Context, text: string): number {
  context.save();
  context.font = FONT;
  const { width } = context.measureText(text);
  context.restore();
  return width;
}

function label(context: Context, text: string, x: number, y: number, fill = MADDER): void {
  context.save();
  context.font = FONT;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const half = context.measureText(text).width / 2 + 4;
  context.fillStyle = 'rgba(255, 253, 248, 0.92)';
  context.fillRect(x - half, y - 8, 2 * half, 16);
  context.fillStyle = fill;
  context.fillText(text, x, y + 0.5);
  context.restore();
}

/** Numbers on the areas that can be filled; those that are filled on the accent. */
export function drawAreas(context: Context, view: Viewport, areas: readonly { readonly x: number; readonly y: number; readonly isFilled: boolean }[]): void {
  for (const [k, { x, y, isFilled }] of areas.entries()) label(context, String(k + 1), view.x + x * view.scale, view.y + y * view.scale, isFilled ? MADDER : '#241b2f');
}

/** Grips of the part that is selected, and how far it is turned while it turns. */
export function drawHandles(context: Context, view: Viewport, handles: readonly Handle[], turnedDeg: number | undefined): void {
  const turn = handles.find(({ kind }) => kind === 'turn');
  const top = handles.find(({ kind, across, down }) => kind === 'size' && across === 0 && down === -1);
  context.save();
  context.strokeStyle = MADDER;
  context.fillStyle = '#fffdf8';
  context.lineWidth = 1.25;
  if (turn !== undefined && top !== undefined) {
    context.beginPath();
    context.moveTo(view.x + turn.x * view.scale, view.y + turn.y * view.scale);
    context.lineTo(view.x + top.x * view.scale, view.y + top.y * view.scale);
    context.stroke();
  }
  for (const { kind, across, down, x, y } of handles) {
    const [px, py] = [view.x + x * view.scale, view.y + y * view.scale];
    context.beginPath();
    // Corners keep the proportions: they are lozenges; sides pull one way: they are bars along their side.
    if (kind === 'turn') context.arc(px, py, 5, 0, 2 * Math.PI);
    else if (across !== 0 && down !== 0) for (const [dx, dy] of [[0, -5.5], [5.5, 0], [0, 5.5], [-5.5, 0]]) context.lineTo(px + dx, py + dy);
    else context.rect(px - (across === 0 ? 7 : 2), py - (across === 0 ? 2 : 7), across === 0 ? 14 : 4, across === 0 ? 4 : 14);
    context.closePath();
    context.fill();
    context.stroke();
  }
  context.restore();
  if (turn !== undefined && turnedDeg !== undefined) label(context, say`turned ${turnedDeg}°`, view.x + turn.x * view.scale, view.y + turn.y * view.scale - 16);
}

/** Guides across the whole table; places are mm of the blank. */
export function drawGuides(context: Context, view: Viewport, size: Size, guides: readonly Guide[]): void {
  context.save();
  context.strokeStyle = GUIDE;
  context.setLineDash([10, 3, 2, 3]);
  context.beginPath();
  for (const { way, atMm } of guides) lineAcross(context, view, size, way, atMm);
  context.stroke();
  context.restore();
}

function lineAcross(context: Context, view: Viewport, size: Size, way: SnapLine['way'], at: number): void {
  const place = Math.round((way === 'upright' ? view.x : view.y) + at * view.scale) + 0.5;
  context.moveTo(way === 'upright' ? place : 0, way === 'upright' ? 0 : place);
  context.lineTo(way === 'upright' ? place : size.width, way === 'upright' ? size.height : place);
}

/** What the pen has drawn by now, and the line to where it is; the first node on the accent when the shape would close there. */
export function drawPen(context: Context, view: Viewport, size: Size, path: EditPath, pointer: Point | undefined, closes: boolean): void {
  const last = path.nodes.at(-1);
  const chosen = [...(closes ? [0] : []), path.nodes.length - 1].filter((node) => node >= 0).map((node) => ({ film: 'pen', path: 0, node }));
  drawNodes(context, view, { films: [{ id: 'pen', paths: [path] }], chosen }, size);
  if (last === undefined || pointer === undefined) return;
  context.save();
  context.strokeStyle = MADDER;
  context.setLineDash([4, 3]);
  context.beginPath();
  context.moveTo(view.x + last.x * view.scale, view.y + last.y * view.scale);
  context.lineTo(view.x + pointer.x * view.scale, view.y + pointer.y * view.scale);
  context.stroke();
  context.restore();
}

/** A ring around a place that is pointed out. */
export function drawSpot(context: Context, view: Viewport, { x, y }: { readonly x: number; readonly y: number }): void {
  context.save();
  for (const [stroke, width] of [['#fffdf8', 6], [MADDER, 2.5]] as const) {
    context.strokeStyle = stroke;
    context.lineWidth = width;
    context.beginPath();
    context.arc(view.x + x * view.scale, view.y + y * view.scale, 16, 0, 2 * Math.PI);
    context.stroke();
  }
  context.restore();
}

/** A frame that is drawn, a line to split along, and lines that something snapped to. */
export function drawTools(context: Context, view: Viewport, size: Size, { frame, line, snapLines }: { readonly frame?: Bounds | undefined; readonly line?: { readonly from: { x: number; y: number }; readonly to: { x: number; y: number } } | undefined; readonly snapLines: readonly SnapLine[] }): void {
  context.save();
  context.strokeStyle = GUIDE;
  context.lineWidth = 1;
  for (const { way, at } of snapLines) {
    context.beginPath();
    lineAcross(context, view, size, way, at);
    context.stroke();
  }
  context.setLineDash([4, 3]);
  if (frame !== undefined) {
    context.fillStyle = 'rgba(47, 93, 138, 0.08)';
    context.fillRect(view.x + frame.left * view.scale, view.y + frame.top * view.scale, (frame.right - frame.left) * view.scale, (frame.bottom - frame.top) * view.scale);
    rect(context, view, frame);
  }
  if (line !== undefined) {
    context.strokeStyle = MADDER;
    context.beginPath();
    context.moveTo(view.x + line.from.x * view.scale, view.y + line.from.y * view.scale);
    context.lineTo(view.x + line.to.x * view.scale, view.y + line.to.y * view.scale);
    context.stroke();
  }
  context.restore();
}
