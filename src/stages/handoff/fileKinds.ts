import type { FileKind } from '../../core/job/handOff.ts';

/** How a kind of file is called, and what its files are as the system knows them. */
export const FILE_WORDS: Readonly<Record<FileKind, { readonly name: string; readonly short: string; readonly mime: string }>> = {
  svg: { name: 'Cut lines, SVG', short: 'SVG', mime: 'image/svg+xml' },
  dxf: { name: 'Cut lines, DXF 2000', short: 'DXF', mime: 'image/vnd.dxf' },
  'dxf-r12': { name: 'Cut lines, DXF R12', short: 'DXF R12', mime: 'image/vnd.dxf' },
  pdf: { name: 'PDF', short: 'PDF', mime: 'application/pdf' },
  hpgl: { name: 'Plotter language, HP-GL', short: 'HP-GL', mime: 'application/vnd.hp-hpgl' },
  png: { name: 'Pictures, PNG', short: 'PNG', mime: 'image/png' },
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

const counted = (count: number, one: string, many: string): string => (count === 1 ? `1 ${one}` : `${count} ${many}`);

/** What the files of a kind hold, in a line. */
export function fileWords(kind: FileKind, { films, sheets, pages, size, dpi }: FileFacts): string {
  switch (kind) {
    case 'svg':
      return `${counted(sheets, 'sheet', 'sheets, a file each')}, ${size}`;
    case 'dxf':
      return `one file, curves as splines, ${counted(films, 'layer', 'layers')}`;
    case 'dxf-r12':
      return 'one file, curves as arcs, for old programs';
    case 'pdf':
      return pages === undefined ? `spot colours, ${counted(films, 'layer', 'layers')} to hide, ${size}` : `${counted(pages, 'page', 'pages')} at true size: print at 100 %, not fitted`;
    case 'hpgl':
      return `${counted(sheets, 'sheet', 'sheets, a file each')}, from its lower left`;
    case 'png':
      return pages === undefined ? `the art, ${counted(films, 'film', 'films')} and the proof, ${dpi} dpi` : `the art and the proof, ${dpi} dpi`;
  }
}
