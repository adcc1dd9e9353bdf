import sharp from 'sharp';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import type { Rgb } from '../src/core/colour/oklab.ts';
import { colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import type { ColourShape } from './colourLibraries.ts';

export interface ToneComparison {
  /** Mean distance between the edges of the drawing and those of the outlines, both ways, px. */
  readonly mean: number;
  readonly p95: number;
  /** Share of the edges within a distance that the caller names. */
  readonly within: number;
  /** Share of the area that has another tone than in the drawing. */
  readonly wrong: number;
  /** Share of the edges between films at which nothing lies. */
  readonly seams: number;
}

/** The part of the picture in which edges are compared, px. */
export interface Window {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Cells a px of the picture: edges are known to half of one over this, and the mean over many is far finer. */
const FINE = 8;
/** A colour that no drawing has: what shows through where no film lies. */
const NOWHERE = '#ff00ff';

export type Labels = { readonly data: Uint8Array; readonly side: number };

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

/** Outlines drawn over each other as labels of tones, as fine as those of the drawing. */
export const drawnLabels = (truth: DrawingTruth, ground: string, shapes: readonly ColourShape[], tones: readonly Rgb[]): Promise<Labels> => labelsOf(drawn(truth, ground, shapes), tones, truth.labels.side);

/** How outlines compare with the drawing by its edges alone. */
export type EdgeComparison = Omit<ToneComparison, 'seams'>;

/** The drawing as it truly is, for comparisons with it. */
export interface DrawingTruth {
  readonly pixels: number;
  readonly tones: readonly Rgb[];
  readonly labels: Labels;
}

export async function truthOf(drawing: ColourDrawing, pixels: number): Promise<DrawingTruth> {
  const side = pixels * FINE;
  const tones = tonesOf(drawing).map((hex) => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 });
  return { pixels, tones, labels: await labelsOf(colourSvgOf(drawing, side, true), tones, side) };
}

function drawn({ pixels }: DrawingTruth, back: string, shapes: readonly ColourShape[]): string {
  const side = pixels * FINE;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}" viewBox="0 0 ${pixels} ${pixels}" shape-rendering="crispEdges"><rect width="${pixels}" height="${pixels}" fill="${back}"/>${shapes.map(({ fill, path, place }) => `<path fill="${fill}" fill-rule="evenodd" d="${path}"${place === undefined ? '' : ` transform="${place}"`}/>`).join('')}</svg>`;
}

/** Compares the edges of outlines, drawn over each other, with the drawing that they came from: all of it, or what lies well inside of a window. */
export async function compareEdges(truth: DrawingTruth, ground: string, shapes: readonly ColourShape[], window?: Window, withinPx = 0.6): Promise<EdgeComparison> {
  const { labels } = truth;
  const own = [...new Set([ground, ...shapes.map(({ fill }) => fill)])];
  const result = await labelsOf(drawn(truth, ground, shapes), own.map((hex) => rgbFromHex(hex) ?? truth.tones[0]), labels.side);
  const wrong = wrongCells(labels, result, own.length);
  const distances = edgeDistances(labels, result, window).sort((a, b) => a - b);
  return {
    mean: distances.reduce((sum, d) => sum + d, 0) / distances.length / FINE,
    p95: distances[Math.floor(distances.length * 0.95)] / FINE,
    within: distances.filter((d) => d <= withinPx * FINE).length / distances.length,
    wrong: wrong / labels.data.length,
  };
}

/** The same with the seams between films. */
export async function compareTones(drawing: ColourDrawing, pixels: number, ground: string, shapes: readonly ColourShape[]): Promise<ToneComparison> {
  const truth = await truthOf(drawing, pixels);
  const { tones, labels } = truth;
  const open = await labelsOf(drawn(truth, NOWHERE, shapes), [...tones, { r: 255, g: 0, b: 255 }], labels.side);
  const { r, g, b } = rgbFromHex(ground) ?? tones[0];
  return { ...(await compareEdges(truth, ground, shapes)), seams: seamShare(labels, open, tones.length, nearest(tones, r, g, b)) };
}

/** Cells outside of the tone that most of their film lies on: a step may have changed the colours of all films. */
function wrongCells(truth: Labels, result: Labels, films: number): number {
  const together = new Uint32Array(films * 256);
  for (let i = 0; i < truth.data.length; i++) together[result.data[i] * 256 + truth.data[i]]++;
  let right = 0;
  for (let film = 0; film < films; film++) right += Math.max(...together.subarray(film * 256, film * 256 + 256));
  return truth.data.length - right;
}

/** Of the outlines of one tone, the share in px² that lies further than `farPx` from where the drawing has that tone. */
export async function strayPx2(truth: DrawingTruth, ground: string, shapes: readonly ColourShape[], tone: string, farPx: number): Promise<number> {
  const { labels, tones } = truth;
  const { side } = labels;
  const own = tonesIndex(tones, tone);
  const result = await labelsOf(drawn(truth, ground, shapes), tones, side);
  const near = grown(labels, own, Math.round(farPx * FINE));
  let stray = 0;
  for (let i = 0; i < result.data.length; i++) if (result.data[i] === own && near[i] === 0) stray++;
  return stray / (FINE * FINE);
}

const tonesIndex = (tones: readonly Rgb[], hex: string): number => {
  const { r, g, b } = rgbFromHex(hex) ?? tones[0];
  return nearest(tones, r, g, b);
};

/** 1 where a label lies within a square of `reach` cells around. */
function grown({ data, side }: Labels, label: number, reach: number): Uint8Array {
  const along = new Uint8Array(side * side);
  for (let y = 0; y < side; y++) spread(along, y * side, 1, side, reach, (i) => data[i] === label);
  const out = new Uint8Array(side * side);
  for (let x = 0; x < side; x++) spread(out, x, side, side, reach, (i) => along[i] === 1);
  return out;
}

function spread(out: Uint8Array, first: number, step: number, count: number, reach: number, isSet: (i: number) => boolean): void {
  let last = -Infinity;
  for (let k = 0; k < count + reach; k++) {
    if (k < count && isSet(first + k * step)) last = k;
    const at = k - reach;
    if (at >= 0 && k - last <= 2 * reach) out[first + at * step] = 1;
  }
}

/** Distance of every edge cell of one from the edges of the other, both ways, in cells. */
function edgeDistances(a: Labels, b: Labels, window: Window | undefined): number[] {
  const edgeA = edgesOf(a);
  const edgeB = edgesOf(b);
  return [...toNearest(edgeA, edgeB, a.side, window), ...toNearest(edgeB, edgeA, a.side, window)];
}

/** 1 at each corner of cells around which there is more than one label. */
function edgesOf({ data, side }: Labels): Uint8Array {
  const edges = new Uint8Array(side * side);
  for (let y = 1; y < side; y++) for (let x = 1, i = y * side + 1; x < side; x++, i++) if (data[i] !== data[i - 1] || data[i] !== data[i - side] || data[i] !== data[i - side - 1]) edges[i] = 1;
  return edges;
}

const FAR = 6 * FINE;

function toNearest(from: Uint8Array, to: Uint8Array, side: number, window: Window | undefined): number[] {
  const out: number[] = [];
  const [left, top, right, bottom] = window === undefined ? [1, 1, side, side] : [window.left * FINE + FAR, window.top * FINE + FAR, window.right * FINE - FAR, window.bottom * FINE - FAR];
  for (let y = Math.floor(top); y < bottom; y++) {
    for (let x = Math.floor(left); x < right; x++) {
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
