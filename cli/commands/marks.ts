import { AppError } from '../../src/core/errors/appError.ts';
import { required } from '../arguments.ts';
import { withEnding } from '../eachInput.ts';
import { Outputs } from '../outputs.ts';
import type { Command } from './command.ts';

export const marks: Command = {
  usage: 'limner marks --out SHEET.pdf [--paper a4|letter]',
  about: 'Writes the printable mark sheet for squaring.',
  options: {
    out: { takes: 'a PDF file', about: 'the PDF file to write' },
    paper: { takes: 'a4 or letter', about: 'the paper (default a4)' },
  },
  async run(parsed, console) {
    const paper = parsed.values.get('paper') ?? 'a4';
    if (paper !== 'a4' && paper !== 'letter') throw new AppError('badValue', { name: '--paper', value: paper, takes: 'a4 or letter' });
    const out = withEnding(required(parsed, 'out', 'the PDF file to write'), '.pdf');
    // Its library is large, and no other command needs it.
    const { markSheetPdf } = await import('../../src/formats/pdf/markSheetPdf.ts');
    await (await Outputs.of([])).write(out, await markSheetPdf(paper));
    console.out('Print at 100 %, not fitted to the page.\n');
    return 0;
  },
};
