import type { Film } from '../film/film.ts';
import { followedBy, type Affine } from '../geometry/affine.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import type { PrintPages } from '../print/printPages.ts';
import { plainRun, type CutPlan } from './cutPlan.ts';
import { cutRoute } from './cutRoute.ts';
import { say } from '../words/say.ts';

/** What is told as the film of a printed page. */
const PRINTED_PAGE: Film = { id: 'printed-page', name: say('Printed page'), colour: '#fffdf8' };

/**
 * What a cutter does on a page that was printed: the cut lines of its motifs where they lie by now, then the slits through its waste.
 * @param page from 1. @param slits on it, in its mm. @param toBed from the page's mm to the bed's, both y down. @param bed what the cutter reaches.
 * @returns undefined where the page has no cut line.
 */
export function printedPlan({ motifs, pages }: Pick<PrintPages, 'motifs' | 'pages'>, page: number, toBed: Affine, { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }, slits?: Curves): CutPlan | undefined {
  const lines = joinCurves((pages[page - 1] ?? []).flatMap(({ motif, at }) => {
    const { contour } = motifs[motif];
    return contour === undefined ? [] : [transformCurves(contour, followedBy(at, toBed))];
  }));
  if (ringCount(lines) === 0) return undefined;
  return { film: PRINTED_PAGE, widthMm, heightMm, runs: [{ role: 'cut', ...cutRoute(lines) }, ...(slits === undefined || ringCount(slits) === 0 ? [] : [plainRun('weedLine', transformCurves(slits, toBed))])] };
}
