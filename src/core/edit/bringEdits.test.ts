import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { USUAL_STOCK } from '../film/stock.ts';
import { translation } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import type { TracedObject } from '../job/objects.ts';
import { readJob } from '../job/readJob.ts';
import { tracedPart } from '../job/tracedPart.ts';
import type { FlatSeparation } from '../separate/separation.ts';
import { withDrawing, withOneFilm, withTracedOf } from './bringEdits.ts';
import { withDuplicate } from './groupEdits.ts';
import { withoutObject } from './objectEdits.ts';

const job = newJob('Crew');
const box = figureCurves({ form: 'rectangle', widthMm: 30, heightMm: 10 });

describe('what comes into a design', () => {
  it('lies on the films of the rack and the shelf that are near enough, and on its own where none is', () => {
    const layers = [
      { name: 'Navy', colour: job.films[0].colour, curves: box },
      { name: 'Red', colour: '#b3272f', curves: box },
      { name: 'Odd', colour: '#00ffcc', curves: box },
    ];
    const next = withDrawing(job, 'drawing-1', 'anchor.svg', layers, USUAL_STOCK, translation(3, 4));
    const films = (next.objects[1] as { paths: { film: string }[] }).paths.map(({ film }) => film);
    expect(films).toEqual([job.films[0].id, 'stock-pennant-red', 'drawing-1-3']);
    expect(next.films.map(({ id }) => id)).toEqual([job.films[0].id, 'stock-pennant-red', 'drawing-1-3']);
    expect(readJob(JSON.parse(JSON.stringify(next)))).toEqual(next);
  });

  it('is a traced part of another picture with what it lies on, and leaves with its picture', () => {
    const picture = (id: string) => ({ id, fileName: `${id}.png`, widthPx: 80, heightPx: 60 });
    const first = { ...job, pictures: [picture('one')], objects: job.objects.map((object) => ({ ...object, picture: 'one' })) };
    const second = { ...newJob('Buoy'), objects: newJob('Buoy').objects.map((object) => ({ ...object, id: 'art-2' })) };
    const both = withTracedOf(first as typeof job, second, picture('two'), translation(0, 90));
    expect(both.pictures.map(({ id }) => id)).toEqual(['one', 'two']);
    expect(tracedPart(both, 'art-2')).toMatchObject({ picture: 'two', placement: { f: 90 } });
    expect(readJob(JSON.parse(JSON.stringify(both)))).toEqual(both);
    expect(withoutObject(both, 'art-2')).toMatchObject({ pictures: [{ id: 'one' }], objects: [{ id: 'art' }] });
    // Either may go, but not both.
    expect(withoutObject(withoutObject(both, 'art'), 'art-2').objects).toHaveLength(1);
  });

  describe('as traced art of another picture', () => {
    const picture = (id: string) => ({ id, fileName: `${id}.png`, widthPx: 80, heightPx: 60 });
    const inFlat = (name: string, id: string, films: Job['films']): Job => {
      const fresh = newJob(name);
      const known = films.map(({ id: film, colour }) => ({ colour, film }));
      const art: TracedObject = { ...(fresh.objects[0] as TracedObject), id, picture: id, separation: { way: 'flat', count: films.length + 1, meet: 'stacked', known, spots: [{ xPx: 4, yPx: 5, film: films[0].id }] } };
      return { ...fresh, films: [...films], objects: [art], pictures: [picture(id)] };
    };
    const navy = { name: 'Navy', colour: '#22375f' };
    const crest = inFlat('Crest', 'art', [{ id: 'tone-1', name: 'Cream', colour: '#efe3c8' }, { id: 'tone-2', ...navy }]);

    it('lies on the films of the same colour, and never on one of another that only has the same id', () => {
      const logo = inFlat('Logo', 'art-2', [{ id: 'tone-1', ...navy }, { id: 'tone-2', name: 'Red', colour: '#b3262e' }]);
      const both = withTracedOf(crest, logo, picture('art-2'), translation(0, 90));
      expect(both.films.map(({ id }) => id)).toEqual(['tone-1', 'tone-2', 'art-2-tone-2']);
      expect(tracedPart(both, 'art-2').separation).toMatchObject({ known: [{ film: 'tone-2' }, { film: 'art-2-tone-2' }], spots: [{ film: 'tone-2' }] });
      expect(tracedPart(both).separation).toEqual(tracedPart(crest).separation);
      expect(readJob(JSON.parse(JSON.stringify(both)))).toEqual(both);
    });

    it('of one colour lies on a film of its own colour, which can be changed for another', () => {
      const stamp = { ...newJob('Stamp'), films: [{ id: 'film-1', name: 'Red', colour: '#b3262e' }], objects: newJob('Stamp').objects.map((object) => ({ ...object, id: 'art-2' })) };
      const alone = withTracedOf(crest, stamp, picture('art-2'), translation(0, 90));
      expect([alone.films.at(-1), tracedPart(alone, 'art-2').separation]).toMatchObject([{ id: 'film-1' }, { way: 'oneTone' }]);
      const twice = withTracedOf(job, stamp, picture('art-2'), translation(0, 90));
      expect(twice.films.map(({ id }) => id)).toEqual(['film-1', 'art-2-film-1']);
      expect(tracedPart(twice, 'art-2').separation).toMatchObject({ film: 'art-2-film-1' });
      const same = withTracedOf(job, { ...stamp, films: [{ id: 'film-1', ...navy }] }, picture('art-2'), translation(0, 90));
      expect([same.films, tracedPart(same, 'art-2').separation]).toEqual([job.films, tracedPart(stamp, 'art-2').separation]);
      expect(tracedPart(withOneFilm(twice, 'art', USUAL_STOCK[0]), 'art').separation).toMatchObject({ film: USUAL_STOCK[0].id });
      expect(tracedPart(withOneFilm(twice, 'art-2', twice.films[0]), 'art-2').separation).not.toHaveProperty('film');
    });

    it('is doubled on the films that its tones have, once those are known', () => {
      const { known: _known, spots: _spots, ...found } = tracedPart(crest).separation as FlatSeparation;
      const unknown = { ...crest, objects: crest.objects.map((object) => ({ ...object, separation: { ...found, count: 'auto' } }) as TracedObject) };
      expect(withDuplicate(unknown, 'art', 'art-3', 8)).toBe(unknown);
      const twice = withDuplicate(unknown, 'art', 'art-3', 8, () => [{ colour: '#ffffff', share: 0.5, film: null }, { colour: '#22375f', share: 0.5, film: 'tone-2' }]);
      expect(tracedPart(twice, 'art-3')).toMatchObject({ picture: 'art', placement: { e: 8, f: 8 }, separation: { known: [{ film: null }, { film: 'tone-2' }] } });
      expect(readJob(JSON.parse(JSON.stringify(twice)))).toEqual(twice);
      expect(tracedPart(withDuplicate(crest, 'art', 'art-3', 8), 'art-3').separation).toEqual(tracedPart(crest).separation);
    });
  });
});
