import { describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { isAppError } from '../core/errors/appError.ts';
import { newJob } from '../core/job/newJob.ts';
import { CALL_NAMES, type CallName } from './calls.ts';
import type { EngineClient } from './client.ts';
import { enginePair } from './enginePair.ts';
import { LocalEngine } from './localEngine.ts';
import type { Engine } from './protocol.ts';

const files = await discFiles();
const job = sizedJob(newJob('disc'), 40);

/** An engine that notes what it is asked. */
function noted(engine: Engine): EngineClient & { readonly asked: string[] } {
  const asked: string[] = [];
  const calls = Object.fromEntries(
    CALL_NAMES.map((name: CallName) => [
      name,
      (...args: unknown[]) => {
        asked.push(name);
        return (engine[name] as (...given: unknown[]) => Promise<unknown>).apply(engine, args);
      },
    ]),
  ) as unknown as Engine;
  return { ...calls, stop: () => asked.push('stop'), asked };
}

describe('a pair of engines', () => {
  const start = () => {
    const whole = noted(new LocalEngine(decodeFile));
    const reduced = noted(new LocalEngine(decodeFile, { reducedOnly: true }));
    return { whole, reduced, pair: enginePair(whole, reduced) };
  };

  it('gives what one engine gives, and asks the reduced one for what is looked at while something changes', async () => {
    const { whole, reduced, pair } = start();
    const one = new LocalEngine(decodeFile);
    const { pictureKey } = await pair.open(files.png.slice(), 'disc.png');
    await one.open(files.png.slice(), 'disc.png');
    const of = { pictureKey, job };
    const areas = async (engine: Engine): Promise<(number | undefined)[]> => Promise.all((['preview', 'final'] as const).map(async (quality) => (await engine.run({ ...of, quality })).cut?.films[0].areaMm2));
    expect(await areas(pair)).toEqual(await areas(one));
    await Promise.all([pair.moment({ ...of, recipe: [] }), pair.reach({ ...of, recipe: [], at: { xPx: 2, yPx: 2 } }), pair.variant({ ...of, size: 'small' }), pair.export({ ...of, kind: 'thumbnail' })]);
    await Promise.all([pair.variant(of), pair.proof(of), pair.export({ ...of, kind: 'svg' }), pair.propose({ ...of, stock: [] })]);
    expect([...reduced.asked].sort()).toEqual(['export', 'moment', 'open', 'reach', 'run', 'variant']);
    expect([...whole.asked].sort()).toEqual(['export', 'open', 'proof', 'propose', 'run', 'variant']);
  });

  it('says once what is wrong with a file, and goes on with the next', async () => {
    const { pair } = start();
    await expect(pair.open(files.png.slice(0, 400), 'x.png')).rejects.toSatisfy((error) => isAppError(error) && error.code === 'truncated');
    const { pictureKey } = await pair.open(files.png.slice(), 'disc.png');
    expect((await pair.run({ pictureKey, job, quality: 'preview' })).cut?.films[0].pieces).toBe(1);
  });

  it('cancels and stops both', async () => {
    const { whole, reduced, pair } = start();
    await pair.cancel();
    pair.stop();
    expect([whole.asked, reduced.asked]).toEqual([['cancel', 'stop'], ['cancel', 'stop']]);
  });
});

describe('a run that is begun before it is asked for', () => {
  const begun = async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.jpg.slice(), 'disc.jpg');
    return { engine, of: { pictureKey, job } };
  };

  it('is the one that comes after it', async () => {
    const { engine, of } = await begun();
    const preparing = engine.prepare(of);
    const done = await engine.run({ ...of, quality: 'final' });
    await preparing;
    const other = await begun();
    const plain = await other.engine.run({ ...other.of, quality: 'final' });
    expect(done.cut?.films[0].areaMm2).toBe(plain.cut?.films[0].areaMm2);
    expect(done.clean.view).toBeDefined();
  });

  it('is given up for another, and hides no fault', async () => {
    const { engine, of } = await begun();
    const preparing = engine.prepare(of);
    const other = await engine.run({ ...of, job: sizedJob(job, 60), quality: 'final' });
    await preparing;
    expect(other.cut?.design.widthMm).toBeCloseTo(60, 6);
    await expect(engine.prepare({ ...of, pictureKey: 'unknown' })).resolves.toBeUndefined();
    await expect(engine.run({ ...of, pictureKey: 'unknown', quality: 'final' })).rejects.toSatisfy((error) => isAppError(error) && error.code === 'pictureMissing');
  });

  it('ends with a cancel', async () => {
    const { engine, of } = await begun();
    const preparing = engine.prepare(of);
    await engine.cancel();
    await expect(preparing).resolves.toBeUndefined();
    expect((await engine.run({ ...of, quality: 'final' })).cut?.films[0].pieces).toBe(1);
  });
});
