import { availableParallelism } from 'node:os';
import { basename, extname, join } from 'node:path';
import { AppError, isAppError, errorFromPlain } from '../../src/core/errors/appError.ts';
import { isBetter, type NestedSheet } from '../../src/core/nest/nest.ts';
import { nestPart, type NestPart } from '../../src/core/nest/nestOutline.ts';
import { onSheet, partToStrip, sheetFrame, type SheetFrame } from '../../src/core/nest/sheetFrame.ts';
import { TURNS, type Turns } from '../../src/core/nest/turns.ts';
import { boundsOf, type Curves } from '../../src/core/outline/curves.ts';
import { joinCurves, transformCurves } from '../../src/core/outline/transformCurves.ts';
import { parseLength } from '../../src/core/units/parseLength.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { choiceOption, FORCE_OPTION, lengthOption, numberOption, required, type Parsed } from '../arguments.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { nestNow, type NestTask } from '../nestTask.ts';
import { Outputs } from '../outputs.ts';
import type { PoolAnswer } from '../poolTask.ts';
import { readDrawing } from '../readDrawing.ts';
import { rounded } from '../rounded.ts';
import type { Command, Console } from './command.ts';

const MOST_PARTS = 10_000;
/** Of the time, what goes to arrangements that each thread tries by itself; then all go on from the best. */
const APART = 0.65;

interface Part {
  readonly name: string;
  readonly colour: string;
  readonly curves: Curves;
  readonly nested: NestPart;
}

export const nestParts: Command = {
  usage: 'limner nest PART.svg... --sheet 300mmx2000mm [--gap 2mm] [--turns free|quarter|none] [--copies N] [--seconds 5] --out DIR',
  about: 'Lays parts on sheets by their true outlines, so that as little as possible is used of the longer side.',
  options: {
    out: { takes: 'a folder', about: 'folder for sheet-1.svg and further ones, and report.json' },
    sheet: { takes: 'width x height', about: 'size of a sheet or roll, such as 300mmx2000mm; its length is the longer side' },
    gap: { takes: 'a length', about: 'least distance between parts (default 2mm)' },
    turns: { takes: TURNS.join(', '), about: 'free: parts may be turned any way; quarter: by right angles; none: grain, shine or nap runs one way (default free); they are never turned over' },
    copies: { takes: 'a whole number', about: 'of each part (default 1)' },
    seconds: { takes: 's', about: 'how long to look for a better arrangement (default 5)' },
    ...FORCE_OPTION,
  },
  notes: 'All that one drawing holds is one part. report.json tells the used length, and the utilisation: the area of all parts beside the sheets’ width times the length that is used of them.',
  async run(parsed, console) {
    const began = Date.now() - performance.now();
    const out = required(parsed, 'out', 'a folder');
    const { widthMm, heightMm } = sheetOption(parsed);
    const gapMm = lengthOption(parsed, 'gap', 0, 500) ?? 2;
    const turns = choiceOption(parsed, 'turns', TURNS) ?? 'free';
    const copies = numberOption(parsed, 'copies', 1, MOST_PARTS, true) ?? 1;
    const seconds = numberOption(parsed, 'seconds', 0, 3600) ?? 5;
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The parts', value: 'nothing', takes: 'at least one SVG or DXF file' });
    if (parsed.inputs.length * copies > MOST_PARTS) throw new AppError('badValue', { name: '--copies', value: String(copies), takes: `at most ${MOST_PARTS} parts in all` });
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.prepare(out);
    const frame = sheetFrame(widthMm, heightMm);
    const parts = await readParts(parsed.inputs, frame, gapMm);
    const shapes = parts.flatMap(({ nested }) => Array.from({ length: copies }, () => nested.shape));
    const input = { shapes, widthMm: frame.widthMm + gapMm, lengthMm: frame.lengthMm + gapMm, turns };
    const sheets = await nestOnCores(input, began, 1000 * seconds, console);
    await writeSheets(sheets, { parts, copies, frame, gapMm, turns, widthMm, heightMm, seconds: (Date.now() - began) / 1000 }, out, outputs, console);
    return 0;
  },
};

/** The size of a sheet as it is asked for. @throws AppError `badValue`. */
export function sheetOption(parsed: Parsed): { widthMm: number; heightMm: number } {
  const text = required(parsed, 'sheet', 'width x height, such as 300mmx2000mm');
  const [width, height, ...more] = text.split(/[x×]/i).map((part) => parseLength(part, 'mm'));
  const isSize = (value: number | undefined): value is number => value !== undefined && value >= 5 && value <= 100_000;
  if (more.length > 0 || !isSize(width) || !isSize(height)) throw new AppError('badValue', { name: '--sheet', value: text, takes: 'width x height from 5 mm to 100 m, such as 300mmx2000mm' });
  return { widthMm: width, heightMm: height };
}

async function readParts(paths: readonly string[], frame: SheetFrame, gapMm: number): Promise<Part[]> {
  const library = await loadPolygons();
  const read: Omit<Part, 'nested'>[] = [];
  for (const path of paths) {
    const { layers } = await readDrawing(path);
    read.push({ name: basename(path, extname(path)), colour: layers[0].colour, curves: joinCurves(layers.map(({ curves }) => curves)) });
  }
  // What is smaller than the smallest part holds none.
  const boxes = read.map(({ curves }) => boundsOf(curves)).map((box) => (box === undefined ? Infinity : Math.min(box.right - box.left, box.bottom - box.top) ** 2));
  const leastOpeningMm2 = Math.min(...boxes);
  return read.map((part) => ({ ...part, nested: nestPart(library, transformCurves(part.curves, partToStrip(frame)), gapMm, leastOpeningMm2 / 2) }));
}

type Input = Omit<NestTask, 'kind' | 'fromMs' | 'untilMs'>;

/** Nests on all cores: at first each on its own, then all from what is best by then. Without threads, here. */
async function nestOnCores(input: Input, began: number, budgetMs: number, console: Console): Promise<NestedSheet[]> {
  const cores = Math.min(4, availableParallelism());
  const task = (seed: number, fromMs: number, untilMs: number, from?: readonly NestedSheet[]): NestTask => ({ kind: 'nest', ...input, seed, fromMs, untilMs, ...(from === undefined ? {} : { from }) });
  const now = Date.now();
  const end = began + budgetMs;
  if (console.pool === undefined || cores < 2 || end - now < 300) return nestNow(task(1, now, end));
  const pool = console.pool(cores);
  try {
    const round = async (fromMs: number, untilMs: number, from?: readonly NestedSheet[]): Promise<NestedSheet[]> => {
      const answers = await Promise.all(Array.from({ length: cores }, (_, k) => pool.run(task(k + 1 + (from === undefined ? 0 : cores), fromMs, untilMs, from)) as Promise<PoolAnswer>));
      const found = answers.map((answer): NestedSheet[] => {
        if ('nested' in answer) return answer.nested;
        throw 'error' in answer ? errorFromPlain(answer.error) : new AppError('workerLost');
      });
      return found.reduce((best, each) => (isBetter(each, best) ? each : best));
    };
    const middle = now + APART * (end - now);
    const first = await round(now, middle);
    return end - middle < 150 ? first : await round(middle, end, first);
  } catch (error) {
    if (isAppError(error) && error.code === 'workerLost') return nestNow(task(1, Date.now(), end));
    throw error;
  } finally {
    await pool.close();
  }
}

interface Told {
  readonly parts: readonly Part[];
  readonly copies: number;
  readonly frame: SheetFrame;
  readonly gapMm: number;
  readonly turns: Turns;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly seconds: number;
}

async function writeSheets(sheets: readonly NestedSheet[], told: Told, out: string, outputs: Outputs, console: Console): Promise<void> {
  const { parts, copies, frame, gapMm, turns, widthMm, heightMm, seconds } = told;
  const entries: { file: string; usedLengthMm: number; utilisation: number; parts: { part: string; copy: number; turnDeg: number }[] }[] = [];
  let [area, used] = [0, 0];
  for (const [k, { laid }] of sheets.entries()) {
    const counts = new Map<string, number>();
    const placedCopies = laid.map(({ part, pose }) => {
      const { name, colour, curves, nested } = parts[Math.floor(part / copies)];
      const copy = (counts.get(name) ?? 0) + 1;
      counts.set(name, copy);
      return { name, copy, pose, area: nested.areaMm2, film: { id: name, name: `${name} ${copy}`, colour }, curves: transformCurves(curves, onSheet(frame, nested.shape, pose, gapMm / 2)) };
    });
    const along = (curves: Curves): number => (frame.toSheet.b === 0 ? (boundsOf(curves)?.right ?? 0) : (boundsOf(curves)?.bottom ?? 0));
    const usedLengthMm = Math.max(...placedCopies.map(({ curves }) => along(curves)));
    const own = placedCopies.reduce((sum, each) => sum + each.area, 0);
    [area, used] = [area + own, used + usedLengthMm];
    const file = `sheet-${k + 1}.svg`;
    await outputs.write(join(out, file), writeOutlineSvg(placedCopies, widthMm, heightMm, `Sheet ${k + 1} of ${sheets.length}`));
    entries.push({
      file,
      usedLengthMm: rounded(usedLengthMm),
      utilisation: rounded(own / (frame.widthMm * usedLengthMm)),
      parts: placedCopies.map(({ name, copy, pose }) => ({ part: name, copy, turnDeg: rounded(((pose.angle * 180) / Math.PI + 720) % 360) })),
    });
  }
  const report = { sheet: { widthMm, heightMm }, gapMm, turns, copies, seconds: rounded(seconds), utilisation: rounded(area / (frame.widthMm * used)), usedLengthMm: rounded(used), sheets: entries };
  await outputs.write(join(out, 'report.json'), `${JSON.stringify(report, null, 2)}\n`);
  console.out(`${sheets.length === 1 ? '1 sheet' : `${sheets.length} sheets`}, ${rounded(used)} mm used, ${Math.round(1000 * report.utilisation) / 10} % of it parts\n`);
}
