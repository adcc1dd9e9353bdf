import { changedLayer, type DesignLayer } from '../assemble/design.ts';
import { bentCurves } from '../combine/bendCurves.ts';
import { bentBy, unbent } from '../geometry/fan.ts';
import { bentPicture } from '../print/bendPicture.ts';
import { printFacts, printWarnings } from '../print/motif.ts';
import { followedBy, inverseOf, translation, type Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import { plainObjects } from '../job/objects.ts';
import { tracedPart } from '../job/tracedPart.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { withBleed } from '../print/bleed.ts';
import { withinOutlines } from '../print/withinOutlines.ts';
import { areaPicture, blankProof, type BlankProofInput, type PrintedPicture } from '../proof/blankProof.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Rgba8 } from '../raster/raster.ts';
import type { CutResult } from './runJob.ts';

/** What is printed of a traced object. */
export interface PrintedOfObject extends PrintedPicture {
  readonly id: string;
  /** Its pixels on one of the picture as it came: less than one when it is reduced, more when it was enlarged. */
  readonly pxPerPicturePx: number;
  /** What operations laid below it, such as a border: printed in the colours of its films. */
  readonly below: readonly DesignLayer[];
}

/**
 * The art of printed objects where they lie on the design; nothing for what is cut. Ground that the separation left out, and what was cut out of an object, is not printed; of art whose own clearness says what is there, and that nothing is done to,
 * soft rims stay as they are.
 * @param bleedMm how far colours run out over their edge; as the job's layout says when absent.
 */
export function printedPictures(job: Job, { places, parts }: Pick<CutResult, 'places' | 'parts'>, arts: ReadonlyMap<string, { readonly art: Art }>, bleedMm = job.layout.bleedMm ?? 0): PrintedOfObject[] | undefined {
  if (!PROCESSES[job.process].isPrinted) return undefined;
  return [...arts].flatMap(([id, { art }]): PrintedOfObject[] => {
    const place = places.get(id);
    if (place === undefined) return [];
    const { separation } = tracedPart(job, id);
    const object = plainObjects(job.objects).find((each) => each.id === id);
    const operations = object !== undefined && 'operations' in object ? (object.operations ?? []).filter(({ enabled }) => enabled !== false) : [];
    const laid = new Set(operations.flatMap((operation) => ('film' in operation && operation.kind !== 'film' ? [operation.film] : [])));
    const part = parts.find((each) => each.id === id);
    const layers = part?.layers ?? [];
    const own = layers.filter(({ filmId }) => !laid.has(filmId));
    const picture = pictureFromArt(art);
    const isWhole = part === undefined || (separation.way === 'oneTone' && separation.source === 'notClear' && operations.length === 0 && parts.every(({ cutsOut }) => cutsOut !== true));
    const toArt = inverseOf(place.fromOutline);
    const inked = isWhole ? picture : withinOutlines(picture, own.map(({ curves }) => transformCurves(curves, toArt)));
    const bled = bleedMm > 0 ? withBleed(inked, bleedMm * scaleOf(toArt)) : { picture: inked, padPx: 0 };
    return [{ id, picture: bled.picture, toDesign: followedBy(translation(-bled.padPx, -bled.padPx), place.fromOutline), pxPerPicturePx: art.frame.scale, below: isWhole ? [] : layers.filter(({ filmId }) => laid.has(filmId)) }];
  });
}

/** The same as they are printed: bent where their blank tapers. */
export function pagePictures(job: Job, cut: Pick<CutResult, 'places' | 'parts' | 'laid'>, arts: ReadonlyMap<string, { readonly art: Art }>): PrintedOfObject[] | undefined {
  const { fan } = cut.laid;
  const printed = printedPictures(job, cut, arts);
  if (fan === undefined) return printed;
  return printed?.map(({ picture, toDesign, below, ...rest }) => ({ ...rest, ...bentPicture(picture, toDesign, fan), below: below.map((layer) => changedLayer(layer, (curves) => bentCurves(curves, bentBy(fan)))) }));
}

/** How much larger lengths are after it. */
const scaleOf = ({ a, b, c, d }: Affine): number => Math.sqrt(Math.abs(a * d - b * c));

type ProofCut = Pick<CutResult, 'design' | 'rack' | 'places' | 'parts' | 'print' | 'laid'>;
type ProofOptions = Pick<BlankProofInput, 'label' | 'sidePx' | 'turnRad' | 'filmsOn'>;

function proofInput(job: Job, cut: ProofCut, arts: ReadonlyMap<string, { readonly art: Art }>, options: ProofOptions): BlankProofInput {
  const { blank, process, place } = job;
  // What runs out over the edge is cut off before it comes on the blank.
  const printed = printedPictures(job, cut, arts, 0);
  const { fan } = cut.laid;
  const laid = cut.print?.motifs.flatMap((motif) => (motif.white === undefined ? [] : [motif.white])) ?? [];
  // On the blank it lies as it was before it was bent.
  const white = fan === undefined ? laid : laid.map((curves) => bentCurves(curves, (x, y) => unbent(fan, x, y)));
  return { blank, process, place, design: cut.design, films: cut.rack, stuff: cut.rack.map(({ id }) => materialOf(job, id)), ...(printed === undefined ? {} : { printed }), onWhitePaper: job.layout.paper === 'white', white, ...options };
}

/** The finished blank of a job as a picture. */
export const proofOnBlank = (job: Job, cut: ProofCut, arts: ReadonlyMap<string, { readonly art: Art }>, options: ProofOptions): { readonly picture: Rgba8; readonly pxPerMm: number } => blankProof(proofInput(job, cut, arts, options));

/** What lies on the printable area of a job's blank, so many px wide or high at most. */
export function areaOnBlank(job: Job, cut: ProofCut, arts: ReadonlyMap<string, { readonly art: Art }>, sidePx: number): Rgba8 {
  const { widthMm, heightMm } = job.blank;
  return areaPicture(proofInput(job, cut, arts, { sidePx }), sidePx / Math.max(widthMm, heightMm));
}

/** What is to be said of printed pictures at their size, each thing once. */
export function warningsOfPrint({ blank, layout }: Pick<Job, 'blank' | 'layout'>, printed: readonly PrintedOfObject[]): string[] {
  return [...new Set(printed.flatMap(({ picture, pxPerPicturePx, toDesign }) => printWarnings(printFacts(picture), 25.4 / scaleOf(toDesign) / pxPerPicturePx, layout.paper ?? 'clear', blank.colour, layout.white?.on === true)))];
}
