import { readdir, readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import * as fontkit from 'fontkit';
import { holdIslands } from '../src/core/bridge/holdIslands.ts';
import { combineCurves } from '../src/core/combine/combineCurves.ts';
import type { PolygonLibrary } from '../src/core/combine/polygonLibrary.ts';
import { figureCurves } from '../src/core/figure/figureCurves.ts';
import { rotation, translation } from '../src/core/geometry/affine.ts';
import { SHIPPED_FONTS } from '../src/core/lettering/fonts.ts';
import { letterCurves } from '../src/core/lettering/letterCurves.ts';
import type { Curves } from '../src/core/outline/curves.ts';
import { flatten } from '../src/core/outline/flatten.ts';
import { piecesOf } from '../src/core/outline/pieces.ts';
import { transformCurves } from '../src/core/outline/transformCurves.ts';
import { randomFrom } from '../src/core/task/randomFrom.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { benchPolygons } from './polygons.ts';

const BRIDGE_MM = 2;
const CAPITAL_MM = 70;
/** All letters and figures of Latin that have a counter. */
const LETTERS = 'ABDOPQR\nabdegopq\n04689';

/** Bridges on the counters of every shipped font and on drawn islands: what is left loose, how much of the islands' outlines is covered, and how long it takes. */
export async function benchBridges(): Promise<void> {
  const require = createRequire(import.meta.url);
  const library = await benchPolygons();
  const counters: Curves[] = [];
  for (const { family, weight, name } of SHIPPED_FONTS) {
    const folder = join(dirname(require.resolve(`@fontsource/${family}/package.json`)), 'files');
    const file = (await readdir(folder)).find((each) => each === `${family}-latin-${weight}-normal.woff2`);
    if (file === undefined) continue;
    const face = fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await readFile(join(folder, file))), file, name);
    counters.push(letterCurves(library, face, { text: LETTERS, font: name, heightMm: CAPITAL_MM, join: true }).curves);
  }
  console.log(`\nBridges of ${BRIDGE_MM} mm\n\n| | islands | left loose | of their outlines covered | mean time |\n|---|---|---|---|---|`);
  report(`counters of ${counters.length} fonts, capitals of ${CAPITAL_MM} mm`, counters, library);
  report('40 drawn islands', drawnIslands(library), library);
}

function report(name: string, drawings: readonly Curves[], library: PolygonLibrary): void {
  let [islands, loose, widths, outlines, ms] = [0, 0, 0, 0, 0];
  for (const curves of drawings) {
    const began = performance.now();
    const held = holdIslands(library, curves, { widthMm: BRIDGE_MM, leastIslandMm2: 2 });
    ms += performance.now() - began;
    islands += held.islands;
    loose += piecesOf(held.curves).reduce((sum, { holes }) => sum + holes.length, 0);
    widths += held.bridges.reduce((sum, { widthMm }) => sum + widthMm, 0);
    outlines += outlinesOf(curves);
  }
  console.log(`| ${name} | ${islands} | ${loose} | ${((100 * widths) / outlines).toFixed(1)} % | ${Math.round(ms / drawings.length)} ms |`);
}

function outlinesOf(curves: Curves): number {
  const { points, starts } = flatten(curves, 0.02);
  let length = 0;
  for (const ring of piecesOf(curves).flatMap(({ holes }) => holes)) {
    for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) length += Math.hypot(points[2 * i] - points[2 * j], points[2 * i + 1] - points[2 * j + 1]);
  }
  return length;
}

/** Boards with an island each, somewhere and somehow turned. */
function drawnIslands(library: PolygonLibrary): Curves[] {
  const random = randomFrom(40);
  return Array.from({ length: 40 }, (_, k) => {
    const size = 20 + random() * 50;
    const box = { widthMm: size, heightMm: size * (0.6 + 0.4 * random()) };
    const island = [figureCurves({ form: 'heart', ...box }), figureCurves({ form: 'round', ...box }), figureCurves({ form: 'star', ...box, corners: 5 + (k % 4), depth: 0.5 }), figureCurves({ form: 'shield', ...box }), figureCurves({ form: 'wave', ...box, bandMm: 6, waves: 2 })][k % 5];
    const turned = transformCurves(transformCurves(island, rotation(random() * 6.28, size / 2, size / 2)), translation(20 + random() * 60, 20 + random() * 30));
    return combineCurves(library, 'cutOut', figureCurves({ form: 'rectangle', widthMm: 180, heightMm: 130 }), turned);
  });
}
