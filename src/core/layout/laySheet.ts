import { AppError } from '../errors/appError.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { followedBy, mirrorAbout, rotation, translation, type Affine } from '../geometry/affine.ts';
import { layerOf, type Design } from '../assemble/design.ts';
import type { Curves } from '../outline/curves.ts';
import { around, boxesOfPieces, grown } from './boxes.ts';
import type { Layout } from './layout.ts';
import type { Tile } from './tiles.ts';
import { registerMarks, registerRoomMm } from './registerMarks.ts';
import type { SheetStock } from './sheetStock.ts';
import type { WeedLinePlace } from './weedLines.ts';

/** How a design is laid out, with the mirroring that its process and layout give. */
export interface LayoutSettings extends Omit<Layout, 'mirror' | 'sheet' | 'stencil' | 'unbent'> {
  readonly sheet: Omit<SheetStock, 'name'>;
  readonly mirrored: boolean;
  /** The blank's printable area, and where on it the upper left of the design lies, mm: what boxes are as large as on request. */
  readonly blank?: RectMm;
  /** Holes beside the design by which a stencil is laid again, in its mm, and what they take above it, mm. */
  readonly holes?: { readonly curves: Curves; readonly roomMm: number };
  /** Whether the art is cut out of the film, so that marks are holes. */
  readonly artIsOpening?: boolean;
}

/** What is cut together wherever it lies: outlines in mm of their own. */
export interface SheetPart {
  readonly id: string;
  /** What it is called in files, where parts of several jobs lie on the sheet. */
  readonly label?: string | undefined;
  readonly curves: Curves;
  /** Lines that are drawn on it and not cut. */
  readonly marks?: Curves | undefined;
}

/** A part put on a sheet. */
export interface Placement {
  readonly partId: string;
  /** From the part's mm to the sheet's. */
  readonly at: Affine;
}

/**
 * One film's design as it lies on its sheet: each part once, and where its copies lie. Derived from design and settings, never edited. Coordinates are mm from
 * the sheet's upper left.
 */
export interface Sheet {
  readonly filmId: string;
  /** Which of several sheets of its film it is, from 1; absent when it is the only one. */
  readonly number?: number;
  /** What is left of the film that it is, where it is no new sheet. */
  readonly remnant?: string | undefined;
  /** The edge of such a piece, x and y of each corner; a rectangle when absent. */
  readonly outline?: readonly number[] | undefined;
  /** Which tile of a design that is larger than a sheet it is. */
  readonly tile?: Tile | undefined;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cutArea: RectMm;
  readonly mirrored: boolean;
  readonly parts: readonly SheetPart[];
  /** In the order in which they are laid. */
  readonly placements: readonly Placement[];
  /** Weeding boxes, when they are on. */
  readonly boxes: readonly RectMm[];
  /** Radius of their corners, mm; sharp when absent. */
  readonly boxRoundMm?: number | undefined;
  /** Cuts through the waste, where there are any. */
  readonly weedLines?: Curves | undefined;
  /** Where these would run were nothing in their way, and those that were left out. */
  readonly weedLinePlaces?: readonly WeedLinePlace[] | undefined;
  /** What the copies take up together. */
  readonly used: RectMm;
  /** Of a stencil of which half is to be cut: how much its halves differ, as a share; where that is too much all of it is cut. */
  readonly halvesDiffer?: number | undefined;
  /** How far the layout reaches over the cut area; 0 when it fits. */
  readonly over: { readonly widthMm: number; readonly heightMm: number };
  /** Copies that the cut area could hold. */
  readonly room: number;
}

/** The whole design of a film as one part. */
const DESIGN_PART = 'design';
/** The marks that layers are lined up by. */
export const REGISTER_PART = 'register';
/** The holes by which a stencil is laid again. */
const HOLES_PART = 'holes';

/** Slack for sizes that are equal but for rounding, mm: a tenth of what a plotter resolves. */
const SLACK_MM = 0.001;

/** Lays copies of one film's design in rows, from the sheet's origin corner, inside the cut area. */
export function laySheet(design: Design, filmId: string, settings: LayoutSettings): Sheet {
  const layer = layerOf(design, filmId);
  const { sheet, mirrored, box, gapMm, register } = settings;
  const upright = cellOf(design, settings);
  const isTurned = settings.turned === true;
  const cell = isTurned ? { ...upright, widthMm: upright.heightMm, heightMm: upright.widthMm } : upright;
  const isOneBox = box.on && box.around === 'all';
  const area = grown(cutAreaOf(sheet), isOneBox ? -box.marginMm : 0);
  const perRow = Math.max(1, Math.floor((area.widthMm + gapMm + SLACK_MM) / (cell.widthMm + gapMm)));
  const rowsThatFit = Math.max(0, Math.floor((area.heightMm + gapMm + SLACK_MM) / (cell.heightMm + gapMm)));
  const room = cell.widthMm <= area.widthMm + SLACK_MM ? perRow * rowsThatFit : 0;
  const columns = Math.min(perRow, settings.copies);
  const rows = Math.ceil(settings.copies / perRow);
  const laid = usedRect(sheet.origin, area, columns * cell.widthMm + (columns - 1) * gapMm, rows * cell.heightMm + (rows - 1) * gapMm);
  const fromRight = sheet.origin.endsWith('Right');
  const fromBottom = sheet.origin.startsWith('bottom');
  const cells = Array.from({ length: settings.copies }, (_, k): RectMm => {
    const [column, row] = [k % perRow, Math.floor(k / perRow)];
    const xMm = fromRight ? laid.xMm + laid.widthMm - (column + 1) * cell.widthMm - column * gapMm : laid.xMm + column * (cell.widthMm + gapMm);
    const yMm = fromBottom ? laid.yMm + laid.heightMm - (row + 1) * cell.heightMm - row * gapMm : laid.yMm + row * (cell.heightMm + gapMm);
    return { xMm, yMm, widthMm: cell.widthMm, heightMm: cell.heightMm };
  });
  // A cell that is turned over has the design at its other end.
  const inCell = mirrored ? followedBy(mirrorAbout(design.widthMm / 2), translation(upright.widthMm - upright.xMm - design.widthMm, upright.yMm)) : translation(upright.xMm, upright.yMm);
  const lying = isTurned ? followedBy(followedBy(inCell, rotation(Math.PI / 2, 0, 0)), translation(upright.heightMm, 0)) : inCell;
  const ats = cells.map(({ xMm, yMm }) => followedBy(lying, translation(xMm, yMm)));
  const parts: SheetPart[] = [{ id: DESIGN_PART, curves: layer.curves, ...(layer.marks === undefined ? {} : { marks: layer.marks }) }];
  const placements: Placement[] = ats.map((at) => ({ partId: DESIGN_PART, at }));
  const boxes = boxesOf(cells, laid, { parts, placements }, box);
  if (register?.on === true) {
    parts.push({ id: REGISTER_PART, curves: registerMarks(design.widthMm, register.sizeMm, settings.artIsOpening === true) });
    placements.push(...ats.map((at) => ({ partId: REGISTER_PART, at })));
  }
  if (settings.holes !== undefined) {
    parts.push({ id: HOLES_PART, curves: settings.holes.curves });
    placements.push(...ats.map((at) => ({ partId: HOLES_PART, at })));
  }
  const used = isOneBox ? grown(laid, box.marginMm) : laid;
  const whole = cutAreaOf(sheet);
  return {
    filmId,
    widthMm: sheet.widthMm,
    heightMm: sheet.heightMm,
    cutArea: whole,
    mirrored,
    parts,
    placements,
    boxes,
    ...(box.on && (box.roundMm ?? 0) > 0 ? { boxRoundMm: box.roundMm } : {}),
    used,
    over: { widthMm: Math.max(0, overBy(used.widthMm, whole.widthMm)), heightMm: Math.max(0, overBy(used.heightMm, whole.heightMm)) },
    room,
  };
}

/** What one copy takes up, and where in it the upper left of the design lies. */
function cellOf({ widthMm, heightMm }: Pick<Design, 'widthMm' | 'heightMm'>, { box, register, holes, blank }: LayoutSettings): RectMm {
  const marks = Math.max(holes?.roomMm ?? 0, register?.on === true ? registerRoomMm(register.sizeMm) : 0);
  const marksWide = register?.on === true ? Math.max(widthMm, register.sizeMm * 2.5) : widthMm;
  const content = { xMm: 0, yMm: -marks, widthMm: marksWide, heightMm: heightMm + marks };
  if (!box.on || box.around === 'all') return { ...content, xMm: 0, yMm: marks };
  const cell = box.around === 'blank' && blank !== undefined ? around({ xMm: -blank.xMm, yMm: -blank.yMm, widthMm: blank.widthMm, heightMm: blank.heightMm }, content) : grown(content, box.marginMm);
  return { ...cell, xMm: -cell.xMm, yMm: -cell.yMm };
}

function boxesOf(cells: readonly RectMm[], laid: RectMm, on: Pick<Sheet, 'parts' | 'placements'>, box: LayoutSettings['box']): readonly RectMm[] {
  if (!box.on) return [];
  if (box.around === 'all') return [grown(laid, box.marginMm)];
  return box.around === 'piece' ? boxesOfPieces(on.parts, on.placements, box.marginMm) : cells;
}

const overBy = (used: number, available: number): number => (used > available + SLACK_MM ? used - available : 0);

/** What the machine can reach of a sheet. */
export function cutAreaOf({ widthMm, heightMm, marginMm }: Pick<SheetStock, 'widthMm' | 'heightMm' | 'marginMm'>): RectMm {
  return {
    xMm: marginMm.left,
    yMm: marginMm.top,
    widthMm: Math.max(0, widthMm - marginMm.left - marginMm.right),
    heightMm: Math.max(0, heightMm - marginMm.top - marginMm.bottom),
  };
}

/** A rectangle of a size in the origin corner of an area. */
export function usedRect(origin: SheetStock['origin'], area: RectMm, widthMm: number, heightMm: number): RectMm {
  return {
    xMm: origin.endsWith('Right') ? area.xMm + area.widthMm - widthMm : area.xMm,
    yMm: origin.startsWith('bottom') ? area.yMm + area.heightMm - heightMm : area.yMm,
    widthMm,
    heightMm,
  };
}

export const fits = (sheet: Sheet): boolean => sheet.over.widthMm === 0 && sheet.over.heightMm === 0;

/** What is wrong with a sheet that does not fit, `doesNotFit` with how much is missing each way; undefined when it fits. */
export const misfit = (sheet: Sheet): AppError | undefined =>
  fits(sheet) ? undefined : new AppError('doesNotFit', { overWidthMm: roundUp(sheet.over.widthMm), overHeightMm: roundUp(sheet.over.heightMm) });

/** @throws AppError `doesNotFit`. */
export function assertFits(sheet: Sheet): void {
  const error = misfit(sheet);
  if (error !== undefined) throw error;
}

const roundUp = (length: number): number => Math.ceil(length * 10) / 10;
