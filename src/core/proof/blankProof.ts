import type { Design } from '../assemble/design.ts';
import { placeOnBlank, type PlaceMm } from '../assemble/placeOnBlank.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Film } from '../film/film.ts';
import { followedBy, scaling, translation, type Affine } from '../geometry/affine.ts';
import type { Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import type { Blank } from '../process/blanks.ts';
import { PROCESSES, type Process } from '../process/processes.ts';
import type { Rgba8 } from '../raster/raster.ts';
import type { MaterialLook } from '../process/material.ts';
import { blankShape, lineCurves, radiusAt, type BlankShape } from './blankShape.ts';
import { shineAt } from './filmLook.ts';
import { coverOver, ProofCanvas } from './proofCanvas.ts';

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
  /** How each of them looks in the light and how thick it is; matte and thin when absent. */
  readonly stuff?: readonly { readonly look: MaterialLook; readonly thicknessMm: number }[];
  /** Only so many of the films, the lowest: as it looks while it is being made. */
  readonly filmsOn?: number;
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
/** Films stand out by a shadow so many times as broad as they are thick: seen from a step away that tells thick from thin. */
const SHADOW_OF_THICKNESS = 2.5;
const USUAL_THICKNESS_MM = 0.14;
/** No narrower and no broader than this, mm. */
const [LEAST_EDGE_MM, MOST_EDGE_MM] = [0.2, 2];
/** The edge towards the light is so much lighter. */
const LIT_EDGE = 0.16;
/** What is wrapped around is made so many times as fine: at the sides it is seen narrow. */
const FINER = 2;

/** The finished blank at true scale in the colours of its films: the picture that a customer says yes to. */
export function blankProof(input: BlankProofInput): { readonly picture: Rgba8; readonly pxPerMm: number } {
  const { blank, label, sidePx } = input;
  const shape = blankShape(blank);
  const { left, top, right, bottom } = shape.box;
  const room = roomOf(shape);
  const labelMm = label === undefined ? 0 : label.heightMm + room;
  const [widthMm, heightMm] = [right - left + 2 * room, bottom - top + 2 * room + labelMm];
  const pxPerMm = sidePx / Math.max(widthMm, heightMm);
  const canvas = new ProofCanvas(Math.round(widthMm * pxPerMm), Math.round(heightMm * pxPerMm), PAPER);
  const toCanvas = followedBy(translation(room - left, room - top), scaling(pxPerMm));
  const body = transformCurves(shape.body, toCanvas);
  const colour = rgbFromHex(blank.colour) ?? PAPER;
  canvas.fill(transformCurves(body, translation(0.012 * sidePx * 0.4, 0.012 * sidePx * 0.6)), INK, 0.1);
  canvas.fill(body, colour, 1);
  canvas.fill(transformCurves(lineCurves(shape.lines, SEAM_MM), toCanvas), mixed(colour, INK, 0.35), 0.8);
  const { radii } = shape;
  const art = decorated(input, radii === undefined ? pxPerMm : FINER * pxPerMm, colour);
  const origin = { x: (room - left) * pxPerMm, y: (room - top) * pxPerMm };
  if (radii === undefined) canvas.lay(art, origin.x, origin.y);
  else {
    const radiusPx = (y: number): number => radiusAt(radii, blank.heightMm, (y - origin.y) / pxPerMm) * pxPerMm;
    const onArt = ((radii.upperMm + radii.lowerMm) / 2) * pxPerMm;
    canvas.wrap(art, { ...origin, radiusPx, onArt, turnRad: input.turnRad ?? 0, finer: FINER }, coverOver(body, canvas.width, canvas.height));
  }
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
function decorated({ design, films, stuff = [], filmsOn = Infinity, blank, place, process, printed, onWhitePaper, white = [] }: BlankProofInput, pxPerMm: number, colour: Rgb): ProofCanvas {
  const at = placeOnBlank(place, blank, design);
  const canvas = new ProofCanvas(Math.ceil(blank.widthMm * pxPerMm), Math.ceil(blank.heightMm * pxPerMm));
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
  for (const [k, { curves }] of design.layers.slice(0, filmsOn).entries()) {
    const film = transformCurves(curves, toArea);
    const own = rgbFromHex(films[k]?.colour ?? '') ?? INK;
    if (isPaint) {
      canvas.fill(film, own, 0.94);
      continue;
    }
    const { look, thicknessMm } = stuff[k] ?? { look: 'matte', thicknessMm: USUAL_THICKNESS_MM };
    const edgePx = Math.max(LEAST_EDGE_MM, Math.min(MOST_EDGE_MM, thicknessMm * SHADOW_OF_THICKNESS)) * pxPerMm;
    // Film has a thickness: a fine shadow below its edge, and light on the edge above. Paint has none.
    canvas.fill(transformCurves(film, translation(edgePx * 0.6, edgePx)), INK, 0.28);
    canvas.fill(film, mixed(own, WHITE, LIT_EDGE), 1);
    canvas.fill(transformCurves(film, translation(edgePx * 0.2, edgePx * 0.35)), own, 1, film);
    if (look !== 'matte') canvas.shine(film, (x, y) => shineAt(look, x / pxPerMm, y / pxPerMm, 1 / pxPerMm));
  }
  return canvas;
}

/** See-through ink on what lies below it. */
const inked = (ink: Rgb, on: Rgb): Rgb => ({ r: (ink.r * on.r) / 255, g: (ink.g * on.g) / 255, b: (ink.b * on.b) / 255 });

const mixed = (a: Rgb, b: Rgb, share: number): Rgb => ({ r: a.r + (b.r - a.r) * share, g: a.g + (b.g - a.g) * share, b: a.b + (b.b - a.b) * share });
