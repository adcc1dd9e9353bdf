import { execFile } from 'node:child_process';
import { access, readdir, readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { flatten } from '../src/core/outline/flatten.ts';
import { isOpenRing, type Curves } from '../src/core/outline/curves.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { dxfAsRead, pdfAsDrawn, pdfAsRead } from '../tests/fixtures/foreignReaders.ts';
import { readDrawing } from './readDrawing.ts';

const HP2XX = '/usr/bin/hp2xx';
const canRun = (file: string): Promise<boolean> => access(file).then(() => true, () => false);

/** A pennant on a mast above a wave: three colours on paper. */
const regatta = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 900 700" width="900" height="700"><rect width="900" height="700" fill="#fff"/><path fill="#1d3a5f" d="M430 60H470V520H430Z"/><path fill="#c8452f" d="M470 80C560 60 640 140 760 150C650 200 560 250 470 260Z"/><path fill="#3f7d4e" d="M120 560C220 500 300 500 400 560S600 620 780 540V640H120Z"/><circle cx="250" cy="300" r="90" fill="#1d3a5f"/><circle cx="250" cy="300" r="45" fill="#fff"/></svg>`;

/** Length of all lines, mm. */
function lengthOf(curves: Curves): number {
  const { points, starts } = flatten(curves, 0.0005);
  let sum = 0;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const own = Array.from({ length: starts[ring + 1] - starts[ring] }, (_, k) => points.subarray(2 * (starts[ring] + k), 2 * (starts[ring] + k) + 2));
    const end = curves.coordStart[ring + 1] - 2;
    const ends = isOpenRing(curves, ring) ? [...own, curves.coords.subarray(end, end + 2)] : [...own, own[0]];
    for (let k = 1; k < ends.length; k++) sum += Math.hypot(ends[k][0] - ends[k - 1][0], ends[k][1] - ends[k - 1][1]);
  }
  return sum;
}

/** Lengths of the paths of a cut file as an SVG program measures them: commands M, L, H, V, C and Z. */
async function svgLength(file: string): Promise<number> {
  const { svgPathProperties } = await import('svg-path-properties');
  const text = await readFile(file, 'utf8');
  return [...text.matchAll(/ d="([^"]+)"/g)].reduce((sum, [, d]) => sum + new svgPathProperties(d).getTotalLength(), 0);
}

describe('the files of a job', () => {
  let at: (name: string) => string;
  let names: string[];
  let lengthMm: number;

  beforeAll(async () => {
    at = await ownFolder();
    await sharp(Buffer.from(regatta)).png().toFile(at('regatta.png'));
    expect((await limner('auto', at('regatta.png'), '--out', at('done'), '--width', '200mm', '--job')).code).toBe(0);
    const { code, err } = await limner('export', at('done/regatta.limner'), '--as', 'svg,dxf,dxf-r12,pdf,hpgl,png', '--out', at('files'));
    expect([code, err]).toEqual([0, '']);
    names = (await readdir(at('files'))).sort();
    lengthMm = 0;
    for (const name of names.filter((each) => each.endsWith('.svg'))) lengthMm += await svgLength(at(`files/${name}`));
  }, 120_000);

  it('are named by job, film and kind', () => {
    const films = names.filter((name) => name.endsWith('.svg')).map((name) => name.replace(/^regatta-|\.svg$/g, ''));
    expect(films).toHaveLength(3);
    expect(names).toEqual([...films.flatMap((film) => [`regatta-${film}.hpgl`, `regatta-${film}.png`, `regatta-${film}.svg`]), 'regatta-proof.png', 'regatta-r12.dxf', 'regatta.dxf', 'regatta.pdf', 'regatta.png'].sort());
  });

  it('are cut over the same length, as other programs read them', async () => {
    expect(lengthMm).toBeGreaterThan(1500);
    for (const name of ['regatta.dxf', 'regatta-r12.dxf']) {
      const read = dxfAsRead(await readFile(at(`files/${name}`), 'utf8'));
      expect(Math.abs(read.lengthMm / lengthMm - 1), name).toBeLessThan(0.0005);
      expect(read.layers.length, name).toBeGreaterThanOrEqual(3);
    }
    const pdf = await pdfAsRead(await readFile(at('files/regatta.pdf')));
    expect(Math.abs(pdf.pages.reduce((sum, page) => sum + page.lengthMm, 0) / lengthMm - 1)).toBeLessThan(0.0005);
    expect(pdf.layers).toHaveLength(3);
    expect(pdf.pages[0].widthMm).toBeCloseTo(305, 1);
  });

  it('come back into Limner as long as they left', async () => {
    const hpgl = names.filter((name) => name.endsWith('.hpgl'));
    for (const kind of [hpgl, ['regatta.dxf'], ['regatta-r12.dxf']]) {
      let own = 0;
      for (const name of kind) own += (await readDrawing(at(`files/${name}`))).layers.reduce((sum, { curves }) => sum + lengthOf(curves), 0);
      expect(Math.abs(own / lengthMm - 1), kind[0]).toBeLessThan(0.002);
    }
  });

  it('show the same lines in PDF and SVG, pixel against pixel', async () => {
    const scale = 3;
    const page = await pdfAsDrawn(await readFile(at('files/regatta.pdf')), 1, scale);
    const shown = new Uint8Array(page.width * page.height);
    for (const name of names.filter((each) => each.endsWith('.svg'))) {
      const svg = (await readFile(at(`files/${name}`), 'utf8')).replace(/stroke="[^"]*"/g, 'stroke="#000"').replace(/stroke-width="[^"]*"/g, 'stroke-width="0.3"');
      const { data } = await sharp(Buffer.from(svg), { density: scale * 25.4 }).resize(page.width, page.height, { fit: 'fill' }).flatten({ background: '#fff' }).greyscale().raw().toBuffer({ resolveWithObject: true });
      data.forEach((value, k) => void (shown[k] = Math.max(shown[k], value < 200 ? 1 : 0)));
    }
    const near = (k: number): boolean => [-1, 0, 1].some((dy) => [-1, 0, 1].some((dx) => shown[k + dy * page.width + dx] === 1));
    let [lines, off] = [0, 0];
    for (let k = page.width + 1; k < shown.length - page.width - 1; k++) {
      if (page.data[4 * k] + page.data[4 * k + 1] + page.data[4 * k + 2] > 600) continue;
      lines++;
      if (!near(k)) off++;
    }
    expect(lines).toBeGreaterThan(3000);
    expect(off).toBe(0);
  });

  it('state the resolution of pictures', async () => {
    expect((await sharp(at('files/regatta.png')).metadata()).density).toBeGreaterThan(60);
    const { width = 0, height = 0, density } = await sharp(at('files/regatta-proof.png')).metadata();
    expect([Math.max(width, height), density]).toEqual([1600, expect.any(Number)]);
  });

  it('are read by a viewer of plotter language', async ({ skip }) => {
    if (!(await canRun(HP2XX))) skip('hp2xx is not installed here');
    const [name] = names.filter((each) => each.endsWith('.hpgl'));
    const { stderr } = await promisify(execFile)(HP2XX, ['-m', 'svg', '-f', at('seen.svg'), at(`files/${name}`)]);
    expect(stderr).toMatch(/HPGL command\(s\) ignored: 0/);
    expect(stderr).toMatch(/Unexpected event\(s\):\s+0/);
  });

  it('are chosen by words that are understood', async () => {
    expect(await limner('export', at('done/regatta.limner'), '--as', 'svg,cdr', '--out', at('no'))).toMatchObject({ code: 2, err: expect.stringContaining('dxf-r12') });
    const { out } = await limner('export', at('done/regatta.limner'), '--as', 'hpgl', '--out', at('fine'), '--fine', '--tell', '--compensate', '--name', '{job}, {width}');
    expect(out).toMatch(/regatta, \d+ mm-1-/);
    const [first] = await readdir(at('fine'));
    expect(await readFile(at(`fine/${first}`), 'utf8')).toMatch(/SC0,100000[^]*VS30;\nFS90;/);
  }, 60_000);
});
