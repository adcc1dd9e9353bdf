import { z } from 'zod';
import type { Art } from '../../raster/art.ts';
import type { Task } from '../../task/task.ts';
import type { Find } from '../finds.ts';
import type { FinishedSize } from '../../units/finishedSize.ts';

/** Version of the step formats that this code writes. */
export const STEP_VERSION = 1;

/** What every step has beside its own settings. */
export const stepBase = {
  id: z.string().min(1).max(64),
  enabled: z.boolean(),
  v: z.literal(STEP_VERSION),
};

/** A point in picture pixels (corners are whole, centres at +0.5). */
export const pointSchema = z.strictObject({ xPx: z.number().finite(), yPx: z.number().finite() });

/** A rectangle in picture pixels. */
export const rectSchema = z.strictObject({
  xPx: z.number().finite(),
  yPx: z.number().finite(),
  widthPx: z.number().positive().finite(),
  heightPx: z.number().positive().finite(),
});

/** Places of finds that the step leaves alone, in picture pixels. */
export const sparedSchema = z.array(pointSchema).max(5000).optional();

/** What a step may know besides the art that reaches it. */
export interface StepContext {
  /** The picture as it came, or as the last step that turned or squared it left it; its pixels may be fewer than the art's. */
  readonly picture: Art;
  readonly finished: FinishedSize;
  /** Makes art larger. Flat art is drawn anew from its outlines for it, which steps know nothing of: who runs them does. */
  readonly enlarge: (art: Art, times: 2 | 4) => Task<Art>;
}

/** Numbers that a step found out, for its card: tolerance, counts. */
export type StepFacts = Readonly<Record<string, number>>;

export interface StepOutcome {
  readonly art: Art;
  readonly facts: StepFacts;
  /** What it found by itself, in picture pixels. */
  readonly finds?: readonly Find[];
}

export interface StepKind<Step> {
  /** One line on what it does, shown where steps are chosen. */
  readonly about: string;
  /** Raised whenever the result for the same settings changes, so that stored results are not reused. */
  readonly revision: number;
  /** Whether the result depends on the finished size. */
  readonly readsSize: boolean;
  /** The result takes the picture's place: later steps count their places from its upper left corner, and bring back reads it. */
  readonly isBase?: true;
  readonly run: (art: Art, step: Step, context: StepContext) => Task<StepOutcome>;
}
