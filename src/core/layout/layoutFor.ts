import type { FilmLayout, Layout } from './layout.ts';

/** The layout of one film: its own where it is laid out by itself, else that of all. Weed lines that were moved are known by their film and stay. */
export function layoutFor(layout: Layout, filmId: string): Layout {
  const own = layout.byFilm?.find(({ film }) => film === filmId);
  if (own === undefined) return layout;
  const { film: _film, weedLines, ...rest } = own;
  const { turned: _turned, arrange: _arrange, turns: _turns, apart: _apart, byFilm: _byFilm, weedLines: common, ...shared } = layout;
  const lines = weedLines ?? (common === undefined ? undefined : { ...common, on: false });
  return { ...shared, ...rest, ...(lines === undefined ? {} : { weedLines: { ...lines, ...(common?.own === undefined ? {} : { own: common.own }) } }) };
}

/** Whether a film is laid out by itself. */
export const isByItself = ({ byFilm }: Pick<Layout, 'byFilm'>, filmId: string): boolean => byFilm?.some(({ film }) => film === filmId) === true;

/** The layout with a film laid out by itself, to begin with as it is laid out now; or again as all are. */
export function withFilmByItself(layout: Layout, filmId: string, on: boolean): Layout {
  const { byFilm = [], ...rest } = layout;
  const others = byFilm.filter(({ film }) => film !== filmId);
  const next = on ? [...others, filmLayoutOf(filmId, layoutFor(layout, filmId))] : others;
  return next.length === 0 ? rest : { ...rest, byFilm: next };
}

/** The layout with a change of what one film has of it: to its own layout where it is laid out by itself and may differ, else to that of all. */
export function withLayoutOf(layout: Layout, filmId: string, change: Partial<Layout>): Layout {
  if (!isByItself(layout, filmId)) return { ...layout, ...change };
  const { weedLines, ...kept } = change;
  const own = Object.fromEntries(Object.entries(kept).filter(([key]) => OWN.has(key)));
  const common = Object.fromEntries(Object.entries(kept).filter(([key]) => !OWN.has(key)));
  const next = filmLayoutOf(filmId, { ...layoutFor(layout, filmId), ...own, ...(weedLines === undefined ? {} : { weedLines }) });
  // Which lines were moved is held for all films in one list.
  const moved = weedLines?.own === layout.weedLines?.own || weedLines === undefined ? {} : { weedLines: { ...(layout.weedLines ?? { ...weedLines, on: false }), own: weedLines.own } };
  return { ...layout, ...common, ...moved, byFilm: (layout.byFilm ?? []).map((each) => (each.film === filmId ? next : each)) };
}

const OWN: ReadonlySet<string> = new Set(['sheet', 'box', 'copies', 'gapMm', 'turned', 'arrange', 'turns', 'apart'] satisfies (keyof FilmLayout)[]);

function filmLayoutOf(film: string, { sheet, box, weedLines, copies, gapMm, turned, arrange, turns, apart }: Layout): FilmLayout {
  const lines = weedLines === undefined ? undefined : { on: weedLines.on, everyMm: weedLines.everyMm, awayMm: weedLines.awayMm };
  const all = { film, sheet, box, weedLines: lines, copies, gapMm, turned, arrange, turns, apart };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)) as FilmLayout;
}
