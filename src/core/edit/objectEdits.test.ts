import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import { readJob } from '../job/readJob.ts';
import { withDuplicate, withGroup, withoutGroup } from './groupEdits.ts';
import { nameOfObject, withNewObject, withObjectChanged, withObjectMoved, withoutObject, type FilmedObject } from './objectEdits.ts';
import { operationsOf, withNearestPieces, withOperation, withOperationChanged, withOperationMoved, withoutOperation, withPiecesMore } from './operationEdits.ts';
import { anchorOf, withAligned, withMirrored, withScaled, withShifted, withSpread, withTurned, type Boxed } from './placeEdits.ts';
import { snapped } from './snap.ts';

const film = { id: 'gold', name: 'Brass gold', colour: '#b9751a' };
const name: FilmedObject = { kind: 'lettering', id: 'name', film: 'gold', lettering: { text: 'Row\n46', font: 'Oswald', heightMm: 20 } };
const bar: FilmedObject = { kind: 'figure', id: 'bar', film: 'gold', shape: { form: 'rectangle', widthMm: 80, heightMm: 12 } };
const start = newJob('Crew');
const both = withNewObject(withNewObject(start, bar, film), name, film);
const placementOf = (job: Job, id: string): unknown => {
  const found = job.objects.find((each) => each.id === id);
  return found !== undefined && 'placement' in found ? found.placement : undefined;
};
const ids = (job: Job): string[] => job.objects.map(({ id }) => id);

describe('parts of a design', () => {
  it('come on top, bring their film once, and stay a job that can be read again', () => {
    expect(ids(both)).toEqual(['art', 'bar', 'name']);
    expect(both.films.filter(({ id }) => id === 'gold')).toHaveLength(1);
    expect(readJob(JSON.parse(JSON.stringify(both)))).toEqual(both);
    expect(start.objects).toHaveLength(1);
  });

  it('are moved in their order, stop at its ends, and shifted', () => {
    expect(ids(withObjectMoved(both, 'name', -1))).toEqual(['art', 'name', 'bar']);
    expect(ids(withObjectMoved(both, 'name', -9))).toEqual(['name', 'art', 'bar']);
    expect(withObjectMoved(both, 'name', 1)).toBe(both);
    const shifted = withShifted(withShifted(both, new Set(['bar']), 3, 4), new Set(['bar']), -1, 2);
    expect(placementOf(shifted, 'bar')).toEqual({ a: 1, b: 0, c: 0, d: 1, e: 2, f: 6 });
  });

  it('are changed, doubled and taken off, but for traced art', () => {
    const bigger = withObjectChanged<typeof name>(both, 'name', (object) => ({ ...object, cutsOut: true }));
    expect(bigger.objects[2]).toMatchObject({ cutsOut: true });
    expect(ids(withDuplicate(both, 'bar', 'bar-2', 5))).toEqual(['art', 'bar', 'name', 'bar-2']);
    expect(ids(withoutObject(both, 'bar'))).toEqual(['art', 'name']);
    expect(ids(withoutObject(both, 'art'))).toEqual(ids(both));
    const grouped: Job = { ...both, objects: [both.objects[0], { kind: 'group', id: 'g', objects: [bar] }] };
    expect(ids(withoutObject(grouped, 'bar'))).toEqual(['art']);
  });

  it('are called by what they are', () => {
    expect(both.objects.map((object) => nameOfObject(object, 'crest.png'))).toEqual(['crest.png', 'Rectangle', '“Row 46”']);
    expect(nameOfObject({ ...bar, name: 'Board' })).toBe('Board');
  });
});

const box = (left: number, top: number, width = 10, height = 10) => ({ left, top, right: left + width, bottom: top + height });
const three: Boxed[] = [
  { id: 'art', box: box(0, 0) },
  { id: 'bar', box: box(12, 30, 20) },
  { id: 'name', box: box(50, 5) },
];
const shiftOf = (job: Job, id: string): readonly [number, number] => {
  const at = placementOf(job, id) as { e: number; f: number } | undefined;
  return [at?.e ?? 0, at?.f ?? 0];
};

describe('parts in their places', () => {
  it('are turned, mirrored and scaled about a place that stays', () => {
    const turned = withTurned(both, new Set(['bar']), Math.PI / 2, 10, 0);
    expect(placementOf(turned, 'bar')).toEqual({ a: 0, b: 1, c: -1, d: 0, e: 10, f: -10 });
    const back = withMirrored(withMirrored(turned, new Set(['bar']), 'leftRight', 3, 9), new Set(['bar']), 'leftRight', 3, 9);
    expect(placementOf(back, 'bar')).toEqual(placementOf(turned, 'bar'));
    const large = withScaled(both, 'bar', 2, 80, 12);
    expect(large.objects[1]).toMatchObject({ shape: { widthMm: 160, heightMm: 24 }, placement: { a: 1, e: -80, f: -12 } });
    expect(withScaled(both, 'name', 0.5, 0, 0).objects[2]).toMatchObject({ lettering: { heightMm: 10 } });
    expect(withScaled(both, 'art', 2, 0, 0).objects[0]).toMatchObject({ size: { sizeMm: 2 * (start.objects[0] as { size: { sizeMm: number } }).size.sizeMm } });
  });

  it('are brought to one line, and spread with equal gaps', () => {
    const middle = withAligned(both, three, 'middle');
    expect(three.map(({ id, box: own }) => (own.top + own.bottom) / 2 + shiftOf(middle, id)[1])).toEqual([20, 20, 20]);
    const left = withAligned(both, three.slice(1), 'left', box(-5, 0));
    expect([shiftOf(left, 'bar')[0], shiftOf(left, 'name')[0], shiftOf(left, 'art')[0]]).toEqual([-17, -55, 0]);
    const spread = withSpread(both, three, 'across');
    expect([shiftOf(spread, 'art')[0], shiftOf(spread, 'bar')[0], shiftOf(spread, 'name')[0]]).toEqual([0, 8, 0]);
    expect(withSpread(both, three.slice(0, 2), 'across')).toBe(both);
  });

  it('have nine anchors', () => {
    expect([anchorOf(box(0, 0, 20), 'topLeft'), anchorOf(box(0, 0, 20), 'bottom'), anchorOf(box(0, 0, 20), 'right')]).toEqual([{ x: 0, y: 0 }, { x: 10, y: 10 }, { x: 20, y: 5 }]);
  });

  it('snap to edges, middles, lines and equal gaps, by the least that does', () => {
    const others = [box(0, 0), box(20, 0)];
    expect(snapped(box(0.6, 40), { boxes: others, lines: [] }, 1)).toMatchObject({ x: expect.closeTo(-0.6, 9), y: 0, lines: [{ way: 'upright' }] });
    expect(snapped(box(44.8, 3.2), { boxes: [], lines: [{ way: 'upright', at: 50 }] }, 1)).toMatchObject({ x: expect.closeTo(0.2, 9), y: 0 });
    expect(snapped(box(40.4, 1.5), { boxes: others, lines: [] }, 0.5)).toMatchObject({ x: expect.closeTo(-0.4, 9) });
    expect(snapped(box(300, 300), { boxes: others, lines: [] }, 1)).toEqual({ x: 0, y: 0, lines: [] });
  });

  it('go together in a group and come out of it where they are seen', () => {
    const grouped = withGroup(both, new Set(['bar', 'name']), 'g');
    expect(ids(grouped)).toEqual(['art', 'g']);
    expect(readJob(JSON.parse(JSON.stringify(grouped)))).toEqual(grouped);
    const moved = withShifted(grouped, new Set(['g']), 5, 6);
    // One inside of it is moved as seen from outside.
    const inner = withShifted(withTurned(moved, new Set(['g']), Math.PI / 2, 0, 0), new Set(['bar']), 1, 0);
    const out = withoutGroup(inner, 'g');
    expect(ids(out)).toEqual(['art', 'bar', 'name']);
    expect(shiftOf(out, 'bar').map((v) => Math.round(v))).toEqual([-5, 5]);
    expect(shiftOf(out, 'name').map((v) => Math.round(v))).toEqual([-6, 5]);
    expect(withGroup(both, new Set(['bar']), 'g')).toBe(both);
    const joined = withGroup(both, new Set(['bar', 'name']), 'g', { how: 'cutOut', film: { id: 'red', name: 'Red', colour: '#aa0000' } });
    expect(joined.objects[1]).toMatchObject({ kind: 'group', combine: { how: 'cutOut', film: 'red' } });
    expect(joined.films.some(({ id }) => id === 'red')).toBe(true);
    const twice = withDuplicate(joined, 'g', 'g2', 4);
    expect(ids(twice)).toEqual(['art', 'g', 'g2']);
    expect(new Set(JSON.stringify(twice).match(/"id":"(?:g\b|g2|bar|name)[^"]*"/g)).size).toBe(6);
  });
});

describe('operations of a part', () => {
  const thicker = { id: 'a', kind: 'thicken', byMm: 1 } as const;
  const off = (x: number) => ({ id: `o${x}`, kind: 'takeOff' as const, pieces: [{ film: 'gold', x, y: 0 }] });
  const operated = withOperation(withOperation(both, 'bar', thicker), 'bar', { id: 'b', kind: 'border', film: 'white', widthMm: 2, corners: 'round', openings: 'filled' }, { id: 'white', name: 'White', colour: '#ffffff' });
  const of = (job: Job) => operationsOf(job.objects[1]);

  it('are put on its list, changed, moved, taken off; a border brings its film below all', () => {
    expect(of(operated).map(({ id }) => id)).toEqual(['a', 'b']);
    expect(operated.films[0].id).toBe('white');
    expect(readJob(JSON.parse(JSON.stringify(operated)))).toEqual(operated);
    expect(of(withOperationChanged(operated, 'bar', 'a', { byMm: 3 }))[0]).toMatchObject({ byMm: 3 });
    expect(of(withOperationMoved(operated, 'bar', 'b', -1)).map(({ id }) => id)).toEqual(['b', 'a']);
    expect(withOperationMoved(operated, 'bar', 'a', -1).objects).toEqual(operated.objects);
    const none = withoutOperation(withoutOperation(operated, 'bar', 'a'), 'bar', 'b');
    expect('operations' in none.objects[1]).toBe(false);
  });

  it('take more pieces in one entry as long as it is the last of its kind', () => {
    const isSame = (operation: { kind: string }): boolean => operation.kind === 'takeOff';
    const once = withPiecesMore(operated, 'bar', off(1).pieces, isSame, () => off(1));
    const twice = withPiecesMore(once, 'bar', off(2).pieces, isSame, () => off(2));
    expect(of(twice).map(({ kind }) => kind)).toEqual(['thicken', 'border', 'takeOff']);
    expect(of(twice)[2]).toMatchObject({ pieces: [{ x: 1 }, { x: 2 }] });
  });

  it('take the nearest pieces for those that went, and go when none is left', () => {
    const lost = withOperation(both, 'bar', { ...off(1), pieces: [...off(1).pieces, { film: 'gold', x: 9, y: 9 }] });
    const found = withNearestPieces(lost, 'bar', 'o1', [{ mark: { film: 'gold', x: 1, y: 0 }, nearest: { film: 'gold', x: 3, y: 3 } }, { mark: { film: 'gold', x: 9, y: 9 } }]);
    expect(of(found)[0]).toMatchObject({ pieces: [{ film: 'gold', x: 3, y: 3 }] });
    expect(of(withNearestPieces(withOperation(both, 'bar', off(1)), 'bar', 'o1', [{ mark: { film: 'gold', x: 1, y: 0 } }]))).toEqual([]);
  });
});
