import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { isProperlyNested } from '../outline/checkCurves.ts';
import { boundsOf, ringCount, type Bounds, type Curves } from '../outline/curves.ts';
import { finish } from '../task/task.ts';
import { scaledPart, turnedPart } from '../edit/carriedPart.ts';
import { AROUND_FILM } from '../film/filmRoles.ts';
import { heldPath, outlineMark } from '../outline/heldOutline.ts';
import { readJob } from '../job/readJob.ts';
import { tracedPart, withPart, type TracedPart } from '../job/tracedPart.ts';
import { newJob } from '../job/newJob.ts';
import { makeDesign } from '../assemble/design.ts';
import { outlinePart, type OutlinedArt } from './outlinePart.ts';
import { proofOfFilms } from './proofOfFilms.ts';

const RED: Rgb = { r: 179, g: 38, b: 46 };
const BLUE: Rgb = { r: 36, g: 80, b: 154 };
const INK: Rgb = { r: 22, g: 20, b: 28 };

/** Two fields on white: red with a hole, blue beside it. */
const fields = (x: number, y: number): Rgb => {
  if (y < 20.3 || y > 59.7 || x < 20.4 || x > 99.6) return WHITE;
  if (Math.hypot(x - 40.2, y - 40.2) < 8) return WHITE;
  return x < 60.5 ? RED : BLUE;
};
const art = paintedArt(120, 80, fields);
const base = tracedPart(newJob('Fields'));
const flat: TracedPart = { ...base, separation: { way: 'flat', count: 3, meet: 'inset' }, size: { ...base.size, by: 'width', sizeMm: 60 } };
const cut = (job: TracedPart, of = art): OutlinedArt => finish(outlinePart(job, of));
const boxOf = (curves: Curves): number[] => {
  const { left, top, right, bottom } = boundsOf(curves) as Bounds;
  return [left, top, right, bottom];
};
const near = (found: readonly number[], wanted: readonly number[], within: number): void =>
  found.forEach((value, k) => expect(Math.abs(value - wanted[k])).toBeLessThan(within));

describe('a border around everything', () => {
  it('lies below all films, as far around them as asked, holes kept or filled', () => {
    const around = cut({ ...flat, outline: { ...flat.outline, around: { widthMm: 3, openings: 'kept' } } });
    expect(around.films.map(({ film }) => film.id)[0]).toBe(AROUND_FILM.id);
    expect(around.films).toHaveLength(3);
    // With 3 mm of border on each side 79.2 px are 54 mm.
    const wide = 3 * (79.2 / 54);
    near(boxOf(around.films[0].outline), [20.4 - wide, 20.3 - wide, 99.6 + wide, 59.7 + wide], 0.12);
    const design = makeDesign(
      around.films.map(({ film, outline }) => ({ filmId: film.id, curves: outline })),
      flat.size,
    );
    expect(design.widthMm).toBeCloseTo(60, 9);
    near(boxOf(design.layers[1].curves).slice(0, 2), [3, 3], 0.08);
    const grown = (w: number): number => 79.2 * 39.4 + 2 * w * (79.2 + 39.4) + Math.PI * w * w;
    expect(Math.abs(areaOf(around.films[0].outline) - (grown(wide) - Math.PI * (8 - wide) ** 2))).toBeLessThan(14);
    expect(isProperlyNested(around.films[0].outline, 0.02)).toBe(true);
    const filled = cut({ ...flat, outline: { ...flat.outline, around: { widthMm: 3, openings: 'filled' } } });
    expect(Math.abs(areaOf(filled.films[0].outline) - grown(wide))).toBeLessThan(14);
  });

  it('without a width has the very edge of what it lies under', () => {
    const { films } = cut({ ...flat, outline: { ...flat.outline, around: { widthMm: 0, openings: 'kept' } } });
    const own = films.slice(1).reduce((sum, { outline }) => sum + areaOf(outline), 0);
    expect(areaOf(films[0].outline)).toBeCloseTo(own, 6);
    expect(ringCount(cut({ ...flat, outline: { ...flat.outline, around: { widthMm: 0, openings: 'filled' } } }).films[0].outline)).toBe(1);
  });

  it('is no part of the proof', () => {
    const plain = proofOfFilms(newJob('Fields'), art, cut(flat)).differs;
    expect(proofOfFilms(newJob('Fields'), art, cut({ ...flat, outline: { ...flat.outline, around: { widthMm: 5, openings: 'filled' } } })).differs).toBeCloseTo(
      plain,
      3,
    );
  });

  it('takes name and colour from the rack', () => {
    const film = { id: AROUND_FILM.id, name: 'Foam white', colour: '#ffffff' };
    const job: TracedPart = { ...flat, outline: { ...flat.outline, around: { widthMm: 1, openings: 'kept' } }, films: [film] };
    expect(cut(job).films[0].film).toEqual(film);
  });

  it('can be all there is: the outermost edge, at a distance', () => {
    const outermost: TracedPart = { ...flat, outline: { ...flat.outline, outermost: true } };
    expect(cut(outermost).films).toHaveLength(1);
    near(boxOf(cut(outermost).films[0].outline), [20.4, 20.3, 99.6, 59.7], 0.12);
    expect(ringCount(cut(outermost).films[0].outline)).toBe(1);
    const sticker = cut({ ...outermost, outline: { ...outermost.outline, around: { widthMm: 2, openings: 'kept' } } });
    expect(sticker.films).toHaveLength(1);
    const wide = 2 * (79.2 / 56);
    near(boxOf(sticker.films[0].outline), [20.4 - wide, 20.3 - wide, 99.6 + wide, 59.7 + wide], 0.12);
    const oneTone: TracedPart = { ...base, outline: { ...base.outline, outermost: true } };
    expect(ringCount(cut(oneTone).films[0].outline)).toBe(1);
  });
});

describe('outlines held by hand', () => {
  const first = cut(flat);
  const [mine] = first.films;
  const moved: Curves = { ...mine.outline, coords: mine.outline.coords.map((value) => value + 5) };
  const held: TracedPart = { ...flat, outline: { ...flat.outline, held: [{ film: mine.film.id, from: mine.mark, path: heldPath(moved) }] } };

  it('stand in place of what the program finds, and say so', () => {
    const { films } = cut(held);
    expect(films.map((film) => film.held)).toEqual(['asMade', undefined]);
    near(boxOf(films[0].outline), boxOf(moved), 1e-5);
    expect(films[0].mark).toBe(mine.mark);
    expect(films[1].outline).toEqual(first.films[1].outline);
  });

  it('stay when something before them changes, and tell that it did', () => {
    const coarser = cut({ ...held, outline: { ...held.outline, followPx: 2.4, cornerDeg: 120, smoothPx: 6 } });
    expect(coarser.films[0].held).toBe('changed');
    near(boxOf(coarser.films[0].outline), boxOf(moved), 1e-5);
    expect(cut({ ...held, name: 'Other' }).films[0].held).toBe('asMade');
  });

  it('move along when the picture is turned, mirrored or drawn larger', () => {
    const size = { widthPx: 120, heightPx: 80 };
    const withTurn: TracedPart = { ...held, recipe: [{ kind: 'turn', id: 't', enabled: true, v: 1, mirrored: false, quarters: 0, angleDeg: 0 }] };
    const turned = turnedPart(withTurn, 't', { kind: 'turn', id: 't', enabled: true, v: 1, mirrored: false, quarters: 1, angleDeg: 0 }, size);
    const [{ outline }] = cut(
      turned,
      paintedArt(80, 120, (x, y) => fields(y, 80 - x)),
    ).films;
    const [left, top, right, bottom] = boxOf(moved);
    near(boxOf(outline), [80 - bottom, left, 80 - top, right], 1e-4);
    const back = turnedPart(turned, 't', { kind: 'turn', id: 't', enabled: true, v: 1, mirrored: false, quarters: 0, angleDeg: 0 }, size);
    expect(back.outline.held?.[0].path.length).toBeGreaterThan(20);
    near(boxOf(cut(back).films[0].outline), [left, top, right, bottom], 1e-4);
    expect(scaledPart(held, 2).outline.held?.[0].path.startsWith('M')).toBe(true);
  });

  it('are part of the job file, and nothing but lines and curves is taken', () => {
    const job = withPart(newJob('Held'), held);
    expect(tracedPart(readJob(JSON.parse(JSON.stringify(job))))).toEqual(held);
    expect(() => readJob(withPart(job, { ...held, outline: { ...held.outline, held: [{ film: 'a', from: '', path: 'M0 0L1 1<script>' }] } }))).toThrow(
      /badJob/,
    );
    expect(outlineMark(mine.outline)).not.toBe(outlineMark(moved));
  });
});

/** Black lines around two fields, as in a colouring book: the left one is filled by pointing. */
const lantern = paintedArt(120, 80, (x, y) => {
  const ring = (cx: number): boolean => Math.abs(Math.hypot(x - cx, y - 40.2) - 22) < 3;
  return ring(36.3) || ring(84.4) || (Math.abs(y - 40.2) < 3 && Math.abs(x - 60.3) < 6) ? INK : WHITE;
});

describe('how films meet', () => {
  const line = (meet: 'stacked' | 'middle' | 'inset', more: Partial<Extract<TracedPart['separation'], { way: 'flat' }>> = {}): TracedPart => ({
    ...flat,
    separation: {
      way: 'flat',
      count: 2,
      meet,
      palette: [
        { colour: '#ffffff', film: null },
        { colour: '#16141c', film: 'lines' },
      ],
      spots: [{ xPx: 36, yPx: 40, film: 'fill' }],
      ...more,
    },
    films: [
      { id: 'fill', name: 'Lamp yellow', colour: '#f2b632' },
      { id: 'lines', name: 'Black', colour: '#16141c' },
    ],
  });
  const radius = (curves: Curves): number => Math.sqrt(Math.abs(areaOf(curves)) / Math.PI);
  const fillOf = (job: TracedPart): Curves => cut(job, lantern).films.find(({ film }) => film.id === 'fill')?.outline as Curves;

  it('fills between lines as far as their middle, under the whole line, or not at all', () => {
    expect(radius(fillOf(line('inset')))).toBeCloseTo(19, 1);
    expect(Math.abs(radius(fillOf(line('middle'))) - 22)).toBeLessThan(0.35);
    // Stacked, the fill runs on under all of the connected lines.
    near(boxOf(fillOf(line('stacked'))), boxOf(cut(line('stacked'), lantern).films.at(-1)?.outline as Curves), 0.01);
    for (const job of [line('middle'), line('stacked')]) expect(isProperlyNested(fillOf(job), 0.02)).toBe(true);
  });

  it('meets a single pair in its own way', () => {
    const pairs = [{ films: ['lines', 'fill'] as [string, string], meet: 'inset' as const, reachMm: 0.5 }];
    // What is cut is 98.1 px and 60 mm wide.
    expect(radius(fillOf(line('stacked', { pairs })))).toBeCloseTo(19 + 0.5 * (98.1 / 60), 1);
    expect(radius(fillOf(line('stacked', { pairs: [{ films: ['fill', 'lines'], meet: 'inset' }] })))).toBeCloseTo(19, 1);
  });

  it('lets the upper film reach where the darker one keeps its edge', () => {
    const reachMm = 1;
    const turned = (keeps: 'upper' | 'darker'): { fill: number; lines: number } => {
      const job = line('inset', { reachMm, keeps });
      // The dark lines lie below the fill here.
      const { films } = cut({ ...job, films: [...job.films].reverse() }, lantern);
      const area = (id: string): number => Math.abs(areaOf(films.find(({ film }) => film.id === id)?.outline as Curves));
      return { fill: area('fill'), lines: area('lines') };
    };
    const plain = { fill: Math.PI * 19 ** 2 };
    expect(Math.abs(turned('upper').fill - plain.fill)).toBeLessThan(6);
    expect(Math.sqrt(turned('darker').fill / Math.PI)).toBeCloseTo(19 + 98.1 / 60, 1);
    expect(turned('upper').lines).toBeGreaterThan(turned('darker').lines + 150);
  });
});

/** A shaded buoy with a dark band and fine dark dashes, on even ground. */
const buoy = paintedArt(160, 160, (x, y) => {
  if (Math.hypot(x - 80.2, y - 80.3) > 60) return { r: 214, g: 226, b: 235 };
  const shade = 150 + (x - 80) * 0.9;
  const dark = Math.abs(y - 80) < 14 || (Math.abs(y - 115) < 2 && x % 12 < 6);
  return dark ? { r: 40, g: 30, b: 46 } : { r: Math.min(255, shade + 30), g: shade, b: shade - 20 };
});

describe('back and detail', () => {
  const job = (fineness: number, back: 'open' | 'full' = 'open'): TracedPart => ({
    ...base,
    separation: { way: 'backDetail', fineness, threshold: 'auto', back },
  });
  it('makes a back of all that is not ground, and the detail on it', () => {
    const { films, steps } = cut(job(100), buoy);
    expect(films.map(({ film }) => film.id)).toEqual(['back', 'detail']);
    expect(Math.sqrt(areaOf(films[0].outline) / Math.PI)).toBeCloseTo(60, 0);
    expect(steps?.[0]).toBeGreaterThan(50);
    expect(areaOf(films[1].outline)).toBeGreaterThan(2500);
    expect(areaOf(films[1].outline)).toBeLessThan(5000);
  });

  it('cuts less detail the coarser it is, in fewer pieces, on the very same back', () => {
    const runs = [0, 35, 70, 100].map((fineness) => cut(job(fineness), buoy).films);
    const pieces = runs.map(([, detail]) => ringCount(detail.outline));
    expect([...pieces].sort((a, b) => a - b)).toEqual(pieces);
    expect(pieces[0]).toBeLessThan(pieces[3]);
    for (const [back] of runs) expect(Math.abs(areaOf(back.outline) - areaOf(runs[0][0].outline))).toBeLessThan(20);
  });

  it('is proofed against the tones of the art: the finer it is cut the less of them is lost', () => {
    const proofs = [0, 60, 100].map((fineness) => proofOfFilms(newJob('Fields'), buoy, cut(job(fineness), buoy)).differs);
    expect(proofs[2]).toBeLessThan(0.03);
    expect(proofs[0]).toBeGreaterThan(proofs[2]);
  });

  it('keeps islands of the back however coarse the detail is', () => {
    const islands = paintedArt(160, 120, (x, y) =>
      [30, 80, 130].some((cx) => Math.hypot(x - cx, y - 60) < 6) ? { r: 190, g: 160, b: 120 } : Math.hypot(x - 80, y - 25) < 12 ? INK : WHITE,
    );
    expect(ringCount(cut(job(0), islands).films[0].outline)).toBe(4);
  });

  it('cuts the back with its openings or full', () => {
    const ring = paintedArt(120, 120, (x, y) => {
      const r = Math.hypot(x - 60, y - 60);
      return r > 50 || r < 20 ? WHITE : r < 35 ? INK : { r: 190, g: 160, b: 120 };
    });
    const open = {
      ...ring,
      alpha: ring.alpha.map((value, i) =>
        Math.hypot((i % 120) - 59.5, Math.floor(i / 120) - 59.5) < 20 || Math.hypot((i % 120) - 59.5, Math.floor(i / 120) - 59.5) > 50 ? 0 : value,
      ),
    };
    expect(ringCount(cut(job(80), open).films[0].outline)).toBe(2);
    expect(ringCount(cut(job(80, 'full'), open).films[0].outline)).toBe(1);
  });

  it('says when there is nothing to cut', () => {
    const clear = { ...buoy, alpha: new Uint8Array(buoy.alpha.length) };
    expect(() => cut(job(50), clear)).toThrow(/nothingToCut/);
    expect(() =>
      cut(
        job(50),
        paintedArt(40, 40, () => WHITE),
      ),
    ).toThrow(/oneColour|nothingToCut/);
  });
});
