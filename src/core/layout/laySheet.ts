import { AppError } from '../errors/appError.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { followedBy, mirrorAbout, translation, type Affine } from '../geometry/affine.ts';
import { layerOf, type Design } from '../assemble/design.ts';
import type { Curves } from '../outline/curves.ts';
import type { Layout, SheetStock } from './layout.ts';

/** How a design is laid out, with the mirroring that its process and layout give. */
export interface LayoutSettings extends Omit<Layout, 'mirror' | 'sheet'> {
  readonly sheet: Omit<SheetStock, 'name'>;
  readonly mirrored: boolean;
}

/** What is cut together wherever it lies: outlines in mm of their own. */
export interface SheetPart {
  readonly id: string;
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
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cutArea: RectMm;
  readonly mirrored: boolean;
  readonly parts: readonly SheetPart[];
  /** In the order in which they are laid. */
  readonly placements: readonly Placement[];
  /** Weeding boxes, one for each copy, or one for all that is nested, when they are on. */
  readonly boxes: readonly RectMm[];
  /** Cuts through the waste, where there are any. */
  readonly weedLines?: Curves | undefined;
  /** What the copies take up together. */
  readonly used: RectMm;
  /** How far the layout reaches over the cut area; 0 when it fits. */
  readonly over: { readonly widthMm: number; readonly heightMm: number };
  /** Copies that the cut area could hold. */
  readonly room: number;
}

/** The whole design of a film as one part. */
const DESIGN_PART = 'design';

/** Slack for sizes that are equal but for rounding, mm: a tenth of what a plotter resolves. */
const SLACK_MM = 0.001;

/** Lays copies of one film's design in rows, from the sheet's origin corner, inside the cut area. */
export function laySheet(design: Design, filmId: string, settings: LayoutSettings): Sheet {
  const layer = layerOf(design, filmId);
  const { sheet, mirrored, box, gapMm } = settings;
  const margin = box.on ? box.marginMm : 0;
  const cell = { width: design.widthMm + 2 * margin, height: design.heightMm + 2 * margin };
  const area = cutAreaOf(sheet);
  const perRow = Math.max(1, Math.floor((area.widthMm + gapMm + SLACK_MM) / (cell.width + gapMm)));
  const rowsThatFit = Math.max(0, Math.floor((area.heightMm + gapMm + SLACK_MM) / (cell.height + gapMm)));
  const room = cell.width <= area.widthMm + SLACK_MM ? perRow * rowsThatFit : 0;
  const columns = Math.min(perRow, settings.copies);
  const rows = Math.ceil(settings.copies / perRow);
  const used = usedRect(sheet.origin, area, columns * cell.width + (columns - 1) * gapMm, rows * cell.height + (rows - 1) * gapMm);
  const placements: Placement[] = [];
  const boxes: RectMm[] = [];
  const fromRight = sheet.origin.endsWith('Right');
  const fromBottom = sheet.origin.startsWith('bottom');
  for (let k = 0; k < settings.copies; k++) {
    const column = k % perRow;
    const row = Math.floor(k / perRow);
    const x = fromRight ? used.xMm + used.widthMm - (column + 1) * cell.width - column * gapMm : used.xMm + column * (cell.width + gapMm);
    const y = fromBottom ? used.yMm + used.heightMm - (row + 1) * cell.height - row * gapMm : used.yMm + row * (cell.height + gapMm);
    const place = translation(x + margin, y + margin);
    placements.push({ partId: DESIGN_PART, at: mirrored ? followedBy(mirrorAbout(design.widthMm / 2), place) : place });
    if (box.on) boxes.push({ xMm: x, yMm: y, widthMm: cell.width, heightMm: cell.height });
  }
  const over = { widthMm: Math.max(0, overBy(used.widthMm, area.widthMm)), heightMm: Math.max(0, overBy(used.heightMm, area.heightMm)) };
  return {
    filmId,
    widthMm: sheet.widthMm,
    heightMm: sheet.heightMm,
    cutArea: area,
    mirrored,
    parts: [{ id: DESIGN_PART, curves: layer.curves, ...(layer.marks === undefined ? {} : { marks: layer.marks }) }],
    placements,
    boxes,
    used,
    over,
    room,
  };
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

function usedRect(origin: SheetStock['origin'], area: RectMm, widthMm: number, heightMm: number): RectMm {
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
