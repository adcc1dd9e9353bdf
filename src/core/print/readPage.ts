import { placed, type Affine } from '../geometry/affine.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { findMark, type CameraView, type MarkFault } from './findMark.ts';
import { MARK_DOT, PAGE_MARK, pageMarks } from './printPages.ts';
import { say } from '../words/say.ts';

/** The corners of a page as its marks are listed. */
export const CORNERS = [say('upper left'), say('upper right'), say('lower left'), say('lower right')] as const;
export type Corner = (typeof CORNERS)[number];

/** What was seen of a mark: where on the bed it lies, or why that is not known. */
export type MarkSeen = { readonly corner: Corner } & ({ readonly xMm: number; readonly yMm: number } | { readonly why: MarkFault });

/** Why a page cannot be cut by its marks: too few of them, it lies turned by half, it is another page, or it is not flat. */
export type PageFault = 'tooFew' | 'turned' | 'other' | 'bent';

export interface PageSeen {
  readonly marks: readonly MarkSeen[];
  /** From the page's mm to the bed's, both y down; absent where there is a fault. */
  readonly toBed?: Affine;
  /** How far the mark that fits worst lies from where it should, mm; 0 where there are but three. */
  readonly worstMm?: number;
  readonly fault?: PageFault;
}

/** Where the camera is to look for the middle of each mark on the bed, mm, y down, when the page lies as it is told. */
export function cameraPlaces(area: RectMm, lies: Affine): { readonly corner: Corner; readonly xMm: number; readonly yMm: number }[] {
  return middlesOf(area).map(({ x, y, sx, sy }, k) => {
    // The middle of the mark, so that it may lie a good way off to all sides.
    const at = placed(lies, x + (sx * PAGE_MARK.armMm) / 2, y + (sy * PAGE_MARK.armMm) / 2);
    return { corner: CORNERS[k], xMm: at.x, yMm: at.y };
  });
}

/** Where the middles of the arms cross, on the page. */
const middlesOf = (area: RectMm): { readonly x: number; readonly y: number; readonly sx: 1 | -1; readonly sy: 1 | -1 }[] =>
  pageMarks(area).map(({ x, y, sx, sy }) => ({ x: x + (sx * PAGE_MARK.broadMm) / 2, y: y + (sy * PAGE_MARK.broadMm) / 2, sx, sy }));

/** A page is not larger or smaller, not larger one way than the other, nor more slanted, than that. */
const MOST_SCALE = 0.03;
const MOST_UNEVEN = 0.02;
const MOST_SHEAR = 0.04;
/** A mark that fits worse than this tells that the page is not flat, mm. */
const MOST_STRAY_MM = 0.3;

/**
 * Reads how a printed page lies from pictures of its four marks: shift, turn, scale and shear, by least squares. Three marks are enough; with four it is known whether they agree.
 * @param area of the page that its marks stand in the corners of. @param views of the camera, in the order of `CORNERS`, each with the bed's mm that its upper left lies at, y down.
 */
export function readPage(area: RectMm, views: readonly (CameraView & { readonly leftMm: number; readonly topMm: number })[]): PageSeen {
  const middles = middlesOf(area);
  const marks = views.map((view, k): MarkSeen => {
    const found = findMark(view, middles[k]);
    return 'why' in found ? { corner: CORNERS[k], ...found } : { corner: CORNERS[k], xMm: view.leftMm + found.xMm, yMm: view.topMm + found.yMm };
  });
  const pairs = marks.flatMap((mark, k) => ('why' in mark ? [] : [{ from: middles[k], to: { x: mark.xMm, y: mark.yMm }, k }]));
  if (pairs.length < 3) return { marks, fault: 'tooFew' };
  const toBed = affineBetween(pairs);
  const strays = pairs.map(({ from, to }) => {
    const at = placed(toBed, from.x, from.y);
    return Math.hypot(at.x - to.x, at.y - to.y);
  });
  const worstMm = Math.max(...strays);
  const { a, b, c, d } = toBed;
  const [across, down] = [Math.hypot(a, b), Math.hypot(c, d)];
  if (Math.abs(across - 1) > MOST_SCALE || Math.abs(down - 1) > MOST_SCALE || Math.abs(across / down - 1) > MOST_UNEVEN || Math.abs((a * c + b * d) / (across * down)) > MOST_SHEAR) return { marks, fault: 'other' };
  if (worstMm > MOST_STRAY_MM) return { marks, worstMm, fault: 'bent' };
  const dotted = pairs.find(({ k }) => hasDot(views[k], middles[k], toBed));
  if (dotted === undefined ? pairs.some(({ k }) => k === 0) : dotted.k !== 0) return { marks, worstMm, fault: dotted?.k === 3 ? 'turned' : 'other' };
  return { marks, toBed, worstMm };
}

/** Whether the square that the first mark of a page has stands beside a mark. */
function hasDot(view: CameraView & { readonly leftMm: number; readonly topMm: number }, { x, y, sx, sy }: { readonly x: number; readonly y: number; readonly sx: number; readonly sy: number }, toBed: Affine): boolean {
  const { awayMm, sideMm } = MARK_DOT;
  const grey = (away: number): number => {
    const at = placed(toBed, x + sx * away, y + sy * away);
    const [px, py] = [Math.round((at.x - view.leftMm) * view.pxPerMm), Math.round((at.y - view.topMm) * view.pxPerMm)];
    return px < 0 || py < 0 || px >= view.widthPx || py >= view.heightPx ? 255 : view.grey[py * view.widthPx + px];
  };
  const [inside, beside] = [grey(awayMm + sideMm / 2), grey(awayMm + 2 * sideMm)];
  return beside - inside > 40;
}

/** The transform that takes places nearest to others, by least squares. @param pairs three or more, not on one line. */
function affineBetween(pairs: readonly { readonly from: { readonly x: number; readonly y: number }; readonly to: { readonly x: number; readonly y: number } }[]): Affine {
  const n = pairs.length;
  const mean = (of: (pair: (typeof pairs)[number]) => number): number => pairs.reduce((sum, pair) => sum + of(pair) / n, 0);
  const [mx, my, mu, mv] = [mean(({ from }) => from.x), mean(({ from }) => from.y), mean(({ to }) => to.x), mean(({ to }) => to.y)];
  let [xx, xy, yy, xu, yu, xv, yv] = [0, 0, 0, 0, 0, 0, 0];
  for (const { from, to } of pairs) {
    const [x, y, u, v] = [from.x - mx, from.y - my, to.x - mu, to.y - mv];
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xu += x * u;
    yu += y * u;
    xv += x * v;
    yv += y * v;
  }
  const det = xx * yy - xy * xy;
  const [a, c, b, d] = [(xu * yy - yu * xy) / det, (yu * xx - xu * xy) / det, (xv * yy - yv * xy) / det, (yv * xx - xv * xy) / det];
  return { a, b, c, d, e: mu - a * mx - c * my, f: mv - b * mx - d * my };
}
