import { labelRegions } from '../../raster/labelRegions.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { noiseLevel } from '../noiseLevel.ts';
import { smoothNoise } from '../sigmaFilter.ts';
import { basinsOf } from './basins.ts';
import { certainGround, DOUBTFUL, GROUND, groundAreas, shadeOf, SUBJECT } from './groundAreas.ts';
import { minCut } from './minCut.ts';
import { planesOf, type Planes, type Three } from './planes.ts';
import { sharpEdges } from './sharpEdges.ts';
import { smoothGround, type SmoothGround } from './smoothGround.ts';

export interface FoundSubject {
  /** 1 where the subject is. */
  readonly subject: Uint8Array;
  readonly ground: SmoothGround;
  readonly noise: number;
}

export function* findSubject(picture: Rgba8, marks?: Uint8Array): Task<FoundSubject> {
  const { width, height } = picture;
  const noise = noiseLevel(picture);
  const smooth = noise > QUIET ? yield* smoothNoise(picture, Math.max(8, 4 * noise)) : picture;
  const colours = planesOf(smooth);
  const edges = sharpEdges(smooth, colours);
  yield 0.2;
  const basins = basinsOf(edges.sharp, width, height);
  yield 0.4;
  const isGround = groundAreas(basins, edges.sharp, colours, edges.noise);
  const area = Uint8Array.from(basins.labels, (label) => isGround[label]);
  const certain = certainGround(basins, isGround, colours);
  const ground = smoothGround(colours, certain);
  if ((globalThis as any).DBG) Object.assign((globalThis as any).DBG, { basins, area, sharp: edges.sharp });
  yield 0.6;
  const subject = minCut(gridOf(colours, ground, area, certain, edges.sharp, edges.noise, marks));
  dropSoftParts(subject, edges.sharp, width, height);
  return { subject, ground, noise: edges.noise };
}

/** Noise that is left as it is, levels. */
const QUIET = 0.7;

/** What it costs to disagree with the areas. */
const AREA_COST = 2.5;
/** Most that the colour of one pixel can say against the ground, and what it says for it when it is just as the ground. */
const MOST_COST = 8;
const SMOOTH_COST = 3;
const FIXED_COST = 1e4;

function gridOf(colours: Planes, ground: SmoothGround, area: Uint8Array, certain: Uint8Array, sharp: Float32Array, noise: number, marks?: Uint8Array) {
  const { width, height, planes } = colours;
  const n = width * height;
  const terminal = new Float32Array(n);
  const right = new Float32Array(n);
  const down = new Float32Array(n);
  const floor = 9 + 6 * noise * noise;
  const mayShade = isCalm(ground, certain, noise);
  for (let i = 0; i < n; i++) {
    // Only what joined the ground by itself may be its shadow: dark art on a light ground would look the same.
    const distance = mayShade && area[i] === GROUND && sharp[i] === 0 ? shadedDistance(planes, ground.colour.planes, i) : plainDistance(planes, ground.colour.planes, i);
    const stray = distance / (floor + 2 * ground.spread[i]);
    const colour = Math.min(MOST_COST, 0.5 * stray) - 2;
    terminal[i] = colour + (area[i] === SUBJECT ? AREA_COST : area[i] === DOUBTFUL ? 0 : certain[i] === 0 ? -0.5 : -2 * AREA_COST);
    if (marks !== undefined && marks[i] !== 0) terminal[i] = marks[i] === 1 ? FIXED_COST : -FIXED_COST;
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
function dropSoftParts(subject: Uint8Array, sharp: Float32Array, width: number, height: number): void {
  const parts = labelRegions(subject, width, height, 1, true);
  if (parts.count < 2) return;
  const sum = new Float64Array(parts.count);
  const length = new Float64Array(parts.count);
  for (let run = 0; run < parts.runStart.length; run++) {
    const part = parts.regionOfRun[run];
    for (let i = parts.runStart[run]; i < parts.runEnd[run]; i++) {
      const x = i % width;
      if ((x > 0 && subject[i - 1] === 0) || (x < width - 1 && subject[i + 1] === 0) || (i >= width && subject[i - width] === 0) || (i + width < subject.length && subject[i + width] === 0)) {
        length[part]++;
        sum[part] += sharp[i];
      }
    }
  }
  const largest = Math.max(...parts.area);
  let sharpest = 0;
  for (let k = 0; k < parts.count; k++) if (parts.area[k] >= largest / 10 && length[k] > 0) sharpest = Math.max(sharpest, sum[k] / length[k]);
  for (let run = 0; run < parts.runStart.length; run++) {
    const part = parts.regionOfRun[run];
    if (parts.area[part] < SMALLEST_PART_PX || sum[part] < SHARP_PART * sharpest * length[part]) subject.fill(0, parts.runStart[run], parts.runEnd[run]);
  }
}

const SMALLEST_PART_PX = 6;
