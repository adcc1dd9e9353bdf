import { AppError } from '../errors/appError.ts';
import { isOpaque, type Art } from '../raster/art.ts';
import type { RectPx } from '../raster/crop.ts';
import { lumaHistogram, throughTable } from '../raster/luma.ts';
import { otsu } from '../raster/otsu.ts';
import { makeShareMap, type ShareMap } from '../raster/raster.ts';
import { within, type Task } from '../task/task.ts';
import { drawJoints, type Joint } from './drawJoints.ts';
import { findJoints } from './findJoints.ts';
import { sparedOf, type Find, type Places } from './finds.ts';
import { letteringMask } from './lettering.ts';
import { inkMask, lineEnds, type LineEnd } from './lineEnds.ts';

/** A gap is read from pixels that are at least half ink: it may come out so much wider than it was cut. */
const EDGE_SLACK_PX = 1;
/** Less contrast between ink and ground is no drawing, levels of 255. */
const LEAST_CONTRAST = 10;

/**
 * Mends breaks in drawn lines: ends of lines that face each other across a gap are joined by a curve in both their directions and widths, in the line's
 * own colour; an end that faces the side of other ink is carried on to it. The nearest and straightest pairs are taken first, each end once.
 * Letters end in lines that face each other by nature: what reads as lettering is left as it is, except in a frame that was drawn round it.
 * @param mostPx widest gap between the ink on both sides, px of the art.
 * @param spared places of joints that are not drawn, px of the art.
 * @param frame outside of which no line ends, px of the art, and within which lettering is mended too; everywhere when absent.
 * @throws AppError `oneColour` when ink and ground cannot be told apart.
 */
export function* mendGaps(art: Art, mostPx: number, spared: Places = [], frame?: RectPx): Task<{ art: Art; joints: readonly Joint[]; finds: readonly Find[] }> {
  const { width, height } = art;
  const share = inkShare(art);
  const ink = inkMask(share);
  yield 0.3;
  const all = yield* within(lineEnds(share), 0.3, 0.65);
  const lettering = frame === undefined ? letteringMask(ink, width, height, all) : new Uint8Array(ink.length);
  const isWithin = ({ xPx, yPx }: LineEnd): boolean =>
    frame === undefined || (xPx >= frame.xPx && yPx >= frame.yPx && xPx <= frame.xPx + frame.widthPx && yPx <= frame.yPx + frame.heightPx);
  const ends = all.filter((end) => lettering[end.pixel] === 0 && isWithin(end));
  yield 0.7;
  const found = findJoints(ends, ink, lettering, width, height, mostPx + EDGE_SLACK_PX);
  const finds = jointFinds(found, spared);
  const joints = found.filter((_, k) => !finds[k].spared);
  return { art: joints.length === 0 ? art : drawJoints(art, share, ink, joints), joints, finds };
}

/** The joints as finds, each at its middle. */
function jointFinds(joints: readonly Joint[], spared: Places): Find[] {
  const middles = joints.map(({ points }) => {
    const k = 2 * ((points.length / 2) >> 1);
    return points.length === 4 ? [(points[0] + points[2]) / 2, (points[1] + points[3]) / 2] : [points[k], points[k + 1]];
  });
  const gaps = joints.map(({ gapPx }) => gapPx);
  const isSpared = sparedOf(
    middles.map(([x]) => x),
    middles.map(([, y]) => y),
    gaps,
    spared,
  );
  return joints.map(({ gapPx }, k) => ({ kind: 'joint', xPx: middles[k][0], yPx: middles[k][1], size: gapPx, spared: isSpared[k] !== 0 }));
}

/** How much of each pixel is ink: by its lightness on white between the two tones. */
function inkShare(art: Art): ShareMap {
  const { dark, light } = otsu(lumaHistogram(art).histogram);
  if (light - dark < LEAST_CONTRAST) throw new AppError('oneColour');
  const table = Uint8Array.from({ length: 256 }, (_, v) => Math.round(255 * Math.max(0, Math.min(1, (light - v) / (light - dark)))));
  return makeShareMap(art.width, art.height, throughTable(art, table, isOpaque(art.alpha)));
}
