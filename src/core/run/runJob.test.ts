import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import { layerOf } from '../assemble/design.ts';
import { placed } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import { readJob } from '../job/readJob.ts';
import type { DesignObject, TracedObject } from '../job/objects.ts';
import { tracedPart } from '../job/tracedPart.ts';
import { boundsOf, ringArea, ringCount } from '../outline/curves.ts';
import type { Art } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { keepRuns, type KeptRuns } from './keptRuns.ts';
import { cutJob, type CutResult } from './runJob.ts';

const RED = { r: 179, g: 38, b: 46 };
const BLUE = { r: 36, g: 80, b: 154 };
const disc = paintedArt(60, 60, (x, y) => (Math.hypot(x - 30, y - 30) < 20 ? RED : WHITE));
const square = paintedArt(60, 60, (x, y) => (Math.max(Math.abs(x - 30), Math.abs(y - 30)) < 15 ? BLUE : WHITE));
const [fresh] = newJob('Two').objects as [TracedObject];
const flat = (id: string, sizeMm: number, e: number, f = 0): TracedObject => ({
  ...fresh,
  id,
  separation: { way: 'flat', count: 2, meet: 'stacked' },
  size: { by: 'width', sizeMm, turnDeg: 0 },
  placement: { a: 1, b: 0, c: 0, d: 1, e, f },
});
const job = (...objects: DesignObject[]): Job => ({ ...newJob('Two'), objects });
const shapes = { library: await loadPolygons(), lettered: new Map() };
const cut = (of: Job, arts: Record<string, Art>, focus?: string, kept?: KeptRuns): CutResult =>
  finish(cutJob(of, new Map(Object.entries(arts).map(([id, art]) => [id, { art, key: `art of ${id}` }])), focus, kept, shapes));

describe('a job of several parts', () => {
  const both = job(flat('art', 40, 0), flat('mark', 30, 60, 5));

  it('cuts all of them in one design, each at its size and place', () => {
    const { design, rack, sheets } = cut(both, { art: disc, mark: square });
    expect([design.widthMm, design.heightMm]).toEqual([expect.closeTo(90, 3), expect.closeTo(40, 3)]);
    expect(rack.map(({ id }) => id)).toEqual(design.layers.map(({ filmId }) => filmId));
    expect(sheets.map(({ filmId }) => filmId)).toEqual(rack.map(({ id }) => id));
    expect(design.layers.map(({ curves }) => boundsOf(curves)?.left)).toEqual([expect.closeTo(0, 3), expect.closeTo(60, 3)]);
  });

  it('gives films of their own to tones that are found, however they are numbered in their part', () => {
    const { rack } = cut(both, { art: disc, mark: square });
    expect(new Set(rack.map(({ id }) => id)).size).toBe(2);
    expect(rack.map(({ colour }) => colour)).toEqual(['#b3262e', '#24509a']);
  });

  it('tells of the part in focus what it became, and where it lies', () => {
    const { films, place } = cut(both, { art: disc, mark: square }, 'mark');
    expect(films.map(({ film }) => film.colour)).toEqual(['#24509a']);
    expect(place.resolution).toBeCloseTo(1, 2);
    const { x, y } = placed(place.fromOutline, 15, 15);
    expect([x, y]).toEqual([expect.closeTo(60, 1), expect.closeTo(5, 1)]);
  });

  it('leaves out a part that waits for its picture, and fails where the one in focus has none', () => {
    expect(cut(both, { art: disc }).rack).toHaveLength(1);
    expect(() => cut(both, { mark: square })).toThrow(RangeError);
  });

  it('puts what lies on one film into one sheet, figures and drawings too', () => {
    const bar: DesignObject = {
      kind: 'figure',
      id: 'bar',
      film: 'film-1',
      placement: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 50 },
      shape: { form: 'rectangle', widthMm: 40, heightMm: 6 },
    };
    const oar: DesignObject = {
      kind: 'imported',
      id: 'oar',
      fileName: 'oar.svg',
      paths: [{ film: 'film-1', path: 'M0 60L40 60L40 70L0 70ZM5 62L5 68L9 68L9 62Z' }],
    };
    const { design, rack } = cut(
      job(
        { ...fresh, size: { by: 'width', sizeMm: 40, turnDeg: 0 } },
        { kind: 'group', id: 'g', placement: { a: 1, b: 0, c: 0, d: 1, e: 10, f: 0 }, objects: [bar, oar] },
      ),
      { art: disc },
    );
    expect(rack.map(({ name }) => name)).toEqual(['Harbour navy']);
    const { curves } = layerOf(design, 'film-1');
    expect([ringCount(curves), design.widthMm, design.heightMm]).toEqual([4, expect.closeTo(50, 3), expect.closeTo(70, 3)]);
    expect(ringArea(curves, 1)).toBeCloseTo(240, 6);
    // The hole of the drawing runs the other way.
    expect(curves.parent[3]).toBe(2);
  });

  it('mirrors and turns by a placement, and counts the picture’s pixels where they come to lie', () => {
    const turned: TracedObject = { ...flat('art', 40, 0), placement: { a: 0, b: -2, c: 2, d: 0, e: 7, f: 9 } };
    const { design, place } = cut(job(turned), { art: disc });
    expect([design.widthMm, place.resolution]).toEqual([expect.closeTo(80, 2), expect.closeTo(0.5, 2)]);
    const over = cut(job({ ...turned, placement: { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 } }), { art: disc });
    expect(ringArea(over.design.layers[0].curves, 0)).toBeGreaterThan(0);
  });
});

describe('a job of one part', () => {
  it('is the same design whether its part is placed or not', () => {
    const plain = job({ ...flat('art', 40, 0), placement: undefined });
    const one = cut(plain, { art: disc });
    const moved = cut(job(flat('art', 40, 33, -12)), { art: disc });
    expect(
      [...moved.design.layers[0].curves.coords].map((value, k) => Math.abs(value - one.design.layers[0].curves.coords[k])).reduce((a, b) => Math.max(a, b)),
    ).toBeLessThan(1e-9);
    expect(readJob(JSON.parse(JSON.stringify(plain))).objects).toHaveLength(1);
    expect(tracedPart(plain).placement).toBeUndefined();
  });
});

describe('what is kept of earlier runs', () => {
  const room = { steps: 1e6, tones: 1e8, outlined: 1e8, designs: 1e8, parts: 1e8 };
  const arts = { art: disc, mark: square };
  const both: Job = {
    ...newJob('Two'),
    films: [
      { id: 'tone-2', name: 'Red', colour: '#b3262e' },
      { id: 'mark-tone-2', name: 'Blue', colour: '#24509a' },
    ],
    objects: ['art', 'mark'].map((id, k) => {
      const object = flat(id, 40, 60 * k);
      const own = k === 0 ? 'tone-2' : 'mark-tone-2';
      return {
        ...object,
        separation: {
          way: 'flat',
          count: 2,
          meet: 'stacked',
          palette: [
            { colour: '#ffffff', film: null },
            { colour: k === 0 ? '#b3262e' : '#24509a', film: own },
          ],
        },
      };
    }),
  };
  const renamed: Job = { ...both, films: both.films.map((film) => ({ ...film, name: `${film.name} flock`, colour: '#112233' })) };

  it('serves another name, colour, number of copies or sheet without tracing or checking anything again', () => {
    const kept = keepRuns(room);
    const first = cut(both, arts, 'art', kept);
    const named = cut(renamed, arts, 'art', kept);
    expect(named.design).toBe(first.design);
    expect(named.findings).toBe(first.findings);
    expect([named.rack.map(({ name }) => name), named.films[0].film.name]).toEqual([['Red flock', 'Blue flock'], 'Red flock']);
    const copied = cut({ ...both, layout: { ...both.layout, copies: 5 } }, arts, 'art', kept);
    expect([copied.design === first.design, copied.sheets.map(({ placements }) => placements.length)]).toEqual([true, [5, 5]]);
    expect(cut(both, arts, 'mark', kept).design).toBe(first.design);
  });

  it('traces only the part that was changed', () => {
    const kept = keepRuns(room);
    const first = cut(both, arts, 'art', kept);
    const wider = cut(
      { ...both, objects: [both.objects[0], { ...(both.objects[1] as TracedObject), size: { by: 'width', sizeMm: 50, turnDeg: 0 } }] },
      arts,
      'art',
      kept,
    );
    expect(wider.films[0].outline).toBe(first.films[0].outline);
    expect(wider.design.widthMm).toBeGreaterThan(first.design.widthMm + 9);
  });

  it('changes nothing in what comes out, whatever was asked before', () => {
    const jobs: Job[] = [
      both,
      renamed,
      { ...both, process: 'stencil' },
      { ...both, films: [...both.films].reverse() },
      { ...both, layering: { meet: 'inset', reachMm: 0.5 } },
      { ...both, objects: [...both.objects].reverse() },
      { ...renamed, layout: { ...both.layout, mirror: 'never', copies: 2 } },
    ];
    const plain = (result: CutResult): unknown =>
      JSON.parse(JSON.stringify(result, (_key, value: unknown) => (ArrayBuffer.isView(value) ? [...(value as Float64Array)] : value)));
    const kept = keepRuns(room);
    const small = keepRuns({ steps: 1, tones: 1, outlined: 1, designs: 1, parts: 1 });
    for (const at of [0, 1, 2, 3, 4, 5, 6, 3, 1, 0, 4, 0, 2, 5]) {
      for (const focus of ['art', 'mark']) {
        const fresh = plain(cut(jobs[at], arts, focus));
        expect(plain(cut(jobs[at], arts, focus, kept)), `job ${at}, ${focus}`).toEqual(fresh);
        expect(plain(cut(jobs[at], arts, focus, small)), `job ${at}, ${focus}, little room`).toEqual(fresh);
      }
    }
  });
});
