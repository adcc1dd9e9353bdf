import { z } from 'zod';
import { areaLift, areaLiftSchema } from './steps/areaLift.ts';
import { colourLift, colourLiftSchema } from './steps/colourLift.ts';
import { crop, cropSchema } from './steps/crop.ts';
import { edgeTidying, edgeTidyingSchema } from './steps/edgeTidying.ts';
import { enlarging, enlargingSchema } from './steps/enlarging.ts';
import { fewerColours, fewerColoursSchema } from './steps/fewerColours.ts';
import { gapMending, gapMendingSchema } from './steps/gapMending.ts';
import { levels, levelsSchema } from './steps/levels.ts';
import { lightLevelling, lightLevellingSchema } from './steps/lightLevelling.ts';
import { linePick, linePickSchema } from './steps/linePick.ts';
import { smoothing, smoothingSchema } from './steps/smoothing.ts';
import { squaring, squaringSchema } from './steps/squaring.ts';
import type { StepKind } from './steps/step.ts';
import { bringBack, bringBackSchema, drawIn, drawInSchema, rubOut, rubOutSchema } from './steps/strokes.ts';
import { subjectLift, subjectLiftSchema } from './steps/subjectLift.ts';
import { sweep, sweepSchema } from './steps/sweep.ts';
import { turn, turnSchema } from './steps/turn.ts';
import { say } from '../words/say.ts';

/** One entry of a recipe. */
export const stepSchema = z.discriminatedUnion('kind', [
  squaringSchema,
  turnSchema,
  cropSchema,
  enlargingSchema,
  levelsSchema,
  lightLevellingSchema,
  smoothingSchema,
  fewerColoursSchema,
  gapMendingSchema,
  linePickSchema,
  subjectLiftSchema,
  areaLiftSchema,
  colourLiftSchema,
  rubOutSchema,
  bringBackSchema,
  drawInSchema,
  sweepSchema,
  edgeTidyingSchema,
]);
export type Step = z.infer<typeof stepSchema>;
export type StepKindName = Step['kind'];

export const MAX_STEPS = 200;
export const recipeSchema = z.array(stepSchema).max(MAX_STEPS);
export type Recipe = readonly Step[];

/** Every kind has a runner: a kind without one does not compile. */
export const STEP_KINDS: { readonly [Kind in StepKindName]: StepKind<Extract<Step, { kind: Kind }>> } = {
  squaring,
  turn,
  crop,
  enlarging,
  levels,
  lightLevelling,
  smoothing,
  fewerColours,
  gapMending,
  linePick,
  subjectLift,
  areaLift,
  colourLift,
  rubOut,
  bringBack,
  drawIn,
  sweep,
  edgeTidying,
};

export const STEP_NAMES: Readonly<Record<StepKindName, string>> = {
  squaring: say('Squaring'),
  turn: say('Turn'),
  crop: say('Crop'),
  enlarging: say('Enlarging'),
  levels: say('Levels'),
  lightLevelling: say('Light levelling'),
  smoothing: say('Smoothing'),
  fewerColours: say('Fewer colours'),
  gapMending: say('Gap mending'),
  linePick: say('Line pick'),
  subjectLift: say('Subject lift'),
  areaLift: say('Area lift'),
  colourLift: say('Colour lift'),
  rubOut: say('Rub out'),
  bringBack: say('Bring back'),
  drawIn: say('Draw in'),
  sweep: say('Sweep'),
  edgeTidying: say('Edge tidying'),
};
