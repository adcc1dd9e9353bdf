import { spawnSync } from 'node:child_process';
import { FIRST_OBJECT_ID, tracedPart, withPicture, type TracedPart } from '../src/core/job/tracedPart.ts';
import { jobWith, sizedJob } from '../tests/fixtures/jobWith.ts';
import { link, mkdir, readdir, readFile, symlink, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { beforeEach, describe, expect, it } from 'vitest';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { discFiles } from '../tests/fixtures/files.ts';
import { paintedArt, WHITE } from '../tests/fixtures/shapes.ts';
import { hashBytes } from '../src/core/task/hash.ts';
import type { TracedObject } from '../src/core/job/objects.ts';
import { newJob } from '../src/core/job/newJob.ts';
import type { Job } from '../src/core/job/job.ts';
import { writeArchive } from '../src/formats/archive/archive.ts';
import { writePng } from '../src/formats/picture/writePng.ts';
import { main } from './main.ts';
import { uniqueNames } from './uniqueNames.ts';

const files = await discFiles();
let at: (name: string) => string;
const job = (change: Partial<TracedPart> = {}): Job => jobWith(sizedJob(newJob('Discs'), 50), change);
const hashOf = async (name: string): Promise<string> => hashBytes(new Uint8Array(await readFile(at(name))));

beforeEach(async () => {
  at = await ownFolder();
  await writeFile(at('disc.png'), files.png);
  await writeFile(at('disc.jpg'), files.jpg);
  await writeFile(at('job.json'), JSON.stringify(job()));
});

describe('inputs', () => {
  it('are never written over: by name, by link, by a job’s own result, unless it is meant', async () => {
    const before = await hashOf('disc.png');
    await symlink(at('disc.png'), at('soft.png'));
    await link(at('disc.png'), at('hard.png'));
    for (const out of ['disc.png', 'soft.png', 'hard.png']) {
      const { code, err } = await limner('lift', at('disc.png'), '--at', '1,1', '--out', at(out));
      expect([code, err.includes('one of the files that are read')], out).toEqual([1, true]);
    }
    const many = await limner('lift', at('disc.png'), at('disc.jpg'), '--at', '1,1', '--out', at('.'));
    expect([many.code, many.out.includes('1 of 2 pictures done')]).toEqual([1, true]);
    const run = await limner('run', at('job.json'), at('disc.png'), '--out', at('.'));
    expect([run.code, run.err.includes('not written over')]).toEqual([1, true]);
    const trace = await limner('trace', at('disc.png'), '--out', at('disc.svg'), '--report', at('disc.png'));
    expect(trace.code).toBe(1);
    expect(await hashOf('disc.png')).toBe(before);
    expect((await limner('lift', at('disc.png'), '--at', '1,1', '--out', at('disc.png'), '--force')).code).toBe(0);
    expect(await hashOf('disc.png')).not.toBe(before);
  });

  it('of one name give results of two, and none takes the name of another’s', async () => {
    await limner('clean', at('disc.png'), at('disc.jpg'), '--grey', '--out', at('cleaned'));
    expect((await readdir(at('cleaned'))).sort()).toEqual(['disc-2.png', 'disc.png']);
    expect(uniqueNames(['a.png', 'b/a.jpg', 'a-2.png', 'A.gif'])).toEqual(['a', 'a-3', 'a-2', 'A-4']);
    expect(new Set(uniqueNames(['crest.png', 'crest-1-red.png'])).size).toBe(2);
    expect(uniqueNames(['crest.png', 'crest-1-red.png'])[1]).not.toBe('crest-1-red');
    expect(uniqueNames(['photo.png', 'photo-1.png', 'photo-2.png'])).toEqual(['photo', 'photo-1', 'photo-2']);
  });
});

describe('results', () => {
  it('appear whole or not at all, and an unwritable folder is noticed before the first picture', async () => {
    await writeFile(at('file'), 'in the way');
    const { code, err, out } = await limner('run', at('job.json'), at('disc.png'), at('disc.jpg'), '--out', at('file/made'));
    expect([code, out, err.includes('cannot be written')]).toEqual([1, '', true]);
    for (const command of [['clean', at('disc.png'), at('disc.jpg'), '--grey'], ['trace', at('disc.png')]]) {
      const started = performance.now();
      const answer = await limner(...command, '--out', command[0] === 'trace' ? '/proc/none/made/disc.svg' : '/proc/none/made');
      expect([answer.code, answer.out]).toEqual([1, '']);
      expect(performance.now() - started).toBeLessThan(20_000);
    }
    await mkdir(at('taken.svg'));
    expect((await limner('trace', at('disc.png'), '--out', at('taken.svg'))).err).toContain('folder');
    expect((await readdir(at('.'))).filter((name) => name.endsWith('.part'))).toEqual([]);
  });

  it('are told when the person stops, and nothing else is begun', async () => {
    const interrupt = new AbortController();
    let err = '';
    let out = '';
    const code = await main(['run', at('job.json'), at('disc.png'), at('disc.jpg'), at('disc.png'), '--out', at('made')], {
      out: (text) => (out += text),
      err(text) {
        err += text;
        interrupt.abort();
      },
      live: true,
      interrupted: interrupt.signal,
    });
    expect([code, out, err.includes('1/3')]).toEqual([130, '1 of 3 pictures done, stopped\n', true]);
    const report = JSON.parse(await readFile(at('made/report.json'), 'utf8')) as { stopped: boolean; notDone: number; pictures: unknown[] };
    expect([report.stopped, report.notDone, report.pictures.length]).toEqual([true, 2, 1]);
  });

  it('say on a terminal how far a single picture is, and leave nothing of it behind', async () => {
    let err = '';
    const noisy = await sharp({ create: { width: 600, height: 480, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 128, sigma: 30 } } }).blur(6).png().toBuffer();
    await writeFile(at('noisy.png'), noisy);
    const code = await main(['trace', at('noisy.png'), '--tones', '4', '--out', at('noisy.svg')], { out: () => undefined, err: (text) => (err += text), live: true });
    expect(code).toBe(0);
    expect(err).toMatch(/\routlining \d+ %/);
    expect(err.endsWith('\r\u001b[K')).toBe(true);
  });

  it('state one resolution, the true one, also for another reader', async () => {
    const drawing = await sharp({ create: { width: 624, height: 200, channels: 3, background: '#fff' } }).composite([{ input: { create: { width: 400, height: 120, channels: 3, background: '#b3262e' } }, left: 100, top: 40 }]).withMetadata({ density: 50.8 }).png().toBuffer();
    await writeFile(at('drawing.png'), drawing);
    await limner('clean', at('drawing.png'), '--colours', '2', '--out', at('clean.png'));
    const png = await readFile(at('clean.png'));
    expect(png.toString('latin1').split('pHYs').length - 1).toBe(1);
    expect((await sharp(png).metadata()).density).toBe(51);
    await limner('trace', at('clean.png'), '--out', at('clean.svg'));
    expect(await readFile(at('clean.svg'), 'utf8')).toContain('width="312mm" height="100mm"');
    await writeFile(at('none.png'), writePng(paintedArt(40, 30, () => WHITE).colour));
    await limner('clean', at('none.png'), '--invert', '--out', at('none-clean.png'));
    expect((await readFile(at('none-clean.png'))).toString('latin1')).not.toContain('pHYs');
  });
});

describe('words and sizes', () => {
  it('of a drawing are those that it states', async () => {
    for (const [width, mm] of [['50mm', 50], ['2in', 50.8], ['96', 25.4], ['72pt', 25.4]] as const) {
      await writeFile(at('sun.svg'), `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${width}" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/></svg>`);
      await limner('trace', at('sun.svg'), '--out', at('sun-traced.svg'));
      const found = Number(/width="([\d.]+)mm"/.exec(await readFile(at('sun-traced.svg'), 'utf8'))?.[1]);
      expect(found, width).toBeCloseTo(mm, 2);
    }
  });

  it('say what is true of one colour, of lifts that take nothing or all, and of a cut-off TIFF', async () => {
    expect((await limner('trace', at('disc.png'), '--colours', '1', '--out', at('x.svg'))).err).toContain('the background counted');
    const red = paintedArt(40, 30, () => ({ r: 180, g: 30, b: 40 }));
    await writeFile(at('red.png'), writePng(red.colour));
    expect((await limner('lift', at('red.png'), '--at', '1,1', '--out', at('x.png'))).out).toContain('nothing of the picture is left');
    const tiff = await sharp(Buffer.from(red.colour.data), { raw: { width: 40, height: 30, channels: 4 } }).tiff({ compression: 'none' }).toBuffer();
    await writeFile(at('whole.tiff'), tiff);
    await writeFile(at('short.tiff'), tiff.subarray(0, tiff.length - 900));
    expect((await limner('clean', at('whole.tiff'), '--grey', '--out', at('x.png'))).code).toBe(0);
    expect((await limner('clean', at('short.tiff'), '--grey', '--out', at('x.png'))).err).toContain('breaks off');
  });

  it('tell a damaged picture from one that breaks off', async () => {
    const bytes = new Uint8Array(files.png);
    // In the middle of its pixels, so that its end is there.
    for (let i = Math.floor(bytes.length / 2); i < Math.floor(bytes.length / 2) + 40; i++) bytes[i] ^= 0x5a;
    await writeFile(at('hurt.png'), bytes);
    const hurt = await limner('clean', at('hurt.png'), '--grey', '--out', at('x.png'));
    expect([hurt.code, hurt.err.includes('is damaged')]).toEqual([1, true]);
    await writeFile(at('cut.png'), files.png.slice(0, 300));
    expect((await limner('clean', at('cut.png'), '--grey', '--out', at('x.png'))).err).toContain('breaks off');
  });

  it('refuse a wrong ending, and name an unknown step and a wrong entry without the schema’s own text', async () => {
    expect((await limner('clean', at('disc.png'), '--grey', '--out', at('o.jpg'))).err).toContain('ends in .png');
    expect((await limner('marks', '--out', at('o.png'))).code).toBe(2);
    await writeFile(at('later.json'), JSON.stringify(job({ recipe: [{ kind: 'steaming', id: 'a', enabled: true, v: 1 } as never] })));
    expect((await limner('run', at('later.json'), at('disc.png'), '--out', at('made'))).err).toContain('“steaming”');
    await writeFile(at('wrong.json'), JSON.stringify({ ...job(), process: 'glue' }));
    expect((await limner('run', at('wrong.json'), at('disc.png'), '--out', at('made'))).err).toContain('“process” should be htv or decal or stencil or waterslide or panel');
    await writeFile(at('part.json'), JSON.stringify({ ...job(), layout: undefined }));
    expect((await limner('run', at('part.json'), at('disc.png'), '--out', at('made'))).err).toContain('“layout” is missing');
  });

  it('help in short, tell the version and what each option takes, and say on the console what was passed over', async () => {
    expect((await limner('-h')).out).toContain('limner COMMAND --help');
    expect((await limner('--version')).out).toMatch(/^limner \d+\.\d+\.\d+\n$/);
    expect((await limner('trace', '-h')).out).toContain('takes stacked, inset or middle');
    await writeFile(at('crop.json'), JSON.stringify(job({ recipe: [{ kind: 'crop', id: 'far', enabled: true, v: 1, rect: { xPx: 900, yPx: 900, widthPx: 5, heightPx: 5 } }] })));
    expect((await limner('run', at('crop.json'), at('disc.png'), '--out', at('made'))).err).toContain('disc.png: crop skipped: The crop lies outside');
    expect((await limner('clean', at('empty.png'), '--grey', '--out', at('x.png'))).err).not.toContain('drop it');
  });

  it('compare the films with the picture’s own ink and ground', async () => {
    await limner('trace', at('disc.png'), '--out', at('x.svg'), '--report', at('x.json'));
    const { proof } = JSON.parse(await readFile(at('x.json'), 'utf8')) as { proof: { differs: number } };
    expect(proof.differs).toBeLessThan(0.02);
  });

  it('run a job from its own file, with the picture in it or with others', async () => {
    await writeFile(at('crest.limner'), await writeArchive({ job: withPicture(job(), FIRST_OBJECT_ID, { id: 'disc', fileName: 'disc.png', widthPx: 80, heightPx: 60 }), pictures: new Map([['disc', new Uint8Array(files.png)]]) }));
    expect((await limner('run', at('crest.limner'), '--out', at('own'))).out).toBe('1 of 1 pictures done\n');
    expect((await readdir(at('own'))).sort()).toEqual(['crest.png', 'crest.svg', 'report.json']);
    expect((await limner('run', at('crest.limner'), at('disc.jpg'), '--out', at('other'))).code).toBe(0);
    expect(await readdir(at('other'))).toContain('disc.svg');
  });

  it('run a job of several pictures: all of them in one design, the first in place of which others may be given', async () => {
    const first = withPicture(job(), FIRST_OBJECT_ID, { id: 'disc', fileName: 'disc.png', widthPx: 80, heightPx: 60 });
    const { films: _films, ...disc } = tracedPart(first);
    const mark: TracedObject = { ...disc, id: 'mark', size: { by: 'width', sizeMm: 20, turnDeg: 0 }, placement: { a: 1, b: 0, c: 0, d: 1, e: 60, f: 0 } };
    const two = withPicture({ ...first, objects: [...first.objects, mark] }, 'mark', { id: 'gif', fileName: 'disc.gif', widthPx: 80, heightPx: 60 });
    const pictures = new Map([['disc', new Uint8Array(files.png)], ['gif', new Uint8Array(files.gif)]]);
    await writeFile(at('two.limner'), await writeArchive({ job: two, pictures }));
    for (const inputs of [[], [at('disc.jpg')]]) {
      expect((await limner('run', at('two.limner'), ...inputs, '--out', at('two'))).err).toBe('');
      const report = JSON.parse(await readFile(at('two/report.json'), 'utf8')) as { pictures: { widthMm: number; pieces: number }[] };
      expect(report.pictures[0]).toMatchObject({ widthMm: 80, pieces: 2 });
    }
    await writeFile(at('half.limner'), await writeArchive({ job: two, pictures: new Map([['disc', new Uint8Array(files.png)]]) }));
    expect((await limner('run', at('half.limner'), '--out', at('half'))).err).toContain('The job has no picture.');
  });
});

describe('on all cores', () => {
  it('the command makes the same files as in one thread', async () => {
    await writeFile(at('disc.gif'), files.gif);
    await limner('run', at('job.json'), at('disc.png'), at('disc.jpg'), at('disc.gif'), '--out', at('one'));
    const script = fileURLToPath(new URL('../scripts/limner.mjs', import.meta.url));
    const many = spawnSync(process.execPath, [script, 'run', at('job.json'), at('disc.png'), at('disc.jpg'), at('disc.gif'), at('nothing.png'), '--out', at('many')], { encoding: 'utf8' });
    expect([many.status, many.stdout]).toEqual([1, '3 of 4 pictures done\n']);
    expect(many.stderr).toContain('nothing.png');
    for (const name of ['disc.svg', 'disc-2.svg', 'disc-3.svg', 'disc.png']) expect(await hashOf(`many/${name}`), name).toBe(await hashOf(`one/${name}`));
    const cleaned = spawnSync(process.execPath, [script, 'clean', at('disc.png'), at('disc.jpg'), '--grey', '--out', at('grey')], { encoding: 'utf8' });
    expect([cleaned.status, cleaned.stdout, cleaned.stderr]).toEqual([0, '2 of 2 pictures done\n', '']);
    expect((await readdir(at('grey'))).sort()).toEqual(['disc-2.png', 'disc.png']);
  }, 60_000);
});
