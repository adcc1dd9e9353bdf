import type { Design } from '../assemble/design.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { ringCount } from '../outline/curves.ts';
import type { Task } from '../task/task.ts';
import type { LayoutSettings, Sheet } from './laySheet.ts';
import { kindsOf, nestedTogether } from './nestSheets.ts';
import { mostOn } from './remnants.ts';

/** Copies that one sheet is filled with at most. */
const MOST_COPIES = 2000;

/**
 * How many whole copies of a design one sheet of each of its films holds, nested by their outlines and laid as they fit at first; remnants are not looked at. 0 where a copy is larger than the sheet.
 * @throws AppError `doesNotFit` where that is found only when it is laid.
 */
export function* nestedRoom(library: PolygonLibrary, design: Design, settings: LayoutSettings): Task<number> {
  let room = MOST_COPIES;
  for (const { filmId, curves } of design.layers) {
    if (ringCount(curves) === 0) continue;
    const laid = (copies: number): Task<Sheet[]> => nestedTogether(library, kindsOf(design, filmId, { ...settings, apart: false, copies }), filmId, settings, () => 1);
    room = Math.min(room, mostOn(settings.sheet, curves));
    if (room === 0) return 0;
    room = (yield* laid(room))[0]?.placements.length ?? 0;
    // As many as lay on the first of several sheets may lie otherwise when there are no more of them.
    while (room > 1 && (yield* laid(room)).length > 1) room--;
  }
  return room;
}
