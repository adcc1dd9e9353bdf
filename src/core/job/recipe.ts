import { z } from 'zod';
import { areaLift, areaLiftSchema } from '../clean/steps/areaLift.ts';
import { colourLift, colourLiftSchema } from '../clean/steps/colourLift.ts';
import { crop, cropSchema } from '../clean/steps/crop.ts';
import { edgeTidying, edgeTidyingSchema } from '../clean/steps/edgeTidying.ts';
import { enlarging, enlargingSchema } from '../clean/steps/enlarging.ts';
import { fewerColours, fewerColoursSchema } from '../clean/steps/fewerColours.ts';
import { gapMending, gapMendingSchema } from '../clean/steps/gapMending.ts';
import { levels, levelsSchema } from '../clean/steps/levels.ts';
import { lightLevelling, lightLevellingSchema } from '../clean/steps/lightLevelling.ts';
import { linePick, linePickSchema } from '../clean/steps/linePick.ts';
import { smoothing, smoothingSchema } from '../clean/steps/smoothing.ts';
import { squaring, squaringSchema } from '../clean/steps/squaring.ts';
import type { StepKind } from '../clean/steps/step.ts';
import { bringBack, bringBackSchema, drawIn, drawInSchema, rubOut, rubOutSchema } from '../clean/steps/strokes.ts';
import { subjectLift, subjectLiftSchema } from '../clean/steps/subjectLift.ts';
import { sweep, sweepSchema } from '../clean/steps/sweep.ts';
import { turn, turnSchema } from '../clean/steps/turn.ts';

/** One entry of a recipe. */
export const stepSchema = z.discriminatedUnion('kind', [squaringSchema, turnSchema, cropSchema, enlargingSchema, levelsSchema, lightLevellingSchema, smoothingSchema, fewerColoursSchema, gapMendingSchema, linePickSchema, subjectLiftSchema, areaLiftSchema, colourLiftSchema, rubOutSchema, bringBackSchema, drawInSchema, sweepSchema, edgeTidyingSchema]);
export type Step = z.infer<typeof stepSchema>;
export type StepKindName = Step['kind'];

export const MAX_STEPS = 200;
export const recipeSchema = z.array(stepSchema).max(MAX_STEPS);
export type Recipe = readonly Step[];

/** Every kind has a runner: a kind without one does not compile. */
export const STEP_KINDS: { readonly [Kind in StepKindName]: StepKind<Extract<Step, { kind: Kind }>> } = {
  squaring, turn, crop, enlarging, levels, lightLevelling, smoothing, fewerColours, gapMending, linePick, subjectLift, areaLift, colourLift, rubOut, bringBack, drawIn, sweep, edgeTidying,
};

export const STEP_NAMES: Readonly<Record<StepKindName, string>> = {
  squaring: 'Squaring',
  turn: 'Turn',
  crop: 'Crop',
  enlarging: 'Enlarging',
  levels: 'Levels',
  lightLevelling: 'Light levelling',
  smoothing: 'Smoothing',
  fewerColours: 'Fewer colours',
  gapMending: 'Gap mending',
  linePick: 'Line pick',
  subjectLift: 'Subject lift',
  areaLift: 'Area lift',
  colourLift: 'Colour lift',
  rubOut: 'Rub out',
  bringBack: 'Bring back',
  drawIn: 'Draw in',
  sweep: 'Sweep',
  edgeTidying: 'Edge tidying',
};
