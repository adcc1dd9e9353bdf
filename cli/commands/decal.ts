import { basename, dirname, extname } from 'node:path';
import { PAPERS } from '../../src/core/clean/squaring/markSheet.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import { USUAL_STOCK } from '../../src/core/film/stock.ts';
import { scaling } from '../../src/core/geometry/affine.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { tracedPart } from '../../src/core/job/tracedPart.ts';
import { printPages, trimOf, type Motif } from '../../src/core/print/printPages.ts';
import { DECAL_PAPERS, printFacts, printWarnings, trimmedMotif } from '../../src/core/print/motif.ts';
import { printRecipe } from '../../src/core/print/printRecipe.ts';
import { proposedJob } from '../../src/core/propose/propose.ts';
import { pictureFromArt } from '../../src/core/raster/art.ts';
import { cleanPart } from '../../src/core/run/runJob.ts';
import { hashBytes } from '../../src/core/task/hash.ts';
import { finish } from '../../src/core/task/task.ts';
import { decalPdf, type PrintElement } from '../../src/formats/pdf/decalPdf.ts';
import { choiceOption, FORCE_OPTION, lengthOption, numberOption, required } from '../arguments.ts';
import { decodeFile } from '../decodeFile.ts';
import { encodeFile } from '../encodeFile.ts';
import { readBytes } from '../files.ts';
import { Outputs } from '../outputs.ts';
import type { Command, Console } from './command.ts';

/** What printers leave free, mm; and from motif to motif. */
const MARGIN_MM = 5;
const GAP_MM = 6;

export const decal: Command = {
  usage: 'limner decal PICTURE... --out OUT.pdf [--page a4|letter] [--width 60mm] [--fill | --copies N] [--paper clear|white] [--blank #rrggbb] [--mirror] [--no-marks]',
  about: 'Makes print pages for waterslide decals: the ground lifted, full colour, true size, filled with copies.',
  options: {
    out: { takes: 'the PDF file to write', about: 'pages at true size; print them at 100 %' },
    page: { takes: 'a4 or letter', about: 'the printer’s page (default a4)' },
    width: { takes: 'a length', about: 'width of each motif (default 60mm)' },
    fill: { about: 'fill the page with copies of all of them in turn' },
    copies: { takes: 'a whole number', about: 'of each motif (default 1)' },
    paper: { takes: DECAL_PAPERS.join(' or '), about: 'what is not printed is clear, or white (default clear)' },
    blank: { takes: '#rrggbb', about: 'the colour that it goes on, to be warned by' },
    margin: { takes: 'a length', about: `what the printer leaves free (default ${MARGIN_MM}mm)` },
    gap: { takes: 'a length', about: `from motif to motif (default ${GAP_MM}mm)` },
    mirror: { about: 'for the inside of glass: printed the other way round' },
    'no-marks': { about: 'without the corner marks for scissors' },
    ...FORCE_OPTION,
  },
  notes: 'Pictures keep their own pixels and their half-clear edges.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'the PDF file to write');
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The pictures', value: 'nothing', takes: 'at least one picture file' });
    const page = PAPERS[choiceOption(parsed, 'page', ['a4', 'letter'] as const) ?? 'a4'];
    const paper = choiceOption(parsed, 'paper', DECAL_PAPERS) ?? 'clear';
    const widthMm = Number(lengthOption(parsed, 'width') ?? 60);
    const marginMm = Number(lengthOption(parsed, 'margin', 0, 100) ?? MARGIN_MM);
    const gapMm = Number(lengthOption(parsed, 'gap', 0, 100) ?? GAP_MM);
    const copies = parsed.values.has('fill') ? ('fill' as const) : (numberOption(parsed, 'copies', 1, 2000, true) ?? 1);
    if (parsed.values.has('fill') && parsed.values.has('copies')) throw new AppError('badValue', { name: '--copies', value: 'given with --fill', takes: 'its place: give one of them' });
    const blank = parsed.values.get('blank');
    if (blank !== undefined && !/^#[0-9a-f]{6}$/i.test(blank)) throw new AppError('badValue', { name: '--blank', value: blank, takes: '#rrggbb' });
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const motifs: ReadMotif[] = [];
    for (const path of parsed.inputs) motifs.push(await motifOf(path, widthMm, (picture, dpi) => warn(path, printWarnings(printFacts(picture), dpi, paper, blank), console)));
    const area = { xMm: marginMm, yMm: marginMm, widthMm: page.widthMm - 2 * marginMm, heightMm: page.heightMm - 2 * marginMm };
    const { pages } = printPages(motifs, { area, gapMm, copies, mirrored: parsed.values.has('mirror'), pageWidthMm: page.widthMm });
    const title = parsed.inputs.map((path) => basename(path, extname(path))).join(', ');
    await outputs.write(out, await decalPdf({ title, ...page, motifs: motifs.map(({ element }) => [element]), pages, ...(parsed.values.has('no-marks') ? {} : { trimMm: trimOf(gapMm) }) }));
    const count = pages.reduce((sum, places) => sum + places.length, 0);
    console.out(`${count === 1 ? '1 motif' : `${count} motifs`} on ${pages.length === 1 ? '1 page' : `${pages.length} pages`}\n`);
    return 0;
  },
};

interface ReadMotif extends Motif {
  readonly element: PrintElement;
}

function warn(path: string, words: readonly string[], console: Console): void {
  for (const each of words) console.err(`${basename(path)}: ${each}\n`);
}

/** A picture cleaned as the first look proposes for printing, without its clear border. */
async function motifOf(path: string, widthMm: number, tell: (picture: ReturnType<typeof trimmedMotif>, dpi: number) => void): Promise<ReadMotif> {
  const { picture } = await decodeFile(await readBytes(path), basename(path), {});
  const job = proposedJob(newJob(basename(path), 'waterslide'), picture, USUAL_STOCK, widthMm);
  const part = tracedPart(job);
  const { art } = finish(cleanPart({ ...part, recipe: printRecipe(part.recipe) }, picture, hashBytes(picture.data as Uint8Array)));
  const motif = trimmedMotif(pictureFromArt(art));
  tell(motif, motif.width / art.frame.scale / (widthMm / 25.4));
  const mmPerPx = widthMm / motif.width;
  const element: PrintElement = { kind: 'picture', png: await encodeFile(motif), widthPx: motif.width, heightPx: motif.height, toDesign: scaling(mmPerPx) };
  return { parts: [], box: { left: 0, top: 0, right: widthMm, bottom: motif.height * mmPerPx }, element };
}
