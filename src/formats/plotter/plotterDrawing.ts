import { AppError } from '../../core/errors/appError.ts';
import { ringCount } from '../../core/outline/curves.ts';
import { nestRings } from '../../core/outline/nestRings.ts';
import { Drawing, type ImportedDrawing } from '../drawing.ts';
import { joinPaths } from '../paths/joinPaths.ts';
import { movedPath } from '../paths/drawnPath.ts';
import { PLOTTER_STEP_MM } from './writePlotter.ts';
import { readPlotter } from './readPlotter.ts';
import { say } from '../../core/words/say.ts';

/** How the tools of a file are told apart where they are shown: the language has no colours. */
const COLOURS = ['#22375f', '#9e2f4b', '#3f7d4e', '#b9751a', '#2f5d8a', '#6a4c93', '#444444', '#8a6d3b'] as const;

/**
 * The outlines of a file in plotter language, one layer for each tool, in mm with y down. The page is the box around what is drawn.
 * @throws AppError `fileTooLarge`, `badDrawing`, `tooIntricate`.
 */
export function plotterDrawing(bytes: Uint8Array, file: string): ImportedDrawing {
  const { strokes, leftOut } = readPlotter(bytes, file);
  const drawing = new Drawing();
  for (const [name, count] of leftOut) drawing.note(say`instructions ${name} that are not understood`, count);
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { start, sides } of strokes) {
    for (const { x, y } of [start, ...sides.flatMap(({ handles, to }) => [...(handles ?? []), to])]) {
      [left, right] = [Math.min(left, x), Math.max(right, x)];
      [top, bottom] = [Math.min(top, -y), Math.max(bottom, -y)];
    }
  }
  if (!(right > left || bottom > top)) throw new AppError('badDrawing', { file, reason: say('it holds no outlines') });
  const toPage = { a: 1, b: 0, c: 0, d: -1, e: -left, f: -top };
  for (const tool of [...new Set(strokes.map((stroke) => stroke.tool))].sort((a, b) => a - b)) {
    const own = strokes.filter((stroke) => stroke.tool === tool).flatMap((stroke) => movedPath(stroke, toPage) ?? []);
    const { closed, open, doubles } = joinPaths(own, PLOTTER_STEP_MM);
    if (doubles > 0) drawing.note(say('paths that lay there twice'), doubles);
    const colour = COLOURS[Math.abs(Math.trunc(tool)) % COLOURS.length];
    if (ringCount(closed) > 0) drawing.add(colour, nestRings(closed), say`Tool ${tool}`);
    if (ringCount(open) > 0) drawing.addOpen(colour, open, say`Tool ${tool}`);
  }
  return drawing.finished(file, right - left, bottom - top);
}
