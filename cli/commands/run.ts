import { basename, join } from 'node:path';
import { figuresOf, figuresTogether, type Figures } from '../../src/core/check/figures.ts';
import { mostLayers } from '../../src/core/check/mostLayers.ts';
import type { Finding } from '../../src/core/check/cutCheck.ts';
import { plainFromError, AppError, type PlainError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import { hashBytes } from '../../src/core/job/hash.ts';
import type { Job } from '../../src/core/job/job.ts';
import { readJob } from '../../src/core/job/readJob.ts';
import { mirroringOf, proofOfFilms } from '../../src/core/job/runJob.ts';
import { nodesOfFilms } from '../../src/core/job/separateArt.ts';
import { assertFits } from '../../src/core/layout/laySheet.ts';
import { piecesOf } from '../../src/core/outline/pieces.ts';
import { finish } from '../../src/core/task/task.ts';
import { sheetsDxf } from '../../src/formats/dxf/sheetsDxf.ts';
import { filmPicture } from '../../src/formats/picture/filmPicture.ts';
import { idFromName } from '../../src/formats/svg/writeSvg.ts';
import { sheetFiles } from '../../src/formats/svg/sheetFiles.ts';
import { pictureFromArt, type Art } from '../../src/core/raster/art.ts';
import { cleanPicture, cutArt, type CutResult } from '../../src/engine/pipeline.ts';
import { required } from '../arguments.ts';
import { uniqueNames } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readJson, readPicture, writeBytes } from '../files.ts';
import { Timings } from '../timings.ts';
import type { Command } from './command.ts';

interface PictureReport {
  readonly input: string;
  readonly ok: boolean;
  readonly error?: PlainError;
  readonly files: readonly string[];
  readonly warnings: readonly string[];
  readonly ms: Readonly<Record<string, number>>;
  readonly [measure: string]: unknown;
}

export const run: Command = {
  usage: 'limner run JOB.json IN... --out DIR [--dxf] [--film-png]',
  about: "Applies a job's recipe, separation and layout to one or many pictures.",
  options: { out: { takes: 'a folder', about: 'folder for the files and report.json' }, dxf: { about: 'write NAME.dxf too: a layer for each film, curves as splines' }, 'film-png': { about: 'write a PNG of each film too, in its colour, clear elsewhere: NAME-1-RED-film.png' } },
  notes: 'For each picture: NAME.svg (the sheet; with several films NAME-1-RED.svg and so on, lowest first), NAME.png (the cleaned art). The job format is in docs/job-format.md. A picture that fails is reported; the others go on, and the exit code is 1.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    const [jobPath, ...inputs] = parsed.inputs;
    if (jobPath === undefined) throw new AppError('badValue', { name: 'The job', value: 'nothing', takes: 'a JSON file, then the pictures' });
    if (inputs.length === 0) throw new AppError('badValue', { name: 'The pictures', value: 'nothing', takes: 'at least one picture file' });
    const job = readJob(await readJson(jobPath), basename(jobPath));
    const reports: PictureReport[] = [];
    const names = uniqueNames(inputs);
    for (const [index, input] of inputs.entries()) {
      if (console.live) console.err(`\r${index + 1}/${inputs.length} ${basename(input)}\u001b[K`);
      reports.push(await runOne(job, input, out, names[index], { dxf: parsed.values.has('dxf'), filmPng: parsed.values.has('film-png') }));
    }
    if (console.live) console.err('\r\u001b[K');
    for (const report of reports) {
      if (report.error === undefined) continue;
      const { what, todo } = explain(report.error);
      console.err(`${report.input}: ${what} ${todo}\n`);
    }
    await writeBytes(join(out, 'report.json'), `${JSON.stringify({ job: job.name, pictures: reports }, null, 2)}\n`);
    console.out(`${reports.filter((report) => report.ok).length} of ${reports.length} pictures done\n`);
    return reports.every((report) => report.ok) ? 0 : 1;
  },
};

async function runOne(job: Job, input: string, out: string, name: string, wanted: { readonly dxf: boolean; readonly filmPng: boolean }): Promise<PictureReport> {
  const timings = new Timings();
  const files: string[] = [];
  const warnings: string[] = [];
  const write = async (file: string, content: Uint8Array | string): Promise<void> => {
    await timings.measure('write', () => writeBytes(join(out, file), content));
    files.push(file);
  };
  let measures: Record<string, unknown> = {};
  try {
    const { picture } = await timings.measure('decode', () => readPicture(input, { drawnSidePx: job.picture?.drawnSidePx }));
    const clean = await timings.measure('clean', () => finish(cleanPicture(job, picture, hashBytes(picture.data as Uint8Array))));
    for (const step of clean.steps) if (step.skipped !== undefined) warnings.push(`step ${step.id} skipped: ${explain({ code: step.skipped, details: {} }).what}`);
    const cut = await timings.measure('cut', () => finish(cutArt(job, clean.art)));
    warnings.push(...warningsOf(job, cut));
    measures = { ...measuresOf(cut), ...(cut.tones === undefined ? {} : { tones: cut.tones, proof: proofFigures(job, clean.art, cut) }), steps: clean.steps };
    for (const sheet of cut.sheets) assertFits(sheet);
    const sheets = sheetFiles(cut.films.map(({ film }) => film), cut.sheets, `${job.name}: ${name}`, job.handOff.cutAs);
    for (const { suffix, svg } of sheets) await write(`${name}${suffix === '' ? '' : `-${suffix}`}.svg`, svg);
    if (wanted.dxf) await write(`${name}.dxf`, sheetsDxf(cut.films.map(({ film }) => film), cut.sheets));
    if (wanted.filmPng) {
      for (const [k, { film }] of cut.films.entries()) {
        const { picture: png, pxPerMm } = filmPicture(cut.design.layers[k].curves, film.colour, cut.design.widthMm, cut.design.heightMm, cut.design.resolution);
        await write(`${name}-${k + 1}-${idFromName(film.name)}-film.png`, await encodeFile(png, pxPerMm));
      }
    }
    await write(`${name}.png`, await encodeFile(pictureFromArt(clean.art), cut.design.resolution));
    return { input: basename(input), ok: true, files, warnings, ...measures, ms: timings.record };
  } catch (error) {
    return { input: basename(input), ok: false, error: plainFromError(error), files, warnings, ...measures, ms: timings.record };
  }
}

const FINDING_WORDS: { readonly [Kind in Finding['kind']]: (size: number) => string } = {
  smallPiece: (size) => `piece of ${size.toFixed(2)} mm²`,
  smallHole: (size) => `hole of ${size.toFixed(2)} mm²`,
  island: (size) => `loose island of ${size.toFixed(2)} mm²`,
  thin: (size) => `strip only ${size.toFixed(2)} mm wide`,
  jagged: (size) => `jagged edge with teeth of ${size.toFixed(2)} mm`,
  openOutline: (size) => `outline open by ${size.toFixed(2)} mm`,
  coarsePicture: (size) => `the picture has only ${Math.round(size)} dots per inch at this size`,
};

function warningsOf(job: Job, cut: CutResult): string[] {
  const warnings = cut.findings.map(({ kind, size, xMm, yMm }) => (kind === 'coarsePicture' ? FINDING_WORDS[kind](size) : `${FINDING_WORDS[kind](size)} at ${xMm.toFixed(1)}, ${yMm.toFixed(1)} mm`));
  const { mirrored, against } = mirroringOf(job.layout, job.process);
  if (against) warnings.push(mirrored ? 'mirrored although the process does not want it' : 'NOT mirrored although the process wants it');
  return warnings;
}

function measuresOf({ design, sheets: [sheet], films }: CutResult): Record<string, unknown> {
  const figures = design.layers.map(({ curves }) => roundedAll(figuresOf(curves)));
  return {
    widthMm: round(design.widthMm),
    heightMm: round(design.heightMm),
    pieces: design.layers.reduce((sum, { curves }) => sum + piecesOf(curves).length, 0),
    nodes: nodesOfFilms(films),
    films: films.map(({ film, held }, k) => ({ ...film, ...figures[k], ...(held === undefined ? {} : { held }) })),
    together: roundedAll(figuresTogether(design.layers.map(({ curves }) => figuresOf(curves)))),
    mostLayers: mostLayers(design.layers.map(({ curves }) => curves)).layers,
    copies: sheet.placements.length,
    mirrored: sheet.mirrored,
    usedMm: [round(sheet.used.widthMm), round(sheet.used.heightMm)],
  };
}

/** How the films, laid over each other, differ from the clean art. */
function proofFigures(job: Job, art: Art, cut: CutResult): Record<string, number> {
  const strayMm = (cut.strayPx ?? 0) / cut.design.resolution;
  return { differs: Math.round(proofOfFilms(job, art, cut).differs * 1e5) / 1e5, edgeMm: Math.round(strayMm * 1e4) / 1e4 };
}

const roundedAll = (figures: Figures): Record<string, number> => Object.fromEntries(Object.entries(figures).map(([name, value]) => [name, round(value as number)]));
const round = (value: number): number => Math.round(value * 1000) / 1000;
