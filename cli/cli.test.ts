import { readFile, readdir, writeFile } from 'node:fs/promises';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { jobWith, sizedJob } from '../tests/fixtures/jobWith.ts';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { discFiles, discPicture, hugePng, sidewaysJpeg } from '../tests/fixtures/files.ts';
import { disc, pictureFromShare, paintedArt, WHITE } from '../tests/fixtures/shapes.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { writePng } from '../src/formats/picture/writePng.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { decodeFile } from './decodeFile.ts';

const at = await ownFolder();
const files = await discFiles();
for (const [type, bytes] of Object.entries(files)) await writeFile(at(`disc.${type}`), bytes);

describe('decodeFile', () => {
  it('reads the same picture from every type', async () => {
    for (const [type, bytes] of Object.entries(files)) {
      const { picture } = await decodeFile(bytes.slice(), `disc.${type}`);
      expect([picture.width, picture.height], type).toEqual([80, 60]);
      const middle = (30 * 80 + 40) * 4;
      expect(picture.data[middle], type).toBeLessThan(45);
      expect(picture.data[0], type).toBeGreaterThan(245);
      expect(picture.data[3], type).toBe(255);
    }
  });

  it('turns a picture upright by its tag', async () => {
    const { picture } = await decodeFile(await sidewaysJpeg(), 'phone.jpg');
    expect([picture.width, picture.height]).toEqual([80, 60]);
  });
});

describe('limner', () => {
  it('helps', async () => {
    expect((await limner('--help')).out).toContain('trace');
    expect((await limner('trace', '--help')).out).toContain('--threshold');
    expect((await limner()).code).toBe(2);
    expect((await limner('carve')).code).toBe(2);
  });

  it('traces every type to an SVG of the asked size, with timings one a line', async () => {
    for (const type of Object.keys(files)) {
      const { code, out, err } = await limner('trace', at(`disc.${type}`), '--out', at(`${type}.svg`), '--width', '20cm', '--timings');
      expect([code, err], type).toEqual([0, '']);
      expect(out).toMatch(/^decode_ms=\d+(\.\d+)?\ntrace_ms=\d+(\.\d+)?\nwrite_ms=\d+(\.\d+)?\n$/);
      const svg = await readFile(at(`${type}.svg`), 'utf8');
      expect(svg).toContain('width="200mm" height="150mm" viewBox="0 0 200 150"');
      const numbers = (/ d="([^"]+)"/.exec(svg)?.[1] ?? '').match(/-?[\d.]+/g)!.map(Number);
      const xs = numbers.filter((_, i) => i % 2 === 0);
      expect(Math.min(...xs), type).toBeCloseTo(50, 0);
      expect(Math.max(...xs), type).toBeCloseTo(150, 0);
    }
  });

  it('takes a back and one layer of detail, coarse or fine', async () => {
    const art = paintedArt(160, 160, (x, y) => (Math.hypot(x - 80, y - 80) > 60 ? { r: 214, g: 226, b: 235 } : Math.abs(y - 80) < 14 || (Math.abs(y - 115) < 2 && x % 12 < 6) ? { r: 40, g: 30, b: 46 } : { r: 220, g: 150, b: 90 }));
    await writeFile(at('buoy.png'), writePng(art.colour));
    const pieces: number[] = [];
    for (const detail of ['0', '100']) {
      expect(await limner('trace', at('buoy.png'), '--out', at('buoy.svg'), '--detail', detail, '--width', '80mm', '--report', at('buoy.json'))).toMatchObject({ code: 0 });
      const svg = await readFile(at('buoy.svg'), 'utf8');
      expect([...svg.matchAll(/<g id="([^"]+)"/g)].map(([, id]) => id)).toEqual(['back', 'detail']);
      const { films, together, mostLayers } = JSON.parse(await readFile(at('buoy.json'), 'utf8')) as { films: { pieces: number; nodes: number; cutLengthMm: number; smallestMm2: number; weedingS: number }[]; together: { pieces: number }; mostLayers: number };
      expect(mostLayers).toBe(2);
      expect(together.pieces).toBe(films[0].pieces + films[1].pieces);
      expect(Math.abs(films[0].cutLengthMm / (Math.PI * 60) - 1)).toBeLessThan(0.05);
      pieces.push(films[1].pieces);
    }
    expect(pieces[0]).toBeLessThan(pieces[1]);
  });

  it('writes a picture of each film, and polylines where a reader wants them', async () => {
    const art = paintedArt(90, 60, (x, y) => (y < 10 || y > 50 || x < 10 || x > 80 ? WHITE : x < 45 ? { r: 179, g: 38, b: 46 } : { r: 36, g: 80, b: 154 }));
    await writeFile(at('fields.png'), writePng(art.colour));
    expect(await limner('trace', at('fields.png'), '--out', at('fields.png-out.png'), '--colours', 'auto', '--meet', 'inset', '--border', '1', '--width', '45mm')).toMatchObject({ code: 0, err: '' });
    const names = (await readdir(at('.'))).filter((name) => name.startsWith('fields.png-out-')).sort();
    expect(names.map((name) => name.replace('fields.png-out-', ''))).toEqual([expect.stringMatching(/^1-border\.png$/), expect.stringMatching(/^2-(red|blue)\.png$/), expect.stringMatching(/^3-(red|blue)\.png$/)]);
    const red = decode(await readFile(at(names.find((name) => name.includes('red'))!)));
    const alphas = Array.from({ length: 90 * 60 }, (_, i) => red.data[4 * i + 3]);
    expect([red.width, red.height]).toEqual([90, 60]);
    expect(Math.abs(alphas.reduce((sum, alpha) => sum + alpha / 255, 0) - 35 * 40)).toBeLessThan(12);
    expect(await limner('trace', at('fields.png'), '--out', at('fields.dxf'), '--colours', 'auto', '--chord', '0.05')).toMatchObject({ code: 0 });
    const dxf = await readFile(at('fields.dxf'), 'utf8');
    expect(dxf).toContain('LWPOLYLINE');
    expect(dxf).not.toMatch(/SPLINE\n|\nLINE\n/);
  });

  it('takes the size that the file states', async () => {
    await limner('trace', at('disc.jpg'), '--out', at('stated.svg'));
    expect(await readFile(at('stated.svg'), 'utf8')).toContain('width="6.7733mm"');
  });

  it('traces several colours to a group a film, stacked or inset, with edges that are the same curve', async () => {
    const art = paintedArt(80, 60, (x, y) => (y < 12.3 || y > 50.2 || x < 14.4 || x > 66.2 ? WHITE : x < 40.6 ? { r: 179, g: 38, b: 46 } : { r: 36, g: 80, b: 154 }));
    await writeFile(at('flags.png'), writePng(art.colour));
    const groups = async (...flags: string[]): Promise<string[]> => {
      const { code, err } = await limner('trace', at('flags.png'), '--out', at('flags.svg'), '--width', '80mm', ...flags);
      expect([code, err]).toEqual([0, '']);
      return [...(await readFile(at('flags.svg'), 'utf8')).matchAll(/<g id="([^"]+)" fill="#[0-9a-f]{6}" fill-rule="nonzero">\n<title>[^<]+<\/title>\n<path d="([^"]+)"/g)].map(([, id, d]) => `${id} ${d}`);
    };
    const inset = await groups('--colours', 'auto', '--meet', 'inset');
    expect(inset.map((group) => group.split(' ')[0]).sort()).toEqual(['blue', 'red']);
    // The edge between the two, from junction to junction, stands in both.
    const points = inset.map((group) => new Set(group.match(/40\.[0-9.]+ [0-9.]+/g)));
    expect([...points[0]].filter((point) => points[1].has(point)).length).toBeGreaterThanOrEqual(2);
    expect(await groups('--colours', '3')).toHaveLength(2);
    expect(await groups('--tones', '3')).toHaveLength(2);
    // Two colours of one lightness are told apart by hue.
    expect(await groups('--colours', '2')).toHaveLength(1);
  });

  it('lifts from a point, everywhere, with what is enclosed', async () => {
    const ring = pictureFromShare(disc(60, 60, 30, 30, 22), { r: 180, g: 40, b: 40 }, { r: 255, g: 255, b: 255 });
    const inner = disc(60, 60, 30, 30, 10);
    const data = new Uint8Array(ring.data);
    inner.data.forEach((share, i) => {
      for (let c = 0; c < 3; c++) data[4 * i + c] += ((255 - data[4 * i + c]) * share) / 255;
    });
    await writeFile(at('ring.png'), writePng(makeRgba8(60, 60, data)));
    const alphaAt = async (...flags: string[]): Promise<number[]> => {
      const { code, out } = await limner('lift', at('ring.png'), '--out', at('lifted.png'), '--at', '2,2', ...flags);
      expect([code, out.startsWith('tolerance')]).toEqual([0, true]);
      const png = decode(await readFile(at('lifted.png')));
      return [0, 30 * 60 + 12, 30 * 60 + 30].map((i) => png.data[i * 4 + 3]);
    };
    expect(await alphaAt()).toEqual([0, 255, 255]);
    expect(await alphaAt('--tolerance', '3')).toEqual([0, 255, 255]);
    expect(await alphaAt('--enclosed')).toEqual([0, 255, 0]);
    expect(await alphaAt('--everywhere', '--tolerance=4')).toEqual([0, 255, 0]);
  });

  it('says what a picture is, as text or JSON, and goes on after one that cannot be read', async () => {
    const text = await limner('look', at('disc.png'));
    expect(text.code).toBe(0);
    expect(text.out).toMatch(/^disc\.png: (line drawing|flat colour) \(\d+ % sure\), 80 x 60 px, 150\.?\d* dpi, 2 tones/);
    const json = await limner('look', at('disc.png'), at('nothing-here.png'), at('disc.gif'), '--json');
    expect([json.code, json.err.includes('no such file')]).toEqual([1, true]);
    expect((JSON.parse(json.out) as { input: string }[]).map(({ input }) => input)).toEqual(['disc.png', 'disc.gif']);
    expect((await limner('look')).code).toBe(2);
  });

  it('cleans by steps in the order they are given, one picture or many', async () => {
    const { code } = await limner('clean', at('disc.jpg'), '--out', at('clean.png'), '--colours', '2', '--sweep=5');
    expect(code).toBe(0);
    const { data, width } = decode(await readFile(at('clean.png')));
    // Nearly all is one of two tones, and the rest lies between them.
    const counts = new Map<string, number>();
    for (let i = 0; i < data.length; i += 4) counts.set(data.slice(i, i + 3).join(), (counts.get(data.slice(i, i + 3).join()) ?? 0) + 1);
    const [first, second] = [...counts].sort((a, b) => b[1] - a[1]).map(([tone, count]) => ({ tone: tone.split(',').map(Number), count }));
    expect([width, (first.count + second.count) / (data.length / 4) > 0.95]).toEqual([80, true]);
    const isBetween = (pixel: string): boolean => pixel.split(',').every((value, c) => Number(value) >= Math.min(first.tone[c], second.tone[c]) && Number(value) <= Math.max(first.tone[c], second.tone[c]));
    expect([...counts.keys()].every(isBetween)).toBe(true);
    await limner('clean', at('disc.png'), '--out', at('a.png'), '--invert', '--full-contrast');
    await limner('clean', at('disc.png'), '--out', at('b.png'), '--full-contrast', '--invert');
    const [a, b] = await Promise.all(['a.png', 'b.png'].map(async (name) => decode(await readFile(at(name))).data[0]));
    expect([a, b]).toEqual([0, 0]);
    await limner('clean', at('disc.png'), '--out', at('c.png'), '--crop', '20,10,40,40', '--brightness', '-20', '--contrast=30', '--levels', '10,240,1.2', '--saturation', '0', '--threshold', 'auto');
    const cropped = decode(await readFile(at('c.png')));
    expect([cropped.width, cropped.height]).toEqual([40, 40]);
    expect([cropped.data[3], cropped.data[(20 * 40 + 20) * 4 + 3]]).toEqual([0, 255]);
    for (const wrong of [['--levels', '200,100'], ['--levels', 'a,b'], ['--crop', '1,2,3'], ['--crop', '200,200,5,5'], ['--crop', '0,0,-4,9'], ['--threshold', '300'], ['--contrast', '200']]) expect([1, 2]).toContain((await limner('clean', at('disc.png'), '--out', at('x.png'), ...wrong)).code);
    const many = await limner('clean', at('disc.png'), at('disc.gif'), at('nothing-here.png'), '--out', at('cleaned'), '--level-light');
    expect([many.code, many.out]).toEqual([1, '2 of 3 pictures done\n']);
    expect(many.err).toContain('no such file');
    expect((await readdir(at('cleaned'))).sort()).toEqual(['disc-2.png', 'disc.png']);
  });

  it('cleans by a recipe, passes over a step that cannot apply, and refuses one of a newer kind', async () => {
    const base = { enabled: true, v: 1 };
    const recipe = [{ kind: 'crop', id: 'far', ...base, rect: { xPx: 900, yPx: 900, widthPx: 5, heightPx: 5 } }, { kind: 'colourLift', id: 'paper', ...base, colour: '#ffffff', tolerance: 5, soft: true }];
    await writeFile(at('recipe.json'), JSON.stringify(recipe));
    const { code, err } = await limner('clean', at('disc.png'), '--out', at('by-recipe.png'), '--recipe', at('recipe.json'));
    expect([code, err.includes('step far skipped')]).toEqual([0, true]);
    expect(decode(await readFile(at('by-recipe.png'))).data[3]).toBe(0);
    await writeFile(at('later.json'), JSON.stringify([{ kind: 'somethingLater', id: 'x', ...base }]));
    expect((await limner('clean', at('disc.png'), '--out', at('x.png'), '--recipe', at('later.json'))).code).toBe(1);
    expect((await limner('clean', at('disc.png'), '--out', at('x.png'))).code).toBe(2);
    expect((await limner('clean', at('disc.png'), '--out', at('x.png'), '--colours', '40')).code).toBe(2);
  });

  it('runs a job on many pictures, reports each, and goes on after one that fails', async () => {
    const job = sizedJob(newJob('Discs'), 50);
    await writeFile(at('job.json'), JSON.stringify(job));
    await writeFile(at('broken.png'), files.png.slice(0, 300));
    const { code, out, err } = await limner('run', at('job.json'), at('disc.png'), at('broken.png'), at('disc.gif'), '--out', at('made'));
    expect([code, out]).toEqual([1, '2 of 3 pictures done\n']);
    expect(err).toContain('breaks off');
    expect((await readdir(at('made'))).sort()).toEqual(['disc-2.png', 'disc-2.svg', 'disc.png', 'disc.svg', 'report.json']);
    const report = JSON.parse(await readFile(at('made/report.json'), 'utf8')) as { pictures: Record<string, unknown>[] };
    expect(report.pictures[0]).toMatchObject({ ok: true, widthMm: 50, pieces: 1, mirrored: true, copies: 1 });
    expect(Object.keys(report.pictures[0]['ms'] as object)).toEqual(['decode', 'clean', 'cut', 'write']);
    expect(report.pictures[1]).toMatchObject({ ok: false, error: { code: 'truncated' } });
  });

  it('runs a job in several colours: a sheet for each film, DXF on request, the proof in the report', async () => {
    const art = paintedArt(80, 60, (x, y) => (y < 12.3 || y > 50.2 || x < 14.4 || x > 66.2 ? WHITE : x < 40.6 ? { r: 179, g: 38, b: 46 } : { r: 36, g: 80, b: 154 }));
    await writeFile(at('bars.png'), writePng(art.colour));
    await writeFile(at('bars.json'), JSON.stringify(jobWith(newJob('Bars'), { separation: { way: 'flat', count: 'auto', meet: 'inset', reachMm: 1 } })));
    const { code, err } = await limner('run', at('bars.json'), at('bars.png'), '--out', at('bars'), '--dxf', '--report', 'full');
    expect([code, err]).toEqual([0, '']);
    const { pictures } = JSON.parse(await readFile(at('bars/report.json'), 'utf8')) as { pictures: { files: string[]; films: { name: string }[]; tones: unknown[]; proof: { differs: number; edgeMm: number } }[] };
    const [{ files, films, tones, proof }] = pictures;
    expect(files).toEqual([`bars-1-${films[0].name.toLowerCase()}.svg`, `bars-2-${films[1].name.toLowerCase()}.svg`, 'bars.dxf', 'bars.png']);
    expect(tones).toHaveLength(3);
    expect(proof.differs).toBeLessThan(0.03);
    expect(proof.edgeMm).toBeLessThan(0.2);
    const dxf = await readFile(at('bars/bars.dxf'), 'utf8');
    const layers = dxf.match(/^AcDbLayerTableRecord\n2\n.*$/gm)?.map((record) => record.split('\n')[2]);
    expect(layers).toEqual(['0', ...films.flatMap(({ name }) => [name.toUpperCase(), `${name.toUpperCase()}-BOXES`])]);
    // The weeding box is four lines on each layer.
    expect(dxf.match(/^LINE$/gm)?.length).toBeGreaterThanOrEqual(8);
  });

  it('says what does not fit and writes no cut file', async () => {
    const job = sizedJob(newJob('Large'), 900);
    await writeFile(at('large.json'), JSON.stringify(job));
    const { code, err } = await limner('run', at('large.json'), at('disc.png'), '--out', at('large'));
    expect([code, err.includes('too wide')]).toEqual([1, true]);
    expect(await readdir(at('large'))).toEqual(['report.json']);
  });

  it.each([
    [['trace'], 2, 'exactly one'],
    [['trace', 'none.png', '--out', 'x.svg'], 1, 'no such file'],
    [['trace', 'disc.png'], 2, '--out'],
    [['trace', 'disc.png', '--out', 'x.svg', '--colours', '0'], 2, 'from 1 to 32'],
    [['trace', 'disc.png', '--out', 'x.svg', '--colours', '3', '--tones', '3'], 2, 'give one of them'],
    [['trace', 'disc.png', '--out', 'x.svg', '--detail', '101'], 2, '0 to 100'],
    [['trace', 'disc.png', '--out', 'x.pdf'], 2, '.svg, .dxf or .png'],
    [['trace', 'disc.png', '--out', 'x.svg', '--meet', 'glued'], 2, 'stacked or inset'],
    [['trace', 'disc.png', '--out', 'x.svg', '--threshold', 'dark'], 2, 'auto or a number'],
    [['trace', 'disc.png', '--out', 'x.svg', '--width', 'wide'], 2, 'a length'],
    [['trace', 'disc.png', '--out', 'x.svg', '--speed', '9'], 2, '--speed'],
    [['trace', 'disc.png', '--out', 'disc.png/x.svg'], 1, 'cannot be written'],
    [['trace', 'huge.png', '--out', 'x.svg'], 1, 'megapixels'],
    [['trace', 'empty.png', '--out', 'x.svg'], 1, '0 bytes'],
    [['trace', 'flat.png', '--out', 'x.svg'], 1, 'one flat colour'],
    [['trace', 'clear.png', '--out', 'x.svg'], 1, 'nothing to cut'],
    [['trace', 'dot.png', '--out', 'x.svg'], 1, '1 × 1'],
    [['lift', 'disc.png', '--out', 'x.png', '--at', '90,5'], 2, 'inside the picture'],
    [['lift', 'disc.png', '--out', 'x.png', '--at', 'here'], 2, 'two numbers'],
    [['lift', 'disc.png', '--out', 'x.png', '--at', '1,1', '--tolerance', '99'], 2, 'from 0 to 25'],
    [['run', 'disc.png', 'disc.png', '--out', 'y'], 1, 'not JSON'],
    [['run'], 2, '--out'],
  ])('%j ends with %d and clear words', async (words, expected, part) => {
    await writeFile(at('huge.png'), hugePng(20_000, 20_000));
    await writeFile(at('empty.png'), new Uint8Array(0));
    await writeFile(at('flat.png'), writePng({ ...discPicture, data: new Uint8Array(discPicture.data.length).fill(255) }));
    await writeFile(at('clear.png'), writePng({ ...discPicture, data: new Uint8Array(discPicture.data.length) }));
    await writeFile(at('dot.png'), hugePng(1, 1));
    const placed = words.map((word, i) => (i > 0 && /\.(png|svg|json)/.test(word) ? at(word) : word));
    const { code, err } = await limner(...placed);
    expect(err).toContain(part);
    expect(code).toBe(expected);
  });
});
