import { BLANKS } from '../process/blanks.ts';
import { beforeAll, describe, expect, it } from 'vitest';
import { cutInput } from '../../../cli/cutInput.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { discFiles } from '../../../tests/fixtures/files.ts';
import { sizedJob } from '../../../tests/fixtures/jobWith.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Job } from '../job/job.ts';
import { jobSchema } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import { orderCode, stateWord } from '../job/order.ts';
import { withFilmByItself, withLayoutOf } from '../layout/layoutFor.ts';
import { SHEETS } from '../layout/sheetStock.ts';
import { usualMaterial } from '../process/material.ts';
import { ticketOf, type Ticket } from './ticket.ts';
import { stepWords, ticketWords } from './ticketWords.ts';

let library: PolygonLibrary;
let bytes: Uint8Array<ArrayBuffer>;
beforeAll(async () => {
  library = await loadPolygons();
  bytes = (await discFiles()).png;
});
const ticketFor = async (job: Job): Promise<Ticket> => ticketOf(job, (await cutInput(job, { name: 'disc.png', bytes: bytes.slice() })).cut, library);
const wordsOf = (ticket: Ticket, unit: 'mm' | 'in' = 'mm'): string => ticketWords(ticket, unit).flatMap(({ title, rows }) => [title, ...rows.map((row) => row.join(': '))]).join('\n');

describe('the ticket', () => {
  it('says what a film takes, costs and how long it is cut and weeded', async () => {
    const job = sizedJob(newJob('Buoy shirt', 'htv'), 60);
    const priced: Job = { ...job, layout: { ...job.layout, copies: 2, gapMm: 10 }, materials: { usual: { ...usualMaterial('htv'), pricePerM2: 20 } } };
    const ticket = await ticketFor(priced);
    const [film] = ticket.films;
    // Two boxes of 72 mm lie beside each other on a sheet 305 or 500 mm wide.
    expect(film.lengthMm).toBeGreaterThan(72);
    expect(film.cost).toBeCloseTo((20 * film.widthMm * film.lengthMm) / 1e6, 9);
    expect(ticket.cost).toBe(film.cost);
    // Two discs and two boxes, and the overcut of each.
    expect(Math.abs(film.cutMm - 2 * (Math.PI * 60 + 4 * 72))).toBeLessThan(6);
    expect(film.weeding.bits).toBe(2);
    expect(ticket.steps.map(stepWords)).toEqual([`Press ${film.name}: 155 °C, medium pressure, 12 s, peel warm`]);
    expect(wordsOf(ticket)).toContain('Mirrored: yes, cut from the back');
    expect(wordsOf(ticket, 'in')).toMatch(/Finished: 2\.36 in × 2\.3\d in/);
  });

  it('says on which sheet and how often a film is cut that is laid out by itself', async () => {
    const job = sizedJob(newJob('Buoy shirt', 'htv'), 60);
    const apart = withLayoutOf(withFilmByItself(job.layout, 'film-1', true), 'film-1', { sheet: SHEETS[3], copies: 2 });
    const ticket = await ticketFor({ ...job, layout: apart });
    expect(ticket.films[0]).toMatchObject({ widthMm: SHEETS[3].widthMm, own: { sheet: SHEETS[3].name, copies: 2 } });
    expect(wordsOf(ticket)).toContain(`By itself: ${SHEETS[3].name}, 2 copies`);
    expect(wordsOf(await ticketFor(job))).not.toContain('By itself');
  });

  it('carries the order, and says what goes against the process', async () => {
    const job = sizedJob(newJob('Buoy shirt', 'htv'), 60);
    const ordered: Job = { ...job, layout: { ...job.layout, mirror: 'never' }, rights: { use: 'allowed', note: 'By the club' }, order: { code: orderCode([1, 2, 3, 40, 50, 60, 7, 255]), state: 'approved', customer: 'Mill Lane Rowing', due: '2026-12-04', notes: 'Two rows,\nblue for the first.' } };
    expect(jobSchema.parse(JSON.parse(JSON.stringify(ordered)))).toEqual(ordered);
    const words = wordsOf(await ticketFor(ordered));
    for (const part of ['State: approved', 'Customer: Mill Lane Rowing', 'Wanted by: 2026-12-04', 'Picture: may be used: By the club', 'AGAINST THE PROCESS', 'blue for the first.']) expect(words).toContain(part);
    expect(words).toMatch(/Code: [0-9A-HJKMNP-TV-Z]{8}/);
    expect(jobSchema.safeParse({ ...ordered, order: { due: '2026-13-40' } }).success).toBe(false);
  });

  it('says how a stencil is laid more than once', async () => {
    const stencil = (own: NonNullable<Job['layout']['stencil']>): Job => {
      const job = sizedJob(newJob('Gate', 'stencil'), 60);
      return { ...job, layout: { ...job.layout, stencil: own } };
    };
    expect(wordsOf(await ticketFor(stencil({ manner: 'half', holeMm: 4 })))).toContain('Laid: half of it');
    expect(wordsOf(await ticketFor(stencil({ manner: 'repeat', everyMm: 75, holeMm: 4 })))).toContain('Laid: again every 75 mm');
    expect((await ticketFor(sizedJob(newJob('Gate', 'stencil'), 60))).laid).toBeUndefined();
  });

  it('says what is bent for its blank, how a guide is laid, and how far rows of a stencil are apart', async () => {
    const blank = BLANKS.find((each) => each.blank.name === 'Tapered tumbler')!.blank;
    const job = sizedJob(newJob('Cup', 'decal'), 60);
    const guided: Job = { ...job, blank, layout: { ...job.layout, guide: true, box: { on: false, marginMm: 0 } } };
    const words = wordsOf(await ticketFor(guided));
    expect(words).toContain('Taper: bent for the blank');
    expect(words).toContain('Guide of card: Its corner on that of the printable area');
    const plain = wordsOf(await ticketFor(job));
    expect([plain.includes('Taper'), plain.includes('Guide of card')]).toEqual([false, false]);
    const gate = sizedJob(newJob('Gate', 'stencil'), 60);
    expect(wordsOf(await ticketFor({ ...gate, layout: { ...gate.layout, stencil: { manner: 'repeat', everyMm: 75, downMm: 90, holeMm: 4 } } }))).toContain('rows 90 mm apart');
  });

  it('of a print has pages and waits instead of films', async () => {
    const ticket = await ticketFor(sizedJob(newJob('Mug', 'waterslide'), 40));
    expect([ticket.films, ticket.pages?.count, ticket.steps.map(({ what }) => what)]).toEqual([[], 1, ['dry', 'coat', 'coat', 'coat', 'final']]);
    expect(ticket.steps.map(stepWords)[1]).toBe('Coat 1, and wait');
    expect(wordsOf(ticket)).toContain('motifs on 1 page, Waterslide paper, ink-jet');
    expect(stateWord('cut', 'waterslide')).toBe('printed');
  });
});
