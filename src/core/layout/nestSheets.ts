import { layerOf, type Design } from '../assemble/design.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { AppError, isAppError } from '../errors/appError.ts';
import { followedBy, mirrorAbout, translation } from '../geometry/affine.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { nest, type NestedSheet, type NestInput } from '../nest/nest.ts';
import type { NestShape } from '../nest/nestShape.ts';
import { nestPart, type NestPart } from '../nest/nestOutline.ts';
import { onSheet, partToStrip, sheetFrame, type SheetFrame } from '../nest/sheetFrame.ts';
import type { Turns } from '../nest/turns.ts';
import { boundsOf, CurvesBuilder, ringCount, type Bounds, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { canonicalJson, hashText } from '../task/hash.ts';
import { finish, type Task } from '../task/task.ts';
import { boxCurves } from './cutPlan.ts';
import { MOST_NESTED, type Layout, type NestRecord } from './layout.ts';
import { boxesOfPieces, grown } from './boxes.ts';
import { mostOn, remnantSettings } from './remnants.ts';
import { cutAreaOf, laySheet, type LayoutSettings, type Sheet } from './laySheet.ts';
import { say } from '../words/say.ts';

export const isNested = ({ arrange }: Pick<Layout, 'arrange'>): boolean => arrange === 'nested';

/** What is nested: outlines in mm of their own, mirrored already where the sheet is, so many times. */
export interface NestKind {
  readonly id: string;
  readonly label?: string | undefined;
  readonly curves: Curves;
  readonly marks?: Curves | undefined;
  readonly copies: number;
}

/** The parts of a sheet as they are nested. */
interface NestParts {
  readonly frame: SheetFrame;
  readonly area: RectMm;
  readonly parts: readonly (NestKind & { readonly nested: NestPart })[];
  /** Of each copy that is nested, which of the parts it is. */
  readonly partOf: Int32Array;
  readonly input: Omit<NestInput, 'share'>;
}

type NestSettings = Pick<LayoutSettings, 'gapMm' | 'turns' | 'sheet' | 'box' | 'flaws' | 'mirrored'> & {
  /** What lies on every sheet already, mm of the sheet: kept clear of, as flaws are. */
  readonly lying?: readonly Curves[];
};

function nestParts(library: PolygonLibrary, kinds: readonly NestKind[], { gapMm, turns = 'free', sheet, box, flaws = [], lying = [] }: NestSettings): NestParts {
  // The weeding box lies in the cut area too.
  const area = grown(cutAreaOf(sheet), box.on ? -box.marginMm : 0);
  const frame = sheetFrame(Math.max(1, area.widthMm), Math.max(1, area.heightMm));
  const count = kinds.reduce((sum, { copies }) => sum + copies, 0);
  if (count > MOST_NESTED) throw new AppError('badValue', { name: say('Copies'), value: String(count), takes: say`at most ${MOST_NESTED} parts in all` });
  const sides = kinds.map(({ curves }) => boundsOf(curves) as Bounds).map(({ left, top, right, bottom }) => Math.min(right - left, bottom - top));
  const least = Math.min(...sides) ** 2 / 2;
  const parts = kinds.map((kind) => ({ ...kind, nested: nestPart(library, transformCurves(kind.curves, partToStrip(frame)), gapMm, least) }));
  const partOf = Int32Array.from(kinds.flatMap(({ copies }, k) => Array.from({ length: copies }, () => k)));
  const shapes = Array.from(partOf, (k) => parts[k].nested.shape);
  const taken = [...flaws.map((flaw) => boxCurves([flaw])), ...lying].map((curves) => takenShape(library, curves, area, frame, gapMm));
  return { frame, area, parts, partOf, input: { shapes, taken, widthMm: frame.widthMm + gapMm, lengthMm: frame.lengthMm + gapMm, turns: turns as Turns } };
}

/** How outlines of a design lie on a sheet: turned over where it is mirrored. */
function lyingOf(design: Design, { mirrored }: Pick<LayoutSettings, 'mirrored'>): (curves: Curves) => Curves {
  const toPart = mirrored ? mirrorAbout(design.widthMm / 2) : undefined;
  return (curves) => (toPart === undefined ? curves : transformCurves(curves, toPart));
}

/** What is nested of a film: the whole design, or each piece. */
export function kindsOf(design: Design, filmId: string, settings: LayoutSettings): NestKind[] {
  const { copies, apart = false } = settings;
  const layer = layerOf(design, filmId);
  const lying = lyingOf(design, settings);
  const whole = lying(layer.curves);
  return apart ? outermost(whole).map((curves, k): NestKind => ({ id: `piece-${k + 1}`, curves, copies })) : [{ id: 'design', curves: whole, copies, ...(layer.marks === undefined ? {} : { marks: lying(layer.marks) }) }];
}

/** Lays as much as goes on what is left of a film from earlier. @returns sheets of the remnants that something lies on, and what is still to be laid. */
function layOnRemnants(library: PolygonLibrary, kinds: readonly NestKind[], filmId: string, settings: LayoutSettings): { readonly sheets: readonly Sheet[]; readonly left: NestKind[] } {
  const sheets: Sheet[] = [];
  let left = [...kinds];
  for (const remnant of settings.remnants ?? []) {
    if (remnant.film !== filmId) continue;
    const tried = left.map((kind) => ({ ...kind, copies: Math.min(kind.copies, mostOn(remnant, kind.curves)) })).filter(({ copies }) => copies > 0);
    const [first] = tried.length === 0 ? [] : sheetsThatFit(library, tried, filmId, remnantSettings(library, remnant, settings));
    if (first === undefined || first.placements.length === 0) continue;
    const { number: _number, ...own } = first;
    sheets.push({ ...own, remnant: remnant.name, ...(remnant.outline === undefined ? {} : { outline: remnant.outline }) });
    left = left.map((kind) => ({ ...kind, copies: kind.copies - first.placements.filter(({ partId }) => partId === kind.id).length }));
  }
  return { sheets, left: left.filter(({ copies }) => copies > 0) };
}

/** Sheets for parts, without those that are larger than one; none where all are. */
function sheetsThatFit(library: PolygonLibrary, kinds: readonly NestKind[], filmId: string, settings: NestSettings): Sheet[] {
  const fitting = kinds.filter((kind) => isLaid(library, [{ ...kind, copies: 1 }], settings));
  return fitting.length === 0 ? [] : finish(nestedTogether(library, fitting, filmId, settings, () => 1));
}

function isLaid(library: PolygonLibrary, kinds: readonly NestKind[], settings: NestSettings): boolean {
  try {
    return finish(nest({ ...nestParts(library, kinds, settings).input, share: () => 1 })).length === 1;
  } catch (error) {
    if (isAppError(error) && error.code === 'doesNotFit') return false;
    throw error;
  }
}

/** The parts of a film, and what their arrangement follows from. */
function filmParts(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings, kinds = kindsOf(design, filmId, settings)): NestParts & { readonly key: string } {
  const { gapMm, copies, turns = 'free', apart = false, flaws = [] } = settings;
  const made = nestParts(library, kinds, settings);
  const { frame, area } = made;
  const whole = lyingOf(design, settings)(layerOf(design, filmId).curves);
  // What lies on remnants is not laid again: an arrangement of all parts is another one.
  const left = settings.remnants?.some((remnant) => remnant.film === filmId) === true ? [kinds.map((kind) => [kind.id, kind.copies])] : [];
  const key = hashText(canonicalJson([...left, Array.from(whole.coords), frame.widthMm, frame.lengthMm, gapMm, copies, turns, apart, flaws.map(({ xMm, yMm, widthMm, heightMm }) => [xMm - area.xMm, yMm - area.yMm, widthMm, heightMm])]));
  return { ...made, key };
}

/** The sheets on which kinds of parts are nested until `share` is 1. @throws AppError `doesNotFit`, `badValue`. */
export function* nestedTogether(library: PolygonLibrary, kinds: readonly NestKind[], filmId: string, settings: NestSettings, share: () => number): Task<Sheet[]> {
  const made = nestParts(library, kinds, settings);
  const sheets = yield* nest({ ...made.input, share });
  return sheets.map(({ laid }, k) => sheetOf(made, laid, { filmId, settings, number: k + 1, of: sheets.length }));
}

/** What lies on every sheet already, as nesting sees it: with half the gap around it. @param curves in mm of the sheet. */
function takenShape(library: PolygonLibrary, curves: Curves, area: RectMm, frame: SheetFrame, gapMm: number): NestShape {
  const lying = followedBy(translation(-area.xMm, -area.yMm), followedBy(frame.toStrip, translation(gapMm / 2, gapMm / 2)));
  return nestPart(library, transformCurves(curves, lying), gapMm, 0).shape;
}

/** The sheets of a film with its copies, or its pieces, nested: as was found last for these outlines and settings, or else as they fit at once. Sheets as in rows where a part is larger than the sheet. */
export function nestedSheets(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings): Sheet[] {
  const { curves } = layerOf(design, filmId);
  const { sheet, box, copies, gapMm, mirrored, turns, apart, nests, flaws } = settings;
  const key = canonicalJson([filmId, sheet, box, copies, gapMm, mirrored, turns, apart, flaws, settings.remnants?.filter(({ film }) => film === filmId), nests?.find(({ film }) => film === filmId)]);
  const known = laid.get(curves);
  if (known?.key === key) return known.sheets;
  const sheets = layNested(library, design, filmId, settings);
  laid.set(curves, { key, sheets });
  return sheets;
}

/** What outlines were laid as last: a change of a name or of another film lays nothing again. */
const laid = new WeakMap<Curves, { readonly key: string; readonly sheets: Sheet[] }>();

function layNested(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings): Sheet[] {
  const { sheets: onRemnants, left } = layOnRemnants(library, kindsOf(design, filmId, settings), filmId, settings);
  const numbered = (sheets: readonly Sheet[]): Sheet[] => (onRemnants.length + sheets.length === 1 ? [...onRemnants, ...sheets] : [...onRemnants, ...sheets].map((sheet, k) => ({ ...sheet, number: k + 1 })));
  if (left.length === 0) return numbered([]);
  const film = filmParts(library, design, filmId, settings, left);
  const record = settings.nests?.find((each) => each.film === filmId && each.key === film.key);
  try {
    const found = record === undefined ? finish(nest({ ...film.input, share: () => 1 })) : record.sheets.map((sheet): NestedSheet => ({ usedMm: 0, laid: sheet.map(({ part, x, y, angle }) => ({ part, pose: { x, y, angle } })) }));
    return numbered(found.map(({ laid: own }, k) => sheetOf(film, own, { filmId, settings, number: k + 1, of: found.length })));
  } catch (error) {
    if (isAppError(error) && error.code === 'doesNotFit') return [laySheet(design, filmId, settings)];
    throw error;
  }
}

/** Looks for a better way to lay a film's parts until `share` is 1. @throws AppError `doesNotFit`. */
export function* nestFilm(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings, share: () => number): Task<NestRecord> {
  const { left } = layOnRemnants(library, kindsOf(design, filmId, settings), filmId, settings);
  const { input, key } = filmParts(library, design, filmId, settings, left.length === 0 ? undefined : left);
  const sheets = yield* nest({ ...input, share });
  return { film: filmId, key, sheets: sheets.map(({ laid }) => laid.map(({ part, pose: { x, y, angle } }) => ({ part, x, y, angle }))) };
}

function sheetOf({ frame, area, parts, partOf }: NestParts, laid: NestedSheet['laid'], { filmId, settings, number, of }: { filmId: string; settings: NestSettings; number: number; of: number }): Sheet {
  const { sheet, gapMm, box, mirrored } = settings;
  const placements = laid.map(({ part, pose }) => {
    const { id, nested } = parts[partOf[part]];
    return { partId: id, at: onSheet(frame, nested.shape, pose, gapMm / 2) };
  });
  const curvesOf = new Map(parts.map(({ id, curves }) => [id, curves]));
  const boxes = placements.map(({ partId, at }) => boundsOf(transformCurves(curvesOf.get(partId) as Curves, at)) as Bounds);
  const least = (pick: (each: Bounds) => number): number => Math.min(...boxes.map(pick));
  const used = { left: least(({ left }) => left), top: least(({ top }) => top), right: -least(({ right }) => -right), bottom: -least(({ bottom }) => -bottom) };
  // From the machine's corner: what is used moves there as a whole, turned over nowhere.
  // What keeps clear of flaws stays where it is.
  const [dx, dy] = (settings.flaws ?? []).length + (settings.lying ?? []).length > 0 ? [area.xMm, area.yMm] : [
    area.xMm + (sheet.origin.endsWith('Right') ? area.widthMm - used.right : -used.left),
    area.yMm + (sheet.origin.startsWith('bottom') ? area.heightMm - used.bottom : -used.top),
  ];
  const rect = { xMm: used.left + dx, yMm: used.top + dy, widthMm: used.right - used.left, heightMm: used.bottom - used.top };
  const placed = placements.map(({ partId, at }) => ({ partId, at: followedBy(at, translation(dx, dy)) }));
  return {
    filmId,
    ...(of > 1 ? { number } : {}),
    widthMm: sheet.widthMm,
    heightMm: sheet.heightMm,
    cutArea: cutAreaOf(sheet),
    mirrored,
    parts: parts.map(({ id, label, curves, marks }) => ({ id, curves, ...(label === undefined ? {} : { label }), ...(marks === undefined ? {} : { marks }) })),
    placements: placed,
    boxes: !box.on ? [] : box.around === 'piece' ? boxesOfPieces(parts, placed, box.marginMm) : [grown(rect, box.marginMm)],
    ...(box.on && (box.roundMm ?? 0) > 0 ? { boxRoundMm: box.roundMm } : {}),
    used: rect,
    over: { widthMm: 0, heightMm: 0 },
    room: placements.length,
  };
}

/** Each outermost ring with all that lies in it. */
function outermost(curves: Curves): Curves[] {
  const builders = new Map<number, { builder: CurvesBuilder; place: Map<number, number> }>();
  const topOf = (ring: number): number => (curves.parent[ring] < 0 ? ring : topOf(curves.parent[ring]));
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const top = topOf(ring);
    const own = builders.get(top) ?? { builder: new CurvesBuilder(), place: new Map<number, number>() };
    builders.set(top, own);
    own.place.set(ring, own.place.size);
    own.builder.copy(curves, ring, curves.parent[ring] < 0 ? -1 : (own.place.get(curves.parent[ring]) ?? -1));
  }
  return [...builders.values()].map(({ builder }) => builder.build());
}
