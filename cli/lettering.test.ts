import { readdir, readFile, stat, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { newJob } from '../src/core/job/newJob.ts';
import { MANNERS } from '../src/core/lettering/fonts.ts';
import { boundsOf, ringCount } from '../src/core/outline/curves.ts';
import { readSvg } from '../src/formats/svg/readSvg.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { loadPolygons } from './loadPolygons.ts';

const at = await ownFolder();
const library = await loadPolygons();
interface Listed {
  readonly name: string;
  readonly manner: string;
  readonly file: string;
}
const listed = JSON.parse((await limner('fonts', '--json')).out) as Listed[];
const drawn = async (file: string) => readSvg(library, new Uint8Array(await readFile(file)), file);

describe('fonts', () => {
  it('are at least forty, in every manner, each with its file', async () => {
    expect(listed.length).toBeGreaterThanOrEqual(40);
    expect(new Set(listed.map(({ manner }) => manner))).toEqual(new Set(MANNERS));
    for (const { file } of listed) expect((await stat(file)).size).toBeGreaterThan(1000);
    expect((await limner('fonts')).out.trim().split('\n')).toHaveLength(listed.length);
  });
});

describe('letter', () => {
  it('writes a text at its true size, by a name or a file, with spaces and capitals as they come', async () => {
    for (const font of ['Oswald', 'bebas neue', listed[0].file]) {
      expect((await limner('letter', 'HI', '--font', font, '--height', '30mm', '--out', at('hi.svg'), '--force')).code).toBe(0);
      const { heightMm, layers } = await drawn(at('hi.svg'));
      expect(Math.abs(heightMm - 30)).toBeLessThan(0.3);
      expect(ringCount(layers[0].curves)).toBe(2);
    }
  });

  it('goes around a circle, joins, gets thicker and as wide as it is told', async () => {
    expect((await limner('letter', 'VILLAGE REGATTA', '--font', 'Graduate', '--height', '12mm', '--around-circle', '--out', at('round.svg'))).code).toBe(0);
    const round = await drawn(at('round.svg'));
    expect(round.heightMm / round.widthMm).toBeGreaterThan(0.8);
    expect((await limner('letter', 'regatta', '--font', 'Pacifico', '--height', '20mm', '--join', '--out', at('joined.svg'))).code).toBe(0);
    const [joined] = (await drawn(at('joined.svg'))).layers;
    expect(Array.from(joined.curves.parent).filter((parent) => parent < 0)).toHaveLength(1);
    expect((await limner('letter', 'ROW', '--font', 'Oswald', '--height', '1in', '--width', '120mm', '--thicken', '0.5mm', '--out', at('wide.svg'))).code).toBe(0);
    expect(Math.abs((await drawn(at('wide.svg'))).widthMm - 121)).toBeLessThan(0.1);
    const box = boundsOf((await drawn(at('wide.svg'))).layers[0].curves);
    expect(Math.abs((box?.bottom ?? 0) - (box?.top ?? 0) - 26.4)).toBeLessThan(1.5);
  });

  it('names the font that has a missing character, and says what is wrong', async () => {
    expect((await limner('letter', 'Row ☃', '--font', 'Oswald', '--height', '20mm', '--out', at('snow.svg'))).err).toContain('☃');
    expect((await limner('letter', 'Row', '--font', 'No Such Font', '--height', '20mm', '--out', at('no.svg'))).code).toBe(2);
    expect((await limner('letter', 'Row', '--font', 'Oswald', '--out', at('no.svg'))).code).toBe(2);
    expect((await limner('letter', '', '--font', 'Oswald', '--height', '20mm', '--out', at('no.svg'))).code).toBe(2);
    expect((await limner('letter', ' ', '--font', 'Oswald', '--height', '20mm', '--out', at('no.svg'))).code).toBe(1);
    expect((await limner('letter', 'A'.repeat(10_000), '--font', 'Oswald', '--height', '20mm', '--out', at('no.svg'))).code).toBe(2);
    await writeFile(at('broken.ttf'), Buffer.concat([(await readFile(listed[3].file)).subarray(0, 3000), Buffer.alloc(500)]));
    expect((await limner('letter', 'Row', '--font', at('broken.ttf'), '--height', '20mm', '--out', at('no.svg'))).err).toContain('broken.ttf');
  });
});

describe('run --names', () => {
  it('makes a design for each line of a list, each in its own files', async () => {
    await writeFile(at('disc.png'), await sharp({ create: { width: 80, height: 80, channels: 3, background: '#fff' } }).composite([{ input: Buffer.from('<svg width="80" height="80"><circle cx="40" cy="40" r="30" fill="#123"/></svg>') }]).png().toBuffer());
    const start = newJob('Crew');
    const name = { kind: 'lettering' as const, id: 'name', film: start.films[0].id, placement: { a: 1, b: 0, c: 0, d: 1, e: 140, f: 320 }, lettering: { text: '{Name}', font: 'Oswald', heightMm: 30, mostWidthMm: 200 } };
    await writeFile(at('crew.json'), JSON.stringify({ ...start, objects: [...start.objects, name] }));
    await writeFile(at('crew.csv'), 'Name,Seat\nIda,1\n"Bartholomew the Boatman",2\nIda,3\n');
    const { code, out, err } = await limner('run', at('crew.json'), at('disc.png'), '--names', at('crew.csv'), '--out', at('crew'));
    expect([code, out, err]).toEqual([0, '3 of 3 pictures done\n', '']);
    const files = (await readdir(at('crew'))).filter((each) => each.endsWith('.svg')).sort();
    expect(files).toEqual(['disc-bartholomew-the-boatman.svg', 'disc-ida-2.svg', 'disc-ida.svg']);
    const widths = await Promise.all(files.map(async (file) => (await readFile(at(`crew/${file}`), 'utf8')).length));
    expect(widths[0]).toBeGreaterThan(widths[1]);
  });

  it('takes the list of the job itself, where it has one', async () => {
    const crew = JSON.parse(await readFile(at('crew.json'), 'utf8')) as object;
    await writeFile(at('own.json'), JSON.stringify({ ...crew, names: 'Name\nAda\nBela\n' }));
    expect(await limner('run', at('own.json'), at('disc.png'), '--out', at('own'))).toMatchObject({ code: 0, out: '2 of 2 pictures done\n' });
    expect((await readdir(at('own'))).filter((each) => each.endsWith('.svg')).sort()).toEqual(['disc-ada.svg', 'disc-bela.svg']);
    // A list for nothing is no fault of the job.
    await writeFile(at('idle.json'), JSON.stringify({ ...newJob('Idle'), names: 'Name\nAda\n' }));
    expect((await limner('run', at('idle.json'), at('disc.png'), '--out', at('idle'))).code).toBe(0);
  });

  it('says what fits: a job without slots, a list without its columns', async () => {
    await writeFile(at('plain.json'), JSON.stringify(newJob('Plain')));
    expect((await limner('run', at('plain.json'), at('disc.png'), '--names', at('crew.csv'), '--out', at('no'))).code).toBe(2);
    await writeFile(at('other.csv'), 'Town\nMill\n');
    expect((await limner('run', at('crew.json'), at('disc.png'), '--names', at('other.csv'), '--out', at('no'))).err).toContain('name');
  });
});

describe('font-of', () => {
  it('names the font of a picture of lettering, and its size', async () => {
    await limner('letter', 'ROWING CLUB', '--font', 'Graduate', '--height', '30mm', '--out', at('sign.svg'), '--force');
    const { heightMm } = await drawn(at('sign.svg'));
    const image = sharp(at('sign.svg'), { density: 90 });
    const perMm = ((await image.metadata()).height ?? 0) / heightMm;
    await writeFile(at('sign.jpg'), await image.extend({ top: 10, bottom: 10, left: 10, right: 10, background: '#fff' }).flatten({ background: '#fff' }).jpeg({ quality: 60 }).toBuffer());
    const guesses = JSON.parse((await limner('font-of', at('sign.jpg'), '--json')).out) as { font: string; score: number; heightPx: number }[];
    expect([guesses.length, guesses[0].font, Math.abs(guesses[0].heightPx / (30 * perMm) - 1) < 0.05]).toEqual([listed.length, 'Graduate', true]);
    expect((await limner('font-of', at('nothing.png'))).code).toBe(1);
  }, 60_000);
});
