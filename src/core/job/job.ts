import { z } from 'zod';
import { layeringSchema } from '../assemble/layering.ts';
import { bridgesSchema } from '../bridge/bridge.ts';
import { guideSchema, MAX_GUIDES } from '../assemble/placeOnBlank.ts';
import { filmSchema, MAX_FILMS } from '../film/film.ts';
import { layoutSchema } from '../layout/layout.ts';
import { blankSchema } from '../process/blanks.ts';
import { handOffSchema } from './handOff.ts';
import { materialsSchema } from './materials.ts';
import { processSchema } from '../process/processes.ts';
import { MAX_OBJECTS, objectSchema, plainObjects } from './objects.ts';
import { orderSchema } from './order.ts';
import { pictureSchema } from './picture.ts';
import { say } from '../words/say.ts';

/** Version of the job format that this code writes. */
export const JOB_VERSION = 4;

/** Pictures that one job may hold. */
export const MAX_PICTURES = 64;

/** Characters of a list of names: some thousand lines. */
export const MAX_NAMES_CHARS = 400_000;

const name = z.string().trim().min(1).max(120);

const collectionName = z.string().trim().min(1).max(60);

/** Whose picture it is and whether it may be used for sale. */
export const rightsSchema = z.strictObject({
  note: z.string().max(2000),
  use: z.enum(['unknown', 'ours', 'allowed', 'notForSale']),
});

const fieldsSchema = z.strictObject({
  format: z.literal('limner-job'),
  version: z.literal(JOB_VERSION),
  name,
  keywords: z.array(z.string().trim().min(1).max(40)).max(40),
  /** Collections of the shelf that it lies in. */
  collections: z.array(collectionName).max(20).optional(),
  rights: rightsSchema,
  blank: blankSchema,
  process: processSchema,
  /** Those of all objects, each once. */
  pictures: z.array(pictureSchema).max(MAX_PICTURES),
  /** The rack, in the order of pressing: what lies on any film of it names it by its id. */
  films: z.array(filmSchema).min(1).max(MAX_FILMS),
  /** What the design is made of, lowest first. */
  objects: z.array(objectSchema).min(1).max(MAX_OBJECTS),
  /** Upper left of the design on the blank's printable area, mm; centred across and near the top when absent. */
  place: z.strictObject({ xMm: z.number().min(-20_000).max(20_000), yMm: z.number().min(-20_000).max(20_000) }).optional(),
  guides: z.array(guideSchema).max(MAX_GUIDES).optional(),
  /** What the films are made of; of what is usual for the process when absent. */
  materials: materialsSchema.optional(),
  /** How its films lie on each other; stacked when absent. */
  layering: layeringSchema.optional(),
  /** How the islands of a stencil are held; by bridges that the program places when absent. */
  bridges: bridgesSchema.optional(),
  layout: layoutSchema,
  /** A list whose lines fill the slots of the letterings, one design for each: CSV whose first line names the slots. */
  names: z.string().max(MAX_NAMES_CHARS).optional(),
  handOff: handOffSchema,
  order: orderSchema.optional(),
});

/** One order: everything but the bytes of its pictures. */
export const jobSchema = fieldsSchema.superRefine(({ objects, pictures }, context) => {
  const plain = plainObjects(objects);
  const wrong = (message: string): void => context.addIssue({ code: 'custom', path: ['objects'], message });
  const traced = plain.filter((object) => object.kind === 'traced');
  if (traced.length === 0) wrong(say('one of them is traced from a picture'));
  if (new Set(plain.map(({ id }) => id)).size < plain.length) wrong(say('each has an id of its own'));
  if (traced.some(({ picture }) => picture !== undefined && pictures.every(({ id }) => id !== picture))) wrong(say('each picture that they name is one of the job'));
});
export type Job = z.infer<typeof jobSchema>;
