import { readdir, readFile, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { tracedPart } from '../src/core/job/tracedPart.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { jobSchema } from '../src/core/job/job.ts';
import { readArchive } from '../src/formats/archive/archive.ts';

const at = await ownFolder();
const FLAG = `<svg xmlns="http://www.w3.org/2000/svg" width="240" height="200"><rect width="240" height="200" fill="#fff"/><rect x="30" y="30" width="90" height="120" fill="#b3262e"/><rect x="120" y="30" width="90" height="120" fill="#24509a"/><circle cx="120" cy="90" r="30" fill="#f2b632"/></svg>`;
const flag = at('flag.png');
await writeFile(flag, await sharp(Buffer.from(FLAG)).png().toBuffer());
const plain = at('plain.png');
await writeFile(plain, await sharp({ create: { width: 40, height: 40, channels: 3, background: '#cde' } }).png().toBuffer());

const FILMS = ['Lamp yellow', 'Pennant red', 'Regatta blue'];
const groupsOf = (svg: string): string[] => [...svg.matchAll(/<g [^>]*id="([^"]+)"/g)].map(([, id]) => id).sort();

describe('look --job', () => {
  it('writes a job that starts as proposed, and says what it is and what else it may be', async () => {
    const { code, out } = await limner('look', flag, '--job', at('flag.json'), '--process', 'decal');
    expect([code, out.includes('Starts as: 3 films, one for each tone.')]).toEqual([0, true]);
    const job = jobSchema.parse(JSON.parse(await readFile(at('flag.json'), 'utf8')));
    expect(job).toMatchObject({ name: 'flag', process: 'decal', objects: [{ separation: { way: 'flat', count: 4, meet: 'inset' } }] });
    expect(job.films.map(({ name }) => name).sort()).toEqual(FILMS);
    // What `look` says as JSON is what it says in words.
    const [seen] = JSON.parse((await limner('look', flag, '--json')).out) as { isSure: boolean; proposals: { title: string }[] }[];
    expect([seen.isSure, seen.proposals[0].title]).toEqual([true, '3 films, one for each tone']);
  });

  it('writes neither for several pictures nor over one, and knows the processes', async () => {
    expect((await limner('look', flag, plain, '--job', at('x.json'))).code).toBe(2);
    expect((await limner('look', flag, '--job', flag)).err).toContain('flag.png');
    expect((await limner('look', flag, '--process', 'paint')).code).toBe(2);
  });
});

describe('trace --proposed', () => {
  it('has one group a film, in the colours of the shelf, on the frame of the picture', async () => {
    expect((await limner('trace', flag, '--proposed', '--out', at('flag.svg'), '--width', '120mm')).code).toBe(0);
    const svg = await readFile(at('flag.svg'), 'utf8');
    expect(svg).toMatch(/width="120mm" height="100mm"/);
    expect(groupsOf(svg)).toEqual(['lamp-yellow', 'pennant-red', 'regatta-blue']);
    for (const fill of ['#f2b632', '#b3262e', '#24509a']) expect(svg).toContain(`fill="${fill}"`);
    expect((await limner('trace', flag, '--proposed', '--colours', '3', '--out', at('no.svg'))).code).toBe(2);
  });
});

describe('a picture of whole pixels', () => {
  const SKIFF = `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="240" shape-rendering="crispEdges"><rect width="300" height="240" fill="#fff"/><path d="M30 150C90 190 210 190 270 145L250 200C200 225 100 225 50 200Z" fill="#24509a"/><path d="M150 20L150 160L250 140C225 95 195 55 150 20Z" fill="#b3262e"/><circle cx="70" cy="60" r="33.4" fill="#f2b632"/></svg>`;

  it('gives films as smooth as one whose pixels are mixed, nearly', async () => {
    const nodes: number[] = [];
    for (const [name, svg] of [['whole.gif', SKIFF], ['mixed.png', SKIFF.replace(' shape-rendering="crispEdges"', '')]]) {
      const image = sharp(Buffer.from(svg));
      await writeFile(at(name), await (name.endsWith('.gif') ? image.gif({ colours: 4, dither: 0 }) : image.png()).toBuffer());
      expect((await limner('trace', at(name), '--proposed', '--out', at('skiff.svg'))).code).toBe(0);
      const traced = await readFile(at('skiff.svg'), 'utf8');
      expect(groupsOf(traced)).toEqual(['lamp-yellow', 'pennant-red', 'regatta-blue']);
      nodes.push([...traced.matchAll(/ d="([^"]+)"/g)].reduce((sum, [, path]) => sum + (path.match(/[CL]/g)?.length ?? 0), 0));
    }
    // The steps of its edges are some four hundred.
    expect(nodes[0]).toBeLessThan(2 * nodes[1]);
    expect(nodes[1]).toBeLessThan(30);
  });
});

describe('trace --recipe', () => {
  const enlarged = at('enlarged.json');

  it('cleans first: with the steps of a file, or those that are proposed', async () => {
    const crop = { kind: 'crop', id: 'c', enabled: true, v: 1, rect: { xPx: 100, yPx: 20, widthPx: 130, heightPx: 160 } };
    await writeFile(at('crop.json'), JSON.stringify([crop]));
    expect((await limner('trace', flag, '--recipe', at('crop.json'), '--colours', 'auto', '--width', '240mm', '--out', at('cropped.svg'))).code).toBe(0);
    const svg = await readFile(at('cropped.svg'), 'utf8');
    // The frame is the picture's; what lies left of the crop is gone.
    expect(svg).toMatch(/width="240mm" height="200mm"/);
    const xs = [...svg.matchAll(/[ML](-?[\d.]+)[ ,]/g)].map(([, x]) => Number(x));
    expect(Math.min(...xs)).toBeGreaterThan(99);
    expect(Math.max(...xs)).toBeLessThan(211);
    expect((await limner('trace', flag, '--recipe', 'proposed', '--colours', '4', '--out', at('four.svg'))).code).toBe(0);
    expect(groupsOf(await readFile(at('four.svg'), 'utf8'))).toHaveLength(3);
  });

  it('gives outlines of the same size from an enlarged art', async () => {
    await writeFile(enlarged, JSON.stringify([{ kind: 'enlarging', id: 'e', enabled: true, v: 1, times: 2 }]));
    const boxOf = async (...options: string[]): Promise<number[]> => {
      await limner('trace', flag, ...options, '--colours', 'auto', '--width', '240mm', '--force', '--out', at('boxed.svg'));
      const xs = [...(await readFile(at('boxed.svg'), 'utf8')).matchAll(/[ML](-?[\d.]+)[ ,]/g)].map(([, x]) => Number(x));
      return [Math.min(...xs), Math.max(...xs)];
    };
    const [plainBox, largeBox] = [await boxOf(), await boxOf('--recipe', enlarged)];
    for (const k of [0, 1]) expect(Math.abs(plainBox[k] - largeBox[k])).toBeLessThan(0.3);
    // A step that is given as an option does what it does in a recipe.
    expect((await limner('clean', flag, '--recipe', enlarged, '--out', at('step.png'))).code).toBe(0);
    expect((await limner('clean', flag, '--enlarge', '2', '--out', at('option.png'))).code).toBe(0);
    expect(await readFile(at('option.png'))).toEqual(await readFile(at('step.png')));
  });

  it('says what is wrong with a recipe, and does not write over it', async () => {
    await writeFile(at('bad.json'), '[{"kind":"polish"}]');
    expect((await limner('trace', flag, '--recipe', at('bad.json'), '--out', at('no.svg'))).err).toContain('bad.json');
    const { code, err } = await limner('trace', flag, '--recipe', enlarged, '--out', at('x.svg'), '--report', enlarged);
    expect([code === 0, err.includes('enlarged.json')]).toEqual([false, true]);
  });
});

describe('auto', () => {
  it('goes from pictures to sheets, and does what the job that it keeps would do', async () => {
    const { code, out, err } = await limner('auto', flag, plain, '--out', at('done'), '--width', '150mm', '--job');
    expect([code, out]).toEqual([1, '1 of 2 pictures done\n']);
    expect(err).toContain('plain.png');
    const files = await readdir(at('done'));
    expect(files.filter((name) => name.startsWith('flag')).sort()).toEqual(expect.arrayContaining(['flag.limner', 'flag.png']));
    const { job, pictures } = await readArchive(new Uint8Array(await readFile(at('done/flag.limner'))), 'flag.limner');
    expect([tracedPart(job).size.sizeMm, job.pictures[0].fileName, Buffer.compare(Buffer.from(pictures.get(job.pictures[0].id) ?? []), await readFile(flag))]).toEqual([150, 'flag.png', 0]);
    expect((await limner('run', at('done/flag.limner'), '--out', at('again'))).code).toBe(0);
    const sheets = files.filter((name) => /^flag-\d-.*\.svg$/.test(name));
    expect(sheets).toHaveLength(3);
    const paths = async (folder: string, name: string): Promise<string[]> => [...(await readFile(at(`${folder}/${name}`), 'utf8')).matchAll(/ d="([^"]+)"/g)].map(([, d]) => d);
    for (const name of sheets) expect(await paths('again', name)).toEqual(await paths('done', name));
    expect((await limner('auto', '--out', at('done'))).code).toBe(2);
  });

  it('cuts a shaded photograph for the process that was asked for, though a print would suit it better', async () => {
    // A shaded buoy before a soft shore.
    const shore = '<svg xmlns="http://www.w3.org/2000/svg" width="240" height="200"><defs><radialGradient id="b" cx="0.35" cy="0.3"><stop offset="0" stop-color="#f0b090"/><stop offset="1" stop-color="#4a1c14"/></radialGradient><linearGradient id="g" x2="0.3" y2="1"><stop offset="0" stop-color="#dfe8ee"/><stop offset="1" stop-color="#8fa694"/></linearGradient></defs><rect width="240" height="200" fill="url(#g)"/><ellipse cx="120" cy="105" rx="70" ry="62" fill="url(#b)"/></svg>';
    await writeFile(at('buoy.jpg'), await sharp(Buffer.from(shore)).blur(1.2).jpeg({ quality: 85 }).toBuffer());
    expect((await limner('look', at('buoy.jpg'))).out).toContain('Print it');
    expect((await limner('auto', at('buoy.jpg'), '--out', at('buoy'), '--width', '120mm', '--job')).code).toBe(0);
    const { job } = await readArchive(new Uint8Array(await readFile(at('buoy/buoy.limner'))), 'buoy.limner');
    expect(job.process).toBe('htv');
    const [sheet] = (await readdir(at('buoy'))).filter((name) => name.endsWith('.svg'));
    expect(await readFile(at(`buoy/${sheet}`), 'utf8')).toContain(' d="');
  });
});
