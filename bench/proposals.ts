import { finish } from '../src/core/task/task.ts';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import { colourDifference, type Rgb } from '../src/core/colour/oklab.ts';
import { nodeCount } from '../src/core/outline/curves.ts';
import { pathData } from '../src/core/outline/pathData.ts';
import { cleanPart, cutJob } from '../src/core/run/runJob.ts';
import { tracedPart } from '../src/core/job/tracedPart.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { propose, startedWith } from '../src/core/propose/propose.ts';
import { USUAL_STOCK } from '../src/core/film/stock.ts';
import { colourDrawings, colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import type { ColourShape } from './colourLibraries.ts';
import { composedDrawing } from './composed.ts';
import { CONDITIONS, degraded } from './degrade.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { AS_THEY_COME } from './asTheyCome.ts';
import { compareEdges, truthOf } from './toneTruth.ts';

/** Drawings put together by chance beside those of the bench. */
const COMPOSED = 28;
const FIRST_SEED = 700;
/** More of the picture in another tone than this is another design, a share. */
const MOST_WRONG = 0.02;

/** Why the films of a drawing that was only dropped are not right; undefined when they are. @param asks a start that is only offered first will do. */
async function faultOf(drawing: ColourDrawing, picture: Rgba8, asks = false): Promise<string | undefined> {
  const base = newJob(drawing.name);
  const { look, isSure, proposals } = finish(propose(base, picture, USUAL_STOCK));
  if (proposals.length === 0) return 'no start';
  if (!isSure && !asks) return `not sure (${look.kind}, ${look.sure}): ${proposals.map(({ title }) => title).join(', ')}`;
  const job = startedWith(base, proposals[0]);
  const part = tracedPart(job);
  const clean = finish(cleanPart(part, picture, drawing.name));
  const cut = finish(cutJob(job, new Map([[part.id, clean]])));
  const truth = tonesOf(drawing).map((hex) => rgbFromHex(hex) as Rgb);
  if (Math.abs(cut.films.length + 1 - truth.length) > 1) return `${cut.films.length} films of ${truth.length - 1}`;
  // What each film stands for is the true tone that it is most like; its own colour is that of the shelf.
  const tones = cut.tones ?? [];
  const nearest = (hex: string): string => tonesOf(drawing).reduce((best, tone) => (difference(hex, tone) < difference(hex, best) ? tone : best));
  const shapes = cut.films.map(({ film, outline }): ColourShape => ({ fill: nearest(tones.find((tone) => tone.film === film.id)?.colour ?? film.colour), path: pathData(outline), nodes: nodeCount(outline) }));
  const { wrong } = await compareEdges(await truthOf(drawing, picture.width), nearest(tones.find(({ film }) => film === null)?.colour ?? drawing.ground), shapes);
  return wrong > MOST_WRONG ? `${(100 * wrong).toFixed(1)} % of the picture is wrong` : undefined;
}

const difference = (a: string, b: string): number => colourDifference(rgbFromHex(a) as Rgb, rgbFromHex(b) as Rgb);

/** How many drawings have the right films when they are dropped and nothing else is done. */
export async function benchProposals(): Promise<void> {
  const drawings = [...colourDrawings(), ...Array.from({ length: COMPOSED }, (_, k) => composedDrawing(FIRST_SEED + k, 3 + (k % 5)))];
  console.log('\n### Dropped, no other click\n\n| | right | not right |\n|---|---|---|');
  for (const condition of CONDITIONS) {
    const faults: string[] = [];
    for (const drawing of drawings) {
      const fault = await faultOf(drawing, await degraded((pixels) => colourSvgOf(drawing, pixels, false), condition));
      if (fault !== undefined) faults.push(`${drawing.name}: ${fault}`);
    }
    console.log(`| ${condition} | ${drawings.length - faults.length} of ${drawings.length} | ${faults.join('; ')} |`);
  }
  for (const [name, { suits, picture, asks }] of Object.entries(AS_THEY_COME)) {
    const faults: string[] = [];
    const suited = drawings.filter(suits);
    for (const drawing of suited) {
      const fault = await faultOf(drawing, await picture(drawing), asks);
      if (fault !== undefined) faults.push(`${drawing.name}: ${fault}`);
    }
    console.log(`| ${name} | ${suited.length - faults.length} of ${suited.length} | ${faults.join('; ')} |`);
  }
}
