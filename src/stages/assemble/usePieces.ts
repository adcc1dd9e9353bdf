import { computed, shallowRef, watch } from 'vue';
import { withFilm } from '../../core/edit/objectEdits.ts';
import { withNearestPieces, withOperation, withPiecesMore } from '../../core/edit/operationEdits.ts';
import { boxAroundAll } from '../../core/edit/placeEdits.ts';
import type { Film } from '../../core/film/film.ts';
import { inverseOf, placed } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import { alikePieces } from '../../core/operate/alikePieces.ts';
import type { Operation, PieceMark } from '../../core/operate/operation.ts';
import type { OperationNote } from '../../core/operate/operate.ts';
import { liesIn, type PieceHit } from '../../core/operate/partHits.ts';
import { innerPlace, ofPieces } from '../../core/operate/pieceMarks.ts';
import { pieceAt, piecesIndex } from '../../core/operate/piecesIndex.ts';
import { straysOf, type Stray } from '../../core/operate/strays.ts';
import type { Bounds, Curves } from '../../core/outline/curves.ts';
import { nodeCount } from '../../core/outline/curves.ts';
import { thinPlaces } from '../../core/outline/thinPlaces.ts';
import { useBench } from '../../stores/bench.ts';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** Strips broader than this are not measured: the knife has no trouble with them, mm. */
const MEASURED_TO_MM = 4;
/** Outlines of more nodes are not measured while one clicks. */
const MEASURED_NODES = 4000;

/** Pieces of one part that are selected, by places inside of them, which stay right when the design is made anew. */
export function usePieces(parts: Parts) {
  const bench = useBench();
  const partId = shallowRef<string>();
  const marks = shallowRef<readonly PieceMark[]>([]);
  const part = computed(() => parts.inDesign.value.find(({ id }) => id === partId.value));
  const job = computed(() => bench.job as Job);
  watch(() => parts.chosen.value, (ids) => {
    if (partId.value !== undefined && (ids.length !== 1 || ids[0] !== partId.value)) clear();
  });

  /** The selected pieces as they lie in the design. */
  const selected = computed(() => {
    const own = part.value;
    if (own === undefined) return [];
    const back = inverseOf(own.toMarks);
    return own.layers.flatMap(({ filmId, curves }) => {
      const index = piecesIndex(curves);
      const found = new Set(marks.value.filter(({ film }) => film === filmId).map(({ x, y }) => {
        const at = placed(back, x, y);
        return pieceAt(curves, at.x, at.y);
      }));
      const taken = index.pieces.filter((_, k) => found.has(k));
      return taken.length === 0 ? [] : [{ filmId, curves: ofPieces(curves, taken), pieces: taken, boxes: index.boxes.filter((_, k) => found.has(k)) }];
    });
  });
  const facts = computed(() => {
    const all = selected.value;
    if (all.length === 0) return undefined;
    const box = boxAroundAll(all.flatMap(({ boxes }) => boxes.map((each) => ({ box: each }))));
    const nodes = all.reduce((sum, { curves }) => sum + nodeCount(curves), 0);
    return {
      box,
      nodes,
      pieces: all.reduce((sum, { pieces }) => sum + pieces.length, 0),
      films: all.map(({ filmId }) => filmId),
      areaMm2: all.reduce((sum, { pieces }) => sum + pieces.reduce((own, { area }) => own + area, 0), 0),
      narrowestMm: nodes > MEASURED_NODES ? undefined : narrowest(all.map(({ curves }) => curves)),
    };
  });

  function clear(): void {
    partId.value = undefined;
    marks.value = [];
  }
  const markOf = (id: string, film: string, curves: Curves, piece: number): PieceMark => {
    const own = parts.inDesign.value.find((each) => each.id === id);
    const inner = innerPlace(curves, piecesIndex(curves).pieces[piece]);
    const at = own === undefined ? inner : placed(own.toMarks, inner.x, inner.y);
    return { film, x: Math.round(at.x * 1e4) / 1e4, y: Math.round(at.y * 1e4) / 1e4 };
  };
  const isSame = (a: PieceMark, b: PieceMark): boolean => a.film === b.film && a.x === b.x && a.y === b.y;
  const curvesOf = (id: string, film: string): Curves | undefined => parts.inDesign.value.find((each) => each.id === id)?.layers.find(({ filmId }) => filmId === film)?.curves;

  /** Selects a piece, or with `more` adds it and takes it out again. */
  function pick({ partId: id, film, piece }: PieceHit, more: boolean): void {
    const curves = curvesOf(id, film);
    if (curves === undefined) return;
    const mark = markOf(id, film, curves, piece);
    const before = more && partId.value === id ? marks.value : [];
    parts.select(id);
    partId.value = id;
    marks.value = before.some((each) => isSame(each, mark)) ? before.filter((each) => !isSame(each, mark)) : [...before, mark];
  }
  const isPicked = ({ partId: id, film, piece }: PieceHit): boolean => {
    const curves = curvesOf(id, film);
    return partId.value === id && curves !== undefined && marks.value.some((each) => isSame(each, markOf(id, film, curves, piece)));
  };
  function setAll(id: string, want: (film: string, curves: Curves) => readonly number[]): void {
    const own = parts.inDesign.value.find((each) => each.id === id);
    if (own === undefined) return;
    parts.select(id);
    partId.value = id;
    marks.value = own.layers.flatMap(({ filmId, curves }) => want(filmId, curves).map((piece) => markOf(id, filmId, curves, piece)));
  }
  const pickWithin = (id: string, frame: Bounds): void => setAll(id, (_, curves) => piecesIndex(curves).boxes.flatMap((box, k) => (liesIn(box, frame) ? [k] : [])));
  const pickFilm = (id: string, film: string): void => setAll(id, (filmId, curves) => (filmId === film ? [...piecesIndex(curves).pieces.keys()] : []));
  /** Small pieces of a part that lie by themselves. */
  const straysIn = (id: string): readonly Stray[] => straysOf(parts.inDesign.value.find((each) => each.id === id)?.layers ?? []);
  function pickStrays(id: string): void {
    const strays = straysIn(id);
    setAll(id, (filmId) => strays.flatMap(({ film, piece }) => (film === filmId ? [piece] : [])));
  }
  /** All pieces of the part that have the shape of the first selected one. */
  function pickAlike(): void {
    const first = selected.value[0];
    if (first === undefined || partId.value === undefined) return;
    const like = { ...first.pieces[0] };
    const source = curvesOf(partId.value, first.filmId);
    if (source !== undefined) setAll(partId.value, (_, curves) => alikePieces(curves, piecesIndex(curves).pieces, like, source));
  }
  /** How many pieces are like the one that is selected. */
  const alike = computed(() => {
    const own = part.value;
    const first = selected.value[0];
    if (own === undefined || first === undefined || facts.value?.pieces !== 1) return undefined;
    const source = own.layers.find(({ filmId }) => filmId === first.filmId)?.curves;
    return source === undefined ? undefined : own.layers.reduce((sum, { curves }) => sum + alikePieces(curves, piecesIndex(curves).pieces, first.pieces[0], source).length, 0);
  });

  const newId = (): string => crypto.randomUUID().slice(0, 8);
  function takeOff(): void {
    const id = partId.value;
    if (id === undefined || marks.value.length === 0) return;
    const pieces = [...marks.value];
    const next = withPiecesMore(job.value, id, pieces, ({ kind }) => kind === 'takeOff', () => ({ id: newId(), kind: 'takeOff', pieces }));
    marks.value = [];
    bench.commit(say('Pieces taken off'), next);
  }
  function setFilm(film: Film): void {
    const id = partId.value;
    if (id === undefined || marks.value.length === 0) return;
    const pieces = [...marks.value];
    const same = (operation: Operation): boolean => operation.kind === 'film' && operation.film === film.id;
    bench.commit(say('Pieces on another film'), withPiecesMore(withFilm(job.value, film), id, pieces, same, () => ({ id: newId(), kind: 'film', film: film.id, pieces })));
    marks.value = marks.value.map((mark) => ({ ...mark, film: film.id }));
  }
  /** Does something to the selected pieces alone. */
  function operate(label: string, make: (id: string, pieces: PieceMark[]) => Operation, film?: Film): void {
    const id = partId.value;
    if (id !== undefined && marks.value.length > 0) bench.commit(label, withOperation(job.value, id, make(newId(), [...marks.value]), film));
  }
  const takeNearest = (id: string, note: OperationNote): void => bench.commit(say('Nearest pieces'), withNearestPieces(job.value, id, note.operation, note.marks));

  return { partId, marks, part, selected, facts, alike, clear, pick, isPicked, pickWithin, pickFilm, straysIn, pickStrays, pickAlike, takeOff, setFilm, operate, takeNearest };
}

function narrowest(all: readonly Curves[]): number | undefined {
  const widths = all.flatMap((curves) => thinPlaces(curves, MEASURED_TO_MM).map(({ widthMm }) => widthMm));
  return widths.length === 0 ? undefined : Math.min(...widths);
}

export type Pieces = ReturnType<typeof usePieces>;
