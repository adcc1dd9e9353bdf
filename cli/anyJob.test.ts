import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { anyOf } from '../tests/fixtures/anyOf.ts';
import { discFiles } from '../tests/fixtures/files.ts';
import { checkLimits } from '../src/core/check/cutCheck.ts';
import { workingSize } from '../src/core/check/workingSize.ts';
import { isAppError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import { jobSchema, type Job } from '../src/core/job/job.ts';
import { FILE_KINDS } from '../src/core/job/handOff.ts';
import { materialOf } from '../src/core/job/materials.ts';
import { newJob } from '../src/core/job/newJob.ts';
import type { DesignObject } from '../src/core/job/objects.ts';
import { readArchive, writeArchive } from '../src/formats/archive/archive.ts';
import { jobFiles } from '../src/engine/jobFiles.ts';
import { cutInput } from './cutInput.ts';
import { encodeFile } from './encodeFile.ts';
import { shapeTools } from './shapeTools.ts';

const RUNS = Number(process.env['LIMNER_JOBS'] ?? 15);
const bytes = new Uint8Array((await discFiles()).png);

/** A usual job with some of its fields as chance has them, all within what its schema allows; its parts are on films that it has. */
const fields = (jobSchema as unknown as { _zod: { def: { shape: Record<string, z.ZodType> } } })._zod.def.shape;
const FIELDS = ['blank', 'process', 'films', 'objects', 'place', 'materials', 'layering', 'bridges', 'layout', 'handOff', 'order', 'collections', 'rights'] as const;
const anyJob: fc.Arbitrary<Job> = fc
  .record(Object.fromEntries(FIELDS.map((field) => [field, anyOf(fields[field])])), { requiredKeys: [] })
  .map((some): unknown => {
    const start = newJob('Any job');
    const job = { ...start, ...some } as Job;
    const films = job.films.length === 0 ? start.films : job.films;
    const onFilms = (object: DesignObject): DesignObject => {
      if (object.kind === 'group') return { ...object, objects: object.objects.map(onFilms) };
      return 'film' in object ? { ...object, film: films[0].id } : object.kind === 'imported' ? { ...object, paths: object.paths.map((path) => ({ ...path, film: films[0].id })) } : object;
    };
    const traced = start.objects[0];
    const beside = (some['objects'] === undefined ? [] : job.objects).filter(({ kind }) => kind !== 'traced').map(onFilms);
    return { ...job, films, objects: [traced, ...beside].map((object, k) => ({ ...object, id: `object-${k}` })) };
  })
  .filter((job) => jobSchema.safeParse(job).success)
  .map((job) => jobSchema.parse(job));

describe('any job that passes the schema', () => {
  it('comes back from its archive as it was, and is cut and handed off, or says why not', async () => {
    await fc.assert(
      fc.asyncProperty(anyJob, async (job) => {
        expect((await readArchive(await writeArchive({ job, pictures: new Map() }), 'any.limner')).job).toEqual(JSON.parse(JSON.stringify(job)));
        try {
          const { cut, arts, clean } = await cutInput(job, { name: 'disc.png', bytes });
          let count = 0;
          for await (const file of jobFiles(FILE_KINDS, { job, cut, arts, art: clean.art, name: 'any', date: '2026-11-28', tools: shapeTools, encode: encodeFile })) count += file.bytes.length > 0 ? 1 : 0;
          expect(count).toBeGreaterThan(0);
          expect(workingSize(cut.design, (film) => checkLimits(materialOf(job, film))).downToMm).toBeGreaterThanOrEqual(0);
        } catch (error) {
          if (!isAppError(error)) throw error;
          expect(explain(error).what).not.toBe('');
        }
      }),
      { seed: 2611, numRuns: RUNS },
    );
  }, 240_000);
});
