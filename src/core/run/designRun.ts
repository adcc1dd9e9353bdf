import { composeDesign, makeDesign, type Design, type PlacedLayers, type TracedPlace } from '../assemble/design.ts';
import { figureCurves } from '../assemble/figureCurves.ts';
import { cutCheck, type Finding } from '../check/cutCheck.ts';
import { followedBy, IDENTITY, type Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject, FigureObject, ImportedObject, TracedObject } from '../job/objects.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Art } from '../raster/art.ts';
import { pxPerMm } from '../units/length.ts';
import type { OutlinedArt } from './outlinePart.ts';

/** All objects of a job put together and checked. */
export interface DesignRun {
  readonly design: Design;
  /** Where each traced object lies in it, by its id. */
  readonly places: ReadonlyMap<string, TracedPlace>;
  readonly findings: readonly Finding[];
}

/** The design that a job's objects make together. @param outlined the traced objects that have a picture. @param arts what they were outlined from. */
export function designRun(
  job: Pick<Job, 'objects' | 'films' | 'process'>,
  outlined: ReadonlyMap<string, OutlinedArt>,
  arts: ReadonlyMap<string, Pick<Art, 'frame'>>,
): DesignRun {
  const own = new Map<string, TracedPlace>();
  const placed = job.objects.flatMap((object) => layersOf(object, IDENTITY, outlined, own));
  const { design, moved } = composeDesign(
    placed,
    job.films.map(({ id }) => id),
  );
  const places = new Map(
    [...own].map(([id, { resolution, fromOutline }]): [string, TracedPlace] => [id, { resolution, fromOutline: followedBy(fromOutline, moved) }]),
  );
  return { design, places, findings: cutCheck(design, { ...PROCESSES[job.process], picturePxPerMm: coarsestOf(places, arts) }) };
}

/** The outlines of an object in its own mm, and where they lie; a group's are those of what it holds. Where traced ones lie is noted. */
function layersOf(object: DesignObject, around: Affine, outlined: ReadonlyMap<string, OutlinedArt>, places: Map<string, TracedPlace>): PlacedLayers[] {
  const placement = object.placement === undefined ? around : followedBy(object.placement, around);
  if (object.kind === 'group') return object.objects.flatMap((inner) => layersOf(inner, placement, outlined, places));
  const where = placement === IDENTITY ? undefined : placement;
  if (object.kind !== 'traced') return [{ layers: plainLayers(object), placement: where }];
  const found = outlined.get(object.id);
  return found === undefined ? [] : [{ layers: tracedLayers(object, found, placement, places), placement: where }];
}

function tracedLayers(object: TracedObject, { films }: OutlinedArt, placement: Affine, places: Map<string, TracedPlace>): PlacedLayers['layers'] {
  const sized = makeDesign(
    films.map(({ film, outline }) => ({ filmId: film.id, curves: outline })),
    object.size,
  );
  const { a, b, c, d } = placement;
  // A placement that scales spreads the picture's pixels over more or fewer mm.
  const resolution = placement === IDENTITY ? sized.resolution : pxPerMm(sized.resolution / Math.sqrt(Math.abs(a * d - b * c)));
  places.set(object.id, { resolution, fromOutline: followedBy(sized.fromOutline, placement) });
  return sized.layers;
}

function plainLayers(object: FigureObject | ImportedObject): PlacedLayers['layers'] {
  if (object.kind === 'figure') return [{ filmId: object.film, curves: figureCurves(object.shape) }];
  return object.paths.map(({ film, path }) => ({ filmId: film, curves: nestRings(curvesFromPathData(path)) }));
}

/** Pixels on a mm of the design of the picture that has the fewest. Enlarging a picture gives it no more to read. */
function coarsestOf(places: ReadonlyMap<string, TracedPlace>, arts: ReadonlyMap<string, Pick<Art, 'frame'>>): number {
  return Math.min(...[...places].map(([id, { resolution }]) => resolution / Math.max(1, arts.get(id)?.frame.scale ?? 1)));
}
