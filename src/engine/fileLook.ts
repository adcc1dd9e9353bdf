import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import type { FileKind } from '../core/job/handOff.ts';
import { nodeCount, type Curves } from '../core/outline/curves.ts';
import { nestRings } from '../core/outline/nestRings.ts';
import { joinCurves, transformCurves } from '../core/outline/transformCurves.ts';
import { cutPlansOf, type CutResult } from '../core/run/runJob.ts';
import { readDxf } from '../formats/dxf/readDxf.ts';
import { joinPaths } from '../formats/paths/joinPaths.ts';
import { PLOTTER_STEP_MM } from '../formats/plotter/writePlotter.ts';
import { readPlotter } from '../formats/plotter/readPlotter.ts';
import { readSvg } from '../formats/svg/readSvg.ts';
import type { JobFile } from './jobFiles.ts';

/** What a reader finds in a file that was made: lines in mm of the sheet, or nothing where the file is not read back. */
export interface FileLook {
  readonly files: readonly { readonly name: string; readonly byteCount: number }[];
  /** Of the file that is shown: what was read in it. */
  readonly lines?: { readonly curves: Curves; readonly nodes: number } | undefined;
  /** Of files that are pictures or pages: the bytes of each, to be drawn as other programs do. */
  readonly drawn?: readonly Uint8Array<ArrayBuffer>[] | undefined;
}

/**
 * Reads a file back that was made, of the kinds that Limner reads; pictures and pages are handed on as they are: what is shown is what is in the file.
 * @param at which of the files, from 0.
 */
export async function fileLook(kind: FileKind, files: readonly JobFile[], at: number, cut: CutResult, polygons: () => Promise<PolygonLibrary>): Promise<FileLook> {
  const told = files.map(({ name, bytes }) => ({ name, byteCount: bytes.length }));
  const shown = files[Math.min(at, files.length - 1)];
  const curves = shown === undefined ? undefined : await linesIn(kind, shown, cut, at, polygons);
  if (kind === 'png' || kind === 'pdf') return { files: told, drawn: files.map(({ bytes }) => bytes) };
  return { files: told, ...(curves === undefined ? {} : { lines: { curves, nodes: nodeCount(curves) } }) };
}

async function linesIn(kind: FileKind, { name, bytes }: JobFile, cut: CutResult, at: number, polygons: () => Promise<PolygonLibrary>): Promise<Curves | undefined> {
  switch (kind) {
    case 'svg':
      return joinCurves((await readSvg(await polygons(), bytes, name, { strokes: 'line', aids: true })).layers.map(({ curves }) => curves));
    case 'dxf':
    case 'dxf-r12':
      return joinCurves(readDxf(bytes, name).layers.map(({ curves }) => curves));
    case 'hpgl': {
      const { heightMm } = cutPlansOf(cut)[at];
      const { closed, open } = joinPaths(readPlotter(bytes, name).strokes, PLOTTER_STEP_MM);
      return joinCurves([nestRings(closed), open].map((curves) => transformCurves(curves, { a: 1, b: 0, c: 0, d: -1, e: 0, f: heightMm })));
    }
    default:
      return undefined;
  }
}
