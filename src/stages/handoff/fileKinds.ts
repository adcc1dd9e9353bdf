import type { FileKind } from '../../core/job/handOff.ts';
import { counted, say } from '../../core/words/say.ts';

/** How a kind of file is called, and what its files are as the system knows them. */
export const FILE_WORDS: Readonly<Record<FileKind, { readonly name: string; readonly short: string; readonly mime: string }>> = {
  svg: { name: say('Cut lines, SVG'), short: 'SVG', mime: 'image/svg+xml' },
  dxf: { name: say('Cut lines, DXF 2000'), short: 'DXF', mime: 'image/vnd.dxf' },
  'dxf-r12': { name: say('Cut lines, DXF R12'), short: 'DXF R12', mime: 'image/vnd.dxf' },
  pdf: { name: say('PDF'), short: 'PDF', mime: 'application/pdf' },
  hpgl: { name: say('Plotter language, HP-GL'), short: 'HP-GL', mime: 'application/vnd.hp-hpgl' },
  png: { name: say('Pictures, PNG'), short: 'PNG', mime: 'image/png' },
};

/** What the numbers of a job say of its files. */
export interface FileFacts {
  readonly films: number;
  readonly sheets: number;
  /** Pages, where the job is printed. */
  readonly pages: number | undefined;
  /** Of a sheet, written out. */
  readonly size: string;
  readonly dpi: number;
}


/** What the files of a kind hold, in a line. */
export function fileWords(kind: FileKind, { films, sheets, pages, size, dpi }: FileFacts): string {
  switch (kind) {
    case 'svg':
      return `${counted(sheets, say('sheet'), say('sheets, a file each'))}, ${size}`;
    case 'dxf':
      return say`one file, curves as splines, ${counted(films, say('layer'), say('layers'))}`;
    case 'dxf-r12':
      return say('one file, curves as arcs, for old programs');
    case 'pdf':
      return pages === undefined ? say`spot colours, ${counted(films, say('layer'), say('layers'))} to hide, ${size}` : say`${counted(pages, say('page'), say('pages'))} at true size: print at 100 %, not fitted`;
    case 'hpgl':
      return say`${counted(sheets, say('sheet'), say('sheets, a file each'))}, from its lower left`;
    case 'png':
      return pages === undefined ? say`the art, ${counted(films, say('film'), say('films'))} and the proof, ${dpi} dpi` : say`the art and the proof, ${dpi} dpi`;
  }
}
