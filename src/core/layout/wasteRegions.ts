import { combineCurves } from '../combine/combineCurves.ts';
import { strokeCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { shortRoute } from '../geometry/shortRoute.ts';
import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { insideRing } from '../outline/checkCurves.ts';
import { innerPlace, ofPieces } from '../operate/pieceMarks.ts';
import { piecesIndex, type PiecesIndex } from '../operate/piecesIndex.ts';
import { piecesOf, type Piece } from '../outline/pieces.ts';
import { joinCurves, lengthOf, transformCurves } from '../outline/transformCurves.ts';
import { boxCurves } from './cutPlan.ts';
import type { Sheet } from './laySheet.ts';

/** A region of the sheet that is weeded away. */
export interface WastePiece {
  readonly curves: Curves;
  readonly areaMm2: number;
  /** A place well inside of it, mm of the sheet. */
  readonly xMm: number;
  readonly yMm: number;
  /** Whether it lies in an opening of the art and has to be picked out. */
  readonly isPicked: boolean;
  /** How hard it lifts: easy, with care, or so that something small may come with it or it tears. */
  readonly ease: 'easy' | 'care' | 'hard';
  /** About how long it takes, s. */
  readonly takesS: number;
}

/** In the order in which it is weeded: what lies around first, the largest first, then what is picked out, along a short way. */
export interface WeedingPlan {
  readonly waste: readonly WastePiece[];
  readonly picked: number;
  readonly takesS: number;
}

/** Weed lines are cut through the waste by a slit so wide, mm. */
const SLIT_MM = 0.02;
/** Waste below this is a bit of a slit, mm². */
const LEAST_MM2 = 0.01;
/** Waste pulled along so much edge for its area tears or takes something with it: by length² over area; a disc has 12.6, a square 16. */
const CARE = 400;
const HARD = 1500;
/** Smaller openings are fiddly, mm². */
const SMALL_OPENING_MM2 = 2;
/** Weeding by hand, as an estimate to compare by and not a promise: waste is pulled along every cut edge, and each opening is picked out with the hook. */
export const WEEDING_PACE = { perMetreS: 25, perOpeningS: 2.5 } as const;

/**
 * What of a sheet is weeded away, as true regions: the insides of its boxes, or of what is used where there are none, without the pieces and parted by the weed lines.
 * @returns coordinates in mm of the sheet.
 */
export function weedingPlan(library: PolygonLibrary, { parts, placements, boxes, boxRoundMm, used, weedLines }: Pick<Sheet, 'parts' | 'placements' | 'boxes' | 'boxRoundMm' | 'used' | 'weedLines'>): WeedingPlan {
  const curvesOf = new Map(parts.map(({ id, curves }) => [id, closedOnly(curves)]));
  const pieces = joinCurves(placements.map(({ partId, at }) => transformCurves(curvesOf.get(partId) as Curves, at)));
  const slits = weedLines === undefined || ringCount(weedLines) === 0 ? [] : [strokeCurves(library, weedLines, SLIT_MM / 2)];
  // All at once: what overlaps is wound around more than once, and is no waste all the same.
  const parted = combineCurves(library, 'cutOut', boxCurves(boxes.length > 0 ? boxes : [used], boxRoundMm), joinCurves([pieces, ...slits]));
  const index = piecesIndex(pieces);
  const found = piecesOf(parted).filter(({ area }) => area >= LEAST_MM2).map((piece) => wastePiece(parted, piece, index));
  const around = found.filter(({ isPicked }) => !isPicked).sort((a, b) => b.areaMm2 - a.areaMm2);
  const inside = found.filter(({ isPicked }) => isPicked);
  const from = around[around.length - 1] ?? { xMm: used.xMm, yMm: used.yMm };
  const picked = [...shortRoute(inside.map(({ xMm }) => xMm), inside.map(({ yMm }) => yMm), from.xMm, from.yMm)].map((k) => inside[k]);
  const waste = [...around, ...picked];
  return { waste, picked: picked.length, takesS: waste.reduce((sum, { takesS }) => sum + takesS, 0) };
}

/** Without lines that are open: they part nothing. */
function closedOnly(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) if (!isOpenRing(curves, ring)) builder.copy(curves, ring, -1);
  return builder.build();
}

/** Whether a place lies within the outer edge of one of the pieces: being waste, it is in an opening then. */
function isWithin({ pieces, boxes, rings }: PiecesIndex, x: number, y: number): boolean {
  return pieces.some(({ outer }, k) => x >= boxes[k].left && x <= boxes[k].right && y >= boxes[k].top && y <= boxes[k].bottom && insideRing(rings, outer, x, y));
}

function wastePiece(curves: Curves, piece: Piece, pieces: PiecesIndex): WastePiece {
  const { area } = piece;
  const own = ofPieces(curves, [piece]);
  const edgeMm = lengthOf(own);
  const inner = innerPlace(curves, piece);
  const isPicked = isWithin(pieces, inner.x, inner.y);
  const winding = edgeMm ** 2 / area;
  const ease = winding > HARD || (isPicked && area < SMALL_OPENING_MM2) ? 'hard' : winding > CARE ? 'care' : 'easy';
  return { curves: own, areaMm2: area, xMm: inner.x, yMm: inner.y, isPicked, ease, takesS: (edgeMm / 1000) * WEEDING_PACE.perMetreS + (isPicked ? WEEDING_PACE.perOpeningS : 0) };
}
