import type { Design } from '../assemble/design.ts';
import { placeOnBlank, type PlaceMm } from '../assemble/placeOnBlank.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Film } from '../film/film.ts';
import { followedBy, inverseOf, placed, scaling, translation, type Affine } from '../geometry/affine.ts';
import { coverageOf } from '../outline/coverage.ts';
import { CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import type { Blank } from '../process/blanks.ts';
import { PROCESSES, type Process } from '../process/processes.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';
import { blankShape, lineCurves, type BlankShape } from './blankShape.ts';

/** A printed picture on a design. */
export interface PrintedPicture {
  readonly picture: Rgba8;
  /** From its px to the design's mm. */
  readonly toDesign: Affine;
  /** Outlines in colours below it, in the design's mm. */
  readonly below?: readonly { readonly filmId: string; readonly curves: Curves }[];
}

export interface BlankProofInput {
  readonly blank: Blank;
  readonly process: Process;
  readonly place: PlaceMm | undefined;
  readonly design: Design;
  /** Of the design's layers, lowest first. */
  readonly films: readonly Film[];
  /** What is printed in place of films, and whether the paper under it is white. */
  readonly printed?: readonly PrintedPicture[];
  readonly onWhitePaper?: boolean;
  /** White that is laid below the ink, in the design's mm. */
  readonly white?: readonly Curves[];
  /** Words below, already as outlines: mm from their upper left. */
  readonly label?: { readonly curves: Curves; readonly heightMm: number };
  /** Long side of the picture, px. */
  readonly sidePx: number;
  /** How far a round blank is turned, radians, clockwise from above. */
  readonly turnRad?: number;
}

const PAPER: Rgb = { r: 251, g: 248, b: 243 };
const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const INK: Rgb = { r: 36, g: 27, b: 47 };
/** Free room around the blank, mm, as a share of its longer side. */
const ROOM = 0.05;
const SEAM_MM = 0.8;
/** Films stand out by a shadow so broad, mm. */
const EDGE_MM = 0.35;
/** What is wrapped around is made so many times as fine: at the sides it is seen narrow. */
const FINER = 2;
/** Light on what stands out beside a round body. */
const BESIDE = 0.86;

/** The finished blank at true scale in the colours of its films: the picture that a customer says yes to. */
export function blankProof(input: BlankProofInput): { readonly picture: Rgba8; readonly pxPerMm: number } {
  const { blank, label, sidePx } = input;
  const shape = blankShape(blank);
  const { left, top, right, bottom } = shape.box;
  const room = roomOf(shape);
  const labelMm = label === undefined ? 0 : label.heightMm + room;
  const [widthMm, heightMm] = [right - left + 2 * room, bottom - top + 2 * room + labelMm];
  const pxPerMm = sidePx / Math.max(widthMm, heightMm);
  const canvas = new Canvas(Math.round(widthMm * pxPerMm), Math.round(heightMm * pxPerMm), PAPER);
  const toCanvas = followedBy(translation(room - left, room - top), scaling(pxPerMm));
  const body = transformCurves(shape.body, toCanvas);
  const colour = rgbFromHex(blank.colour) ?? PAPER;
  canvas.fill(transformCurves(body, translation(0.012 * sidePx * 0.4, 0.012 * sidePx * 0.6)), INK, 0.1);
  canvas.fill(body, colour, 1);
  canvas.fill(transformCurves(lineCurves(shape.lines, SEAM_MM), toCanvas), mixed(colour, INK, 0.35), 0.8);
  const art = decorated(input, shape.radiusMm === undefined ? pxPerMm : FINER * pxPerMm, colour);
  const origin = { x: (room - left) * pxPerMm, y: (room - top) * pxPerMm };
  if (shape.radiusMm === undefined) canvas.lay(art, origin.x, origin.y);
  else canvas.wrap(art, { ...origin, radiusPx: shape.radiusMm * pxPerMm, turnRad: input.turnRad ?? 0 }, coverOver(body, canvas.width, canvas.height));
  if (label !== undefined) canvas.fill(transformCurves(label.curves, followedBy(translation(room, heightMm - room - label.heightMm), scaling(pxPerMm))), INK, 1);
  return { picture: canvas.picture(), pxPerMm };
}

/** Free room around a blank's shape, mm. */
const roomOf = ({ box }: Pick<BlankShape, 'box'>): number => ROOM * Math.max(box.right - box.left, box.bottom - box.top);

/** Where on a proof the printable area's upper left lies, mm. */
export function areaOnProof(blank: Blank): { readonly xMm: number; readonly yMm: number } {
  const shape = blankShape(blank);
  const room = roomOf(shape);
  return { xMm: room - shape.box.left, yMm: room - shape.box.top };
}

/** What lies on the printable area alone, clear elsewhere: what is wound around a round blank. */
export const areaPicture = (input: BlankProofInput, pxPerMm: number): Rgba8 => decorated(input, pxPerMm, rgbFromHex(input.blank.colour) ?? PAPER).picture();

/** What lies on the printable area, and beyond it where it does, as a picture of the area; clear elsewhere. */
function decorated({ design, films, blank, place, process, printed, onWhitePaper, white = [] }: BlankProofInput, pxPerMm: number, colour: Rgb): Canvas {
  const at = placeOnBlank(place, blank, design);
  const canvas = new Canvas(Math.ceil(blank.widthMm * pxPerMm), Math.ceil(blank.heightMm * pxPerMm));
  const toArea = followedBy(translation(at.xMm, at.yMm), scaling(pxPerMm));
  if (printed !== undefined) {
    const under = white.length === 0 ? undefined : coverOver(transformCurves(joinCurves(white), toArea), canvas.width, canvas.height);
    for (const curves of white) canvas.fill(transformCurves(curves, toArea), WHITE, 1);
    const paper = onWhitePaper === true ? WHITE : colour;
    for (const { picture, toDesign, below = [] } of printed) {
      for (const { filmId, curves } of below) canvas.fill(transformCurves(curves, toArea), inked(rgbFromHex(films.find(({ id }) => id === filmId)?.colour ?? '') ?? INK, white.length > 0 ? WHITE : paper), 1);
      canvas.print(picture, followedBy(toDesign, toArea), paper, under);
    }
    return canvas;
  }
  const isPaint = PROCESSES[process].artIsOpening;
  for (const [k, { curves }] of design.layers.entries()) {
    const film = transformCurves(curves, toArea);
    const own = rgbFromHex(films[k]?.colour ?? '') ?? INK;
    // Film has a thickness: a fine shadow below its edge. Paint has none.
    if (!isPaint) canvas.fill(transformCurves(film, translation(EDGE_MM * pxPerMm * 0.6, EDGE_MM * pxPerMm)), INK, 0.28);
    canvas.fill(film, own, isPaint ? 0.94 : 1);
  }
  return canvas;
}

/** See-through ink on what lies below it. */
const inked = (ink: Rgb, on: Rgb): Rgb => ({ r: (ink.r * on.r) / 255, g: (ink.g * on.g) / 255, b: (ink.b * on.b) / 255 });

const mixed = (a: Rgb, b: Rgb, share: number): Rgb => ({ r: a.r + (b.r - a.r) * share, g: a.g + (b.g - a.g) * share, b: a.b + (b.b - a.b) * share });

/** A picture that is painted on, straight alpha. */
class Canvas {
  readonly data: Uint8Array<ArrayBuffer>;

  constructor(readonly width: number, readonly height: number, ground?: Rgb) {
    this.data = new Uint8Array(4 * width * height);
    if (ground === undefined) return;
    for (let i = 0; i < this.data.length; i += 4) {
      this.data[i] = ground.r;
      this.data[i + 1] = ground.g;
      this.data[i + 2] = ground.b;
      this.data[i + 3] = 255;
    }
  }

  picture = (): Rgba8 => makeRgba8(this.width, this.height, this.data);

  /** Fills outlines in px, pieces that overlap each other as one. */
  fill(curves: Curves, { r, g, b }: Rgb, alpha: number): void {
    const coverage = coverOver(curves, this.width, this.height);
    for (let i = 0; i < coverage.length; i++) if (coverage[i] > 0) this.mix(4 * i, r, g, b, (coverage[i] / 255) * alpha);
  }

  /** Lays another picture on this one, nothing beyond its edges. */
  lay(other: Canvas, left: number, top: number): void {
    const [dx, dy] = [Math.round(left), Math.round(top)];
    for (let y = Math.max(0, -dy); y < Math.min(other.height, this.height - dy); y++) {
      for (let x = Math.max(0, -dx); x < Math.min(other.width, this.width - dx); x++) {
        const from = 4 * (y * other.width + x);
        if (other.data[from + 3] > 0) this.mix(4 * ((y + dy) * this.width + x + dx), other.data[from], other.data[from + 1], other.data[from + 2], other.data[from + 3] / 255);
      }
    }
  }

  /** Lays another picture, `FINER` times as fine, around a cylinder that is seen from the front, and shades the body by how it is turned from the light. */
  wrap(other: Canvas, { x: left, y: top, radiusPx, turnRad }: { x: number; y: number; radiusPx: number; turnRad: number }, body: Uint8Array): void {
    const middle = left + other.width / (2 * FINER);
    const around = (x: number): number => Math.asin(Math.max(-1, Math.min(1, (x - middle) / radiusPx)));
    for (let x = 0; x < this.width; x++) {
      const isBeside = x + 0.5 < middle - radiusPx || x + 0.5 > middle + radiusPx;
      const angle = around(x + 0.5);
      const shade = isBeside ? BESIDE : 0.68 + 0.32 * Math.max(0, Math.cos(angle + 0.35));
      const glint = isBeside ? 0 : Math.max(0, 1 - Math.abs(angle + 0.75) / 0.09) * 0.35;
      const column = (at: number): number => (around(at) + turnRad) * radiusPx * FINER + other.width / 2;
      const [from, to] = [Math.floor(column(x)), Math.max(Math.floor(column(x)) + 1, Math.ceil(column(x + 1)))];
      for (let y = 0; y < this.height; y++) {
        const share = body[y * this.width + x] / 255;
        if (share === 0) continue;
        const at = 4 * (y * this.width + x);
        if (!isBeside) {
          const { r, g, b, a } = meanIn(other, from, Math.floor((y - top) * FINER), to - from, FINER);
          if (a > 0) this.mix(at, r, g, b, a / 255);
        }
        for (let k = 0; k < 3; k++) {
          const lit = this.data[at + k] * shade;
          this.data[at + k] = Math.round(this.data[at + k] * (1 - share) + (lit + (255 - lit) * glint) * share);
        }
      }
    }
  }

  /** Prints a picture with see-through inks on what lies below. @param toHere from its px to those of this one. @param white how much white lies there below the ink, 0 to 255 for each pixel. */
  print(picture: Rgba8, toHere: Affine, below: Rgb, white?: Uint8Array): void {
    const back = inverseOf(toHere);
    const corners = [[0, 0], [picture.width, 0], [0, picture.height], [picture.width, picture.height]].map(([x, y]) => placed(toHere, x, y));
    const reach = (of: (corner: { x: number; y: number }) => number): readonly [number, number] => [Math.floor(Math.min(...corners.map(of))), Math.ceil(Math.max(...corners.map(of)))];
    const [[left, right], [top, bottom]] = [reach(({ x }) => x), reach(({ y }) => y)];
    const size = Math.sqrt(Math.abs(back.a * back.d - back.b * back.c));
    for (let y = Math.max(0, top); y < Math.min(this.height, bottom); y++) {
      for (let x = Math.max(0, left); x < Math.min(this.width, right); x++) {
        const at = placed(back, x + 0.5, y + 0.5);
        if (at.x < 0 || at.y < 0 || at.x >= picture.width || at.y >= picture.height) continue;
        const mean = meanOf(picture, at.x - size / 2, at.y - size / 2, size);
        if (mean.a <= 0) continue;
        const to = 4 * (y * this.width + x);
        const share = (white?.[y * this.width + x] ?? 0) / 255;
        const on = (under: number): number => 255 * share + under * (1 - share);
        this.mix(to, (mean.r * on(below.r)) / 255, (mean.g * on(below.g)) / 255, (mean.b * on(below.b)) / 255, mean.a / 255);
      }
    }
  }

  private mix(at: number, r: number, g: number, b: number, alpha: number): void {
    const { data } = this;
    const below = data[at + 3] / 255;
    const out = alpha + below * (1 - alpha);
    if (out <= 0) return;
    const share = alpha / out;
    data[at] = Math.round(data[at] + (r - data[at]) * share);
    data[at + 1] = Math.round(data[at + 1] + (g - data[at + 1]) * share);
    data[at + 2] = Math.round(data[at + 2] + (b - data[at + 2]) * share);
    data[at + 3] = Math.round(255 * out);
  }
}

/** The mean of the pixels in a square, weighed by their alpha. */
function meanOf(picture: Rgba8, left: number, top: number, size: number): Rgb & { a: number } {
  const [x, y] = [Math.max(0, Math.floor(left)), Math.max(0, Math.floor(top))];
  return meanIn(picture, x, y, Math.max(1, Math.floor(left + size) - x), Math.max(1, Math.floor(top + size) - y));
}

/** The mean of whole pixels from a place on; what lies beyond the picture is clear. */
function meanIn({ width, height, data }: Pick<Rgba8, 'width' | 'height' | 'data'>, left: number, top: number, across: number, down: number): Rgb & { a: number } {
  let [r, g, b, a] = [0, 0, 0, 0];
  for (let y = Math.max(0, top); y < Math.min(height, top + down); y++) {
    for (let x = Math.max(0, left); x < Math.min(width, left + across); x++) {
      const at = 4 * (y * width + x);
      const alpha = data[at + 3];
      r += data[at] * alpha;
      g += data[at + 1] * alpha;
      b += data[at + 2] * alpha;
      a += alpha;
    }
  }
  return a === 0 ? { r: 0, g: 0, b: 0, a: 0 } : { r: r / a, g: g / a, b: b / a, a: a / (across * down) };
}

/** Coverage of pieces that may overlap: each outermost ring with what lies in it by itself, the most of them. */
function coverOver(curves: Curves, width: number, height: number): Uint8Array {
  const { parent } = curves;
  const first = coverageOf(curves, width, height);
  const tops = Array.from(parent.keys()).filter((ring) => parent[ring] < 0);
  // Most outlines do not overlap; those that do are few and large.
  if (tops.length < 2 || tops.length > MOST_APART) return first;
  const out = first;
  for (const top of tops) {
    const builder = new CurvesBuilder();
    for (let ring = 0; ring < ringCount(curves); ring++) if (topOf(parent, ring) === top) builder.copy(curves, ring, -1);
    const own = coverageOf(builder.build(), width, height);
    for (let i = 0; i < own.length; i++) if (own[i] > out[i]) out[i] = own[i];
  }
  return out;
}

const MOST_APART = 4;

function topOf(parent: Int32Array, ring: number): number {
  let at = ring;
  while (parent[at] >= 0) at = parent[at];
  return at;
}
