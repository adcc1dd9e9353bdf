import { isAppError } from '../errors/appError.ts';
import { artFromPicture, pictureFromArt } from '../raster/art.ts';
import { withProcess } from '../edit/withProcess.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { finish, within, type Task } from '../task/task.ts';
import { firstLook } from './firstLook.ts';
import { liftAt } from '../clean/liftAt.ts';
import { paintedSquares } from '../clean/squares/paintedSquares.ts';
import { say } from '../words/say.ts';
import type { Job } from '../job/job.ts';
import type { Film } from '../film/film.ts';
import { canonicalJson } from '../task/hash.ts';
import { newJob } from '../job/newJob.ts';
import { tracedPart, withPart } from '../job/tracedPart.ts';
import type { Recipe } from '../clean/recipe.ts';
import { MOST_PROPOSALS, type Asking, type Proposal, type Proposals } from './proposal.ts';
import { flatProposals } from './flatProposals.ts';
import { areaProposals, shadedProposals } from './shadedProposals.ts';

/** Tones are found on a picture reduced to this side, px: enough for the thinnest lines that can be weeded. */
const SIDE_PX = 1600;

/** Takes a job up as a proposal says. @param id of the part that the proposal is for; the lowest when absent. */
export function startedWith(job: Job, { start: { process, ...start } }: Proposal, id?: string): Job {
  return withProcess(withPart(job, { ...tracedPart(job, id), ...start }), process);
}

/**
 * Looks at a picture and proposes how to start a job with it: recipe, way of separating, tones, films as they lie on the shelf, how they meet, size on the
 * blank, and another process where the job's own does not suit. A second at most whatever the picture's size.
 */
export function* propose(job: Job, picture: Rgba8, stock: readonly Film[]): Task<Proposals> {
  const small = shrinkToSide(picture, SIDE_PX);
  const art = artFromPicture(small, small.width / picture.width);
  const squares = yield* within(paintedSquares(art), 0, 0.1);
  if (squares === undefined) return yield* within(proposedFor({ job, look: firstLook(picture), stock, art }), 0.1, 1);
  const { frame, width } = art;
  const place = insideOf(squares.mask, width);
  const at = { xPx: ((place % width) + 0.5) / frame.scale, yPx: (Math.floor(place / width) + 0.5) / frame.scale };
  const lift = { kind: 'areaLift', id: 'look-squares', enabled: true, v: 1, at, tolerance: 'auto', enclosed: false, soft: true } as const;
  const lifted = (yield* within(liftAt(art, place % width, Math.floor(place / width), { tolerance: 'auto', everywhere: false, enclosed: false, soft: true }), 0.1, 0.4)).art;
  const seen = firstLook(pictureFromArt(lifted));
  const look = { ...seen, recipe: [lift, ...seen.recipe] };
  const found = yield* within(proposedFor({ job, look: seen, stock, art: lifted }), 0.4, 1);
  const withLift = (each: Proposal): Proposal => ({ ...each, words: say`${each.words} The squares around it stand for clear: they are lifted.`, start: { ...each.start, recipe: [lift, ...each.start.recipe] } });
  return { ...found, look, proposals: found.proposals.map(withLift) };
}

/** A pixel that has only pixels of a mask around it, where there is one: what a larger picture has there is sure to be the same. */
function insideOf(mask: Uint8Array, width: number): number {
  const around = [-width - 1, -width, -width + 1, -1, 0, 1, width - 1, width, width + 1];
  const inside = mask.findIndex((_, i) => i % width > 0 && i % width < width - 1 && around.every((by) => mask[i + by] === 1));
  return inside < 0 ? mask.indexOf(1) : inside;
}

function* proposedFor(ask: Asking): Task<Proposals> {
  const { look } = ask;
  try {
    if (look.kind === 'flat' || look.kind === 'line') return yield* flatProposals(ask);
    const flattened = look.kind === 'shaded' ? yield* areaProposals(ask) : [];
    return { look, isSure: false, proposals: [...flattened, ...shadedProposals(ask)].slice(0, MOST_PROPOSALS) };
  } catch (error) {
    if (isAppError(error)) return { look, isSure: false, proposals: [] };
    throw error;
  }
}

/** Whether a job stands as a proposal starts it: the same steps, way of separating and process. */
export function isStartedWith(job: Job, { start }: Proposal, id?: string): boolean {
  const part = tracedPart(job, id);
  const steps = (recipe: Recipe): string => canonicalJson(recipe.map(({ id: _id, ...step }) => step));
  return job.process === start.process && steps(part.recipe) === steps(start.recipe) && canonicalJson(part.separation) === canonicalJson(start.separation);
}

/** The job with nothing done to its picture: no step, one film. Blank, process and size stay. */
export function asCame(job: Job, id?: string): Job {
  const { separation, films } = tracedPart(newJob(job.name));
  return withPart(job, { ...tracedPart(job, id), recipe: [], separation, films });
}

export function isAsCame(job: Job, id?: string): boolean {
  const { recipe, separation } = tracedPart(job, id);
  return recipe.length === 0 && canonicalJson(separation) === canonicalJson(tracedPart(newJob(job.name)).separation);
}

/**
 * The job as the likeliest proposal starts it that keeps its process: nobody is there to agree to another; as it is where the picture gives none.
 * @param widthMm finished width in place of the usual one.
 */
export function proposedJob(job: Job, picture: Rgba8, stock: readonly Film[], widthMm?: number): Job {
  const { proposals } = finish(propose(job, picture, stock));
  const likeliest = proposals.find(({ start }) => start.process === job.process) ?? proposals[0];
  const started = likeliest === undefined ? job : startedWith(job, likeliest);
  if (widthMm === undefined) return started;
  const part = tracedPart(started);
  return withPart(started, { ...part, size: { ...part.size, by: 'width', sizeMm: widthMm } });
}

