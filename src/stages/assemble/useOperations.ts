import { computed, ref, watch } from 'vue';
import { operationsOf, withOperation, withOperations, withOperationChanged, withOperationMoved, withoutOperation } from '../../core/edit/operationEdits.ts';
import { withFilm } from '../../core/edit/objectEdits.ts';
import type { Film } from '../../core/film/film.ts';
import { inverseOf, placed } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import { MAX_MARKS, type Operation, type OperationKind } from '../../core/operate/operation.ts';
import { innerPlace } from '../../core/operate/pieceMarks.ts';
import { pieceAt, piecesIndex } from '../../core/operate/piecesIndex.ts';
import { useBench } from '../../stores/bench.ts';
import { newOperation, OPERATIONS } from './operationWords.ts';
import { mostSeen, type Parts } from './useParts.ts';
import { inSentence, say } from '../../core/words/say.ts';

type Fill = Extract<Operation, { kind: 'fill' }>;

/** What is done to the selected part, as a list that stays changeable. */
export function useOperations(parts: Parts) {
  const bench = useBench();
  const job = computed(() => bench.job as Job);
  const list = computed(() => operationsOf(parts.object.value));
  const open = ref<string>();
  /** Whether the next line on the table splits the part. */
  const splitting = ref(false);
  watch(() => parts.object.value?.id, () => {
    open.value = undefined;
    splitting.value = false;
  });
  watch(list, (now) => {
    if (open.value !== undefined && now.every(({ id }) => id !== open.value)) open.value = undefined;
  });
  const unfold = (id: string | undefined): void => void (open.value = id);
  const opened = computed(() => list.value.find(({ id }) => id === open.value));
  /** The fill whose areas are pointed at. */
  const filling = computed((): Fill | undefined => (opened.value?.kind === 'fill' ? opened.value : undefined));
  const notes = computed(() => parts.inDesign.value.find(({ id }) => id === parts.object.value?.id)?.notes ?? []);

  /** A film that stands out from the part and from the blank, and is not its own. */
  function otherFilm(): Film {
    const own = parts.inDesign.value.find(({ id }) => id === parts.object.value?.id)?.layers.map(({ filmId }) => filmId) ?? [];
    const others = parts.films.value.filter(({ id }) => !own.includes(id));
    return mostSeen(others.length > 0 ? others : parts.films.value, job.value.blank.colour, ...(own.length > 0 ? [parts.colourOf(own[0])] : []));
  }

  function add(kind: OperationKind): void {
    const id = parts.object.value?.id;
    if (id === undefined) return;
    if (kind === 'split') {
      splitting.value = true;
      return;
    }
    const film = otherFilm();
    const box = parts.box.value;
    const made = newOperation(kind, crypto.randomUUID().slice(0, 8), film.id, { widthMm: box === undefined ? 50 : box.right - box.left, heightMm: box === undefined ? 50 : box.bottom - box.top });
    if (made === undefined) return;
    bench.commit(OPERATIONS[kind].name, withOperation(job.value, id, made, 'film' in made ? film : undefined));
    open.value = made.id;
  }
  /** @param from mm of the design, as `to`. */
  function split(from: { x: number; y: number }, to: { x: number; y: number }): void {
    const part = parts.inDesign.value.find(({ id }) => id === parts.object.value?.id);
    splitting.value = false;
    if (part === undefined) return;
    const id = crypto.randomUUID().slice(0, 8);
    bench.commit(say('Split'), withOperation(job.value, part.id, { id, kind: 'split', from: placed(part.toMarks, from.x, from.y), to: placed(part.toMarks, to.x, to.y), gapMm: 0 }));
    open.value = id;
  }
  const changed = (id: string, change: Partial<Operation>, film?: Film): Job => {
    const part = parts.object.value;
    if (part === undefined) return job.value;
    return withOperationChanged(film === undefined ? job.value : withFilm(job.value, film, 0), part.id, id, change);
  };
  const preview = (id: string, change: Partial<Operation>): void => bench.preview(changed(id, change));
  function set(operation: Operation, change: Partial<Operation>, film?: Film): void {
    bench.commit(OPERATIONS[operation.kind].name, changed(operation.id, change, film));
  }
  const move = (id: string, by: 1 | -1): void => parts.object.value && bench.commit(say('Order of operations'), withOperationMoved(job.value, parts.object.value.id, id, by));
  const remove = (operation: Operation): void => parts.object.value && bench.commit(say`Without ${inSentence(OPERATIONS[operation.kind].name)}`, withoutOperation(job.value, parts.object.value.id, operation.id));

  const part = computed(() => parts.inDesign.value.find(({ id }) => id === parts.object.value?.id));
  /** What can be filled while a fill is open, in the frame of the part's marks. */
  const enclosed = computed(() => (filling.value === undefined ? undefined : notes.value.find(({ operation }) => operation === open.value)?.enclosed));
  /** The same as places to point at, mm of the design, the largest first. */
  const areas = computed(() => {
    const [curves, own] = [enclosed.value, part.value];
    if (curves === undefined || own === undefined) return [];
    const back = inverseOf(own.toMarks);
    const { pieces } = piecesIndex(curves);
    const filled = new Set((filling.value?.at ?? []).map(({ x, y }) => pieceAt(curves, x, y)));
    return [...pieces.entries()].sort(([, a], [, b]) => b.area - a.area).map(([k, piece]) => {
      const { x, y } = innerPlace(curves, piece);
      return { ...placed(back, x, y), isFilled: filled.has(k) };
    });
  });
  /** Gives an enclosed area the film of the fill that is open, or takes it from it. @param x mm of the design. */
  function pointArea(x: number, y: number): void {
    const [fill, curves, own] = [filling.value, enclosed.value, part.value];
    if (fill === undefined || curves === undefined || own === undefined) return;
    const at = placed(own.toMarks, x, y);
    const pointed = pieceAt(curves, at.x, at.y);
    if (pointed < 0) return;
    const left = fill.at.filter((each) => pieceAt(curves, each.x, each.y) !== pointed);
    if (left.length < fill.at.length) return set(fill, { at: left });
    // What another fill had there goes to this one.
    const others = list.value.map((each) => (each.kind === 'fill' && each.id !== fill.id ? { ...each, at: each.at.filter((place) => pieceAt(curves, place.x, place.y) !== pointed) } : each));
    const filled = others.map((each) => (each === fill ? { ...fill, at: [...fill.at, { x: Math.round(at.x * 1e4) / 1e4, y: Math.round(at.y * 1e4) / 1e4 }] } : each));
    bench.commit(OPERATIONS.fill.name, withOperations(job.value, own.id, filled));
  }
  /** All of them at once, or none. */
  function pointAll(all: boolean): void {
    const [fill, curves] = [filling.value, enclosed.value];
    if (fill === undefined || curves === undefined) return;
    set(fill, { at: all ? piecesIndex(curves).pieces.slice(0, MAX_MARKS).map((piece) => innerPlace(curves, piece)) : [] });
  }

  return { list, open, unfold, opened, filling, splitting, notes, areas, add, split, preview, set, move, remove, pointArea, pointAll };
}

export type Operations = ReturnType<typeof useOperations>;
