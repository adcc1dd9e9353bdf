import type { Design, TracedPlace } from '../assemble/design.ts';
import type { Finding } from '../check/cutCheck.ts';
import { rackCheck } from '../check/rackCheck.ts';
import type { Film } from '../film/film.ts';
import { AROUND_FILM, oneFilmOf } from '../film/filmRoles.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject } from '../job/objects.ts';
import { materialOf } from '../job/materials.ts';
import { tracedPart, type TracedPart } from '../job/tracedPart.ts';
import { cutPlanOf, type CutPlan } from '../layout/cutPlan.ts';
import { grown } from '../layout/boxes.ts';
import { cutAreaOf, type Sheet } from '../layout/laySheet.ts';
import { contourSheets, sheetsOf } from './sheetsOf.ts';
import { PROCESSES } from '../process/processes.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { motifsOf, PAGE_MARK, printPages, type Motif, type PrintPages } from '../print/printPages.ts';
import { motifContour, whiteBack } from '../print/printShapes.ts';
import { isAppError } from '../errors/appError.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';
import { artFromPicture } from '../raster/art.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { canonicalJson, hashText } from '../task/hash.ts';
import { within, type Task } from '../task/task.ts';
import { applyRecipe, type CleanResult, type KeptSteps } from './applyRecipe.ts';
import { laidDesign, type LaidDesign } from './bendForBlank.ts';
import { designRun, type DesignRun, type DesignShapes } from './designRun.ts';
import { filmsOf } from './filmsOf.ts';
import { guidePlan } from './guidePlan.ts';
import { keptOr, rememberParts, rememberTones, type KeptRuns } from './keptRuns.ts';
import { finishedSizeOf, outlinePart, type OutlinedArt } from './outlinePart.ts';

/** What is cut of a job, and what one of its traced objects became on the way: its films, tones and steps. */
export interface CutResult extends OutlinedArt, Pick<DesignRun, 'parts' | 'originMm' | 'held'> {
  readonly design: Design;
  /** As it is cut or printed: bent where its blank tapers. */
  readonly laid: LaidDesign;
  /** The object that is told about. */
  readonly focus: string;
  /** Where that object lies in the design. */
  readonly place: TracedPlace;
  /** Where each traced object lies in it, by its id. */
  readonly places: ReadonlyMap<string, TracedPlace>;
  /** The films of the design, lowest first. */
  readonly rack: readonly Film[];
  /** One for each of them. */
  readonly sheets: readonly Sheet[];
  readonly findings: readonly Finding[];
  /** What places film on the blank, where it is asked for and there is room for it. */
  readonly guide?: CutPlan | undefined;
  /** The pages of what is printed; nothing on them when a motif is larger than the page. */
  readonly print?: PrintPages | undefined;
}

/** Clean art, and what it is known by. */
export type KeyedArt = Pick<CleanResult, 'art' | 'key'>;

/** The recipe of a part on its picture; `scale` is art pixels per picture pixel when the picture handed in is a reduced one. */
export function* cleanPart(
  part: Pick<TracedPart, 'recipe' | 'size' | 'outline'>,
  picture: Rgba8,
  pictureKey: string,
  kept?: KeptSteps,
  scale = 1,
): Task<CleanResult> {
  const input = { picture: artFromPicture(picture, scale), pictureKey, recipe: part.recipe, finished: finishedSizeOf(part) };
  return yield* applyRecipe(kept === undefined ? input : { ...input, kept });
}

/**
 * From clean art to sheets: each traced object separated and outlined, all objects put together, laid out and checked. A pure function of its input; what is
 * kept of earlier runs saves time alone: another name or colour of a film, another number of copies, another sheet traces and checks nothing again.
 * @param shapes what lettering and objects that cut need; a job without them needs none.
 * @param arts of the traced objects that have a picture, by their ids. @param focus the object that is told about; the lowest when absent.
 * @throws AppError of the stage that cannot go on. RangeError when there is no art of the object in focus.
 */
export function* cutJob(job: Job, arts: ReadonlyMap<string, KeyedArt>, focus = tracedPart(job).id, kept?: KeptRuns, shapes?: DesignShapes): Task<CutResult> {
  if (!arts.has(focus)) throw new RangeError(`no art of the object ${focus}`);
  const outlined = new Map<string, OutlinedArt>();
  const keys: string[] = [];
  for (const [id, { art, key }] of arts) {
    const part = tracedPart(job, id);
    const own = outlineKey(part, key);
    const done = keys.length / arts.size;
    const remember = kept === undefined ? undefined : rememberTones(kept, key);
    const made = yield* within(
      keptOr(kept?.outlined, own, () => outlinePart(part, art, remember)),
      done,
      done + 1 / arts.size,
    );
    outlined.set(id, withFilms(part, made));
    keys.push(own);
  }
  const frames = new Map([...arts].map(([id, { art }]) => [id, art]));
  const { design, places, findings, parts, originMm, held } = yield* keptOr(kept?.designs, designKey(job, keys), function* () {
    return designRun(job, outlined, frames, shapes, kept === undefined ? undefined : rememberParts(kept));
  });
  const laid = laidDesign(job, design, parts);
  const print = PROCESSES[job.process].isPrinted ? printOf(job, laid, shapes?.library) : undefined;
  const guide = print === undefined ? guidePlan(job, design) : undefined;
  const films = new Map([...job.films, ...[...outlined.values()].flatMap((own) => own.films.map(({ film }) => film))].map((film) => [film.id, film]));
  const rack = design.layers.map(({ filmId }) => films.get(filmId) ?? { id: filmId, name: filmId, colour: UNKNOWN_COLOUR });
  const onRack = print === undefined ? rackFindings(job, design, rack, shapes?.library) : [];
  return {
    ...(outlined.get(focus) as OutlinedArt),
    design,
    laid,
    focus,
    place: places.get(focus) as TracedPlace,
    places,
    // A film that a file names and does not hold is cut all the same: nothing of a design is left out.
    rack,
    sheets: print?.hasMarks === true ? contourSheets(job, laid.design, print) : sheetsOf(job, laid, shapes?.library),
    findings: onRack.length === 0 ? findings : [...findings, ...onRack],
    parts,
    originMm,
    ...(held === undefined ? {} : { held }),
    ...(print === undefined ? {} : { print }),
    ...(guide === undefined ? {} : { guide }),
  };
}

/** What is to be told of films on each other and on the blank. Of a stencil there is only paint on it. */
function rackFindings(job: Job, design: Design, rack: readonly Film[], library?: PolygonLibrary): Finding[] {
  if (PROCESSES[job.process].artIsOpening) return [];
  const films = rack.map(({ id, colour }) => ({ id, colour, takesFilm: materialOf(job, id).takesFilm }));
  // Sheets of a panel stand on their own: none of them lies on a blank.
  return rackCheck(design, films, job.process === 'panel' ? '' : job.blank.colour, library);
}

const UNKNOWN_COLOUR = '#808080';

/** What a part's outlines follow from: not the names and colours of films, but where the darker of two keeps its edge. */
function outlineKey({ id, separation, outline, size, films }: TracedPart, artKey: string): string {
  const byColour = 'keeps' in separation && separation.keeps === 'darker';
  return hashText(canonicalJson([artKey, id, separation, outline, size, films.map((film) => (byColour ? [film.id, film.colour] : film.id))]));
}

/** What a design follows from beside its outlines: how its objects lie, and all of those that are not traced. */
function designKey({ objects, films, process, layering, bridges, materials }: Job, outlineKeys: readonly string[]): string {
  const lying = (object: DesignObject): unknown =>
    object.kind === 'group'
      ? [object.id, object.placement, object.combine, object.operations, object.objects.map(lying)]
      : object.kind === 'traced'
        ? [object.id, object.placement, object.operations]
        : object;
  return hashText(canonicalJson([outlineKeys, objects.map(lying), films.map(({ id }) => id), process, layering, bridges, materials]));
}

/** Outlines with the films that are on the rack by now. */
function withFilms(part: TracedPart, outlined: OutlinedArt): OutlinedArt {
  const { separation, films: rack } = part;
  const named = separation.way === 'oneTone' ? [oneFilmOf(rack, separation.film)] : filmsOf(separation, rack, outlined.tones ?? []).films;
  const border = rack.find(({ id }) => id === AROUND_FILM.id) ?? AROUND_FILM;
  const byId = new Map([...named, border].map((film) => [film.id, film]));
  return { ...outlined, films: outlined.films.map((each) => ({ ...each, film: byId.get(each.film.id) ?? each.film })) };
}

/** What is done on each sheet of a cut, lowest film first, and on the card of its placement guide at last. */
export function cutPlansOf({ rack, sheets, guide }: Pick<CutResult, 'rack' | 'sheets' | 'guide'>): CutPlan[] {
  const plans = sheets.flatMap((sheet) => {
    const film = rack.find(({ id }) => id === sheet.filmId);
    return film === undefined ? [] : [cutPlanOf(sheet, film)];
  });
  return guide === undefined ? plans : [...plans, guide];
}

/** The pages of a job that is printed. */
function printOf({ layout, process }: Pick<Job, 'layout' | 'process'>, { design, parts }: LaidDesign, library?: PolygonLibrary): PrintPages {
  const { sheet, gapMm, copies, fill, eachPart = false } = layout;
  const motifs = motifsOf(parts, design, eachPart).map((motif) => (library === undefined ? motif : withShapes(library, motif, parts, layout)));
  const whole = cutAreaOf(sheet);
  const hasMarks = layout.contour?.on === true;
  const area = hasMarks ? grown(whole, -PAGE_MARK.roomMm) : whole;
  try {
    const pages = printPages(motifs, { area, gapMm, copies: fill === true ? 'fill' : copies, mirrored: mirroringOf(layout, process).mirrored, pageWidthMm: sheet.widthMm });
    return hasMarks ? { ...pages, area: whole, hasMarks } : pages;
  } catch (error) {
    if (isAppError(error) && error.code === 'doesNotFit') return { motifs, pages: [], area };
    throw error;
  }
}

/** A motif with its white back and its cut line, where they are asked for. */
function withShapes(library: PolygonLibrary, motif: Motif, parts: DesignRun['parts'], { white, contour }: Job['layout']): Motif {
  const layers = parts.filter(({ id, cutsOut }) => motif.parts.includes(id) && cutsOut !== true).flatMap((part) => part.layers);
  return {
    ...motif,
    ...(white?.on === true ? { white: whiteBack(library, layers, white.chokeMm) } : {}),
    ...(contour?.on === true ? { contour: motifContour(library, layers, contour.awayMm) } : {}),
  };
}
