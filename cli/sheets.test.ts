import { areaOf } from '../tests/fixtures/areaOf.ts';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { combineCurves } from '../src/core/combine/combineCurves.ts';
import type { Curves } from '../src/core/outline/curves.ts';
import { readArchive } from '../src/formats/archive/archive.ts';
import { piecesOf } from '../src/core/outline/pieces.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { loadPolygons } from './loadPolygons.ts';
import { readDrawing } from './readDrawing.ts';

const svg = (paths: string, width = 100, height = 100): string => `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${paths}</svg>`;
/** A buoy with a ring, and a word with counters, as a picture. */
const buoy = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 900 700" width="900" height="700"><rect width="900" height="700" fill="#f4efe2"/><g fill="#1d3a5f" fill-rule="evenodd"><path d="M450 40a150 150 0 1 1 0 300a150 150 0 1 1 0-300zM450 120a70 70 0 1 0 0 140a70 70 0 1 0 0-140z"/><path d="M330 380H570L620 640H280ZM400 440L385 560H515L500 440Z"/></g></svg>`;

describe('the commands of sheets', () => {
  it('nest parts: every copy, apart, inside, and told', async () => {
    const at = await ownFolder();
    await writeFile(at('sail.svg'), svg('<path fill="#245" d="M0 0L40 60L0 60Z"/>'));
    await writeFile(at('ring.svg'), svg('<path fill="#a33" fill-rule="evenodd" d="M0 0H40V40H0ZM8 8H32V32H8Z"/>'));
    const { code, out } = await limner('nest', at('sail.svg'), at('ring.svg'), '--sheet', '200mmx300mm', '--copies', '4', '--gap', '3mm', '--seconds', '1', '--out', at('done'));
    expect([code, out]).toEqual([0, expect.stringMatching(/^1 sheet, [\d.]+ mm used/)]);
    const report = JSON.parse(await readFile(at('done/report.json'), 'utf8')) as { utilisation: number; usedLengthMm: number; sheets: { parts: unknown[] }[] };
    expect(report.sheets[0].parts).toHaveLength(8);
    expect(report.utilisation).toBeCloseTo((4 * (1200 + 1024)) / (200 * report.usedLengthMm), 3);
    const text = await readFile(at('done/sheet-1.svg'), 'utf8');
    const groups = text.match(/<g id[\s\S]*?<\/g>/g) ?? [];
    expect(groups).toHaveLength(8);
    const library = await loadPolygons();
    const outlines: Curves[] = [];
    for (const [k, group] of groups.entries()) {
      await writeFile(at(`g${k}.svg`), svg(group, 200, 300));
      outlines.push((await readDrawing(at(`g${k}.svg`))).layers[0].curves);
    }
    for (const [k, a] of outlines.entries()) for (const b of outlines.slice(k + 1)) expect(areaOf(combineCurves(library, 'common', a, b))).toBeLessThan(1e-6);
    expect(outlines.reduce((sum, curves) => sum + areaOf(curves), 0)).toBeCloseTo(4 * (1200 + 1024), 0);
    expect((await limner('nest', at('sail.svg'), '--sheet', '30mmx30mm', '--out', at('no'))).err).toContain('too small');
    expect((await limner('nest', at('sail.svg'), '--sheet', 'large', '--out', at('no'))).code).toBe(2);
  }, 60_000);

  it('make a stencil in which nothing falls out, and check it', async () => {
    const at = await ownFolder();
    await sharp(Buffer.from(buoy)).png().toFile(at('buoy.png'));
    const { code, out } = await limner('stencil', at('buoy.png'), '--width', '280mm', '--bridge', '2mm', '--out', at('stencil.svg'));
    expect([code, out]).toEqual([0, expect.stringMatching(/^2 islands held by \d bridges of 2 mm/)]);
    const { layers } = await readDrawing(at('stencil.svg'));
    expect(layers.flatMap(({ curves }) => piecesOf(curves).flatMap(({ holes }) => holes))).toEqual([]);
    expect((await limner('check', at('stencil.svg'), '--film', 'stencil')).out).toBe('nothing found\n');
  }, 60_000);

  it('check a drawing for a film, in text and as a list', async () => {
    const at = await ownFolder();
    await writeFile(at('drawing.svg'), svg('<path fill="#245" d="M5 5H25V14.8H40V5H60V25H40V15.3H25V25H5Z"/><path fill="#245" d="M60.3 5H80V25H60.3Z"/><circle cx="90" cy="50" r="0.4" fill="#245"/>'));
    const { out } = await limner('check', at('drawing.svg'), '--film', 'htv', '--json');
    const found = JSON.parse(out) as { kind: string; xMm: number; yMm: number; widthMm?: number; areaMm2?: number }[];
    expect(found.map(({ kind, widthMm, areaMm2 }) => [kind, Math.round(100 * (widthMm ?? areaMm2 ?? 0)) / 100])).toEqual([['smallPiece', 0.5], ['thin', 0.5], ['narrowGap', 0.3]]);
    expect([Math.abs(found[1].xMm - 32.5) < 8, Math.abs(found[1].yMm - 15.05) < 0.1]).toEqual([true, true]);
    expect((await limner('check', at('drawing.svg'), '--film', 'decal', '--gap', '0.2mm')).out).not.toContain('gap');
    expect((await limner('check', at('drawing.svg'))).code).toBe(2);
  });

  it('fill a page with decals of several pictures, and say what white becomes', async () => {
    const at = await ownFolder();
    await sharp(Buffer.from(buoy)).png().toFile(at('buoy.png'));
    await sharp(Buffer.from(buoy.replaceAll('#1d3a5f', '#b3262e'))).jpeg({ quality: 85 }).toFile(at('red.jpg'));
    const { code, out } = await limner('decal', at('buoy.png'), at('red.jpg'), '--page', 'letter', '--width', '60mm', '--fill', '--out', at('page.pdf'));
    expect([code, out]).toEqual([0, '6 motifs on 1 page\n']);
    const [page] = (await PDFDocument.load(await readFile(at('page.pdf')))).getPages();
    expect([page.getWidth(), page.getHeight()].map((value) => Math.round((value / 72) * 254) / 10)).toEqual([215.9, 279.4]);
    const small = await limner('decal', at('red.jpg'), '--width', '180mm', '--blank', '#203040', '--out', at('large.pdf'));
    expect(small.err).toContain('dots per inch');
    expect(small.err).toContain('dark');
    expect((await limner('decal', at('red.jpg'), '--width', '600mm', '--out', at('no.pdf'))).code).toBe(1);
    expect(await readdir(at('.'))).not.toContain('no.pdf');
  }, 60_000);

  it('draw the finished blank of a job', async () => {
    const at = await ownFolder();
    await sharp(Buffer.from(buoy)).png().toFile(at('buoy.png'));
    await limner('auto', at('buoy.png'), '--process', 'stencil', '--job', '--out', at('done'));
    expect((await limner('proof', at('done/buoy.limner'), '--px', '500', '--date', '2026-06-01', '--out', at('proof.png'))).code).toBe(0);
    const { width, height, density } = await sharp(at('proof.png')).metadata();
    expect([Math.max(width ?? 0, height ?? 0), (density ?? 0) > 50]).toEqual([500, true]);
    // With waterslide the whole way gives print pages too.
    await limner('auto', at('buoy.png'), '--process', 'waterslide', '--out', at('mug'));
    expect(await readdir(at('mug'))).toContain('buoy.pdf');
  }, 60_000);

  it('lay jobs together on the film that they share, and part a job into tiles that hold all of it', async () => {
    const at = await ownFolder();
    await sharp(Buffer.from(buoy)).png().toFile(at('buoy.png'));
    expect((await limner('auto', at('buoy.png'), '--out', at('a'), '--process', 'htv', '--width', '120mm', '--job')).code).toBe(0);
    const [name] = (await readdir(at('a'))).filter((each) => each.endsWith('.limner'));
    const path = at(`a/${name}`);
    const { code, out } = await limner('together', path, path, '--sheet', '300mmx1000mm', '--box', '5mm', '--copies', '2', '--seconds', '0', '--out', at('both'));
    expect([code, out]).toEqual([0, expect.stringMatching(/^2 jobs on 1 sheet of 1 film/)]);
    const report = JSON.parse(await readFile(at('both/report.json'), 'utf8')) as { films: { jobs: number[]; sheets: { file: string; parts: number[] }[] }[] };
    expect(report.films.map(({ jobs, sheets }) => [jobs, sheets[0].parts.sort()])).toEqual([[[1, 2], [1, 1, 2, 2]]]);
    expect((await readFile(at(`both/${report.films[0].sheets[0].file}`), 'utf8')).match(/<title>Job \d: /g)).toHaveLength(4);
    expect((await limner('together', path, '--sheet', '50mmx50mm', '--seconds', '0', '--out', at('no'))).err).toContain('too small');
    const { job } = await readArchive(new Uint8Array(await readFile(path)), 'buoy.limner');
    const areaWith = async (folder: string, layout: object): Promise<{ count: number; area: number }> => {
      await writeFile(at(`${folder}.json`), JSON.stringify({ ...job, layout: { ...job.layout, box: { on: false, marginMm: 0 }, ...layout }, handOff: { cutAs: 'shapes' } }));
      expect((await limner('run', at(`${folder}.json`), at('buoy.png'), '--out', at(folder))).code).toBe(0);
      const files = (await readdir(at(folder))).filter((each) => each.endsWith('.svg'));
      const areas = await Promise.all(files.map(async (file) => (await readDrawing(at(`${folder}/${file}`))).layers.reduce((sum, { curves }) => sum + areaOf(curves), 0)));
      return { count: files.length, area: areas.reduce((sum, area) => sum + area, 0) };
    };
    const whole = await areaWith('whole', {});
    const tiles = await areaWith('tiles', { tiles: { manner: 'butt', overlapMm: 0 }, sheet: { name: 'Small', widthMm: 80, heightMm: 70, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' } });
    expect([whole.count, tiles.count >= 4]).toEqual([1, true]);
    expect(tiles.area).toBeCloseTo(whole.area, 0);
  }, 120_000);
});
