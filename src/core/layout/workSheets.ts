import { layerOf, type Design } from '../assemble/design.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { isAppError } from '../errors/appError.ts';
import { translation } from '../geometry/affine.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { finish } from '../task/task.ts';
import { around, grown } from './boxes.ts';
import { cutAreaOf, type LayoutSettings, type Sheet } from './laySheet.ts';
import { nestedTogether } from './nestSheets.ts';
import { mostOn } from './remnants.ts';

const WORK = 'work';

/**
 * The sheet on which work lies already, stamped, painted or printed: its cut lines stay where the work is, as the marks told, never at the machine's corner and never mirrored; further copies are laid as blanks on what is
 * free of the sheet, as many as it holds at once. What is over is so far beyond the cut area.
 */
export function workSheets(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings, { xMm, yMm }: { readonly xMm: number; readonly yMm: number }): Sheet[] {
  const { curves, marks } = layerOf(design, filmId);
  const { sheet, copies, box } = settings;
  const at = translation(xMm, yMm);
  const own: RectMm = { xMm, yMm, widthMm: design.widthMm, heightMm: design.heightMm };
  const blanks = copies > 1 ? blanksBeside() : undefined;
  const area = cutAreaOf(sheet);
  const boxed = box.on ? grown(own, box.marginMm) : own;
  const used = blanks === undefined ? boxed : around(boxed, blanks.used);
  return [{
    filmId,
    widthMm: sheet.widthMm,
    heightMm: sheet.heightMm,
    cutArea: area,
    mirrored: false,
    parts: [{ id: WORK, curves, ...(marks === undefined ? {} : { marks }) }, ...(blanks?.parts ?? [])],
    placements: [{ partId: WORK, at }, ...(blanks?.placements ?? [])],
    boxes: box.on ? [boxed, ...(blanks?.boxes ?? [])] : [],
    ...(box.on && (box.roundMm ?? 0) > 0 ? { boxRoundMm: box.roundMm } : {}),
    used,
    over: { widthMm: beyond(area.xMm - used.xMm, used.xMm + used.widthMm - area.xMm - area.widthMm), heightMm: beyond(area.yMm - used.yMm, used.yMm + used.heightMm - area.yMm - area.heightMm) },
    room: 1 + (blanks?.placements.length ?? 0),
  }];

  /** Copies of the cut line for the next time; those that the first sheet does not hold are left out. */
  function blanksBeside(): Sheet | undefined {
    const lying = [transformCurves(curves, at)];
    // What one sheet cannot hold is not laid on others that nobody looks at.
    const tried = Math.min(copies - 1, mostOn(sheet, curves));
    if (tried === 0) return undefined;
    try {
      return finish(nestedTogether(library, [{ id: 'blank', curves, copies: tried }], filmId, { ...settings, mirrored: false, box: { on: false, marginMm: 0 }, lying }, () => 1))[0];
    } catch (error) {
      if (isAppError(error) && error.code === 'doesNotFit') return undefined;
      throw error;
    }
  }
}

const SLACK_MM = 0.001;
const beyond = (before: number, after: number): number => {
  const most = Math.max(before, after);
  return most > SLACK_MM ? most : 0;
};
