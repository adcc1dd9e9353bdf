import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import { AppError } from '../core/errors/appError.ts';
import type { ImportedDrawing } from './drawing.ts';
import { readDxf } from './dxf/readDxf.ts';
import { plotterDrawing } from './plotter/plotterDrawing.ts';
import { readSvg, type SvgOptions } from './svg/readSvg.ts';
import { say } from '../core/words/say.ts';

/**
 * Reads the outlines of a file by the ending of its name.
 * @param library what combines outlines; fetched for an SVG only.
 * @throws AppError `badValue` for other endings, and those of the readers.
 */
export async function readDrawing(bytes: Uint8Array, file: string, library: () => Promise<PolygonLibrary>, options: SvgOptions = {}): Promise<ImportedDrawing> {
  if (/\.svg$/i.test(file)) return readSvg(await library(), bytes, file, options);
  if (/\.dxf$/i.test(file)) return readDxf(bytes, file);
  if (/\.(?:hpgl|plt)$/i.test(file)) return plotterDrawing(bytes, file);
  throw new AppError('badValue', { name: say('The drawing'), value: file, takes: say('a file that ends in .svg, .dxf, .hpgl or .plt') });
}
