import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import type { DesignObject } from '../job/objects.ts';
import type { LetteredText } from '../lettering/letterCurves.ts';
import { DEFAULT_LETTERING } from '../lettering/lettering.ts';
import { followedBy, mirrorAbout, rotation } from '../geometry/affine.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { USUAL_MATERIALS, type Material } from '../process/material.ts';
import { designRun } from '../run/designRun.ts';
import { withMaterial } from './withMaterial.ts';
import { mendWays, withWeakMended } from './mendWeak.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

/** Two blocks with a neck of 0.5 mm, two with a gap of 0.2 mm, and a speck. */
const PATH = 'M0 0L10 0L10 4.75L22 4.75L22 0L32 0L32 10L22 10L22 5.25L10 5.25L10 10L0 10ZM0 20L10 20L10 30L0 30ZM10.2 20L20.2 20L20.2 30L10.2 30ZM40 0L40.8 0L40.8 0.8L40 0.8Z';
const job = (): Job => {
  const fresh = newJob('Oars');
  return { ...fresh, objects: [...fresh.objects, { kind: 'imported', id: 'drawn', fileName: 'oars.svg', paths: [{ film: 'film-1', path: PATH }] }] };
};
const run = (of: Job) => designRun(of, new Map(), new Map(), { library, lettered: new Map() });
const kinds = (of: Job): string[] => run(of).findings.map(({ kind }) => kind).sort();
let count = 0;
const newId = (): string => `mend-${++count}`;

describe('mending what the cut check found', () => {
  it('takes each kind away, one after the other, as operations that stay', () => {
    let now = job();
    expect(kinds(now)).toEqual(['narrowGap', 'smallPiece', 'thin']);
    for (const kind of ['thin', 'narrowGap', 'smallPiece'] as const) {
      const { findings, parts } = run(now);
      const next = withWeakMended(now, parts, findings.filter((each) => each.kind === kind), mendWays(kind)[0], { all: false, newId });
      expect(next).toBeDefined();
      now = next ?? now;
      expect(kinds(now)).not.toContain(kind);
    }
    expect(kinds(now)).toEqual([]);
    const drawn = now.objects.find(({ id }) => id === 'drawn');
    expect(drawn !== undefined && 'operations' in drawn ? drawn.operations?.map(({ kind }) => kind) : []).toEqual(['mend', 'mend', 'mend']);
    // They are done again at whatever becomes of it.
    expect(kinds({ ...now, objects: now.objects.map((each) => (each.id === 'drawn' ? { ...each, placement: { a: 0, b: 1, c: -1, d: 0, e: 7, f: 3 } } : each)) as Job['objects'] })).toEqual([]);
  });

  it('mends what is made from all parts where it is: a base that nearly closes a gap, also after the parts have moved', () => {
    const fresh = newJob('Blocks');
    const blocks: DesignObject = { kind: 'imported', id: 'drawn', fileName: 'blocks.svg', placement: { a: 1, b: 0, c: 0, d: 1, e: 30, f: 12 }, paths: [{ film: 'film-1', path: 'M0 0L20 0L20 20L0 20ZM22.2 0L42.2 0L42.2 20L22.2 20Z' }] };
    const under: DesignObject = { kind: 'base', id: 'under', film: 'film-2', base: { form: 'edge', marginMm: 1, cornerMm: 0, corners: 'sharp' } };
    const made: Job = { ...fresh, films: [...fresh.films, { id: 'film-2', name: 'Sand', colour: '#e3bf73' }], objects: [...fresh.objects, blocks, under] };
    const gapsOf = (of: Job) => run(of).findings.filter(({ kind, filmId }) => kind === 'narrowGap' && filmId === 'film-2');
    expect(gapsOf(made).map(({ size }) => size)).toEqual([expect.closeTo(0.2, 2)]);
    for (const way of ['open', 'close'] as const) {
      const mended = withWeakMended(made, run(made).parts, gapsOf(made), way, { all: false, newId }) as Job;
      expect(gapsOf(mended)).toEqual([]);
      // The parts themselves stay as they are.
      expect(mended.objects.filter(({ id }) => id !== 'under')).toEqual(made.objects.filter(({ id }) => id !== 'under'));
    }
    const all = withWeakMended(made, run(made).parts, gapsOf(made), 'close', { all: true, newId }) as Job;
    expect(gapsOf({ ...all, objects: all.objects.map((each) => (each.id === 'drawn' ? { ...each, placement: { a: 0, b: 1, c: -1, d: 0, e: 5, f: 60 } } : each)) as Job['objects'] })).toEqual([]);
  });

  it('mends all of a kind with the limits of what the film is made of', () => {
    const glitter = USUAL_MATERIALS.find(({ id }) => id === 'glitter-heat-film') as Material;
    const coarse = withMaterial(job(), glitter);
    const { findings, parts } = run(coarse);
    expect(findings.filter(({ kind }) => kind === 'thin').map(({ size }) => size)).toEqual([expect.closeTo(0.5, 1)]);
    const mended = withWeakMended(coarse, parts, findings.filter(({ kind }) => kind === 'thin'), 'thicken', { all: true, newId }) as Job;
    expect(kinds(mended)).not.toContain('thin');
    expect(kinds(withMaterial(mended, { ...glitter, least: { ...glitter.least, stripMm: 1.7 } }))).toContain('thin');
  });

  it('makes crowded nodes few in a part of any scale: they are near each other as it is cut', () => {
    const fresh = newJob('Oars');
    const round = Array.from({ length: 1200 }, (_, k) => `${k === 0 ? 'M' : 'L'}${(50 + 20 * Math.cos((k * Math.PI) / 600)).toFixed(5)} ${(50 + 20 * Math.sin((k * Math.PI) / 600)).toFixed(5)}`).join('');
    const drawn: DesignObject = { kind: 'imported', id: 'drawn', fileName: 'ring.svg', paths: [{ film: 'film-1', path: `${round}Z` }], placement: { a: 0.3, b: 0, c: 0, d: 0.3, e: 0, f: 0 } };
    const crowded = { ...fresh, objects: [drawn] };
    const { findings, parts } = run(crowded);
    expect(findings.map(({ kind }) => kind)).toEqual(['crowded']);
    const mended = withWeakMended(crowded, parts, findings, mendWays('crowded')[0], { all: false, newId }) as Job;
    expect(kinds(mended)).toEqual([]);
  });

  it('turns a lettering over that reads backwards, where it is', () => {
    const curves = nestRings(curvesFromPathData('M0 0L4 0L4 10L0 10ZM6 0L20 0L20 10L6 10Z'));
    const fresh = newJob('Oars');
    const text: DesignObject = { kind: 'lettering', id: 'text', film: 'film-1', lettering: { ...DEFAULT_LETTERING, text: 'Io', font: 'lobster', heightMm: 10 }, placement: { ...followedBy(mirrorAbout(30), rotation(0.3, 0, 0)) } };
    const shapes = { library, lettered: new Map([['text', { curves, missing: [], glyphs: [] } as unknown as LetteredText]]) };
    const looked = (of: Job) => designRun(of, new Map(), new Map(), shapes);
    const before = looked({ ...fresh, objects: [text] });
    const found = before.findings.filter(({ kind }) => kind === 'backwards');
    expect(found).toHaveLength(1);
    const mended = withWeakMended({ ...fresh, objects: [text] }, before.parts, found, mendWays('backwards')[0], { all: false, newId }) as Job;
    const after = looked(mended);
    expect(after.findings.filter(({ kind }) => kind === 'backwards')).toEqual([]);
    expect(after.design.widthMm).toBeCloseTo(before.design.widthMm, 6);
    expect(after.originMm.x).toBeCloseTo(before.originMm.x, 6);
  });

  it('has no way for what lies in no part', () => {
    const { parts } = run(job());
    expect(withWeakMended(job(), parts, [{ kind: 'thin', filmId: 'film-1', xMm: 300, yMm: 300, size: 0.3 }], 'thicken', { all: false, newId })).toBeUndefined();
    expect(mendWays('coarsePicture')).toEqual([]);
  });
});
