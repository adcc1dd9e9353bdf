import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { areaOf, art, first, found, foundOf, ground, isJob, separated, start, toneOf } from '../../../tests/fixtures/pennants.ts';
import type { Art } from '../raster/art.ts';
import { cropArt } from '../raster/crop.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { finish } from '../task/task.ts';
import { scaledPart, turnedPart } from './carriedPart.ts';
import { tracedPart, type TracedPart } from '../job/tracedPart.ts';
import type { Film } from '../film/film.ts';
import type { FlatSeparation } from '../separate/separation.ts';
import { newJob } from '../job/newJob.ts';
import {
  addTone,
  changeFilm,
  clearTone,
  countOfTones,
  dropTone,
  fillArea,
  findTonesAnew,
  forgetSpots,
  holdOutlines,
  isKept,
  keepTone,
  knowing,
  letGo,
  mergeTone,
  moveFilm,
  partAreas,
  partTone,
  pointApart,
  pointAt,
  setTone,
  smallTones,
  splitTone,
  withWay,
} from './paletteEdits.ts';
import { outlinePart } from '../run/outlinePart.ts';

describe('separating into flat colours', () => {
  it('names a film after each tone, but for the background', () => {
    expect(found.films.map(({ name }) => name).sort()).toEqual(['Blue', 'Red', 'Yellow']);
    expect(found.tones.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(first.tone).toBeUndefined();
  });

  it('keeps tones and mesh while only films change', () => {
    const made: string[] = [];
    const kept = new Map<string, never>();
    const remember: Parameters<typeof outlinePart>[2] = function* (key, make) {
      const held = kept.get(key);
      if (held !== undefined) return held;
      made.push(key);
      const value = yield* make();
      kept.set(key, value as never);
      return value;
    };
    const held = changeFilm(start, found, found.films[0].id, { name: 'Other' });
    finish(outlinePart(held, art, remember));
    finish(outlinePart(mergeTone(held, found, 1, 2), art, remember));
    finish(outlinePart({ ...held, separation: { ...held.separation, meet: 'inset' } as TracedPart['separation'] }, art, remember));
    expect(made).toHaveLength(1);
  });

  it('separates by lightness too, darkest film on top', () => {
    const { films, steps } = separated({ ...start, separation: { way: 'tones', count: 3, meet: 'stacked' } });
    expect(films).toHaveLength(2);
    expect(steps).toHaveLength(2);
    expect(areaOf(films[0].outline)).toBeGreaterThan(areaOf(films[1].outline));
  });
});

describe('palette', () => {
  it('cuts two tones from one film when they are merged', () => {
    const job = mergeTone(start, found, toneOf('Red'), toneOf('Blue'));
    const { films } = separated(job);
    expect(films.map(({ film }) => film.name).sort()).toEqual(['Blue', 'Yellow']);
    const blue = films.find(({ film }) => film.name === 'Blue')?.outline as Curves;
    // The red and the blue bar are one piece now: no edge is cut between them.
    expect(ringCount(blue)).toBeLessThanOrEqual(2);
    expect(areaOf(blue)).toBeGreaterThan(51 * 43 - 250);
  });

  it('makes a tone background, and parts it off again', () => {
    const cleared = clearTone(start, found, toneOf('Yellow'));
    const after = separated(cleared);
    expect(after.films.map(({ film }) => film.name).sort()).toEqual(['Blue', 'Red']);
    const parted = separated(partTone(cleared, foundOf(after), toneOf('Yellow')));
    expect(parted.films.map(({ film }) => film.name).sort()).toEqual(['Blue', 'Red', 'Yellow']);
  });

  it('gives the areas of a tone that is taken out to others', () => {
    const { tones } = separated(dropTone(start, found, toneOf('Red')));
    expect(tones).toHaveLength(found.tones.length - 1);
    const two = { tones: found.tones.slice(0, 2), films: found.films };
    expect(dropTone(start, two, 0)).toBe(start);
  });

  it('renames, recolours and moves films, and holds their order', () => {
    const [low, , top] = found.films;
    const renamed = changeFilm(start, found, low.id, { name: 'Harbour blue', colour: '#102040' });
    expect(separated(renamed).films[0].film).toEqual({ id: low.id, name: 'Harbour blue', colour: '#102040' });
    const moved = moveFilm(start, found, top.id, 0);
    expect(separated(moved).films.map(({ film }) => film.id)).toEqual([top.id, found.films[0].id, found.films[1].id]);
  });

  it('adds a tone that is picked, and lets all be found anew', () => {
    const job = addTone(start, found, '#7a3a3e');
    expect(separated(job).tones).toHaveLength(found.tones.length + 1);
    const anew = findTonesAnew(job, foundOf(separated(job)));
    expect(anew.separation).toMatchObject({ way: 'flat', count: 'auto', meet: 'stacked' });
    expect(separated(anew).tones).toHaveLength(found.tones.length);
    expect(separated(setTone(start, found, ground, '#fafafa')).tones?.[ground].colour).toBe('#fafafa');
  });

  it('gives a single area another film, none, or one of its own, whatever the outline settings', () => {
    const blue = found.tones[toneOf('Blue')].film as string;
    // The sun within the blue bar; the yellow bar stays.
    const filled = pointAt(start, found, { xPx: 44.5, yPx: 30 }, blue);
    const areas = (job: TracedPart): Record<string, number> =>
      Object.fromEntries(
        separated({ ...job, separation: { ...job.separation, meet: 'inset' } as TracedPart['separation'] }).films.map(({ film, outline }) => [
          film.name,
          Math.round(areaOf(outline)),
        ]),
      );
    const before = areas(start);
    const disc = Math.PI * 8.1 ** 2;
    expect(Math.abs(areas(filled)['Blue'] - before['Blue'] - disc)).toBeLessThan(4);
    expect(Math.abs(before['Yellow'] - areas(filled)['Yellow'] - disc)).toBeLessThan(4);
    const dropped = pointAt(start, found, { xPx: 44.5, yPx: 30 }, null);
    expect(Math.abs(before['Yellow'] - areas(dropped)['Yellow'] - disc)).toBeLessThan(4);
    expect(areas(dropped)['Blue']).toBe(before['Blue']);
    const loose = { ...dropped, outline: { ...dropped.outline, followPx: 1 } };
    expect(Math.abs(areas(loose)['Yellow'] - areas(dropped)['Yellow'])).toBeLessThan(40);
    const apart = pointApart(start, found, { xPx: 44.5, yPx: 30 }, found.films.find(({ name }) => name === 'Yellow') as Film);
    expect(Math.abs(areas(apart)['Yellow, apart'] - disc)).toBeLessThan(4);
    expect(areas(forgetSpots(apart))).toEqual(before);
    // What lies around everything is never film, and a point outside says nothing.
    expect(areas(pointAt(start, found, { xPx: -40, yPx: 2 }, blue))).toEqual(before);
  });

  it('keeps single areas where they were put when the picture is turned or drawn larger', () => {
    const turn = { kind: 'turn', id: 't', enabled: true, v: 1, quarters: 0, angleDeg: 0, mirrored: false } as const;
    const job: TracedPart = { ...pointAt(start, found, { xPx: 44.5, yPx: 30 }, null), recipe: [turn] };
    const spot = (next: TracedPart): unknown => (next.separation as FlatSeparation).spots?.[0];
    expect(spot(turnedPart(job, 't', { ...turn, quarters: 1 }, { widthPx: 90, heightPx: 60 }))).toEqual({ xPx: 30, yPx: 44.5, film: null });
    expect(
      spot(turnedPart(turnedPart(job, 't', { ...turn, mirrored: true }, { widthPx: 90, heightPx: 60 }), 't', undefined, { widthPx: 90, heightPx: 60 })),
    ).toEqual({ xPx: 44.5, yPx: 30, film: null });
    expect(spot(scaledPart(job, 2))).toEqual({ xPx: 89, yPx: 60, film: null });
    expect(turnedPart(start, 't', undefined, { widthPx: 90, heightPx: 60 }).separation).toBe(start.separation);
  });

  it('reaches under neighbours from single areas too', () => {
    const blue = found.tones[toneOf('Blue')].film as string;
    const job = pointAt(start, found, { xPx: 44.5, yPx: 30 }, blue);
    const { films } = separated({ ...job, separation: { ...job.separation, meet: 'inset', reachMm: 4 } as TracedPart['separation'] });
    expect(films).toHaveLength(3);
    expect(ringCount(films.find(({ film }) => film.id === blue)?.outline as Curves)).toBe(1);
  });

  it('leaves one-colour jobs alone', () => {
    const one = tracedPart(newJob('One'));
    for (const next of [
      mergeTone(one, found, 0, 1),
      clearTone(one, found, 0),
      dropTone(one, found, 0),
      moveFilm(one, found, found.films[0].id, 1),
      findTonesAnew(one, found),
    ])
      expect(next).toBe(one);
  });

  it('stays a valid job that can be read again, whatever is done', () => {
    const tone = fc.nat({ max: found.tones.length - 1 });
    const edit = fc.oneof(
      fc.tuple(tone, tone).map(
        ([a, b]) =>
          (job: TracedPart) =>
            mergeTone(job, found, a, b),
      ),
      tone.map((a) => (job: TracedPart) => clearTone(job, found, a)),
      tone.map((a) => (job: TracedPart) => partTone(job, found, a)),
      tone.map((a) => (job: TracedPart) => dropTone(job, found, a)),
      fc.nat({ max: 5 }).map((to) => (job: TracedPart) => moveFilm(job, found, found.films[0].id, to)),
    );
    fc.assert(
      fc.property(edit, (change) => {
        const job = change(start);
        expect(isJob(job)).toBe(true);
      }),
      { seed: 12, numRuns: 100 },
    );
  });
});

describe('parting and merging', () => {
  it('puts two tones in the place of one, the first in its film', () => {
    const at = toneOf('Yellow');
    const split = splitTone(start, found, at, ['#f2b632', '#e8d9a0']);
    const palette = (split.separation as FlatSeparation).palette!;
    expect(palette).toHaveLength(found.tones.length + 1);
    expect(palette[at]).toEqual({ colour: '#f2b632', film: found.tones[at].film });
    expect(new Set(palette.map(({ film }) => film)).size).toBe(palette.length);
    expect(isJob(split)).toBe(true);
  });

  it('gives several areas one film of their own', () => {
    // The sun in the blue bar, and the yellow bar beside it.
    const yellow = found.films.find(({ name }) => name === 'Yellow')!;
    const parted = partAreas(start, found, [{ xPx: 45, yPx: 30 }], yellow);
    const films = separated(parted).films.map(({ film }) => film.name);
    expect(films).toContain('Yellow, apart');
    expect(partAreas(start, found, [], yellow)).toBe(start);
  });

  it('offers small tones to the nearest one of another film', () => {
    const small = smallTones({
      films: found.films,
      tones: [
        { colour: '#ffffff', share: 0.6, film: null },
        { colour: '#b3262e', share: 0.396, film: 'a' },
        { colour: '#b83038', share: 0.004, film: 'b' },
      ],
    });
    expect(small).toEqual([{ tone: 2, into: 1, share: 0.004, difference: expect.any(Number) as number }]);
    expect(smallTones(found)).toEqual([]);
  });

  it('fills an area of background below the rest, as far as the middle of what lies above', () => {
    const filled = fillArea(start, found, { xPx: 3, yPx: 3 });
    expect(filled.films[0].name).toBe('Fill');
    const { pairs, spots } = filled.separation as FlatSeparation;
    expect(pairs).toHaveLength(3);
    expect(spots).toEqual([{ xPx: 3, yPx: 3, film: filled.films[0].id }]);
    const films = separated(filled).films;
    expect(films[0].film.name).toBe('Fill');
    expect(fillArea(filled, foundOf(separated(filled)), { xPx: 88, yPx: 3 }).films[0].name).toBe('Fill 2');
  });

  it('counts a clear background as a tone', () => {
    expect(countOfTones(found.tones)).toBe(4);
    expect(countOfTones(found.tones.filter(({ film }) => film !== null))).toBe(4);
  });
});

describe('tones that stay', () => {
  const counted = (job: TracedPart, count: number): TracedPart => findTonesAnew(job, foundOf(separated(job)), count);
  const coloursOf = (job: TracedPart): string[] => (separated(job).tones ?? []).map(({ colour }) => colour);
  /** What goes first when there is one tone less. */
  const lost = found.tones.findIndex(({ colour }) => !coloursOf(counted(start, 3)).includes(colour));

  it('are there at any number of tones, with the film that they had', () => {
    expect(lost).toBeGreaterThanOrEqual(0);
    const { colour, film } = found.tones[lost];
    const named = changeFilm(start, found, film as string, { name: 'Ribbon', colour: '#112233' });
    const kept = keepTone(named, foundOf(separated(named)), lost, true);
    for (const count of [2, 3, 4, 12]) {
      const { tones, films } = separated(counted(kept, count));
      const tone = tones?.find((each) => each.colour === colour);
      expect(films.find((each) => each.film.id === tone?.film)?.film).toMatchObject({ name: 'Ribbon', colour: '#112233' });
      expect(tones?.length).toBeLessThanOrEqual(Math.max(2, count));
    }
    expect(coloursOf(counted(keepTone(kept, foundOf(separated(kept)), lost, false), 3))).not.toContain(colour);
  });

  it('can be background, and keep their colour to the last digit', () => {
    const odd = setTone(start, found, lost, '#abc123');
    const kept = keepTone(clearTone(odd, foundOf(separated(odd)), lost), foundOf(separated(odd)), lost, true);
    const tone = separated(counted(clearTone(kept, foundOf(separated(kept)), lost), 4)).tones?.find(({ colour }) => colour === '#abc123');
    expect(tone?.film).toBeNull();
  });

  it('follow changes of the palette, and are let go when they are taken out of it', () => {
    const kept = keepTone(start, found, lost, true);
    const other = setTone(kept, found, lost, '#445566');
    expect(isKept(other, foundOf(separated(other)), lost)).toBe(true);
    const into = toneOf('Red') === lost ? toneOf('Blue') : toneOf('Red');
    expect((mergeTone(kept, found, lost, into).separation as FlatSeparation).kept).toEqual([
      { colour: found.tones[lost].colour, film: found.tones[into].film },
    ]);
    expect((dropTone(kept, found, lost).separation as FlatSeparation).kept).toBeUndefined();
    expect(isJob(kept)).toBe(true);
    const oneTone: TracedPart = { ...start, separation: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' } };
    expect(keepTone(oneTone, found, lost, true)).toBe(oneTone);
  });
});

describe('films whose tones are found anew', () => {
  const red = toneOf('Red');
  const filmOfColour = (job: TracedPart, hex: string): Film | undefined => {
    const { tones, films } = separated(job);
    const tone = tones?.find(({ colour }) => colour === hex);
    return films.find(({ film }) => film.id === tone?.film)?.film;
  };
  /** Red renamed and recoloured, black cut from the same film as blue, an area apart, a pair of its own. */
  const worked = (): TracedPart => {
    const named = changeFilm(start, found, found.tones[red].film as string, { name: 'Hull', colour: '#8a1f2b' });
    const merged = mergeTone(named, foundOf(separated(named)), toneOf('Yellow'), toneOf('Blue'));
    const [a, b] = foundOf(separated(merged)).films;
    return { ...merged, separation: { ...(merged.separation as FlatSeparation), pairs: [{ films: [a.id, b.id], meet: 'inset' }] } };
  };

  it('keep their names, colours, merges and pairs, at the same and at other numbers of tones', () => {
    const job = worked();
    const before = separated(job);
    for (const count of ['auto', found.tones.length, found.tones.length + 2] as const) {
      const anew = findTonesAnew(job, foundOf(before), count);
      expect(filmOfColour(anew, found.tones[red].colour), String(count)).toMatchObject({ name: 'Hull', colour: '#8a1f2b' });
      const { tones } = separated(anew);
      const filmIs = (name: string): string | null | undefined => tones?.find(({ colour }) => colour === found.tones[toneOf(name)].colour)?.film;
      expect(filmIs('Yellow')).toBe(filmIs('Blue'));
      expect((anew.separation as FlatSeparation).pairs).toEqual((job.separation as FlatSeparation).pairs);
      expect(isJob(anew)).toBe(true);
    }
  });

  it('come back when a tone that was lost is found again', () => {
    const job = worked();
    const few = findTonesAnew(job, foundOf(separated(job)), 2);
    const again = findTonesAnew(few, foundOf(separated(few)), 'auto');
    expect(filmOfColour(again, found.tones[red].colour)).toMatchObject({ name: 'Hull', colour: '#8a1f2b' });
  });

  it('stay with their colours when an earlier step changes which tone is the most frequent', () => {
    const four: TracedPart = { ...start, separation: { way: 'flat', count: 4, meet: 'stacked' } };
    const paired = knowing(four, found);
    const filmsIn = (job: TracedPart, within: Art): string[] =>
      (finish(outlinePart(job, within)).tones ?? []).map(({ colour, film }) => `${colour} ${film}`).sort();
    const crops = [
      [0, 66],
      [40, 90],
      [22, 82],
    ].map(([left, right]) => cropArt(art, { xPx: left, yPx: 0, widthPx: right - left, heightPx: 60 }));
    // Numbered by how frequent they are, some change places.
    expect(crops.some((crop) => filmsIn(four, crop).some((each) => !filmsIn(four, art).includes(each)))).toBe(true);
    for (const crop of crops) for (const each of filmsIn(paired, crop)) expect(filmsIn(paired, art)).toContain(each);
  });

  it('wait for their way of separating to come back', () => {
    const job = worked();
    const photo = withWay(job, foundOf(separated(job)), { way: 'tones', count: 3, meet: 'stacked' });
    expect(photo.separation).toEqual({ way: 'tones', count: 3, meet: 'stacked' });
    const shades = foundOf(separated(photo));
    const named = changeFilm(photo, shades, shades.films[0].id, { name: 'Shadow' });
    const back = withWay(named, foundOf(separated(named)), { way: 'flat', count: 'auto', meet: 'stacked' });
    expect(separated(back).films.map(({ film }) => film)).toEqual(separated(job).films.map(({ film }) => film));
    const again = withWay(back, foundOf(separated(back)), { way: 'tones', count: 5, meet: 'inset' });
    expect(again.separation).toMatchObject({ count: 3 });
    expect(separated(again).films.map(({ film }) => film.name)).toContain('Shadow');
    expect(isJob(again)).toBe(true);
    const one = withWay(again, foundOf(separated(again)), { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' });
    expect(separated(one).films[0].film).toEqual(start.films[0]);
  });
});

describe('outlines held by hand', () => {
  const held = holdOutlines(start, [
    { film: 'a', from: 'x', path: 'M0 0L1 0L1 1Z' },
    { film: 'b', from: 'y', path: 'M0 0L1 0L1 1Z' },
  ]);
  it('take the place of earlier ones of the same film, and are let go one by one or all', () => {
    expect(holdOutlines(held, [{ film: 'a', from: 'z', path: 'M0 0L2 0L2 2Z' }]).outline.held?.map(({ film, from }) => `${film}${from}`)).toEqual(['by', 'az']);
    expect(letGo(held, 'a').outline.held?.map(({ film }) => film)).toEqual(['b']);
    expect(letGo(held)).toEqual(start);
    expect(findTonesAnew(held, found).outline.held).toBeUndefined();
  });

  it('keep their film’s name from being given to another', () => {
    const taken = `tone-${found.tones.length + 1}`;
    expect(addTone(holdOutlines(start, [{ film: taken, from: '', path: 'M0 0L1 0L1 1Z' }]), found, '#123456').films.at(-1)?.id).not.toBe(taken);
  });
});
