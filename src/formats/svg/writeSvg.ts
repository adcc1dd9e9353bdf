import type { Film } from '../../core/film/film.ts';
import type { CutPlan, PathRole, PathRun } from '../../core/layout/cutPlan.ts';
import { type Curves, depthOf } from '../../core/outline/curves.ts';
import { trimNumber } from '../../core/units/parseLength.ts';
import { pathData, ringPathData } from '../../core/outline/pathData.ts';

export type CutAs = 'lines' | 'shapes';

/** Thinnest line that viewers still show, mm; a cutter follows its middle. */
const HAIRLINE_MM = 0.1;

/** What a text needs so that it can stand in XML. */
export const escapeXml = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD]/g, '');

/** A name as an XML id: letters, digits and hyphens. */
export function idFromName(name: string): string {
  const id = name.toLowerCase().normalize('NFKD').replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '');
  return /^[a-z]/.test(id) ? id : `film-${id}`;
}

function head(widthMm: number, heightMm: number, title: string): string {
  const w = trimNumber(widthMm, 4);
  const h = trimNumber(heightMm, 4);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">\n<title>${escapeXml(title)}</title>\n`;
}

/** By which a group says that it is a sheet's boxes, weed lines, marks or folds. */
export const ROLE_ATTRIBUTE = 'data-role';

/** The groups of a sheet, in this order, each named after its film and what is in it. */
const ROLE_IDS: Readonly<Record<PathRole, string>> = { print: 'print', cut: 'art', weedLine: 'weed-lines', box: 'boxes', fold: 'folds', mark: 'marks' };

/**
 * What is done on a sheet as SVG at true size: width, height and viewBox in mm, one group for the film, named by it, and in it one for each role. As lines
 * every ring is an unfilled path of its own, as shapes every piece is one filled path with its holes; all but the art itself are always lines.
 */
export function writeSheetSvg({ film, widthMm, heightMm, runs }: CutPlan, title: string, cutAs: CutAs): string {
  const id = idFromName(film.name);
  const groups = (Object.keys(ROLE_IDS) as PathRole[]).map((role) => {
    const own = runs.filter((run) => run.role === role);
    if (own.length === 0) return '';
    const asShapes = cutAs === 'shapes' && (role === 'cut' || role === 'print');
    const paint = asShapes ? ` fill="${film.colour}" fill-rule="nonzero"` : ` fill="none" stroke="${film.colour}" stroke-width="${HAIRLINE_MM}"`;
    // What is no art says so, so that it is not taken for it when the file is read again.
    const told = role === 'cut' || role === 'print' ? '' : ` ${ROLE_ATTRIBUTE}="${role}"`;
    return `<g id="${id}-${ROLE_IDS[role]}"${paint}${told}>\n${own.map((run) => labelled(run, asShapes ? shapePaths(run) : linePaths(run))).join('')}</g>\n`;
  });
  return `${head(widthMm, heightMm, title)}<g id="${id}">\n<title>${escapeXml(film.name)}</title>\n${groups.join('')}</g>\n</svg>\n`;
}

/** A film with its outlines in mm. */
export interface FilmOutline {
  readonly film: Film;
  readonly curves: Curves;
}

/** Outlines of films as filled groups, the lowest first, in the frame they are measured in (mm). Ids are told apart when names are alike. */
export function writeOutlineSvg(films: readonly FilmOutline[], widthMm: number, heightMm: number, title: string): string {
  const taken = new Set<string>();
  const groups = films.map(({ film, curves }) => {
    const plain = idFromName(film.name);
    let id = plain;
    for (let k = 2; taken.has(id); k++) id = `${plain}-${k}`;
    taken.add(id);
    return `<g id="${id}" fill="${film.colour}" fill-rule="nonzero">\n<title>${escapeXml(film.name)}</title>\n<path d="${pathData(curves)}"/>\n</g>\n`;
  });
  return `${head(widthMm, heightMm, title)}${groups.join('')}</svg>\n`;
}

/** Paths of one job among several, in a group that says which it is. */
const labelled = ({ label }: PathRun, paths: string): string => (label === undefined ? paths : `<g>\n<title>${escapeXml(label)}</title>\n${paths}</g>\n`);

function linePaths({ curves, order }: PathRun): string {
  let out = '';
  for (const ring of order) out += `<path d="${ringPathData(curves, ring)}"/>\n`;
  return out;
}

function shapePaths({ curves }: PathRun): string {
  const data = new Map<number, string>();
  for (let ring = 0; ring < curves.parent.length; ring++) {
    const outer = depthOf(curves, ring) % 2 === 0 ? ring : curves.parent[ring];
    data.set(outer, (data.get(outer) ?? '') + ringPathData(curves, ring));
  }
  return [...data.values()].map((d) => `<path d="${d}"/>\n`).join('');
}
