import { PDFArray, PDFDocument, PDFName, PDFRef } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../../core/figure/figureCurves.ts';
import { CurvesBuilder } from '../../core/outline/curves.ts';
import type { CutPlan } from '../../core/layout/cutPlan.ts';
import { pdfAsRead } from '../../../tests/fixtures/foreignReaders.ts';
import { sheetsPdf } from './sheetsPdf.ts';

const square = figureCurves({ form: 'rectangle', widthMm: 30, heightMm: 20 });
const order = Int32Array.of(0);
const plan = (id: string, name: string, number?: number): CutPlan => ({
  film: { id, name, colour: '#22375f' },
  ...(number === undefined ? {} : { number }),
  widthMm: 305,
  heightMm: 200,
  runs: [{ role: 'cut', curves: square, order }, { role: 'box', curves: square, order }],
});
const spotsOf = (document: PDFDocument): string[] =>
  document.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFArray && object.get(0) === PDFName.of('Separation') ? [(object.get(1) as PDFName).decodeText()] : []));

describe('cut sheets as PDF', () => {
  it('lie on each other where they are lined up: a page for each number, a layer for each film', async () => {
    const bytes = await sheetsPdf([plan('a', 'Navy', 1), plan('a', 'Navy', 2), plan('b', 'Żółty', 1)], 'Crest', true);
    const read = await pdfAsRead(bytes);
    expect(read.layers).toEqual(['Navy', 'Żółty']);
    expect(read.pages.map(({ widthMm, heightMm, lengthMm }) => [widthMm, heightMm, lengthMm].map((value) => Math.round(value * 100) / 100))).toEqual([[305, 200, 400], [305, 200, 200]]);
  });

  it('are pages of their own where each film is nested by itself', async () => {
    expect((await pdfAsRead(await sheetsPdf([plan('a', 'Navy'), plan('b', 'Rust')], 'Crest', false))).pages).toHaveLength(2);
  });

  it('hold a hundred thousand sides', async () => {
    const builder = new CurvesBuilder();
    builder.start(0, 0, -1);
    for (let k = 1; k < 100_000; k++) builder.line(k / 400, 50 + 40 * Math.sin(k / 3));
    builder.line(0, 0);
    builder.close();
    const many: CutPlan = { ...plan('a', 'Navy'), runs: [{ role: 'cut', curves: builder.build(), order }] };
    expect((await PDFDocument.load(await sheetsPdf([many], 'Crest', true))).getPageCount()).toBe(1);
  });

  it('name what their lines are for as spot colours, and are the same file each time', async () => {
    const bytes = await sheetsPdf([plan('a', 'Navy')], 'Crest', true);
    const document = await PDFDocument.load(bytes, { updateMetadata: false });
    expect(spotsOf(document)).toEqual(['Cut', 'Weeding box']);
    expect(document.getPage(0).getTrimBox()).toMatchObject({ x: 0, y: 0, width: expect.closeTo((305 * 72) / 25.4, 3) });
    expect(document.catalog.get(PDFName.of('OCProperties')) instanceof PDFRef || document.catalog.has(PDFName.of('OCProperties'))).toBe(true);
    expect(await sheetsPdf([plan('a', 'Navy')], 'Crest', true)).toEqual(bytes);
  });
});
