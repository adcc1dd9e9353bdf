import { PDFDocument } from 'pdf-lib';
import { beforeAll, describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { isAppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import { tracedPart } from '../core/job/tracedPart.ts';
import { LocalEngine } from './localEngine.ts';

const engine = new LocalEngine(decodeFile, { tools: shapeTools });
let pictureKey: string;
beforeAll(async () => {
  pictureKey = (await engine.open((await discFiles()).jpg.slice(), 'disc.jpg')).pictureKey;
});

const sized = (job: Job, sizeMm: number, layout: Partial<Job['layout']> = {}): Job => sizedJob({ ...job, layout: { ...job.layout, ...layout } }, sizeMm);
const pdfOf = async (of: { readonly pictureKey: string; readonly job: Job }): Promise<Uint8Array> => (await engine.files({ ...of, kinds: ['pdf'], name: 'Mug', date: '2026-11-28' }))[0].bytes;
const code = (work: Promise<unknown>): Promise<string> => work.then(() => 'fine', (error: unknown) => (isAppError(error) ? error.code : String(error)));

describe('what Lay out asks for', () => {
  it('are a print’s pictures, its pages as PDF, and what does not fit them', async () => {
    const job = sized(newJob('Mug', 'waterslide'), 40);
    const { pictures } = await engine.prints({ pictureKey, job });
    expect(pictures.map(({ id }) => id)).toEqual([tracedPart(job).id]);
    const [{ picture, toDesign }] = pictures;
    // The ground that the threshold leaves out is not printed, the disc is: with its own pixels.
    const alphaAt = (x: number, y: number): number => picture.data[4 * (y * picture.width + x) + 3];
    expect([alphaAt(0, 0), alphaAt(picture.width >> 1, picture.height >> 1)]).toEqual([0, 255]);
    // The art is as large on the design as the part is.
    expect(picture.width * toDesign.a).toBeGreaterThan(39);
    const { cut } = await engine.run({ pictureKey, job, quality: 'final' });
    const placed = cut?.print?.pages.flat().length ?? 0;
    expect(placed).toBeGreaterThan(10);
    expect((await PDFDocument.load(await pdfOf({ pictureKey, job }))).getPageCount()).toBe(1);
    const large = sized(job, 400);
    expect((await engine.run({ pictureKey, job: large, quality: 'final' })).cut?.print?.pages).toEqual([]);
    expect(await code(pdfOf({ pictureKey, job: large }))).toBe('doesNotFit');
  }, 60_000);

  it('are prints with what operations laid below them, and without what was cut out of them', async () => {
    const plain = sized(newJob('Mug', 'waterslide'), 40, { paper: 'clear' });
    const [art] = plain.objects;
    const bordered: Job = { ...plain, films: [...plain.films, { id: 'rim', name: 'Rim', colour: '#f2b632' }], objects: [{ ...art, operations: [{ kind: 'border', id: 'b', film: 'rim', widthMm: 3, corners: 'round', openings: 'filled' }] }] as Job['objects'] };
    const { pictures } = await engine.prints({ pictureKey, job: bordered });
    expect(pictures.map(({ below }) => below)).toEqual([['rim']]);
    const colourAt = async (job: Job, xMm: number): Promise<number[]> => {
      const { picture, pxPerMm } = await engine.onBlank({ pictureKey, job: { ...job, blank: { name: 'Card', widthMm: 60, heightMm: 60, colour: '#ffffff' }, place: { xMm: 10, yMm: 10 } }, sidePx: 600 });
      // The card's edge and the room around it come before its area.
      const [x, y] = [Math.round((14 + xMm) * pxPerMm), picture.height >> 1];
      return Array.from(picture.data.subarray(4 * (y * picture.width + x), 4 * (y * picture.width + x) + 3));
    };
    // Beside the disc lies the rim, in its own colour; without it the card.
    expect(await colourAt(bordered, 11.5)).toEqual([242, 182, 50]);
    expect(await colourAt(plain, 8)).toEqual([255, 255, 255]);
    const cut: Job = { ...plain, objects: [...plain.objects, { kind: 'figure', id: 'hole', film: plain.films[0].id, shape: { form: 'round', widthMm: 12, heightMm: 12 }, placement: { a: 1, b: 0, c: 0, d: 1, e: 14, f: 14 }, cutsOut: true }] };
    const [{ picture }] = (await engine.prints({ pictureKey, job: cut })).pictures;
    expect(picture.data[4 * ((picture.height >> 1) * picture.width + (picture.width >> 1)) + 3]).toBe(0);
    expect((await PDFDocument.load(await pdfOf({ pictureKey, job: cut }))).getPageCount()).toBe(1);
  }, 60_000);

  it('are how a sheet is cut and weeded, prints with white below and a line around, and their cut lines', async () => {
    const job = sized(newJob('Shirt'), 40);
    const { cut } = await engine.run({ pictureKey, job, quality: 'final' });
    const filmId = cut?.sheets[0].filmId ?? '';
    const plan = await engine.sheetPlan({ pictureKey, job, filmId, sheet: 1 });
    expect(plan?.weeding.waste.length).toBeGreaterThan(0);
    expect(plan?.way.atS.at(-1)).toBeGreaterThan(0.5);
    expect(await engine.sheetPlan({ pictureKey, job, filmId, sheet: 9 })).toBeUndefined();
    const mug = sized(newJob('Mug', 'waterslide'), 40, { white: { on: true, chokeMm: 0.3 }, contour: { on: true, awayMm: 2 }, bleedMm: 1, fill: false, copies: 3 });
    const printed = (await engine.run({ pictureKey, job: mug, quality: 'final' })).cut;
    expect(printed?.print).toMatchObject({ hasMarks: true, motifs: [{ white: {}, contour: {} }] });
    // A line around each motif where it was printed, and nothing else to cut.
    const svg = new TextDecoder().decode(await engine.export({ pictureKey, job: mug, kind: 'svg' }));
    expect(svg.match(/<path/g)).toHaveLength(3);
    expect(printed?.sheets.map(({ placements, widthMm }) => [placements.length, widthMm])).toEqual([[3, 210]]);
  }, 60_000);

  it('are nested sheets, each saved by its number, and what was found closer', async () => {
    const job = sized(newJob('Badges', 'decal'), 60, { arrange: 'nested', copies: 12, sheet: { ...newJob('x').layout.sheet, widthMm: 140, heightMm: 210 } });
    const { cut } = await engine.run({ pictureKey, job, quality: 'final' });
    const sheets = cut?.sheets ?? [];
    expect(sheets.length).toBeGreaterThan(1);
    expect(sheets.map(({ number }) => number)).toEqual(sheets.map((_, k) => k + 1));
    const filmId = sheets[0].filmId;
    const paths = async (sheet: number): Promise<number> => (new TextDecoder().decode(await engine.export({ pictureKey, job, kind: 'svg', filmId, sheet })).match(/<path/g) ?? []).length;
    // Each sheet has its own copies and a box: nothing is left out of the files.
    const counts = await Promise.all(sheets.map((_, k) => paths(k + 1)));
    const rings = sheets[0].parts[0].curves.parent.length;
    expect(counts).toEqual(sheets.map(({ placements }) => placements.length * rings + 1));
    expect(sheets.reduce((sum, { placements }) => sum + placements.length, 0)).toBe(12);
    expect(await code(engine.export({ pictureKey, job, kind: 'svg', filmId, sheet: 99 }))).toBe('filmMissing');
    const record = await engine.nest({ pictureKey, job, filmId, seconds: 0.3 });
    const kept = { ...job, layout: { ...job.layout, nests: [record] } };
    expect((await engine.run({ pictureKey, job: kept, quality: 'final' })).cut?.sheets.flatMap(({ placements }) => placements)).toHaveLength(12);
  }, 60_000);

  it('are the finished blank, at its scale', async () => {
    const { picture, pxPerMm } = await engine.onBlank({ pictureKey, job: sized(newJob('Shirt'), 200), sidePx: 300 });
    expect(Math.max(picture.width, picture.height)).toBe(300);
    expect(pxPerMm).toBeGreaterThan(0.2);
  }, 60_000);
});
