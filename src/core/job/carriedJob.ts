import type { TurnStep } from '../clean/steps/turn.ts';
import { turnedPoint, unturnedPoint } from '../raster/turn.ts';
import { carriedPlaces, type Carry } from './carriedStep.ts';
import { turnedAnew, turnOf } from './carryTurn.ts';
import type { Job, Separation } from './job.ts';
import { scaledRecipe } from './scaledRecipe.ts';

/**
 * The job with a turn of its recipe changed: later steps, and the single areas that were pointed at, stay on what they were put on.
 * @param next the turn as it will be; undefined when it goes. @param size of the picture before the turn.
 */
export function turnedJob(job: Job, id: string, next: TurnStep | undefined, size: { widthPx: number; heightPx: number }): Job {
  const { recipe } = job;
  const at = recipe.findIndex((step) => step.id === id);
  const current = recipe[at];
  const turned = { ...job, recipe: turnedAnew(recipe, id, next, size) };
  // A squared picture lies as its marks say, however the photo was turned.
  if (current?.kind !== 'turn' || recipe.some((step, k) => k > at && step.kind === 'squaring' && step.enabled)) return turned;
  return withSpots(turned, (x, y) => turnedPoint(turnOf(next), size.widthPx, size.heightPx, ...unturnedPoint(turnOf(current), size.widthPx, size.heightPx, x, y)));
}

/** The job for the same picture with `factor` times as many pixels a side. */
export const scaledJob = (job: Job, factor: number): Job => withSpots({ ...job, recipe: scaledRecipe(job.recipe, factor) }, (x, y) => [x * factor, y * factor]);

function withSpots(job: Job, carry: Carry): Job {
  const { separation } = job;
  if (separation.way !== 'flat' || separation.spots === undefined) return job;
  const places = carriedPlaces(separation.spots, carry);
  const carried: Separation = { ...separation, spots: separation.spots.map(({ film }, k) => ({ ...places[k], film })) };
  return { ...job, separation: carried };
}
