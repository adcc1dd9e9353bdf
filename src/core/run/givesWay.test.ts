import { expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import { STEP_KINDS, type Step } from '../clean/recipe.ts';
import type { StepContext, StepKind } from '../clean/steps/step.ts';
import { newJob } from '../job/newJob.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import type { Task } from '../task/task.ts';
import { drawnLarger } from './drawnLarger.ts';
import { separateArt } from './separateArt.ts';

/** A tall strip of flat art: rows tell how often work over all of the picture gives way. */
const [WIDTH, HEIGHT] = [90, 1600];
const strip = paintedArt(WIDTH, HEIGHT, (x, y) => {
  const [across, down] = [x - 45, (y % 200) - 100];
  if (Math.hypot(across, down) < 32) return { r: 36, g: 80, b: 154 };
  return Math.abs(across) < 36 && Math.abs(down - 60) < 12 ? { r: 179, g: 38, b: 46 } : WHITE;
});

/** How often a task gives way; what it tells of its progress stays within 0 and 1. */
function turnsOf(task: Task<unknown>): number {
  let turns = 0;
  for (let turn = task.next(); turn.done !== true; turn = task.next()) {
    expect(turn.value).toBeGreaterThanOrEqual(0);
    expect(turn.value).toBeLessThanOrEqual(1);
    turns++;
  }
  return turns;
}

type Settings = { [Kind in Step['kind']]?: Omit<Extract<Step, { kind: Kind }>, 'id' | 'enabled' | 'v' | 'kind'> };
const STEPS: Settings = {
  lightLevelling: { strength: 1 },
  smoothing: { strength: 12 },
  fewerColours: { tones: 'auto' },
  gapMending: { widestPx: 8 },
  linePick: { detail: 0.5 },
  areaLift: { at: { xPx: 2, yPx: 2 }, tolerance: 'auto', enclosed: true, soft: true },
  colourLift: { colour: '#ffffff', tolerance: 6, soft: true },
  subjectLift: { strokes: [] },
  sweep: { speckMm2: 1, pinholeMm2: 1 },
  edgeTidying: { amountPx: 1 },
  turn: { mirrored: true, quarters: 0, angleDeg: 0 },
  enlarging: { times: 2 },
};

/** Each pass over all rows gives way twelve times. */
const OFTEN = HEIGHT / 128 - 1;

it.each(Object.keys(STEPS) as (keyof Settings)[])('%s gives way all along', (kind) => {
  const step = { kind, id: 'one', enabled: true, v: 1, ...STEPS[kind] } as Step;
  const context: StepContext = { picture: strip, finished: { by: 'width', sizeMm: 90, turnDeg: 0 }, enlarge: drawnLarger };
  expect(turnsOf((STEP_KINDS[kind] as StepKind<Step>).run(strip, step, context))).toBeGreaterThan(OFTEN);
});

it('separation gives way all along', () => {
  const { films } = newJob('Strip');
  const task = separateArt({ separation: { way: 'flat', count: 'auto', meet: 'inset' }, films, outline: { leastPieceMm2: 0 } }, strip, DEFAULT_OUTLINE, () => 1);
  expect(turnsOf(task)).toBeGreaterThan(3 * OFTEN);
});
