import { readFile, writeFile } from 'node:fs/promises';
import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { jobTicketPdf } from '../src/engine/jobTicket.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { codeOnPage, pdfAsDrawn } from '../tests/fixtures/foreignReaders.ts';
import { sizedJob } from '../tests/fixtures/jobWith.ts';
import { discFiles } from '../tests/fixtures/files.ts';
import { cutInput } from './cutInput.ts';
import { encodeFile } from './encodeFile.ts';
import { shapeTools } from './shapeTools.ts';

describe('the ticket as a file', () => {
  it('is a page with words and proof, whatever language they are in; many notes take more pages', async () => {
    const at = await ownFolder();
    const bytes = (await discFiles()).png;
    await writeFile(at('disc.png'), bytes);
    const job = sizedJob(newJob('Łódka dla Żurawia', 'htv'), 60);
    await writeFile(at('job.json'), JSON.stringify(job));
    expect(await limner('ticket', at('job.json'), at('disc.png'), '--out', at('ticket.pdf'), '--page', 'letter', '--unit', 'in')).toMatchObject({ code: 0, err: '' });
    const file = await readFile(at('ticket.pdf'));
    const [page] = (await PDFDocument.load(file)).getPages();
    expect(page.getWidth()).toBeCloseTo(612, 3);
    // Words on the left, the code and the proof on the right: ink in each of them.
    const { width, data } = await pdfAsDrawn(file, 1, 2);
    const inkIn = (x0: number, y0: number, x1: number, y1: number): number => {
      let ink = 0;
      for (let y = y0 * 2; y < y1 * 2; y++) for (let x = x0 * 2; x < x1 * 2; x++) if (data[4 * (y * width + x)] < 120) ink++;
      return ink;
    };
    expect(inkIn(14, 12, 120, 24)).toBeGreaterThan(300);
    expect(inkIn(176, 12, 204, 38)).toBeGreaterThan(800);
    expect(inkIn(14, 60, 120, 100)).toBeGreaterThan(300);
    expect(await codeOnPage(file)).toBe('Łódka dla Żurawia');
    const noted = { ...job, order: { notes: Array.from({ length: 60 }, (_, k) => `Line ${k + 1} of what is wanted`).join('\n').slice(0, 4000) } };
    const { arts, cut } = await cutInput(noted, { name: 'disc.png', bytes });
    const long = await jobTicketPdf({ job: noted, cut, arts, tools: shapeTools, encode: (picture) => encodeFile(picture) }, { unit: 'mm', page: 'a4', date: '2026-11-28' });
    expect((await PDFDocument.load(long)).getPageCount()).toBe(2);
  }, 60_000);
});
