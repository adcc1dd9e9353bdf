import { composeDesign, makeDesign, type Design, type ObjectBox, type PlacedLayers, type TracedPlace } from '../assemble/design.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { cutCheck, type Finding } from '../check/cutCheck.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { followedBy, IDENTITY, type Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject, TracedObject } from '../job/objects.ts';
import type { Curves } from '../outline/curves.ts';
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
  /** Where each object lies in it. */
  readonly boxes: readonly ObjectBox[];
  /** Where the zero of the objects' common mm lies in it. */
  readonly originMm: { readonly x: number; readonly y: number };
}

/** What lettering became, and what cuts outlines out of each other: a job without either needs none of it. */
export interface DesignShapes {
  readonly library: PolygonLibrary;
  /** Outlines of the lettering, mm, by the object's id. */
  readonly lettered: ReadonlyMap<string, Curves>;
}

/**
 * The design that a job's objects make together.
 * @param outlined the traced objects that have a picture. @param arts what they were outlined from.
 */
export function designRun(
  job: Pick<Job, 'objects' | 'films' | 'process'>,
  outlined: ReadonlyMap<string, OutlinedArt>,
  arts: ReadonlyMap<string, Pick<Art, 'frame'>>,
  shapes?: DesignShapes,
): DesignRun {
  const made: Made = { outlined, places: new Map(), lettered: shapes?.lettered };
  const placed = job.objects.flatMap((object) => layersOf(object, IDENTITY, made));
  const order = job.films.map(({ id }) => id);
  const cutOut = shapes === undefined ? undefined : (from: Curves, what: Curves): Curves => combineCurves(shapes.library, 'cutOut', from, what);
  const { design, moved, boxes } = composeDesign(placed, order, cutOut);
  const places = new Map(
    [...made.places].map(([id, { resolution, fromOutline }]): [string, TracedPlace] => [id, { resolution, fromOutline: followedBy(fromOutline, moved) }]),
  );
  const findings = cutCheck(design, { ...PROCESSES[job.process], picturePxPerMm: coarsestOf(places, arts) });
  return { design, places, findings, boxes, originMm: { x: moved.e, y: moved.f } };
}

/** What is known of the objects by now. */
interface Made {
  readonly outlined: ReadonlyMap<string, OutlinedArt>;
  readonly lettered: ReadonlyMap<string, Curves> | undefined;
  /** Filled as traced objects are met. */
  readonly places: Map<string, TracedPlace>;
}

/** The outlines of an object in its own mm, and where they lie; a group's are those of what it holds. Where traced ones lie is noted. */
function layersOf(object: DesignObject, around: Affine, made: Made): PlacedLayers[] {
  const placement = object.placement === undefined ? around : followedBy(object.placement, around);
  if (object.kind === 'group') return object.objects.flatMap((inner) => layersOf(inner, placement, made));
  const where = { id: object.id, placement: placement === IDENTITY ? undefined : placement };
  if (object.kind === 'imported') return [{ ...where, layers: object.paths.map(({ film, path }) => ({ filmId: film, curves: nestRings(curvesFromPathData(path)) })) }];
  if (object.kind === 'traced') {
    const found = made.outlined.get(object.id);
    return found === undefined ? [] : [{ ...where, layers: tracedLayers(object, found, placement, made.places) }];
  }
  const curves = object.kind === 'figure' ? figureCurves(object.shape) : made.lettered?.get(object.id);
  return curves === undefined ? [] : [{ ...where, layers: [{ filmId: object.film, curves }], cutsOut: object.cutsOut }];
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

/** Pixels on a mm of the design of the picture that has the fewest. Enlarging a picture gives it no more to read. */
function coarsestOf(places: ReadonlyMap<string, TracedPlace>, arts: ReadonlyMap<string, Pick<Art, 'frame'>>): number {
  return Math.min(...[...places].map(([id, { resolution }]) => resolution / Math.max(1, arts.get(id)?.frame.scale ?? 1)));
}
