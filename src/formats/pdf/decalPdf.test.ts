import { PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { inflateSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../../core/figure/figureCurves.ts';
import { scaling } from '../../core/geometry/affine.ts';
import { printPages } from '../../core/print/printPages.ts';
import { makeRgba8 } from '../../core/raster/raster.ts';
import { writePng } from '../picture/writePng.ts';
import { decalPdf, type PrintElement } from './decalPdf.ts';

describe('print pages as PDF', () => {
  it('are at true size, hold each picture once with its alpha, and are the same file each time', async () => {
    const data = Uint8Array.from({ length: 4 * 60 * 40 }, (_, i) => (i % 4 === 3 ? (i % 7) * 36 : i % 251));
    const element: PrintElement = { kind: 'picture', png: writePng(makeRgba8(60, 40, data)), widthPx: 60, heightPx: 40, toDesign: scaling(0.5) };
    const outline: PrintElement = { kind: 'outline', colour: '#b3262e', curves: figureCurves({ form: 'round', widthMm: 20, heightMm: 20 }) };
    const motif = { parts: ['a'], box: { left: 0, top: 0, right: 30, bottom: 20 } };
    const { pages } = printPages([motif], { area: { xMm: 5, yMm: 5, widthMm: 200, heightMm: 287 }, gapMm: 5, copies: 60, mirrored: false, pageWidthMm: 210 });
    const write = (): Promise<Uint8Array> => decalPdf({ title: 'Crest', widthMm: 210, heightMm: 297, motifs: [[element, outline]], pages, trimMm: 2 });
    const bytes = await write();
    expect(await write()).toEqual(bytes);
    const read = await PDFDocument.load(bytes);
    expect(read.getPages().map((page) => page.getSize()).map(({ width, height }) => [width, height].map((value) => Math.round((value / 72) * 254) / 10))).toEqual(pages.map(() => [210, 297]));
    const pictures = read.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFRawStream && object.dict.get(PDFName.of('Subtype')) === PDFName.of('Image') ? [object.dict] : []));
    // The picture and its alpha, whatever the number of copies; with all of its pixels.
    expect(pictures).toHaveLength(2);
    for (const dict of pictures) expect([String(dict.get(PDFName.of('Width'))), String(dict.get(PDFName.of('Height')))]).toEqual(['60', '40']);
    const contents = read.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFRawStream && object.dict.get(PDFName.of('Subtype')) === undefined ? [inflateSync(object.contents).toString('latin1')] : []));
    expect(contents.join('\n').match(/ Do\b/g)).toHaveLength(60);
    // 30 × 20 mm on the page: so large is the unit square of a picture.
    const [, a, , , d] = /\n(-?[\d.]+) (-?[\d.]+) (-?[\d.]+) (-?[\d.]+) [\d. -]+ cm/.exec(contents.find((text) => text.includes(' Do')) ?? '') ?? [];
    expect([Math.abs(Number(a)) * (25.4 / 72), Math.abs(Number(d)) * (25.4 / 72)].map((value) => Math.round(value * 100) / 100)).toEqual([30, 20]);
  });

  it('lay white below the ink and a cut line around it, as inks of their own names, with marks in the corners', async () => {
    const shape = figureCurves({ form: 'round', widthMm: 20, heightMm: 20 });
    const motif = { parts: ['a'], box: { left: 0, top: 0, right: 20, bottom: 20 }, white: shape, contour: figureCurves({ form: 'round', widthMm: 24, heightMm: 24 }) };
    const area = { xMm: 5, yMm: 5, widthMm: 200, heightMm: 287 };
    const { pages } = printPages([motif], { area, gapMm: 5, copies: 3, mirrored: false, pageWidthMm: 210 });
    const read = await PDFDocument.load(await decalPdf({ title: 'Buoy', widthMm: 210, heightMm: 297, motifs: [[{ kind: 'outline', colour: '#b3262e', curves: shape }]], pages, shapes: [motif], marksIn: area, trimMm: 2 }));
    const contents = read.context.enumerateIndirectObjects().flatMap(([, object]) => (object instanceof PDFRawStream ? [inflateSync(object.contents).toString('latin1')] : [])).join('\n');
    expect([contents.match(/\/White cs/g)?.length, contents.match(/\/Cut CS/g)?.length]).toEqual([3, 3]);
    // White comes before the ink that lies on it.
    expect(contents.indexOf('/White cs')).toBeLessThan(contents.indexOf(' rg'));
    const spots = read.context.enumerateIndirectObjects().map(([, object]) => String(object)).filter((text) => text.includes('/Separation'));
    expect(spots.map((text) => /\/Separation \/(\w+)/.exec(text)?.[1]).sort()).toEqual(['Cut', 'White']);
    // Two bars in each of four corners, the square of the first, and no marks for scissors.
    expect(contents.match(/\n0 0 0 rg/g)?.length).toBe(9);
  });
});
