import { WEEDING_PACE } from '../layout/wasteRegions.ts';
import { nodeCount, ringCount, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { lengthOf } from '../outline/transformCurves.ts';

/** What cutting and weeding an outline takes. */
export interface Figures {
  readonly pieces: number;
  readonly nodes: number;
  readonly areaMm2: number;
  readonly cutLengthMm: number;
  /** Area of the smallest piece, mm²; 0 without pieces. */
  readonly smallestMm2: number;
  /** Expected time to weed it by hand, s. */
  readonly weedingS: number;
}

export const NO_FIGURES: Figures = { pieces: 0, nodes: 0, areaMm2: 0, cutLengthMm: 0, smallestMm2: 0, weedingS: 0 };

/** Around small pieces one goes slowly, so that they stay down. */
const WEEDING = { ...WEEDING_PACE, perPieceS: 1, perSmallPieceS: 4, smallMm2: 15 } as const;

/** The figures of one film's outline in mm. */
export function figuresOf(curves: Curves): Figures {
  const pieces = piecesOf(curves);
  const areas = pieces.map(({ area }) => area);
  const cutLengthMm = lengthOf(curves);
  const openings = ringCount(curves) - pieces.length;
  const small = areas.filter((area) => area < WEEDING.smallMm2).length;
  const weedingS =
    (cutLengthMm / 1000) * WEEDING.perMetreS + openings * WEEDING.perOpeningS + pieces.length * WEEDING.perPieceS + small * WEEDING.perSmallPieceS;
  return {
    pieces: pieces.length,
    nodes: nodeCount(curves),
    areaMm2: areas.reduce((sum, area) => sum + area, 0),
    cutLengthMm,
    smallestMm2: areas.length === 0 ? 0 : Math.min(...areas),
    weedingS,
  };
}

/** The figures of several films together. */
export function figuresTogether(films: readonly Figures[]): Figures {
  const sum = (of: (figures: Figures) => number): number => films.reduce((total, each) => total + of(each), 0);
  const cut = films.filter(({ pieces }) => pieces > 0);
  return {
    pieces: sum(({ pieces }) => pieces),
    nodes: sum(({ nodes }) => nodes),
    areaMm2: sum(({ areaMm2 }) => areaMm2),
    cutLengthMm: sum(({ cutLengthMm }) => cutLengthMm),
    smallestMm2: cut.length === 0 ? 0 : Math.min(...cut.map(({ smallestMm2 }) => smallestMm2)),
    weedingS: sum(({ weedingS }) => weedingS),
  };
}
