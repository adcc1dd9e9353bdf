import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { IDENTITY, translation, type Affine } from '../geometry/affine.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { boxAround, changedLayer, type Design, type DesignLayer } from './design.ts';
import { isAnyInset, overlap, STACKED, withMeeting, type Layering } from './layering.ts';

/** What sizes differ by in their last digits, mm. */
const ROUNDING_MM = 1e-9;

/** What lies in a design as one: outlines of films in their own mm, and where they are put. */
export interface PlacedLayers {
  /** Of the object; those of a group are those of what it holds. */
  readonly id?: string;
  readonly layers: readonly DesignLayer[];
  readonly placement?: Affine | undefined;
  /** Cut out of all that lies below, instead of being there. */
  readonly cutsOut?: boolean | undefined;
}

/** What is made from all that lies in a design, once that is known: put below it, or cut out of all of it. */
export interface MadeFromAll {
  readonly id: string;
  readonly does: 'liesBelow' | 'cutsOut';
  /** @param all the other films as they lie, lowest first. @returns outlines in the same mm. */
  readonly make: (all: readonly DesignLayer[]) => readonly DesignLayer[];
  /** What each of the other films gets to what it has there, from what was made; nothing when absent. */
  readonly joinTo?: ((film: Curves, made: readonly DesignLayer[]) => Curves) | undefined;
}

/** What a design is put together with beside its objects. */
export interface ComposeWith {
  /** What combines outlines; not needed where nothing cuts, is inset or joined. */
  readonly library?: PolygonLibrary | undefined;
  /** What is made from all objects, in this order. */
  readonly fromAll?: readonly MadeFromAll[];
  /** How films lie on each other; stacked when absent. */
  readonly layering?: Layering | undefined;
}

/** An object as it lies in a design, mm. */
export interface PartInDesign {
  readonly id: string;
  readonly box: Bounds;
  /** Its films as they are cut; of one that cuts what it cuts out. */
  readonly layers: readonly DesignLayer[];
  readonly cutsOut?: boolean | undefined;
}

export interface ComposedDesign {
  readonly design: Design;
  /** How the objects' common mm were moved so that the design's box starts at 0, 0. */
  readonly moved: Affine;
  /** The objects that have an id, lowest first. */
  readonly parts: readonly PartInDesign[];
}

type InPlace = Omit<PlacedLayers, 'placement'>;

/**
 * Puts objects together, lowest first: what several have of one film becomes one layer, where the film goes on first.
 * @param order films in the order of pressing; those that it does not name follow in the order of the objects.
 * @throws AppError `nothingToCut` when nothing is there.
 */
export function composeDesign(objects: readonly PlacedLayers[], order: readonly string[], { library, fromAll = [], layering = STACKED }: ComposeWith = {}): ComposedDesign {
  let inPlace: readonly InPlace[] = objects.map(({ layers, placement, ...object }) => ({ ...object, layers: placement === undefined ? layers : layers.map((layer) => transformLayer(layer, placement)) }));
  inPlace = withoutCuts(inPlace, library);
  for (const { id, does, make, joinTo } of fromAll) {
    const made: InPlace = { id, layers: make(inPlace.flatMap(({ layers, cutsOut }) => (cutsOut === true ? [] : layers))), ...(does === 'cutsOut' ? { cutsOut: true } : {}) };
    if (joinTo !== undefined) inPlace = onceOnEachFilm(inPlace, (curves) => joinTo(curves, made.layers));
    inPlace = does === 'liesBelow' ? [made, ...inPlace] : [...cutBy(inPlace, made, library), made];
  }
  const seen = inPlace.flatMap(({ layers, cutsOut }) => (cutsOut === true ? [] : layers));
  const box = boxAround(seen);
  const moved = Math.hypot(box.left, box.top) < ROUNDING_MM ? IDENTITY : translation(-box.left, -box.top);
  const films = pressingOrder(
    inPlace.flatMap(({ layers, cutsOut }) => (cutsOut === true ? [] : [layers.map(({ filmId }) => filmId)])),
    order,
  );
  if (isAnyInset(layering)) inPlace = withMeeting(library ?? missing(), inPlace, films, layering);
  const parts = inPlace.map((part) => (moved === IDENTITY ? part : { ...part, layers: part.layers.map((layer) => transformLayer(layer, moved)) }));
  const all = parts.flatMap(({ layers, cutsOut }) => (cutsOut === true ? [] : layers));
  const layers = films.flatMap((filmId): DesignLayer[] => {
    const own = all.filter((layer) => layer.filmId === filmId && (boundsOf(layer.curves) !== undefined || layer.marks !== undefined));
    const together = own.length === 0 ? [] : own.length === 1 ? [own[0]] : [{ filmId, ...joined(own) }];
    return layering.joined?.includes(filmId) === true ? together.map((layer) => ({ ...layer, curves: joinOverlaps(library ?? missing(), layer.curves) })) : together;
  });
  const told = parts.flatMap(({ id, layers: own, cutsOut }): PartInDesign[] => {
    const around = boundsOf(joinCurves(own.map(({ curves }) => curves)));
    return id === undefined || around === undefined ? [] : [{ id, box: around, layers: own, ...(cutsOut === true ? { cutsOut } : {}) }];
  });
  return { design: { layers, widthMm: mm(box.right - box.left), heightMm: mm(box.bottom - box.top) }, moved, parts: told };
}

function missing(): never {
  throw new RangeError('nothing is there to combine outlines with');
}

const transformLayer = (layer: DesignLayer, t: Affine): DesignLayer => changedLayer(layer, (curves) => transformCurves(curves, t));

function joined(layers: readonly DesignLayer[]): Pick<DesignLayer, 'curves' | 'marks'> {
  const marks = layers.flatMap((layer) => layer.marks ?? []);
  return { curves: joinCurves(layers.map(({ curves }) => curves)), ...(marks.length === 0 ? {} : { marks: joinCurves(marks) }) };
}

/** Changes each film in the first of the objects that lie on it. */
function onceOnEachFilm(objects: readonly InPlace[], change: (curves: Curves) => Curves): InPlace[] {
  const done = new Set<string>();
  return objects.map((object) =>
    object.cutsOut === true
      ? object
      : {
          ...object,
          layers: object.layers.map((layer) => {
            if (done.has(layer.filmId)) return layer;
            done.add(layer.filmId);
            return { ...layer, curves: change(layer.curves) };
          }),
        },
  );
}

/** The objects once those that cut have cut all below them. @throws RangeError when something cuts and nothing is there to do it. */
function withoutCuts(objects: readonly InPlace[], library: PolygonLibrary | undefined): InPlace[] {
  let left: InPlace[] = [];
  for (const object of objects) {
    if (object.cutsOut === true) left = cutBy(left, object, library);
    left.push(object);
  }
  return left;
}

function cutBy(objects: readonly InPlace[], { layers }: InPlace, library: PolygonLibrary = missing()): InPlace[] {
  const cut = (layer: DesignLayer): DesignLayer => layers.reduce((left, { curves }) => (overlap(left.curves, curves) ? { ...left, curves: combineCurves(library, 'cutOut', left.curves, curves) } : left), layer);
  return objects.map((part) => (part.cutsOut === true ? part : { ...part, layers: part.layers.map(cut) }));
}

/**
 * Films of several objects in one order. A single object's stands as it is; of several those on the rack lie as they do there, and each other film comes right
 * above the one that it lies on in its object.
 */
function pressingOrder(objects: readonly (readonly string[])[], rack: readonly string[]): string[] {
  if (objects.length === 1) return [...objects[0]];
  const all = objects.flat();
  const order = rack.filter((id) => all.includes(id));
  for (const films of objects) {
    for (const [k, id] of films.entries()) if (!order.includes(id)) order.splice(placeFor(k, films, order), 0, id);
  }
  return order;
}

/**
 * Where a film that is not in the order yet belongs in it: above the one that it lies on, or below the first of those that lie on it; on top where it has to do
 * with none.
 */
function placeFor(k: number, films: readonly string[], order: readonly string[]): number {
  if (k > 0) return order.indexOf(films[k - 1]) + 1;
  const above = films.find((id) => order.includes(id));
  return above === undefined ? order.length : order.indexOf(above);
}
