import { areaOf } from '../../tests/fixtures/areaOf.ts';
import { readdirSync } from 'node:fs';
import { dirname } from 'node:path';
import { describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { packagePath } from '../../cli/packageFile.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import { placed } from '../core/geometry/affine.ts';
import type { DesignObject } from '../core/job/objects.ts';
import type { Operation } from '../core/operate/operation.ts';
import { readJob } from '../core/job/readJob.ts';
import { SHIPPED_FONTS } from '../core/lettering/fonts.ts';
import { ringCount } from '../core/outline/curves.ts';
import { FONT_ADDRESSES } from './fontAddresses.ts';
import { FONT_SUBSETS } from './fontSubsets.ts';
import { LocalEngine } from './localEngine.ts';

const files = await discFiles();
const plain = sizedJob(newJob('disc'), 40);
const film = plain.films[0];
const name: DesignObject = { kind: 'lettering', id: 'name', film: film.id, placement: { a: 1, b: 0, c: 0, d: 1, e: 20, f: 50 }, lettering: { text: 'Row', font: 'Archivo Black', heightMm: 10 } };
const bar: DesignObject = { kind: 'figure', id: 'bar', film: film.id, placement: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 43 }, shape: { form: 'rectangle', widthMm: 40, heightMm: 14 } };
const withObjects = (...more: DesignObject[]): Job => readJob({ ...plain, objects: [...plain.objects, ...more] });

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
    const box = cut.parts.find(({ id }) => id === 'name')?.box;
    expect([(box?.left ?? 0) + (box?.right ?? 0), (box?.top ?? 0) + (box?.bottom ?? 0)].map((v) => Math.round((v / 2) * 1e6) / 1e6)).toEqual([20, 50]);
    expect(cut.design.heightMm).toBeCloseTo(box?.bottom ?? 0, 6);
    expect(cut.rack[0].pieces).toBeGreaterThanOrEqual(4);
    // What is told of the traced art is its own.
    expect(cut.films[0].pieces).toBe(1);
  });

  it('is knocked out of a bar', async () => {
    const [disc, whole, knocked] = [await cutOf(plain), await cutOf(withObjects(bar)), await cutOf(withObjects(bar, { ...name, cutsOut: true }))];
    const letters = areaOf((await cutOf(withObjects(name))).design.layers[0].curves) - areaOf(disc.design.layers[0].curves);
    const [before, after] = [areaOf(whole.design.layers[0].curves), areaOf(knocked.design.layers[0].curves)];
    expect(letters).toBeGreaterThan(50);
    expect(Math.abs(before - after - letters)).toBeLessThan(0.05);
    expect(knocked.design.heightMm).toBeCloseTo(whole.design.heightMm, 6);
  });

  it('follows the edge of a part as that moves, and fills one', async () => {
    const tag: DesignObject = { kind: 'figure', id: 'tag', film: film.id, placement: { a: 1, b: 0, c: 0, d: 1, e: 60, f: 0 }, shape: { form: 'round', widthMm: 40, heightMm: 40 } };
    const moved: DesignObject = { ...tag, placement: { a: 1, b: 0, c: 0, d: 1, e: 90, f: 7 } };
    const { placement: _, ...bare } = name;
    const along = { ...bare, lettering: { ...name.lettering, along: { part: 'tag', heads: 'out', at: 0, awayMm: 1 } } } as DesignObject;
    const into = { ...bare, lettering: { ...name.lettering, into: { part: 'tag', paddingMm: 2 } } } as DesignObject;
    const boxOf = async (...objects: DesignObject[]) => {
      const cut = await cutOf(withObjects(...objects));
      const [text, round] = ['name', 'tag'].map((id) => cut.parts.find((part) => part.id === id)?.box);
      if (text === undefined || round === undefined) throw new Error('a part is missing');
      return { across: (text.left + text.right) / 2 - (round.left + round.right) / 2, above: text.bottom - round.top, tall: text.bottom - text.top, broad: text.right - text.left };
    };
    const [first, second] = [await boxOf(tag, along), await boxOf(moved, along)];
    for (const key of ['across', 'above', 'tall', 'broad'] as const) expect(second[key]).toBeCloseTo(first[key], 6);
    expect(Math.abs(first.across)).toBeLessThan(1.5);
    // Below it in the list it follows as well.
    expect((await boxOf(along, tag)).above).toBeCloseTo(first.above, 6);
    const inside = await boxOf(tag, into);
    expect(inside.broad).toBeGreaterThan(22);
    expect(Math.hypot(inside.broad, inside.tall)).toBeLessThan(40);
  });

  it('says that what it follows is gone, and does not run in circles', async () => {
    const follows = (id: string, part: string): DesignObject => ({ ...name, id, lettering: { ...name.lettering, along: { part, heads: 'out', at: 0, awayMm: 0 } } }) as DesignObject;
    const gone = await cutOf(withObjects(follows('name', 'nothing')));
    expect(gone.parts.find(({ id }) => id === 'name')?.isAstray).toBe(true);
    const round = await cutOf(withObjects(follows('name', 'other'), follows('other', 'name')));
    expect(round.parts.filter(({ isAstray }) => isAstray === true).length).toBeGreaterThanOrEqual(1);
    const within = await cutOf(withObjects({ kind: 'group', id: 'both', objects: [follows('name', 'both'), bar] }));
    expect(within.parts.map(({ id }) => id)).toContain('name');
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
    for (const { name: each, family, weight } of SHIPPED_FONTS) {
      const end = `-${weight}-normal.woff2`;
      const files = readdirSync(dirname(packagePath(`@fontsource/${family}/files/${family}-latin${end}`))).filter((file) => file.endsWith(end) && file !== `${family}-latin${end}`);
      expect([each, Object.keys(FONT_SUBSETS[each] ?? {}).sort()]).toEqual([each, files.map((file) => file.slice(family.length + 1, -end.length)).sort()]);
    }
  });
});

describe('parts with operations', () => {
  const gold = { id: 'gold', name: 'Brass gold', colour: '#b9751a' };
  const board = { id: 'board', name: 'Board', colour: '#ffffff' };
  const operated = (operations: Operation[], ...more: DesignObject[]): Job => {
    const [art, ...rest] = plain.objects;
    return readJob({ ...plain, films: [...plain.films, gold], objects: [{ ...art, operations }, ...rest, ...more] });
  };
  const places = (cut: Awaited<ReturnType<typeof cutOf>>): Map<string, number> => new Map(cut.design.layers.map(({ filmId, curves }) => [filmId, areaOf(curves)]));

  it('follow the traced art: a border stays as broad at another size, a piece is found again by its place in the picture', async () => {
    const border: Operation = { id: 'b', kind: 'border', film: 'edge', widthMm: 3, corners: 'round', openings: 'filled' };
    const [bare, cut] = [await cutOf(plain), await cutOf(operated([border]))];
    expect(cut.design.widthMm - bare.design.widthMm).toBeCloseTo(6, 3);
    expect(cut.rack.map(({ film }) => film.id)).toContain('edge');
    const doubled = operated([border]);
    const [art] = doubled.objects;
    const large = await cutOf({ ...doubled, objects: [{ ...art, size: { ...(art as { size: { sizeMm: number } }).size, sizeMm: 2 * (art as { size: { sizeMm: number } }).size.sizeMm } } as DesignObject] });
    expect(large.design.widthMm).toBeCloseTo(2 * bare.design.widthMm + 6, 3);
    const { toMarks, layers } = bare.parts[0];
    const [x, y] = [bare.design.widthMm / 2, bare.design.heightMm / 2];
    const mark = { film: layers[0].filmId, ...placed(toMarks, x, y) };
    for (const sizeMm of [20, 90]) {
      const job = operated([{ id: 'f', kind: 'film', film: 'gold', pieces: [mark] }]);
      const moved = await cutOf({ ...job, objects: [{ ...job.objects[0], size: { by: 'width', sizeMm, turnDeg: 30 } } as DesignObject] });
      expect([[...places(moved).keys()], moved.parts[0].notes]).toEqual([['gold'], undefined]);
    }
    const gone = await cutOf(operated([{ id: 'f', kind: 'takeOff', pieces: [{ ...mark, x: -900 }] }]));
    expect(gone.parts[0].notes).toMatchObject([{ operation: 'f', lost: 1, marks: [{ nearest: { film: mark.film } }] }]);
  });

  it('lie on a base, and are hung by holes through everything', async () => {
    const base: DesignObject = { kind: 'base', id: 'base', film: 'board', base: { form: 'rectangle', marginMm: 5, cornerMm: 2, corners: 'round' } };
    const holes: DesignObject = { kind: 'holes', id: 'holes', holes: { where: 'pair', diameterMm: 4, fromTopMm: 4, fromSideMm: 4 } };
    const [bare, cut] = [await cutOf(plain), await cutOf(readJob({ ...withObjects(base, holes), films: [board, ...plain.films] }))];
    expect([cut.design.widthMm, cut.design.heightMm]).toEqual([expect.closeTo(bare.design.widthMm + 10, 6), expect.closeTo(bare.design.heightMm + 10, 6)]);
    const under = cut.design.layers.find(({ filmId }) => filmId === 'board');
    expect(ringCount(under!.curves)).toBe(3);
    expect(areaOf(under!.curves)).toBeCloseTo(cut.design.widthMm * cut.design.heightMm - (4 - Math.PI) * 4 - 2 * Math.PI * 4, 2);
    expect(cut.design.layers[0].filmId).toBe('board');
  });

  it('become one outline in a group that joins, cuts out or keeps what they have in common', async () => {
    const grouped = async (how: 'join' | 'common' | 'cutOut'): Promise<number> => {
      const cut = await cutOf(withObjects({ kind: 'group', id: 'g', combine: { how, film: 'gold' }, objects: [bar, { ...bar, id: 'other', placement: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 300 } }] }));
      return places(cut).get('gold') ?? 0;
    };
    const one = areaOf((await cutOf(withObjects({ ...bar, film: 'gold' }))).design.layers.find(({ filmId }) => filmId === 'gold')!.curves);
    expect([await grouped('join'), await grouped('cutOut'), await grouped('common')].map((area) => Math.round((area / one) * 1000) / 1000)).toEqual([2, 1, 0]);
  });
});
