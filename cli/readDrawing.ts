import { basename, extname } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import type { ImportedDrawing } from '../src/formats/drawing.ts';
import { readDrawing as read } from '../src/formats/readDrawing.ts';
import type { SvgOptions } from '../src/formats/svg/readSvg.ts';
import { readBytes } from './files.ts';
import { loadPolygons } from './loadPolygons.ts';

/** Reads a drawing by the ending of its name. @throws AppError `badValue` for other endings, before the file is touched. */
export async function readDrawing(path: string, options: SvgOptions = {}): Promise<ImportedDrawing> {
  if (!/^\.(?:svg|dxf|hpgl|plt)$/i.test(extname(path))) throw new AppError('badValue', { name: 'The drawing', value: basename(path), takes: 'a file that ends in .svg, .dxf, .hpgl or .plt' });
  return read(await readBytes(path), basename(path), loadPolygons, options);
}
