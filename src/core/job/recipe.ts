import { z } from 'zod';
import { areaLift, areaLiftSchema } from '../clean/steps/areaLift.ts';
import { colourLift, colourLiftSchema } from '../clean/steps/colourLift.ts';
import { crop, cropSchema } from '../clean/steps/crop.ts';
import type { StepKind } from '../clean/steps/step.ts';
import { bringBack, bringBackSchema, rubOut, rubOutSchema } from '../clean/steps/strokes.ts';
import { sweep, sweepSchema } from '../clean/steps/sweep.ts';

/** One entry of a recipe. */
export const stepSchema = z.discriminatedUnion('kind', [cropSchema, areaLiftSchema, colourLiftSchema, rubOutSchema, bringBackSchema, sweepSchema]);
export type Step = z.infer<typeof stepSchema>;
export type StepKindName = Step['kind'];

export const MAX_STEPS = 200;
export const recipeSchema = z.array(stepSchema).max(MAX_STEPS);
export type Recipe = readonly Step[];

/** Every kind has a runner: a kind without one does not compile. */
export const STEP_KINDS: { readonly [Kind in StepKindName]: StepKind<Extract<Step, { kind: Kind }>> } = { crop, areaLift, colourLift, rubOut, bringBack, sweep };

export const STEP_NAMES: Readonly<Record<StepKindName, string>> = {
  crop: 'Crop',
  areaLift: 'Area lift',
  colourLift: 'Colour lift',
  rubOut: 'Rub out',
  bringBack: 'Bring back',
  sweep: 'Sweep',
};
