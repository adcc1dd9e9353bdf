import { areaOf } from '../tests/fixtures/areaOf.ts';
import { readFile, writeFile } from 'node:fs/promises';
import { describe, expect, it } from 'vitest';
import { readSvg } from '../src/formats/svg/readSvg.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { loadPolygons } from './loadPolygons.ts';

const at = await ownFolder();
const library = await loadPolygons();
const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80">${body}</svg>`;
const [bar, disc, both] = [at('bar.svg'), at('disc.svg'), at('both.svg')];
await writeFile(bar, svg('<rect x="10" y="30" width="60" height="10" fill="#b3262e"/>'));
await writeFile(disc, svg('<circle cx="40" cy="35" r="20" fill="#24509a"/>'));
await writeFile(both, svg('<rect x="10" y="10" width="20" height="20" fill="#b3262e"/><circle cx="60" cy="40" r="15" fill="#24509a"/><path d="M5 70H50" stroke="#000" stroke-width="0.1" fill="none"/><text x="3" y="3">Row</text>'));

async function areasIn(file: string): Promise<number[]> {
  return readSvg(library, new Uint8Array(await readFile(file)), file).layers.map(({ curves }) => areaOf(curves));
}

describe('combine', () => {
  it('joins, cuts out and takes what is common', async () => {
    const areas: number[] = [];
    for (const kind of ['join', 'common', 'cut-out']) {
      expect((await limner('combine', kind, bar, disc, '--out', at(`${kind}.svg`))).code).toBe(0);
      areas.push((await areasIn(at(`${kind}.svg`)))[0]);
    }
    const [join, common, rest] = areas;
    expect(Math.abs(join - 600 - Math.PI * 400 + common)).toBeLessThan(0.1);
    expect(Math.abs(rest - 600 + common)).toBeLessThan(0.05);
    expect(await readFile(at('join.svg'), 'utf8')).toContain('fill="#b3262e"');
  });

  it('says what is missing, and when nothing is left', async () => {
    expect((await limner('combine', 'melt', bar, disc, '--out', at('no.svg'))).code).toBe(2);
    expect((await limner('combine', 'join', bar, '--out', at('no.svg'))).code).toBe(2);
    expect((await limner('combine', 'cut-out', bar, bar, '--out', at('no.svg'))).code).toBe(1);
    expect((await limner('combine', 'join', bar, disc, '--out', bar)).err).toContain('bar.svg');
  });
});

describe('offset', () => {
  it('grows with round corners and shrinks with sharp ones, out and back', async () => {
    expect((await limner('offset', bar, '--by', '2mm', '--out', at('grown.svg'))).code).toBe(0);
    expect(Math.abs((await areasIn(at('grown.svg')))[0] - (600 + 2 * 140 + Math.PI * 4))).toBeLessThan(1.5);
    expect((await limner('offset', at('grown.svg'), '--by=-2mm', '--out', at('back.svg'))).code).toBe(0);
    expect(Math.abs((await areasIn(at('back.svg')))[0] - 600)).toBeLessThan(3);
    expect((await limner('offset', bar, '--by=-6mm', '--out', at('none.svg'))).code).toBe(1);
    expect((await limner('offset', bar, '--by', '0', '--out', at('none.svg'))).code).toBe(2);
  });
});

describe('import', () => {
  it('keeps the page and its size, a group a film, and reports what it found', async () => {
    const { code, err } = await limner('import', both, '--out', at('in.svg'), '--report', at('in.json'));
    expect([code, err.includes('text')]).toEqual([0, true]);
    expect(await readFile(at('in.svg'), 'utf8')).toMatch(/width="100mm" height="80mm"/);
    const report = JSON.parse(await readFile(at('in.json'), 'utf8')) as { films: { colour: string; pieces: number; openEnds: number }[]; leftOut: { what: string; count: number }[] };
    expect(report.films.map(({ colour, openEnds }) => [colour, openEnds])).toEqual([
      ['#b3262e', 0],
      ['#24509a', 0],
      ['#000000', 1],
    ]);
    expect(report.leftOut[0].count).toBe(1);
    expect((await limner('import', both, '--out', at('drop.svg'), '--strokes', 'drop')).code).toBe(0);
    expect(await areasIn(at('drop.svg'))).toHaveLength(2);
  });

  it('reads the DXF that a trace writes as the SVG that it writes', async () => {
    const { default: sharp } = await import('sharp');
    await writeFile(at('both.png'), await sharp(Buffer.from(svg('<rect width="100" height="80" fill="#fff"/><rect x="10" y="10" width="20" height="20" fill="#b3262e"/><circle cx="60" cy="40" r="15" fill="#24509a"/>')), { density: 254 }).png().toBuffer());
    for (const ending of ['svg', 'dxf']) expect((await limner('trace', at('both.png'), '--colours', '3', '--width', '100mm', '--out', at(`traced.${ending}`))).code).toBe(0);
    for (const ending of ['svg', 'dxf']) expect((await limner('import', at(`traced.${ending}`), '--out', at(`again-${ending}.svg`))).code).toBe(0);
    const [fromSvg, fromDxf] = [await areasIn(at('again-svg.svg')), await areasIn(at('again-dxf.svg'))];
    for (const [k, area] of [...fromSvg].sort((a, b) => a - b).entries()) expect(Math.abs(area - [...fromDxf].sort((a, b) => a - b)[k])).toBeLessThan(0.05);
  });

  it('refuses other files in words', async () => {
    expect((await limner('import', at('both.png'), '--out', at('no.svg'))).code).toBe(2);
    await writeFile(at('bad.svg'), '<svg><g></svg>');
    expect((await limner('import', at('bad.svg'), '--out', at('no.svg'))).err).toContain('bad.svg');
  });
});
