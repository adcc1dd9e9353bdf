import type { Planes } from '../planes.ts';
import type { SharpEdges } from './sharpEdges.ts';

/** Two masks of the same subject, with what they are judged by. */
export interface TwoSubjects {
  readonly byAreas: Uint8Array;
  readonly standing: Uint8Array;
  /** The ground around what stands out, continued under it. */
  readonly ground: Planes;
  readonly colours: Planes;
  readonly edges: SharpEdges;
}

/** So much of a border lies on sharp edges where it is that of a thing; the rest is lost in shade. */
const BORNE_OUT = 0.55;
/** A border shorter than this share of the other's, beside the size of what it goes around, is the simpler one. */
const SIMPLER = 0.8;
/** What is taken in more differs from the ground by this much in the mean, and by so many times the noise, levels. */
const LEAST_DIFFERENCE = 6;
const NOISES = 2;
/** Colours that differ by so much in the mean are quite others, levels. */
const QUITE_ANOTHER = 25;
/** Ragged areas that are less of the picture than this, and of what stands out, have found no subject but bits of it. */
const NEXT_TO_NOTHING = 0.05;
const BITS_OF_IT = 1 / 6;
const RAGGED = 7;
/** A thing before a ground is so much of the picture. */
const LEAST_SHARE = 0.01;
const MOST_SHARE = 0.8;

/**
 * Which of two masks shows the subject. Areas are right wherever the ground is even or out of focus; where the ground has sharp edges of its own, as grain and
 * planks, or the subject areas that look like it, they fall to bits, and what stands out has the shorter border.
 * @returns `none` when what stands out is no better than a guess and areas have found next to nothing, or all.
 */
export function betterSubject({ byAreas, standing, ground, colours, edges }: TwoSubjects): 'areas' | 'standing' | 'none' {
  const { width, height } = colours;
  const [areas, stands] = [byAreas, standing].map((mask) => shapeOf(mask, edges.sharp, width, height));
  const share = stands.areaPx2 / (width * height);
  if (share < LEAST_SHARE || share > MOST_SHARE) return 'areas';
  const difference = differenceOf(byAreas, standing, ground, colours);
  const areasTellNothing = areas.areaPx2 === 0 || areas.areaPx2 > MOST_SHARE * width * height;
  // Soft pictures have no sharp edges at all: then a plain shape of quite another colour is the best guess.
  if (areasTellNothing) return stands.raggedness > RAGGED || difference < QUITE_ANOTHER ? 'areas' : stands.sharpShare < BORNE_OUT ? 'none' : 'standing';
  if (stands.sharpShare < BORNE_OUT && areas.raggedness > RAGGED && areas.areaPx2 < Math.min(NEXT_TO_NOTHING * width * height, BITS_OF_IT * stands.areaPx2))
    return 'none';
  if (stands.sharpShare < BORNE_OUT || stands.raggedness > SIMPLER * areas.raggedness) return 'areas';
  return difference >= LEAST_DIFFERENCE + NOISES * edges.noise ? 'standing' : 'areas';
}

interface Shape {
  readonly areaPx2: number;
  /** Share of its border with sharp edges within a px. */
  readonly sharpShare: number;
  /** Length of its border over the root of its area; 3.5 for a disc. */
  readonly raggedness: number;
}

/** A border pixel has a neighbour on the other side; those of the picture are none. */
function shapeOf(mask: Uint8Array, sharp: Float32Array, width: number, height: number): Shape {
  let area = 0;
  let length = 0;
  let onEdge = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      if (mask[i] === 0) continue;
      area++;
      if (mask[i - 1] !== 0 && mask[i + 1] !== 0 && mask[i - width] !== 0 && mask[i + width] !== 0) continue;
      length++;
      if (isNearSharp(sharp, i, width)) onEdge++;
    }
  }
  return { areaPx2: area, sharpShare: length === 0 ? 0 : onEdge / length, raggedness: area === 0 ? Infinity : length / Math.sqrt(area) };
}

/** Sharp gradient that counts as an edge, levels a pixel. */
const EDGE = 1;

function isNearSharp(sharp: Float32Array, i: number, width: number): boolean {
  for (let row = i - width; row <= i + width; row += width) for (let j = row - 1; j <= row + 1; j++) if (sharp[j] > EDGE) return true;
  return false;
}

/** Mean colour distance from the ground, in levels, of what only the second mask holds; infinite when that is nothing. */
function differenceOf(byAreas: Uint8Array, standing: Uint8Array, { planes: ground }: Planes, { planes }: Planes): number {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < standing.length; i++) {
    if (standing[i] === 0 || byAreas[i] !== 0) continue;
    sum += Math.hypot(planes[0][i] - ground[0][i], planes[1][i] - ground[1][i], planes[2][i] - ground[2][i]);
    count++;
  }
  return count === 0 ? Infinity : sum / count;
}
