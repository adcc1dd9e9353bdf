import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { USUAL_STOCK } from '../film/stock.ts';
import { translation } from '../geometry/affine.ts';
import { newJob } from '../job/newJob.ts';
import { readJob } from '../job/readJob.ts';
import { tracedPart } from '../job/tracedPart.ts';
import { withDrawing, withTracedOf } from './bringEdits.ts';
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
});
