import { z } from 'zod';
import { baseSettingsSchema, holesSettingsSchema } from '../assemble/madeFromAll.ts';
import { recipeSchema } from '../clean/recipe.ts';
import { figureSchema } from '../figure/figure.ts';
import { filmId } from '../film/film.ts';
import { outlineSettingsSchema } from '../outline/outlineSettings.ts';
import { letteringSchema } from '../lettering/lettering.ts';
import { operationsSchema } from '../operate/operation.ts';
import { isPathData } from '../outline/pathData.ts';
import { separationSchema } from '../separate/separation.ts';
import { finishedSizeSchema } from '../units/finishedSize.ts';
import { pictureId } from './picture.ts';
import { say } from '../words/say.ts';

/** Objects that lie in no group, or in one group. */
export const MAX_OBJECTS = 2000;
/** Groups in groups. */
export const MAX_GROUPS_DEEP = 8;
/** Characters of all paths that an imported drawing brings: some hundred thousand nodes. */
const MAX_PATH_CHARS = 6_000_000;

const finite = z.number().min(-1e6).max(1e6);

/** Where an object lies: x' = a·x + c·y + e, y' = b·x + d·y + f, from the object's own mm to the design's. */
export const placementSchema = z
  .strictObject({ a: finite, b: finite, c: finite, d: finite, e: finite, f: finite })
  .refine(({ a, b, c, d }) => Math.abs(a * d - b * c) > 1e-9, say('a placement keeps an area'));

const common = {
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1).max(120).optional(),
  /** As it stands when absent. */
  placement: placementSchema.optional(),
  /** What is done to it, in this order. */
  operations: operationsSchema.optional(),
};

/** What is made of a picture. Its own mm begin at the upper left of what is cut; its size alone tells the px on one of them. */
export const tracedSchema = z.strictObject({
  kind: z.literal('traced'),
  ...common,
  /** Absent until there is one. */
  picture: pictureId.optional(),
  recipe: recipeSchema,
  separation: separationSchema,
  /** How the other ways of separating were left, to go back to; one of each at most. */
  otherWays: z.array(separationSchema).max(4).optional(),
  outline: outlineSettingsSchema,
  size: finishedSizeSchema,
});
export type TracedObject = z.infer<typeof tracedSchema>;

/** Whether what it covers is cut out of all that lies below it, instead of being a film of its own. */
const cutsOut = z.boolean().optional();

export const figureObjectSchema = z.strictObject({ kind: z.literal('figure'), ...common, film: filmId, shape: figureSchema, cutsOut });
export type FigureObject = z.infer<typeof figureObjectSchema>;

/** A text set in a font. Its own mm have their zero in the middle of the box around it. */
export const letteringObjectSchema = z.strictObject({ kind: z.literal('lettering'), ...common, film: filmId, lettering: letteringSchema, cutsOut });
export type LetteringObject = z.infer<typeof letteringObjectSchema>;

/** A film under everything: a border around all, or a board of a shape. */
export const baseSchema = z.strictObject({ kind: z.literal('base'), id: common.id, name: common.name, film: filmId, base: baseSettingsSchema, /** Mends of it, for the most part. */ operations: common.operations });
export type BaseObject = z.infer<typeof baseSchema>;

/** Round holes in every film, to hang it by. */
export const holesSchema = z.strictObject({ kind: z.literal('holes'), id: common.id, name: common.name, holes: holesSettingsSchema });
export type HolesObject = z.infer<typeof holesSchema>;

const importedPath = z.strictObject({
  film: filmId,
  /** M, L, C, Z, absolute, mm. */
  path: z.string().max(MAX_PATH_CHARS).refine(isPathData, say('a path is written with M, L, C and Z')),
});
/** A drawing that came in as outlines. */
export const importedSchema = z.strictObject({
  kind: z.literal('imported'),
  ...common,
  fileName: z.string().max(255),
  paths: z.array(importedPath).min(1).max(64),
});
export type ImportedObject = z.infer<typeof importedSchema>;

/** How what lies in a group is put together, if it is: all as one outline of a film, what is in all, or the lowest without those above it. */
export const groupCombineSchema = z.strictObject({ how: z.enum(['join', 'common', 'cutOut']), film: filmId });
export type GroupCombine = z.infer<typeof groupCombineSchema>;

/** Objects that are placed as one. */
export interface GroupObject {
  kind: 'group';
  id: string;
  name?: string | undefined;
  placement?: z.infer<typeof placementSchema> | undefined;
  operations?: z.infer<typeof operationsSchema> | undefined;
  combine?: GroupCombine | undefined;
  objects: DesignObject[];
}
export type DesignObject = TracedObject | FigureObject | LetteringObject | ImportedObject | BaseObject | HolesObject | GroupObject;

const groupSchema = z.strictObject({
  kind: z.literal('group'),
  ...common,
  combine: groupCombineSchema.optional(),
  get objects(): z.ZodType<DesignObject[]> {
    return z.array(objectSchema).min(1).max(MAX_OBJECTS);
  },
});

/** What a design is made of. */
export const objectSchema = z.discriminatedUnion('kind', [tracedSchema, figureObjectSchema, letteringObjectSchema, importedSchema, baseSchema, holesSchema, groupSchema]);

/** All objects that are no group, lowest first, whatever they lie in. */
export const plainObjects = (objects: readonly DesignObject[]): Exclude<DesignObject, GroupObject>[] =>
  objects.flatMap((object) => (object.kind === 'group' ? plainObjects(object.objects) : [object]));

/** Whether groups of a value from outside lie in each other deeper than is read. Looks at it level by level, so that no depth is too much. */
export function isTooDeep(objects: unknown): boolean {
  let level: unknown[] = [objects];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > MAX_GROUPS_DEEP) return true;
    level = level.flatMap((list) =>
      Array.isArray(list)
        ? list.flatMap((object: unknown) => (typeof object === 'object' && object !== null && 'objects' in object ? [object.objects] : []))
        : [],
    );
  }
  return false;
}
