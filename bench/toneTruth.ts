import sharp from 'sharp';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import type { Rgb } from '../src/core/colour/oklab.ts';
import { colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import type { ColourShape } from './colourLibraries.ts';

export interface ToneComparison {
  /** Mean distance between the edges of the drawing and those of the outlines, both ways, px. */
  readonly mean: number;
  readonly p95: number;
  /** Share of the area that has another tone than in the drawing. */
  readonly wrong: number;
  /** Share of the edges between films at which nothing lies. */
  readonly seams: number;
}

/** Cells a px of the picture: edges are known to half of one over this, and the mean over many is far finer. */
const FINE = 8;
/** A colour that no drawing has: what shows through where no film lies. */
const NOWHERE = '#ff00ff';

type Labels = { readonly data: Uint8Array; readonly side: number };

async function labelsOf(svg: string, tones: readonly Rgb[], side: number): Promise<Labels> {
  const { data } = await sharp(Buffer.from(svg), { density: 72, limitInputPixels: false }).resize(side, side, { kernel: 'nearest' }).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const labels = new Uint8Array(side * side);
  let lastWord = -1;
  let last = 0;
  for (let i = 0; i < labels.length; i++) {
    const word = (data[3 * i] << 16) | (data[3 * i + 1] << 8) | data[3 * i + 2];
    if (word !== lastWord) {
      lastWord = word;
      last = nearest(tones, data[3 * i], data[3 * i + 1], data[3 * i + 2]);
    }
    labels[i] = last;
  }
  return { data: labels, side };
}

function nearest(tones: readonly Rgb[], r: number, g: number, b: number): number {
  let best = 0;
  let least = Infinity;
  for (const [k, tone] of tones.entries()) {
    const d = (tone.r - r) ** 2 + (tone.g - g) ** 2 + (tone.b - b) ** 2;
    if (d >= least) continue;
    least = d;
    best = k;
  }
  return best;
}

/** Compares outlines, drawn over each other, with the drawing that they came from. */
export async function compareTones(drawing: ColourDrawing, pixels: number, ground: string, shapes: readonly ColourShape[]): Promise<ToneComparison> {
  const side = pixels * FINE;
  const tones = tonesOf(drawing).map((hex) => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 });
  const made = (back: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}" viewBox="0 0 ${pixels} ${pixels}" shape-rendering="crispEdges"><rect width="${pixels}" height="${pixels}" fill="${back}"/>${shapes.map(({ fill, path, place }) => `<path fill="${fill}" fill-rule="evenodd" d="${path}"${place === undefined ? '' : ` transform="${place}"`}/>`).join('')}</svg>`;
  const truth = await labelsOf(colourSvgOf(drawing, side, true), tones, side);
  const result = await labelsOf(made(ground), tones, side);
  const open = await labelsOf(made(NOWHERE), [...tones, { r: 255, g: 0, b: 255 }], side);
  const { r, g, b } = rgbFromHex(ground) ?? tones[0];
  const groundTone = nearest(tones, r, g, b);
  let wrong = 0;
  for (let i = 0; i < truth.data.length; i++) if (truth.data[i] !== result.data[i]) wrong++;
  const distances = edgeDistances(truth, result).sort((a, b) => a - b);
  return {
    mean: distances.reduce((sum, d) => sum + d, 0) / distances.length / FINE,
    p95: distances[Math.floor(distances.length * 0.95)] / FINE,
    wrong: wrong / truth.data.length,
    seams: seamShare(truth, open, tones.length, groundTone),
  };
}

/** Distance of every edge cell of one from the edges of the other, both ways, in cells. */
function edgeDistances(a: Labels, b: Labels): number[] {
  const edgeA = edgesOf(a);
  const edgeB = edgesOf(b);
  return [...toNearest(edgeA, edgeB, a.side), ...toNearest(edgeB, edgeA, a.side)];
}

/** 1 at each corner of cells around which there is more than one label. */
function edgesOf({ data, side }: Labels): Uint8Array {
  const edges = new Uint8Array(side * side);
  for (let y = 1; y < side; y++) for (let x = 1, i = y * side + 1; x < side; x++, i++) if (data[i] !== data[i - 1] || data[i] !== data[i - side] || data[i] !== data[i - side - 1]) edges[i] = 1;
  return edges;
}

const FAR = 6 * FINE;

function toNearest(from: Uint8Array, to: Uint8Array, side: number): number[] {
  const out: number[] = [];
  for (let y = 1; y < side; y++) {
    for (let x = 1; x < side; x++) {
      if (from[y * side + x] === 0) continue;
      out.push(nearestEdge(to, side, x, y));
    }
  }
  return out;
}

function nearestEdge(to: Uint8Array, side: number, x: number, y: number): number {
  let best2 = FAR * FAR;
  for (let r = 0; r * r <= best2 && r <= FAR; r++) {
    for (let d = -r; d <= r; d++) {
      const distance2 = r * r + d * d;
      if (distance2 >= best2) continue;
      if (has(to, side, x + d, y - r) || has(to, side, x + d, y + r) || has(to, side, x - r, y + d) || has(to, side, x + r, y + d)) best2 = distance2;
    }
  }
  return Math.sqrt(best2);
}

const has = (edges: Uint8Array, side: number, x: number, y: number): boolean => x >= 0 && y >= 0 && x < side && y < side && edges[y * side + x] === 1;

/** Of the cells within half a px of an edge between two tones that are both film, the share where no film lies although the drawing has film all around. */
function seamShare(truth: Labels, open: Labels, nowhere: number, ground: number): number {
  const { data, side } = truth;
  const reach = FINE * 2;
  let edge = 0;
  let seam = 0;
  for (let y = reach; y < side - reach; y += 2) {
    for (let x = reach, i = y * side + reach; x < side - reach; x += 2, i += 2) {
      const a = data[i];
      const b = data[i + reach];
      const c = data[i + reach * side];
      const d = data[i - reach];
      const e = data[i - reach * side];
      if (a === ground || b === ground || c === ground || d === ground || e === ground || (a === b && a === c && a === d && a === e)) continue;
      edge++;
      if (open.data[i] === nowhere) seam++;
    }
  }
  return edge === 0 ? 0 : seam / edge;
}
