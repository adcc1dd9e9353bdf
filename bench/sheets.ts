import { cutCheck } from '../src/core/check/cutCheck.ts';
import { workingSize } from '../src/core/check/workingSize.ts';
import type { Design } from '../src/core/assemble/design.ts';
import { holdIslands } from '../src/core/bridge/holdIslands.ts';
import { figureCurves } from '../src/core/figure/figureCurves.ts';
import { followedBy, rotation, translation } from '../src/core/geometry/affine.ts';
import { cutPlanOf } from '../src/core/layout/cutPlan.ts';
import { knifeWay } from '../src/core/layout/knifeWay.ts';
import { laySheet } from '../src/core/layout/laySheet.ts';
import { onTile, tilesOf } from '../src/core/layout/tiles.ts';
import { weedingPlan } from '../src/core/layout/wasteRegions.ts';
import { weedLines } from '../src/core/layout/weedLines.ts';
import { usualMaterial } from '../src/core/process/material.ts';
import { nodeCount, type Curves } from '../src/core/outline/curves.ts';
import { piecesOf } from '../src/core/outline/pieces.ts';
import { joinCurves, transformCurves } from '../src/core/outline/transformCurves.ts';
import { randomFrom } from '../src/core/task/randomFrom.ts';
import { mm } from '../src/core/units/length.ts';
import { benchPolygons } from './polygons.ts';

const COLUMNS = 50;
const ROWS = 40;
const CELL_MM = 25;
const RUNS = 3;

/** Stars and rings of many nodes in rows, each turned its own way. */
export function manyPieces(): Curves {
  const random = randomFrom(11);
  const star = figureCurves({ form: 'star', widthMm: 20, heightMm: 20, corners: 24, depth: 0.3, cornerMm: 0 });
  const gear = figureCurves({ form: 'star', widthMm: 20, heightMm: 20, corners: 30, depth: 0.15, cornerMm: 0 });
  const hole = transformCurves(figureCurves({ form: 'round', widthMm: 6, heightMm: 6 }), translation(7, 7));
  return joinCurves(
    Array.from({ length: COLUMNS * ROWS }, (_, k) => {
      const at = followedBy(rotation(random() * 6.28, 10, 10), translation((k % COLUMNS) * CELL_MM, Math.floor(k / COLUMNS) * CELL_MM));
      return transformCurves(k % 2 === 0 ? star : withHole(gear, hole), at);
    }),
  );
}

/** A shape with an opening: the second ring lies in the first. */
function withHole(outer: Curves, hole: Curves): Curves {
  const both = joinCurves([outer, hole]);
  return { ...both, parent: Int32Array.from([-1, 0]) };
}

/** A sheet that holds all of them, with a box. */
export const MANY_SHEET = { sheet: { widthMm: 1300, heightMm: 1050, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' }, mirrored: true, box: { on: true, marginMm: 4 }, copies: 1, gapMm: 4 } as const;
export const manyDesign = (curves: Curves): Design => ({ layers: [{ filmId: 'a', curves }], widthMm: mm(COLUMNS * CELL_MM), heightMm: mm(ROWS * CELL_MM) });

/** What is done with a sheet of two thousand pieces and a hundred thousand nodes: how long each of it takes. */
export async function benchSheets(): Promise<void> {
  const library = await benchPolygons();
  const curves = manyPieces();
  const design = manyDesign(curves);
  const { least, cut } = usualMaterial('htv');
  const limits = { leastPieceMm2: least.pieceMm2, leastStripMm: least.stripMm, leastGapMm: least.gapMm, leastTipDeg: least.tipDeg, artIsOpening: false };
  const sheet = laySheet(design, 'a', MANY_SHEET);
  const lines = weedLines(sheet, { everyMm: 80, awayMm: 1.5 }).curves;
  const plan = cutPlanOf({ ...sheet, weedLines: lines }, { id: 'a', name: 'Navy', colour: '#22375f' });
  const tasks: readonly (readonly [string, () => unknown])[] = [
    ['cut check', () => cutCheck(design, limits)],
    ['down to which size', () => workingSize(design, limits)],
    ['weed lines', () => weedLines(sheet, { everyMm: 80, awayMm: 1.5 })],
    ['bridges on 1,000 islands', () => holdIslands(library, curves, { widthMm: 1, leastIslandMm2: 2 })],
    ['cut plan', () => cutPlanOf({ ...sheet, weedLines: lines }, { id: 'a', name: 'Navy', colour: '#22375f' })],
    ['the way of the tool, timed', () => knifeWay(plan, cut)],
    ['weeding plan', () => weedingPlan(library, { ...sheet, weedLines: lines })],
    ['parted into tiles', () => tilesOf(design, { widthMm: 300, heightMm: 600 }, { manner: 'overlap', overlapMm: 6 }).map((tile) => onTile(library, curves, tile))],
  ];
  console.log(`\nOne sheet: ${piecesOf(curves).length.toLocaleString('en')} pieces, ${nodeCount(curves).toLocaleString('en')} nodes\n\n| | first, ms | median, ms |\n|---|---|---|`);
  for (const [name, task] of tasks) {
    const times = Array.from({ length: RUNS }, () => {
      const began = performance.now();
      task();
      return performance.now() - began;
    });
    console.log(`| ${name} | ${Math.round(times[0])} | ${Math.round([...times].sort((a, b) => a - b)[Math.floor(RUNS / 2)])} |`);
  }
}
