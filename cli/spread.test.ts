import { spawnSync } from 'node:child_process';
import { copyFile, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { codeOf } from '../tests/fixtures/errorCode.ts';
import { discFiles } from '../tests/fixtures/files.ts';
import { sizedJob } from '../tests/fixtures/jobWith.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { main } from './main.ts';
import { entriesOfLines, GrowingReport, isOfShard, shardFrom, type RunReport } from './runReport.ts';

const files = await discFiles();
const NAMES = ['oar', 'buoy', 'pennant', 'cleat', 'anchor'];
let folder = '';
const at = (name: string): string => join(folder, name);
const limner = async (...words: string[]): Promise<{ code: number; out: string; err: string }> => {
  let [out, err] = ['', ''];
  const code = await main(words, { out: (text) => void (out += text), err: (text) => void (err += text), live: false });
  return { code, out, err };
};
const inputs = (): string[] => NAMES.map((name) => at(`${name}.png`));
const readReport = async (path: string): Promise<RunReport> => JSON.parse(await readFile(at(path), 'utf8')) as RunReport;
const svgs = async (out: string): Promise<string[]> => (await readdir(at(out))).filter((name) => name.endsWith('.svg')).sort();

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'limner-spread-'));
  await writeFile(at('job.json'), JSON.stringify(sizedJob(newJob('Discs'), 50)));
  for (const path of inputs()) await writeFile(path, files.png);
});

describe('a run in parts', () => {
  it('does each picture in one part and no other, whatever their number', () => {
    for (const of of [1, 2, 3, 7]) for (let k = 0; k < 20; k++) expect(Array.from({ length: of }, (_, part) => isOfShard({ part: part + 1, of }, k)).filter(Boolean)).toHaveLength(1);
    for (const text of ['0/2', '3/2', '1', 'a/b', '1/0', '-1/2', '1/2/3', '']) expect(codeOf(() => shardFrom(text)), text).toBe('badValue');
  });

  it('makes the same files as the whole, in one folder or several, and its reports are put together', async () => {
    await limner('run', at('job.json'), ...inputs(), '--out', at('whole'));
    for (const part of [1, 2, 3]) expect((await limner('run', at('job.json'), ...inputs(), '--out', at('parts'), '--shard', `${part}/3`)).code).toBe(0);
    expect(await svgs('parts')).toEqual(await svgs('whole'));
    for (const name of await svgs('whole')) expect(await readFile(at(`parts/${name}`), 'utf8')).toBe(await readFile(at(`whole/${name}`), 'utf8'));
    expect((await readReport('parts/report-2-of-3.json')).pictures.map(({ name }) => name)).toEqual(['buoy', 'anchor']);
    expect(await limner('report', at('parts'), '--out', at('together.json'))).toEqual({ code: 0, out: '5 of 5 pictures done\n', err: '' });
    const whole = await readReport('together.json');
    expect([(whole as { done?: number }).done, whole.pictures.map(({ name }) => name).sort()]).toEqual([5, [...NAMES].sort()]);
  });

  it.skipIf(spawnSync('parallel', ['--version']).status !== 0)('is spread by GNU parallel', async () => {
    const script = fileURLToPath(new URL('../scripts/limner.mjs', import.meta.url));
    const made = spawnSync('parallel', ['--will-cite', process.execPath, script, 'run', at('job.json'), ...inputs(), '--out', at('spread'), '--shard', '{}/2', ':::', '1', '2'], { encoding: 'utf8' });
    expect([made.status, made.stdout.split('\n').sort()]).toEqual([0, ['', '2 of 2 pictures done', '3 of 3 pictures done']]);
    expect((await limner('report', at('spread'))).out).toBe('5 of 5 pictures done\n');
  });

  it('says which folder has no report, and what failed', async () => {
    expect((await limner('report')).code).toBe(2);
    expect((await limner('report', at('nowhere'))).err).toContain('there is no such file');
    expect((await limner('report', folder)).err).toContain('with a report of “limner run” in them');
    await writeFile(at('torn.png'), files.png.subarray(0, 60));
    await limner('run', at('job.json'), at('torn.png'), at('oar.png'), '--out', at('torn'));
    const { code, out, err } = await limner('report', at('torn'), at('parts'));
    expect([code, out, err.startsWith('torn.png: ')]).toEqual([1, '6 of 7 pictures done\n', true]);
  });
});

describe('a run that goes on', () => {
  const goOn = (out: string) => limner('run', at('job.json'), ...inputs(), '--out', at(out), '--resume');

  it('passes over what is done, and does what failed, changed or lost a file again', async () => {
    await limner('run', at('job.json'), ...inputs(), '--out', at('again'));
    expect((await goOn('again')).out).toBe('5 of 5 pictures done, 5 of them before\n');
    await rm(at('again/cleat.svg'));
    await utimes(at('oar.png'), new Date(), new Date(Date.now() + 5000));
    expect((await goOn('again')).out).toBe('5 of 5 pictures done, 3 of them before\n');
    expect(await svgs('again')).toEqual(await svgs('whole'));
    await writeFile(at('job.json'), JSON.stringify(sizedJob(newJob('Discs'), 60)));
    expect((await goOn('again')).out).toBe('5 of 5 pictures done\n');
    await writeFile(at('job.json'), JSON.stringify(sizedJob(newJob('Discs'), 50)));
  });

  it('takes up a run that was killed, by the lines that it had written', async () => {
    await limner('run', at('job.json'), ...inputs(), '--out', at('killed'));
    const { pictures } = await readReport('killed/report.json');
    await rm(at('killed/report.json'));
    const lines = pictures.slice(0, 3).map((entry) => JSON.stringify(entry));
    await writeFile(at('killed/report.growing.jsonl'), `${lines.join('\n')}\n${JSON.stringify(pictures[3]).slice(0, 40)}`);
    expect((await limner('report', at('killed'))).out).toBe('3 of 3 pictures done\n');
    expect((await goOn('killed')).out).toBe('5 of 5 pictures done, 3 of them before\n');
    expect((await readdir(at('killed'))).filter((name) => name.startsWith('report'))).toEqual(['report.json']);
    expect((await readReport('killed/report.json')).pictures.map(({ name }) => name)).toEqual(NAMES);
  });

  it('keeps what was done through several breaks', async () => {
    await limner('run', at('job.json'), ...inputs(), '--out', at('twice'));
    const { pictures } = await readReport('twice/report.json');
    await rm(at('twice/report.json'));
    await writeFile(at('twice/report.growing.jsonl'), `${JSON.stringify(pictures[0])}\n${JSON.stringify(pictures[1])}\n{"name":"torn`);
    // The second run is broken off after its first picture.
    const second = await GrowingReport.start(at('twice'), undefined, true);
    second.add(pictures[2]);
    await vi.waitFor(async () => expect(entriesOfLines(await readFile(at('twice/report.growing.jsonl'), 'utf8')).map(({ name }) => name)).toEqual(NAMES.slice(0, 3)));
    expect((await goOn('twice')).out).toBe('5 of 5 pictures done, 3 of them before\n');
  });

  it('begins anew without being told to go on, and reads no report that is none', async () => {
    await copyFile(at('oar.png'), at('killed/report.json'));
    expect((await goOn('killed')).out).toBe('5 of 5 pictures done\n');
    expect((await limner('run', at('job.json'), ...inputs(), '--out', at('killed'))).out).toBe('5 of 5 pictures done\n');
  });
});
