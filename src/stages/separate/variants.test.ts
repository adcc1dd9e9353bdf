import { describe, expect, it } from 'vitest';
import { jobSchema } from '../../core/job/job.ts';
import { tracedPart, withPart, type TracedPart } from '../../core/job/tracedPart.ts';
import { newJob } from '../../core/job/newJob.ts';
import { variantsOf } from './variants.ts';
import { FRESH, type Way } from './ways.ts';

const jobOf = (way: Way, change: Partial<TracedPart['outline']> = {}): TracedPart => ({ ...tracedPart(newJob('Crest')), separation: FRESH[way], outline: { ...tracedPart(newJob('Crest')).outline, ...change } });

/** Nothing found yet. */
const NONE = { tones: [], films: [] };

describe('variants', () => {
  it('of every way are jobs that differ from it, each under a name of its own', () => {
    for (const way of Object.keys(FRESH) as Way[]) {
      const job = jobOf(way);
      const variants = variantsOf(job, NONE, 5);
      expect(variants.length).toBeGreaterThan(4);
      expect(new Set(variants.map(({ id }) => id)).size).toBe(variants.length);
      for (const variant of variants) {
        expect(jobSchema.safeParse(withPart(newJob('Crest'), variant.part)).success, `${way}: ${variant.id}`).toBe(true);
        expect(variant.part).not.toEqual(job);
      }
      expect(variants.some(({ id }) => id === way)).toBe(false);
    }
  });

  it('count one tone less and more, as far as there are any', () => {
    const counts = (tones: number): unknown[] => variantsOf(jobOf('flat'), NONE, tones).flatMap(({ id, part }) => (id === 'fewer' || id === 'more' ? [(part.separation as { count: number }).count] : []));
    expect(counts(5)).toEqual([4, 6]);
    expect(counts(2)).toEqual([3]);
    expect(counts(32)).toEqual([31]);
  });

  it('stay within what the settings allow', () => {
    const most = variantsOf(jobOf('backDetail', { followPx: 5, leastPieceMm2: 900 }), NONE);
    for (const { part, id } of most) expect(jobSchema.safeParse(withPart(newJob('Crest'), part)).success, id).toBe(true);
    const fine: TracedPart = { ...jobOf('backDetail'), separation: { ...FRESH.backDetail, fineness: 100 } };
    expect(variantsOf(fine, NONE).map(({ id }) => id)).not.toContain('finer');
    expect(variantsOf(fine, NONE).find(({ id }) => id === 'coarser')?.part.separation).toMatchObject({ fineness: 70 });
  });

  it('do not carry outlines over that belong to films which will be others', () => {
    const held = jobOf('flat', { held: [{ film: 'tone-1', from: 'x', path: 'M0 0L1 0L1 1Z' }] });
    const of = (id: string): TracedPart | undefined => variantsOf(held, NONE, 5).find((each) => each.id === id)?.part;
    expect(of('fewer')?.outline.held).toBeUndefined();
    expect(of('tones')?.outline.held).toBeUndefined();
    expect(of('looser')?.outline.held).toHaveLength(1);
  });
});
