import { describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import type { DesignObject } from '../core/job/objects.ts';
import { readJob } from '../core/job/readJob.ts';
import { SHIPPED_FONTS } from '../core/lettering/fonts.ts';
import { ringArea, ringCount, type Curves } from '../core/outline/curves.ts';
import { FONT_ADDRESSES } from './fontAddresses.ts';
import { LocalEngine } from './localEngine.ts';

const files = await discFiles();
const plain = sizedJob(newJob('disc'), 40);
const film = plain.films[0];
const name: DesignObject = { kind: 'lettering', id: 'name', film: film.id, placement: { a: 1, b: 0, c: 0, d: 1, e: 20, f: 50 }, lettering: { text: 'Row', font: 'Archivo Black', heightMm: 10 } };
const bar: DesignObject = { kind: 'figure', id: 'bar', film: film.id, placement: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 43 }, shape: { form: 'rectangle', widthMm: 40, heightMm: 14 } };
const withObjects = (...more: DesignObject[]): Job => readJob({ ...plain, objects: [...plain.objects, ...more] });
const areaOf = (curves: Curves): number => Array.from({ length: ringCount(curves) }, (_, k) => ringArea(curves, k)).reduce((sum, area) => sum + area, 0);

async function cutOf(job: Job) {
  const engine = new LocalEngine(decodeFile, { tools: shapeTools });
  const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
  const { cut, problem } = await engine.run({ pictureKey, job, quality: 'final' });
  if (cut === undefined) throw new Error(JSON.stringify(problem));
  return cut;
}

describe('lettering in a design', () => {
  it('lies where it is put, on its film, and is told of', async () => {
    const cut = await cutOf(withObjects(name));
    expect(cut.rack).toHaveLength(1);
    const box = cut.boxes.find(({ id }) => id === 'name');
    expect([(box?.left ?? 0) + (box?.right ?? 0), (box?.top ?? 0) + (box?.bottom ?? 0)].map((v) => Math.round((v / 2) * 1e6) / 1e6)).toEqual([20, 50]);
    expect(cut.design.heightMm).toBeCloseTo(box?.bottom ?? 0, 6);
    expect(cut.films[0].pieces).toBeGreaterThanOrEqual(4);
  });

  it('is knocked out of a bar', async () => {
    const [disc, whole, knocked] = [await cutOf(plain), await cutOf(withObjects(bar)), await cutOf(withObjects(bar, { ...name, cutsOut: true }))];
    const letters = areaOf((await cutOf(withObjects(name))).design.layers[0].curves) - areaOf(disc.design.layers[0].curves);
    const [before, after] = [areaOf(whole.design.layers[0].curves), areaOf(knocked.design.layers[0].curves)];
    expect(letters).toBeGreaterThan(50);
    expect(Math.abs(before - after - letters)).toBeLessThan(0.05);
    expect(knocked.design.heightMm).toBeCloseTo(whole.design.heightMm, 6);
  });

  it('says that a font is not there, and keeps the clean art', async () => {
    const engine = new LocalEngine(decodeFile, { tools: shapeTools });
    const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
    const unknown: DesignObject = { ...name, lettering: { ...name.lettering, font: 'No Such Font' } };
    const { problem, clean } = await engine.run({ pictureKey, job: withObjects(unknown), quality: 'final' });
    expect([problem?.code, clean.view !== undefined]).toEqual(['badValue', true]);
  });

  it('has an address in the browser for every shipped font', () => {
    expect(Object.keys(FONT_ADDRESSES).sort()).toEqual(SHIPPED_FONTS.map(({ name: each }) => each).sort());
  });
});
