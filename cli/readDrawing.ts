import { basename, extname } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import type { ImportedDrawing } from '../src/formats/drawing.ts';
import { readDxf } from '../src/formats/dxf/readDxf.ts';
import { readSvg, type SvgOptions } from '../src/formats/svg/readSvg.ts';
import { readBytes } from './files.ts';
import { loadPolygons } from './loadPolygons.ts';

/** Reads a drawing by the ending of its name. @throws AppError `badValue` for other endings. */
export async function readDrawing(path: string, options: SvgOptions = {}): Promise<ImportedDrawing> {
  const ending = extname(path).toLowerCase();
  if (ending !== '.svg' && ending !== '.dxf') throw new AppError('badValue', { name: 'The drawing', value: basename(path), takes: 'a file that ends in .svg or .dxf' });
  const bytes = await readBytes(path);
  return ending === '.svg' ? readSvg(await loadPolygons(), bytes, basename(path), options) : readDxf(bytes, basename(path));
}
