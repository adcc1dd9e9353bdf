import { cellsAbove, distanceTo } from '../../raster/distance.ts';
import { labelRegions, largestRegion } from '../../raster/labelRegions.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import { shrinkToSide } from '../../raster/shrink.ts';
import { within, type Task } from '../../task/task.ts';
import { noiseLevel } from '../noiseLevel.ts';
import { smoothNoise } from '../sigmaFilter.ts';
import { basinsOf } from './basins.ts';
import { betterSubject } from './betterSubject.ts';
import { certainGround, DOUBTFUL, GROUND, groundAreas, shadeOf, SUBJECT } from './groundAreas.ts';
import { MARK } from './marks.ts';
import { minCut, type GridCut } from './minCut.ts';
import { planesOf, type Planes, type Three } from '../planes.ts';
import { refineMask } from './refineMask.ts';
import { sharpEdges, type SharpEdges } from './sharpEdges.ts';
import { smoothGround, type SmoothGround } from './smoothGround.ts';
import { standingOut } from './standingOut.ts';

export interface FoundSubject {
  /** 1 where the subject is. */
  readonly subject: Uint8Array;
  /** What the ground looks like, under the subject too. */
  readonly ground: SmoothGround;
  /** The picture as it was looked at: its noise smoothed. */
  readonly colours: Planes;
  /** Whether anything tells the subject from what is behind it; else strokes have to say what it is. */
  readonly isSure: boolean;
}

/** What stands out is looked for on a picture reduced to this side, px. */
const STAND_OUT_SIDE_PX = 300;

/**
 * Tells the subject of a picture from its ground in two ways, by areas between sharp edges and by what stands out, and takes that which the picture bears out
 * better (`betterSubject.ts`).
 * @param marks one of `MARK` or 0 for each pixel. @param bySaying takes the marks for strokes that tell what the subject is, where nothing else does.
 */
export function* findSubject(picture: Rgba8, marks: Uint8Array, bySaying = false): Task<FoundSubject> {
  const noise = noiseLevel(picture);
  const smooth = noise > QUIET ? yield* within(smoothNoise(picture, Math.max(8, 4 * noise)), 0, 0.15) : picture;
  const colours = planesOf(smooth);
  yield 0.15;
  const edges = sharpEdges(smooth, colours);
  yield 0.16;
  const standing = yield* within(refinedStanding(smooth, marks), 0.16, 0.28);
  yield 0.28;
  const around = groundAround(colours, standing);
  yield 0.3;
  const asStanding = (isSure: boolean): FoundSubject => ({ subject: standing, ground: around, colours, isSure });
  if (bySaying) return asStanding(false);
  const byAreas = yield* within(subjectByAreas(colours, edges, marks), 0.3, 1);
  const verdict = betterSubject({ byAreas: byAreas.subject, standing, ground: around.colour, colours, edges });
  return verdict === 'areas' ? { ...byAreas, colours, isSure: byAreas.subject.includes(1) } : asStanding(verdict === 'standing');
}

/** The same as what stands out, with the border where the picture's own edges are. */
function* refinedStanding(picture: Rgba8, marks: Uint8Array): Task<Uint8Array> {
  const { width, height } = picture;
  const small = shrinkToSide(picture, STAND_OUT_SIDE_PX);
  const colours = planesOf(small);
  const few = new Uint8Array(small.width * small.height);
  for (let i = 0; i < marks.length; i++)
    if (marks[i] !== 0)
      few[Math.floor((Math.floor(i / width) * small.height) / height) * small.width + Math.floor(((i % width) * small.width) / width)] = marks[i];
  const mask = yield* within(standingOut(colours, sharpEdges(small, colours).sharp, few), 0, 0.8);
  return small.width === width ? mask : yield* within(refineMask(picture, mask, small.width, small.height), 0.8, 1);
}

/** The ground continued from all that lies clear of the subject. */
function groundAround(colours: Planes, subject: Uint8Array): SmoothGround {
  const { width, height } = colours;
  const clear = cellsAbove(distanceTo(subject, width, height), CLEAR_OF_EDGE_PX);
  // A subject that leaves no room tells nothing of the ground.
  return smoothGround(colours, clear.includes(1) ? clear : clear.fill(1));
}

/**
 * Areas are parted by sharp edges (flat art laid on paper or on a softened photograph has them, shadows and light have not); those along the picture's border
 * and what joins them without an edge are ground, continued smoothly under the rest; a graph cut then decides each pixel by its area, its colour against that
 * ground, and edges (after Y. Boykov & M.-P. Jolly, "Interactive graph cuts", ICCV 2001, doi:10.1109/ICCV.2001.937505).
 */
function* subjectByAreas(colours: Planes, edges: SharpEdges, marks: Uint8Array): Task<{ subject: Uint8Array; ground: SmoothGround }> {
  const { width, height } = colours;
  const basins = basinsOf(edges.sharp, width, height);
  yield 0.3;
  const isGround = yield* within(groundAreas(basins, edges.sharp, colours, edges.noise, marks), 0.3, 0.35);
  const seen: Seen = { colours, area: Uint8Array.from(basins.labels, (label) => isGround[label]), sharp: edges.sharp, noise: edges.noise, marks };
  let certain = certainGround(basins, isGround, colours);
  yield 0.4;
  let ground = smoothGround(colours, certain);
  yield 0.5;
  const first = gridOf(seen, ground, certain);
  yield 0.5;
  let subject = minCut(first);
  for (let round = 1; round < ROUNDS; round++) {
    yield 0.5 + (0.5 * round) / ROUNDS;
    // What was found to be ground tells what the ground looks like close to the subject.
    const away = distanceTo(subject, width, height);
    certain = cellsAbove(away, CLEAR_OF_EDGE_PX);
    if (!certain.includes(1)) break;
    ground = smoothGround(colours, certain);
    yield 0.6 + (0.4 * round) / ROUNDS;
    const next = gridOf(seen, ground, certain);
    yield 0.7 + (0.3 * round) / ROUNDS;
    subject = minCut(next);
  }
  yield 0.98;
  dropSoftParts(subject, edges.sharp, marks, width, height);
  return { subject, ground };
}

/** Times the ground is continued and the cut taken. */
const ROUNDS = 2;
/** Ground nearer to the subject may be mixed, px. */
const CLEAR_OF_EDGE_PX = 2;

/** Noise that is left as it is, levels. */
const QUIET = 0.7;

/** What it costs to disagree with the areas. */
const AREA_COST = 2.5;
/** Most that the colour of one pixel can say against the ground, and what it says for it when it is just as the ground. */
const MOST_COST = 8;
/** The ground strays twice as far so far from where it is known, px. */
const UNSURE_PX = 5;
const SMOOTH_COST = 3;
const FIXED_COST = 1e4;

/** What is known of every pixel before the ground is. */
interface Seen {
  readonly colours: Planes;
  readonly area: Uint8Array;
  readonly sharp: Float32Array;
  readonly noise: number;
  readonly marks: Uint8Array;
}

function gridOf({ colours, area, sharp, noise, marks }: Seen, ground: SmoothGround, certain: Uint8Array): GridCut {
  const { width, height, planes } = colours;
  const n = width * height;
  const terminal = new Float32Array(n);
  const right = new Float32Array(n);
  const down = new Float32Array(n);
  const floor = 9 + 6 * noise * noise;
  const far = distanceTo(certain, width, height);
  const mayShade = isCalm(ground, certain, noise);
  for (let i = 0; i < n; i++) {
    // Only what joined the ground by itself may be its shadow: dark art on a light ground would look the same.
    const distance =
      mayShade && area[i] === GROUND && sharp[i] === 0 ? shadedDistance(planes, ground.colour.planes, i) : plainDistance(planes, ground.colour.planes, i);
    const unsure = area[i] === GROUND ? (1 + far[i] / UNSURE_PX) ** 2 : 1;
    const stray = distance / (floor + 2 * ground.spread[i] * unsure);
    const colour = Math.min(MOST_COST, 0.5 * stray) - 2;
    terminal[i] = colour + (area[i] === SUBJECT ? AREA_COST : area[i] === DOUBTFUL ? 0 : certain[i] === 0 ? -0.5 : -2 * AREA_COST);
    if (marks[i] !== 0) terminal[i] = marks[i] === MARK.keep ? FIXED_COST : -FIXED_COST;
    if ((i + 1) % width !== 0) right[i] = SMOOTH_COST / (1 + Math.max(sharp[i], sharp[i + 1]));
    if (i + width < n) down[i] = SMOOTH_COST / (1 + Math.max(sharp[i], sharp[i + width]));
  }
  return { width, height, terminal, right, down };
}

/** Squared straying, levels², up to which a ground is paper or a plain colour, where a shadow can be told. */
const CALM = 60;

function isCalm({ spread }: SmoothGround, certain: Uint8Array, noise: number): boolean {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < certain.length; i++) {
    if (certain[i] === 0) continue;
    sum += spread[i];
    count++;
  }
  return count > 0 && sum / count < CALM + 3 * noise * noise;
}

const plainDistance = (a: Three, b: Three, i: number): number => (a[0][i] - b[0][i]) ** 2 + (a[1][i] - b[1][i]) ** 2 + (a[2][i] - b[2][i]) ** 2;

function shadedDistance(a: Three, b: Three, i: number): number {
  const shade = shadeOf(a[0][i] * b[0][i] + a[1][i] * b[1][i] + a[2][i] * b[2][i], b[0][i] ** 2 + b[1][i] ** 2 + b[2][i] ** 2);
  return (a[0][i] - shade * b[0][i]) ** 2 + (a[1][i] - shade * b[1][i]) ** 2 + (a[2][i] - shade * b[2][i]) ** 2;
}

/** Parts of the subject whose border is less sharp than this share of the sharpest large part's are the ground's own marks. */
const SHARP_PART = 0.3;

/** Clears loose parts that are no sharper than a softened ground's own marks, and single pixels. */
function dropSoftParts(subject: Uint8Array, sharp: Float32Array, marks: Uint8Array, width: number, height: number): void {
  const parts = labelRegions(subject, width, height, 1, true);
  if (parts.count < 2) return;
  const sum = new Float64Array(parts.count);
  const length = new Float64Array(parts.count);
  const kept = new Uint8Array(parts.count);
  for (let run = 0; run < parts.runStart.length; run++) {
    const part = parts.regionOfRun[run];
    for (let i = parts.runStart[run]; i < parts.runEnd[run]; i++) {
      if (marks[i] === MARK.keep) kept[part] = 1;
      const x = i % width;
      if (
        (x > 0 && subject[i - 1] === 0) ||
        (x < width - 1 && subject[i + 1] === 0) ||
        (i >= width && subject[i - width] === 0) ||
        (i + width < subject.length && subject[i + width] === 0)
      ) {
        length[part]++;
        sum[part] += sharp[i];
      }
    }
  }
  const largest = parts.area[largestRegion(parts)];
  let sharpest = 0;
  for (let k = 0; k < parts.count; k++) if (parts.area[k] >= largest / 10 && length[k] > 0) sharpest = Math.max(sharpest, sum[k] / length[k]);
  for (let run = 0; run < parts.runStart.length; run++) {
    const part = parts.regionOfRun[run];
    if (kept[part] !== 0) continue;
    if (parts.area[part] < SMALLEST_PART_PX || sum[part] < SHARP_PART * sharpest * length[part]) subject.fill(0, parts.runStart[run], parts.runEnd[run]);
  }
}

const SMALLEST_PART_PX = 6;
