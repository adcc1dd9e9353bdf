import { usualBridgeMm, USUAL_BRIDGES, type BridgeSettings } from '../bridge/bridge.ts';
import { holdIslands, type DesignBridge } from '../bridge/holdIslands.ts';
import { composeDesign, type MadeFromAll, type PartInDesign, type PlacedLayers } from '../assemble/composeDesign.ts';
import { makeDesign, type Design, type DesignLayer, type TracedPlace } from '../assemble/design.ts';
import { bandCurves, baseCurves, holeCurves, withEyelets } from '../assemble/madeFromAll.ts';
import { checkLimits, cutCheck, type Finding } from '../check/cutCheck.ts';
import { cutTwice } from '../check/cutTwice.ts';
import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { followedBy, IDENTITY, inverseOf, type Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { finishLetters, type LetteredText } from '../lettering/letterCurves.ts';
import { lettersAlong } from '../lettering/lettersAlong.ts';
import { lettersInto } from '../lettering/lettersInto.ts';
import { materialOf } from '../job/materials.ts';
import { plainObjects, type DesignObject, type FigureObject, type GroupObject, type LetteringObject, type TracedObject } from '../job/objects.ts';
import { operate, seenBelow, type OperationNote } from '../operate/operate.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { pictureFromFrame } from '../outline/heldOutline.ts';
import { nestRings } from '../outline/nestRings.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { isNested } from '../layout/nestSheets.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Art } from '../raster/art.ts';
import { pxPerMm } from '../units/length.ts';
import type { OutlinedArt } from './outlinePart.ts';
import { backwardsText } from './backwardsText.ts';

/** A part of the design: where it lies, and what its pieces are known by. */
export interface DesignPart extends PartInDesign {
  /** From the design's mm to the frame of the part's marks. */
  readonly toMarks: Affine;
  /** What is to be told of its operations. */
  readonly notes?: readonly OperationNote[] | undefined;
  /** Whether it is lettering whose place another part gives, and that is gone or has no room for it. */
  readonly isAstray?: boolean | undefined;
  /** Letters of its text that its font does not have. */
  readonly missing?: readonly string[] | undefined;
}

/** All objects of a job put together and checked. */
export interface DesignRun {
  readonly design: Design;
  /** Where each traced object lies in it, by its id. */
  readonly places: ReadonlyMap<string, TracedPlace>;
  readonly findings: readonly Finding[];
  /** The objects as they lie in it, lowest first. */
  readonly parts: readonly DesignPart[];
  /** Where the zero of the objects' common mm lies in it. */
  readonly originMm: { readonly x: number; readonly y: number };
  /** How its islands are held, where it is a stencil's. */
  readonly held?: HeldDesign | undefined;
}

export interface HeldDesign {
  readonly bridges: readonly DesignBridge[];
  /** Width of those that have none of their own. */
  readonly widthMm: number;
  readonly islands: number;
  /** Islands that fall out for being small. */
  readonly fellOut: number;
  /** Bridges that were placed by hand and have no island any more. */
  readonly astray: number;
}

/** What lettering became, and what combines outlines: a job without either, and without operations, needs none of it. */
export interface DesignShapes {
  readonly library: PolygonLibrary;
  /** The letterings set, mm, by the object's id. */
  readonly lettered: ReadonlyMap<string, LetteredText>;
}

/** Whether a job's design cannot be made without `DesignShapes`. */
export const needsShapes = ({ objects, layering, process, layout, bridges = USUAL_BRIDGES, materials }: Pick<Job, 'objects' | 'layering' | 'process' | 'bridges' | 'layout' | 'materials'>): boolean =>
  isNested(layout) || layout.byFilm?.some(isNested) === true ||
  // Films on one that takes none are found by what they have in common.
  [materials?.usual, ...(materials?.ofFilms ?? []).map(({ material }) => material)].some((material) => material?.takesFilm === false) ||
  layout.tiles !== undefined ||
  layout.work !== undefined ||
  layout.stencil !== undefined ||
  layout.white?.on === true ||
  layout.contour?.on === true ||
  (PROCESSES[process].artIsOpening && bridges.on) ||
  // Several parts may overlap, and a film may be inset or joined.
  objects.length > 1 || layering !== undefined || objects.some((object) => object.kind === 'group' || object.kind === 'lettering' || object.kind === 'base' || object.kind === 'holes' || hasOperations(object) || ('cutsOut' in object && object.cutsOut === true));
const hasOperations = (object: DesignObject): boolean => 'operations' in object && (object.operations?.length ?? 0) > 0;

/** Gives what an earlier run made of an object by what it follows from, or makes it. */
export type RememberPart = (key: unknown, make: () => OwnLayers) => OwnLayers;

/** The films of an object in its own mm. */
export interface OwnLayers {
  readonly layers: readonly DesignLayer[];
  readonly notes: readonly OperationNote[];
}

/**
 * The design that a job's objects make together.
 * @param outlined the traced objects that have a picture. @param arts what they were outlined from. @param remember of objects with operations, where it is worth it.
 */
export function designRun(
  job: Pick<Job, 'objects' | 'films' | 'process' | 'layering' | 'bridges' | 'materials'>,
  outlined: ReadonlyMap<string, OutlinedArt>,
  arts: ReadonlyMap<string, Pick<Art, 'frame'>>,
  shapes?: DesignShapes,
  remember: RememberPart = (_, make) => make(),
): DesignRun {
  const made: Made = { outlined, arts, shapes, remember, order: job.films.map(({ id }) => id), objects: job.objects, places: new Map(), frames: new Map(), notes: new Map(), figures: new Map(), astray: new Set(), busy: new Set() };
  const placed = job.objects.flatMap((object) => layersOf(object, IDENTITY, made));
  const { design: whole, moved, parts } = composeDesign(placed, made.order, { library: shapes?.library, fromAll: fromAll(job, made), layering: job.layering });
  const held = PROCESSES[job.process].artIsOpening && shapes !== undefined ? withBridges(shapes.library, whole, job) : undefined;
  const design = held?.design ?? whole;
  const back = inverseOf(moved);
  const places = new Map([...made.places].map(([id, { resolution, fromOutline }]): [string, TracedPlace] => [id, { resolution, fromOutline: followedBy(fromOutline, moved) }]));
  const twice = shapes === undefined ? [] : cutTwice(shapes.library, design.layers.filter(({ filmId }) => !isPlain(job, parts, filmId)));
  const findings = cutCheck(design, (film) => checkLimits(materialOf(job, film)), coarsestOf(places, arts)).concat(twice, backwardsText(job.objects, parts));
  const told = parts.map((part): DesignPart => {
    const notes = made.notes.get(part.id);
    const missing = shapes?.lettered.get(part.id)?.missing ?? [];
    return { ...part, toMarks: followedBy(back, made.frames.get(part.id) ?? IDENTITY), ...(notes === undefined || notes.length === 0 ? {} : { notes }), ...(made.astray.has(part.id) ? { isAstray: true } : {}), ...(missing.length === 0 ? {} : { missing }) };
  });
  return { design, places, findings, parts: told, originMm: { x: moved.e, y: moved.f }, ...(held === undefined ? {} : { held: held.held }) };
}

/** The design with the islands of each film held; undefined where that is switched off. */
function withBridges(library: PolygonLibrary, design: Design, job: Pick<Job, 'process' | 'bridges' | 'materials'>): { design: Design; held: HeldDesign } | undefined {
  const { bridges = USUAL_BRIDGES } = job;
  if (!bridges.on) return undefined;
  const { stripMm: leastStripMm, pieceMm2: leastPieceMm2 } = materialOf(job).least;
  const { leastIslandMm2 = leastPieceMm2, count } = bridges;
  const widthMm = bridges.widthMm ?? usualBridgeMm(Math.max(design.widthMm, design.heightMm), leastStripMm);
  const films = design.layers.map((layer) => ({ layer, ...holdIslands(library, layer.curves, { widthMm, count, leastIslandMm2, own: ownOf(bridges, layer.filmId, design) }) }));
  const sum = (of: (film: (typeof films)[number]) => number): number => films.reduce((total, film) => total + of(film), 0);
  return {
    design: { ...design, layers: films.map(({ layer, curves }) => ({ ...layer, curves })) },
    held: {
      bridges: films.flatMap(({ layer, bridges: placed }) => placed.map((bridge) => ({ ...bridge, filmId: layer.filmId }))),
      widthMm,
      islands: sum(({ islands }) => islands),
      fellOut: sum(({ fellOut }) => fellOut),
      astray: sum(({ astray }) => astray),
    },
  };
}

/** What somebody placed on a film, from shares of the design to mm. */
const ownOf = ({ islands = [] }: BridgeSettings, filmId: string, { widthMm, heightMm }: Design): BridgeSettings['islands'] =>
  islands.filter(({ film }) => film === filmId).map((island) => ({ ...island, x: island.x * widthMm, y: island.y * heightMm, bridges: island.bridges.map((bridge) => ({ ...bridge, x: bridge.x * widthMm, y: bridge.y * heightMm })) }));

/** Whether a film is that of one traced object alone, as its mesh made it: its pieces lie side by side. */
function isPlain({ objects }: Pick<Job, 'objects'>, parts: readonly PartInDesign[], filmId: string): boolean {
  const own = parts.filter(({ layers, cutsOut }) => cutsOut !== true && layers.some((layer) => layer.filmId === filmId));
  const object = own.length === 1 ? plainObjects(objects).find(({ id }) => id === own[0].id) : undefined;
  return object?.kind === 'traced' && !hasOperations(object);
}

/** What is known of the objects by now. */
interface Made {
  readonly outlined: ReadonlyMap<string, OutlinedArt>;
  readonly arts: ReadonlyMap<string, Pick<Art, 'frame'>>;
  readonly shapes: DesignShapes | undefined;
  readonly remember: RememberPart;
  readonly order: readonly string[];
  readonly objects: readonly DesignObject[];
  /** Outlines of figures by their measures. */
  readonly figures: Map<string, Curves>;
  /** Letterings whose place is being asked of another part, so that two do not follow each other. */
  readonly busy: Set<string>;
  readonly astray: Set<string>;
  /** Filled as objects are met: where traced ones lie, from the objects' common mm to the frame of marks, and what is told of operations. */
  readonly places: Map<string, TracedPlace>;
  readonly frames: Map<string, Affine>;
  readonly notes: Map<string, readonly OperationNote[]>;
}

/** What lies below all of a job, and what goes through all of it. */
function fromAll({ objects }: Pick<Job, 'objects'>, made: Made): MadeFromAll[] {
  const { shapes, order } = made;
  const plain = plainObjects(objects);
  const bases = plain.flatMap((object): MadeFromAll[] => {
    if (object.kind !== 'base' || shapes === undefined) return [];
    const { id, film, base, operations = [] } = object;
    const { library } = shapes;
    const { bandMm } = base;
    const whole = (all: readonly DesignLayer[]): Curves => baseCurves(library, base, all);
    const joinTo = bandMm === undefined ? undefined : (curves: Curves, [under]: readonly DesignLayer[]): Curves => combineCurves(library, 'join', curves, bandCurves(library, under.curves, bandMm));
    // With a band on every film nothing is taken out of the base: it is the lowest sheet of a panel.
    const make = (all: readonly DesignLayer[]): readonly DesignLayer[] => {
      const plain = [{ filmId: film, curves: bandMm === undefined ? seenBelow(all, film, whole(all), { library, order }) : whole(all) }];
      if (operations.length === 0) return plain;
      // It lies in the objects' common mm, and so do its marks.
      const { layers, notes } = operate(plain, operations, { library, order, fromMm: IDENTITY, toMm: IDENTITY, perMm: 1 });
      made.notes.set(id, notes);
      return layers;
    };
    return [{ id, does: 'liesBelow', joinTo, make }];
  });
  const holes = plain.flatMap((object): MadeFromAll[] => {
    if (object.kind !== 'holes' || shapes === undefined) return [];
    const { eyeletMm } = object.holes;
    const joinTo = eyeletMm === undefined ? undefined : (curves: Curves, [cut]: readonly DesignLayer[]): Curves => withEyelets(shapes.library, curves, cut.curves, eyeletMm);
    return [{ id: object.id, does: 'cutsOut', joinTo, make: (all) => [{ filmId: object.id, curves: holeCurves(object.holes, all) }] }];
  });
  return [...bases, ...holes];
}

/** The outlines of an object and where they lie; a group's are those of what it holds, or what they become together. */
function layersOf(object: DesignObject, around: Affine, made: Made): PlacedLayers[] {
  if (object.kind === 'base' || object.kind === 'holes') return [];
  const placement = object.placement === undefined ? around : followedBy(object.placement, around);
  if (object.kind === 'group' && object.combine === undefined && !hasOperations(object)) return object.objects.flatMap((inner) => layersOf(inner, placement, made));
  const own = ownLayers(object, placement, made);
  if (own === undefined) return [];
  made.notes.set(object.id, own.notes);
  if (!made.frames.has(object.id)) made.frames.set(object.id, inverseOf(placement));
  const cutsOut = 'cutsOut' in object ? object.cutsOut : undefined;
  return [{ id: object.id, placement: placement === IDENTITY ? undefined : placement, layers: own.layers, cutsOut }];
}

type LayeredObject = Exclude<DesignObject, { kind: 'base' | 'holes' }>;

/** The films of an object in its own mm, once its operations are done; undefined while it has none. */
function ownLayers(object: LayeredObject, placement: Affine, made: Made): OwnLayers | undefined {
  const plain = plainLayers(object, placement, made);
  const { operations = [] } = object;
  if (plain === undefined || operations.length === 0) return plain === undefined ? undefined : { layers: plain, notes: [] };
  const { shapes, order } = made;
  if (shapes === undefined) throw new RangeError('nothing is there to do operations with');
  const frame = made.frames.get(object.id);
  // From the part's own mm to the frame of its marks: theirs is that of the picture where it has one.
  const fromMm = frame === undefined ? IDENTITY : followedBy(placement, frame);
  const { a, b, c, d } = placement;
  const using = { library: shapes.library, order, fromMm, toMm: inverseOf(fromMm), perMm: 1 / Math.sqrt(Math.abs(a * d - b * c)) };
  const make = (): OwnLayers => operate(plain, operations, using);
  // Groups are made of others, whose outlines are not known by a key of their own, and so is what follows another part.
  return object.kind === 'group' || isFollowing(object) ? make() : made.remember([sourceOf(object, made), operations, order, using.perMm, using.toMm], make);
}

/** What the outlines of an object follow from, without its operations and its place. */
function sourceOf(object: Exclude<LayeredObject, GroupObject>, { outlined }: Made): unknown {
  if (object.kind === 'traced') return [object.size, outlined.get(object.id)?.films.map(({ film, mark }) => [film.id, mark])];
  return object.kind === 'figure' ? [object.shape, object.film] : object.kind === 'lettering' ? [object.lettering, object.film] : object.paths;
}

function plainLayers(object: LayeredObject, placement: Affine, made: Made): readonly DesignLayer[] | undefined {
  if (object.kind === 'imported') return object.paths.map(({ film, path }) => ({ filmId: film, curves: nestRings(curvesFromPathData(path)) }));
  if (object.kind === 'group') return combinedLayers(object, placement, made);
  if (object.kind === 'traced') {
    const found = made.outlined.get(object.id);
    return found === undefined ? undefined : tracedLayers(object, found, placement, made);
  }
  const curves = object.kind === 'figure' ? figureOf(object, made) : letters(object, placement, made);
  return curves === undefined ? undefined : [{ filmId: object.film, curves }];
}

/** The outline of a figure: many parts may be of one shape. */
function figureOf({ shape }: FigureObject, { figures }: Made): Curves {
  const key = JSON.stringify(shape);
  const known = figures.get(key);
  if (known !== undefined) return known;
  const curves = figureCurves(shape);
  figures.set(key, curves);
  return curves;
}

const isFollowing = (object: DesignObject): boolean => object.kind === 'lettering' && (object.lettering.along !== undefined || object.lettering.into !== undefined);

/** A lettering's outlines in its own mm. One that follows another part lies where that says, before its own placement; straight where the part is gone. */
function letters(object: LetteringObject, placement: Affine, made: Made): Curves | undefined {
  const { shapes, busy, astray } = made;
  const text = shapes?.lettered.get(object.id);
  const { lettering } = object;
  const part = lettering.along?.part ?? lettering.into?.part;
  if (shapes === undefined || text === undefined || part === undefined) return text?.curves;
  const { library } = shapes;
  const around = object.placement === undefined ? placement : followedBy(inverseOf(object.placement), placement);
  const isRound = busy.has(object.id);
  busy.add(object.id);
  const layers = isRound ? [] : layersWithin(part, made.objects, IDENTITY, made);
  busy.delete(object.id);
  const whole = transformCurves(joinOverlaps(library, joinCurves(layers.map(({ curves }) => curves))), inverseOf(around));
  const follow = lettering.along === undefined ? lettersInto : lettersAlong;
  const set = layers.length === 0 ? undefined : follow(library, text, lettering.along === undefined ? whole : withoutOpenings(whole), lettering);
  if (set === undefined) astray.add(object.id);
  return set ?? finishLetters(library, text.curves, lettering);
}

/** The layers of the object of an id as they lie in the objects' common mm; none where there is no such object. */
function layersWithin(id: string, objects: readonly DesignObject[], around: Affine, made: Made): DesignLayer[] {
  for (const object of objects) {
    if (object.id === id) return layersOf(object, around, made).flatMap(({ layers, placement }) => layers.map((layer) => (placement === undefined ? layer : { ...layer, curves: transformCurves(layer.curves, placement) })));
    if (object.kind !== 'group') continue;
    const within = layersWithin(id, object.objects, object.placement === undefined ? around : followedBy(object.placement, around), made);
    if (within.length > 0) return within;
  }
  return [];
}

/** What a group's objects become in its own mm: film by film as they lie, or put together as it says. */
function combinedLayers({ combine, objects }: GroupObject, placement: Affine, made: Made): readonly DesignLayer[] {
  const { shapes } = made;
  if (shapes === undefined) throw new RangeError('nothing is there to put outlines together');
  // Traced ones tell where they lie in the design, so they are placed there and brought back.
  const back = inverseOf(placement);
  const inner = objects.map((object) => layersOf(object, placement, made).flatMap(({ layers, placement: at }) => layers.map(({ filmId, curves }) => ({ filmId, curves: at === undefined ? curves : transformCurves(curves, at) }))));
  const home = (curves: Curves): Curves => (back === IDENTITY ? curves : transformCurves(curves, back));
  if (combine === undefined) {
    const films = [...new Set(inner.flat().map(({ filmId }) => filmId))];
    return films.map((filmId) => ({ filmId, curves: home(joinCurves(inner.flat().flatMap((layer) => (layer.filmId === filmId ? [layer.curves] : [])))) }));
  }
  const whole = inner.map((layers) => joinOverlaps(shapes.library, joinCurves(layers.map(({ curves }) => curves))));
  const [first = new CurvesBuilder().build(), ...rest] = whole;
  return [{ filmId: combine.film, curves: home(rest.reduce((left, curves) => combineCurves(shapes.library, combine.how, left, curves), first)) }];
}

function tracedLayers(object: TracedObject, { films }: OutlinedArt, placement: Affine, { places, frames, arts }: Made): readonly DesignLayer[] {
  const sized = makeDesign(
    films.map(({ film, outline }) => ({ filmId: film.id, curves: outline })),
    object.size,
  );
  const { a, b, c, d } = placement;
  // A placement that scales spreads the picture's pixels over more or fewer mm.
  const resolution = placement === IDENTITY ? sized.resolution : pxPerMm(sized.resolution / Math.sqrt(Math.abs(a * d - b * c)));
  const fromOutline = followedBy(sized.fromOutline, placement);
  places.set(object.id, { resolution, fromOutline });
  const frame = arts.get(object.id)?.frame;
  if (frame !== undefined) frames.set(object.id, followedBy(inverseOf(fromOutline), pictureFromFrame(frame)));
  return sized.layers;
}

/** Pixels on a mm of the design of the picture that has the fewest. Enlarging a picture gives it no more to read. */
function coarsestOf(places: ReadonlyMap<string, TracedPlace>, arts: ReadonlyMap<string, Pick<Art, 'frame'>>): number {
  return Math.min(...[...places].map(([id, { resolution }]) => resolution / Math.max(1, arts.get(id)?.frame.scale ?? 1)));
}
