import { cellsAbove, distanceTo } from '../../raster/distance.ts';
import { labelRegions, largestRegion } from '../../raster/labelRegions.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { noiseLevel } from '../noiseLevel.ts';
import { smoothNoise } from '../sigmaFilter.ts';
import { basinsOf } from './basins.ts';
import { certainGround, DOUBTFUL, GROUND, groundAreas, shadeOf, SUBJECT } from './groundAreas.ts';
import { MARK } from './marks.ts';
import { minCut, type GridCut } from './minCut.ts';
import { planesOf, type Planes, type Three } from '../planes.ts';
import { sharpEdges } from './sharpEdges.ts';
import { smoothGround, type SmoothGround } from './smoothGround.ts';

export interface FoundSubject {
  /** 1 where the subject is. */
  readonly subject: Uint8Array;
  /** What the ground looks like, under the subject too. */
  readonly ground: SmoothGround;
  /** The picture as it was looked at: its noise smoothed. */
  readonly colours: Planes;
}

/**
 * Tells the subject of a picture from its ground. Areas are parted by sharp edges (flat art laid on paper or on a softened photograph has them, shadows and
 * light have not); those along the picture's border and what joins them without an edge are ground, continued smoothly under the rest; a graph cut then
 * decides each pixel by its area, its colour against that ground, and edges (after Y. Boykov & M.-P. Jolly, "Interactive graph cuts", ICCV 2001,
 * doi:10.1109/ICCV.2001.937505).
 * @param marks one of `MARK` or 0 for each pixel.
 */
export function* findSubject(picture: Rgba8, marks: Uint8Array): Task<FoundSubject> {
  const { width, height } = picture;
  const noise = noiseLevel(picture);
  const smooth = noise > QUIET ? yield* smoothNoise(picture, Math.max(8, 4 * noise)) : picture;
  const colours = planesOf(smooth);
  const edges = sharpEdges(smooth, colours);
  yield 0.2;
  const basins = basinsOf(edges.sharp, width, height);
  yield 0.4;
  const isGround = groundAreas(basins, edges.sharp, colours, edges.noise, marks);
  const seen: Seen = { colours, area: Uint8Array.from(basins.labels, (label) => isGround[label]), sharp: edges.sharp, noise: edges.noise, marks };
  let certain = certainGround(basins, isGround, colours);
  let ground = smoothGround(colours, certain);
  yield 0.5;
  let subject = minCut(gridOf(seen, ground, certain));
  for (let round = 1; round < ROUNDS; round++) {
    yield 0.5 + (0.5 * round) / ROUNDS;
    // What was found to be ground tells what the ground looks like close to the subject.
    const away = distanceTo(subject, width, height);
    certain = cellsAbove(away, CLEAR_OF_EDGE_PX);
    if (!certain.includes(1)) break;
    ground = smoothGround(colours, certain);
    subject = minCut(gridOf(seen, ground, certain));
  }
  dropSoftParts(subject, edges.sharp, marks, width, height);
  return { subject, ground, colours };
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
    const distance = mayShade && area[i] === GROUND && sharp[i] === 0 ? shadedDistance(planes, ground.colour.planes, i) : plainDistance(planes, ground.colour.planes, i);
    const unsure = area[i] === GROUND ? (1 + far[i] / UNSURE_PX) ** 2 : 1;
    const stray = distance / (floor + 2 * ground.spread[i] * unsure);
    const colour = Math.min(MOST_COST, 0.5 * stray) - 2;
    terminal[i] = colour + (area[i] === SUBJECT ? AREA_COST : area[i] === DOUBTFUL ? 0 : certain[i] === 0 ? -0.5 : -2 * AREA_COST);
    if (marks[i] !== 0) terminal[i] = marks[i] === MARK.keep ? FIXED_COST : -FIXED_COST;
    const edge = (a: number, b: number): number => SMOOTH_COST / (1 + Math.max(sharp[a], sharp[b]));
    if ((i + 1) % width !== 0) right[i] = edge(i, i + 1);
    if (i + width < n) down[i] = edge(i, i + width);
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
      if ((x > 0 && subject[i - 1] === 0) || (x < width - 1 && subject[i + 1] === 0) || (i >= width && subject[i - width] === 0) || (i + width < subject.length && subject[i + width] === 0)) {
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
