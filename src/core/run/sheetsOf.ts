import { layerOf, type Design } from '../assemble/design.ts';
import { placeOnBlank } from '../assemble/placeOnBlank.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { ONE_FILM_ID } from '../film/filmRoles.ts';
import type { Job } from '../job/job.ts';
import type { PrintPages } from '../print/printPages.ts';
import { around } from '../layout/boxes.ts';
import { cutAreaOf, laySheet, type LayoutSettings, type Sheet } from '../layout/laySheet.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';
import { isNested, nestedSheets } from '../layout/nestSheets.ts';
import type { Layout, StencilUse } from '../layout/layout.ts';
import { layoutFor } from '../layout/layoutFor.ts';
import { onTile, tilesOf, type Tile } from '../layout/tiles.ts';
import { registerRoomMm } from '../layout/registerMarks.ts';
import { halvesDiffer, MOST_DIFFERENT, usedStencil } from '../layout/stencilUse.ts';
import { workSheets } from '../layout/workSheets.ts';
import { SLITS, weedLines } from '../layout/weedLines.ts';
import { PROCESSES } from '../process/processes.ts';
import { mm } from '../units/length.ts';
import type { LaidDesign } from './bendForBlank.ts';

/**
 * The design laid out: one sheet for each film, all alike so that they line up but for films that are laid out by themselves; as many as it takes where parts are
 * nested, or the design is parted into tiles.
 */
export function sheetsOf(job: Pick<Job, 'layout' | 'process' | 'blank' | 'place'>, { design, fan }: Pick<LaidDesign, 'design' | 'fan'>, library?: PolygonLibrary): Sheet[] {
  const { mirrored } = mirroringOf(job.layout, job.process);
  const { artIsOpening } = PROCESSES[job.process];
  const blank = { widthMm: job.blank.widthMm, heightMm: job.blank.heightMm, ...placeOnBlank(job.place, job.blank, design) };
  const settingsOf = ({ stencil: _stencil, unbent: _unbent, byFilm: _byFilm, ...layout }: Layout): LayoutSettings =>
    // A rectangle on a blank that tapers is none on film: there a box goes around the design.
    ({ ...layout, mirrored, artIsOpening, ...(fan === undefined ? { blank } : {}) });
  const { stencil } = job.layout;
  if (artIsOpening && stencil !== undefined && library !== undefined) return stencilSheets(library, design, settingsOf(job.layout), stencil);
  const sheets = design.layers.flatMap(({ filmId }) => {
    const settings = settingsOf(layoutFor(job.layout, filmId));
    const tiles = library === undefined ? [] : tilesFor(design, settings);
    if (library !== undefined && tiles.length > 1) return tiledSheets(library, design, filmId, settings, tiles);
    if (library !== undefined && settings.work !== undefined) return workSheets(library, design, filmId, settings, settings.work);
    return library !== undefined && isNested(settings) ? nestedSheets(library, design, filmId, settings) : [laySheet(design, filmId, settings)];
  });
  // Of a stencil the film stays and its openings fall out: nothing is lifted in strips.
  if (artIsOpening) return sheets;
  return sheets.map((sheet) => {
    const { weedLines: lines } = layoutFor(job.layout, sheet.filmId);
    if (lines?.on !== true) return sheet;
    const own = lines.own?.filter(({ film, sheet: number }) => film === sheet.filmId && number === (sheet.number ?? 1));
    const { curves, places } = weedLines(sheet, { ...lines, own });
    return { ...sheet, weedLines: curves, weedLinePlaces: places };
  });
}

/** A stencil that is laid more than once: in rows, a sheet for each of its films. */
function stencilSheets(library: PolygonLibrary, design: Design, settings: LayoutSettings, use: StencilUse): Sheet[] {
  const differ = use.manner === 'half' ? halvesDiffer(library, design) : undefined;
  if (differ !== undefined && differ > MOST_DIFFERENT) return design.layers.map(({ filmId }) => ({ ...laySheet(design, filmId, settings), halvesDiffer: differ }));
  const { design: cut, holes, roomMm } = usedStencil(library, design, use);
  return cut.layers.map(({ filmId }) => ({ ...laySheet(cut, filmId, { ...settings, holes: { curves: holes, roomMm } }), ...(differ === undefined ? {} : { halvesDiffer: differ }) }));
}

/** The tiles of a design that is larger than the cut area; none where it fits or is not to be parted. */
function tilesFor(design: Design, { tiles, sheet, box, register }: LayoutSettings): Tile[] {
  if (tiles === undefined) return [];
  const { widthMm, heightMm } = cutAreaOf(sheet);
  const marks = register?.on === true ? registerRoomMm(register.sizeMm) : 0;
  const margin = box.on && box.around !== 'blank' ? 2 * box.marginMm : 0;
  const most = { widthMm: widthMm - margin, heightMm: heightMm - margin - marks };
  // As one keystroke of a sheet without room: the sheet itself says that nothing fits.
  return most.widthMm < 1 || most.heightMm < 1 ? [] : tilesOf(design, most, tiles);
}

/** A sheet for each tile that has something of the film, as often as there are copies. */
function tiledSheets(library: PolygonLibrary, design: Design, filmId: string, settings: LayoutSettings, tiles: readonly Tile[]): Sheet[] {
  const { curves } = layerOf(design, filmId);
  const box = settings.box.around === 'blank' ? { ...settings.box, around: 'copy' as const } : settings.box;
  const once = tiles.flatMap((tile) => {
    const own = onTile(library, curves, tile);
    if (own === undefined) return [];
    const part: Design = { ...design, widthMm: mm(tile.rect.widthMm), heightMm: mm(tile.rect.heightMm), layers: [{ filmId, curves: own }] };
    return [{ ...laySheet(part, filmId, { ...settings, box, copies: 1 }), tile }];
  });
  return Array.from({ length: settings.copies }, () => once).flat().map((sheet, k, all) => (all.length === 1 ? sheet : { ...sheet, number: k + 1 }));
}

/** What a cutter does on printed pages: the line around each motif, on a sheet for each page, where it was printed, and slits through the waste between them where they are asked for. */
export function contourSheets(job: Pick<Job, 'layout' | 'process'>, design: Design, { motifs, pages, area }: PrintPages): Sheet[] {
  const { sheet, weedLines: slits } = job.layout;
  const { mirrored } = mirroringOf(job.layout, job.process);
  const parts = motifs.flatMap(({ contour }, k) => (contour === undefined ? [] : [{ id: motifId(k), curves: contour }]));
  const withSlits = (made: Sheet): Sheet => (slits?.on === true ? { ...made, weedLines: weedLines({ ...made, boxes: [area] }, { ...slits, ...SLITS, own: [] }).curves } : made);
  return pages.map((placements, k, all): Sheet => withSlits({
    filmId: design.layers[0]?.filmId ?? ONE_FILM_ID,
    ...(all.length > 1 ? { number: k + 1 } : {}),
    widthMm: sheet.widthMm,
    heightMm: sheet.heightMm,
    cutArea: area,
    mirrored,
    parts,
    placements: placements.map(({ motif, at }) => ({ partId: motifId(motif), at })),
    boxes: [],
    used: placements.map(({ box }) => box).reduce(around),
    over: { widthMm: 0, heightMm: 0 },
    room: placements.length,
  }));
}

const motifId = (k: number): string => `motif-${k + 1}`;
