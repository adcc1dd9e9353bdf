import { useEventListener } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { addNode, cutOpen, joinEnds, moveHandle, moveNodes, removeNodes, shapeNodes, straighten, type Edit, type FilmPaths, type NodeRef, type Refusal, type SideRef } from '../../../core/outline/edit/editFilms.ts';
import { isEnd, nodeAt, type EditPath, type Point } from '../../../core/outline/edit/editPath.ts';
import type { TablePoint } from '../../../ui/useTableView.ts';
import { isTyping } from '../isTyping.ts';
import { MOST_HANDLED } from './drawNodes.ts';
import { hitAt, nodesWithin, refAt } from './nodeHits.ts';
import { say } from '../../../core/words/say.ts';

/** Presses no further apart than this are a double click, ms. */
const TWICE_MS = 450;

/** Why an edit was not made, in words. */
const REFUSALS: Readonly<Record<Refusal, string>> = {
  filmsMeet: say('Three films meet at that node: it holds them together and has to stay.'),
  notOneOutline: say('Choose two nodes of one outline.'),
  notEnds: say('Choose two open ends of one film.'),
};

/** A node by its film and place: numbers change when an outline is put together anew, places do not. */
interface Chosen extends Point {
  readonly film: string;
}

type Hold =
  | { readonly kind: 'nodes'; readonly base: readonly FilmPaths[]; readonly start: Point; readonly refs: readonly NodeRef[] }
  | { readonly kind: 'handle'; readonly base: readonly FilmPaths[]; readonly ref: NodeRef; readonly which: 'in' | 'out' }
  | { readonly kind: 'frame'; readonly start: Point; readonly add: boolean };

/** What is edited: outlines of films, in any unit. */
export interface NodeSubject {
  /** As they were last made. */
  readonly films: Readonly<Ref<readonly FilmPaths[]>>;
  /** The one film that is shown, where it is one alone. */
  readonly alone: Readonly<Ref<string | undefined>>;
  /** Whether they are those that an edit would be of, and not still being made. */
  readonly isReady: Readonly<Ref<boolean>>;
  /** Units on a mm. */
  readonly perMm: () => number;
  /** Keeps an edit as one change. @param changed the films that differ. */
  readonly keep: (label: string, changed: readonly FilmPaths[]) => void;
}

/**
 * Editing outlines a node at a time: choosing, dragging, and what the card's buttons do. A drag is shown as it goes and becomes one change when it ends.
 * @param isOn whether nodes are shown. @param scale CSS px on one unit.
 */
export function useNodeEditing(isOn: Readonly<Ref<boolean>>, scale: Readonly<Ref<number>>, subject: NodeSubject) {
  const traced = subject.films;
  /** Edited and not yet given back by the engine. */
  const edited = shallowRef<readonly FilmPaths[]>();
  const films = computed(() => edited.value ?? traced.value);
  const shown = computed(() => (subject.alone.value === undefined ? films.value : films.value.filter(({ id }) => id === subject.alone.value)));
  const chosen = shallowRef<readonly Chosen[]>([]);
  const side = shallowRef<SideRef>();
  const hold = shallowRef<Hold>();
  const frame = shallowRef<{ readonly from: Point; readonly to: Point }>();
  const message = ref<string>();

  const canEdit = computed(() => isOn.value && subject.isReady.value);
  watch(traced, () => {
    edited.value = undefined;
    side.value = undefined;
    chosen.value = chosen.value.filter((each) => refAt(films.value, each) !== undefined);
  });
  watch(isOn, () => reset());
  function reset(): void {
    edited.value = undefined;
    hold.value = undefined;
    frame.value = undefined;
    side.value = undefined;
    chosen.value = [];
    message.value = undefined;
  }
  onScopeDispose(reset);

  const refs = computed<NodeRef[]>(() => chosen.value.flatMap((each) => refAt(films.value, each) ?? []));
  const placed = (all: readonly FilmPaths[], ref: NodeRef): Chosen => ({ film: ref.film, ...plain(nodeAt(pathOf(all, ref), ref.node)) });
  const choose = (next: readonly NodeRef[], all = films.value): void => void (chosen.value = next.map((ref) => placed(all, ref)));

  function press(at: TablePoint, event: PointerEvent): void {
    if (!canEdit.value) return;
    message.value = undefined;
    const hit = hitAt(shown.value, refs.value.length > MOST_HANDLED ? [] : refs.value, at, 7 / scale.value);
    side.value = hit?.kind === 'side' ? hit.side : undefined;
    if (hit?.kind === 'handle') hold.value = { kind: 'handle', base: films.value, ref: hit.ref, which: hit.which };
    else if (hit?.kind === 'node') pressNode(hit.ref, at, event.shiftKey);
    else if (hit?.kind === 'side' && isSecond(at)) act('add');
    else if (hit === undefined) {
      hold.value = { kind: 'frame', start: plain(at), add: event.shiftKey };
      if (!event.shiftKey) chosen.value = [];
    }
  }

  /** Whether a press is the second of a double click: pointer events do not count them. */
  let last: { readonly at: TablePoint; readonly ms: number } | undefined;
  function isSecond(at: TablePoint): boolean {
    const before = last;
    last = { at, ms: performance.now() };
    return before !== undefined && last.ms - before.ms < TWICE_MS && Math.hypot(at.screenX - before.at.screenX, at.screenY - before.at.screenY) < 6;
  }

  function pressNode(ref: NodeRef, at: Point, add: boolean): void {
    const isChosen = refs.value.some((each) => sameNode(each, ref));
    if (add) choose(isChosen ? refs.value.filter((each) => !sameNode(each, ref)) : [...refs.value, ref]);
    else if (!isChosen) choose([ref]);
    hold.value = { kind: 'nodes', base: films.value, start: plain(at), refs: refs.value };
  }

  function move(at: TablePoint, event: PointerEvent): void {
    const held = hold.value;
    if (held === undefined) return;
    if (held.kind === 'frame') frame.value = { from: held.start, to: plain(at) };
    else if (held.kind === 'handle') edited.value = moveHandle(held.base, held.ref, held.which, plain(at), event.altKey);
    else edited.value = moveNodes(held.base, held.refs, at.x - held.start.x, at.y - held.start.y);
  }

  function release(at: TablePoint): void {
    const held = hold.value;
    hold.value = undefined;
    if (held?.kind === 'frame') {
      if (frame.value !== undefined) choose([...(held.add ? refs.value : []), ...nodesWithin(shown.value, held.start, plain(at))]);
      frame.value = undefined;
      return;
    }
    if (held === undefined || edited.value === undefined) return;
    if (held.kind === 'nodes') choose(held.refs);
    keep(held.kind === 'handle' ? say('Handle moved') : held.refs.length === 1 ? say('Node moved') : say`${held.refs.length} nodes moved`, held.base, edited.value);
  }

  function keep(label: string, base: readonly FilmPaths[], next: readonly FilmPaths[]): void {
    const changed = next.filter((film, k) => film !== base[k]);
    if (changed.length === 0) return;
    edited.value = next;
    subject.keep(label, changed);
  }

  function take(label: string, edit: Edit, clear = true): void {
    message.value = 'refused' in edit ? REFUSALS[edit.refused] : undefined;
    if ('refused' in edit) return;
    if (clear) chosen.value = [];
    keep(label, films.value, edit.films);
  }

  type Action = 'add' | 'remove' | 'corner' | 'smooth' | 'straighten' | 'join' | 'open';
  function act(action: Action): void {
    const [first, second] = refs.value;
    const all = films.value;
    if (action === 'add') {
      const at = side.value ?? (first === undefined ? undefined : { film: first.film, path: first.path, side: first.node, t: 0.5 });
      if (at !== undefined) take(say('Node added'), { films: addNode(all, at) }, false);
    } else if (action === 'remove') take(refs.value.length === 1 ? say('Node taken out') : say`${refs.value.length} nodes taken out`, removeNodes(all, refs.value));
    else if (action === 'corner' || action === 'smooth') take(action === 'corner' ? say('Made a corner') : say('Made smooth'), { films: shapeNodes(all, refs.value, action) }, false);
    else if (action === 'open') take(say('Cut open'), cutOpen(all, first, gapPx()));
    else if (action === 'straighten') take(say('Made straight'), straighten(all, first, second), false);
    else take(say('Ends joined'), joinEnds(all, first, second, gapPx() * 1.5));
  }
  /** An outline is cut open by a millimetre at the finished size. */
  const gapPx = subject.perMm;

  function key(event: KeyboardEvent): void {
    if (!canEdit.value || isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey || (event.target as HTMLElement).closest?.('[role="slider"], [role="radiogroup"], .rack, .el-select') !== null) return;
    if (event.key === 'Escape') {
      if (hold.value !== undefined) edited.value = undefined;
      hold.value = frame.value = undefined;
      chosen.value = [];
      return;
    }
    if (refs.value.length === 0) return;
    const step = (event.shiftKey ? 1 : 0.1) * subject.perMm();
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') act('remove');
    else if (by !== undefined) nudge(by[0], by[1]);
    else return;
    event.preventDefault();
  }
  useEventListener('keydown', key);

  function nudge(dx: number, dy: number): void {
    const held = refs.value;
    const base = films.value;
    const next = moveNodes(base, held, dx, dy);
    choose(held, next);
    keep(held.length === 1 ? say('Node moved') : say`${held.length} nodes moved`, base, next);
  }

  /** What the chosen nodes allow. */
  const can = computed(() => {
    const count = refs.value.length;
    const ends = refs.value.filter((ref) => isEnd(pathOf(films.value, ref), ref.node));
    return { add: side.value !== undefined || count === 1, remove: count > 0, shape: count > ends.length, straighten: count === 2, join: count === 2 && ends.length === 2, open: count === 1 && ends.length === 0 };
  });
  const facts = computed(() => ({ chosen: refs.value.length, nodes: shown.value.reduce((sum, { paths }) => sum + paths.reduce((nodes, path) => nodes + path.nodes.length, 0), 0) }));
  return { films: shown, refs, side, frame, message, can, facts, canEdit, press, move, release, act };
}

const plain = ({ x, y }: Point): Point => ({ x, y });
const pathOf = (films: readonly FilmPaths[], ref: { readonly film: string; readonly path: number }): EditPath => films.find(({ id }) => id === ref.film)?.paths[ref.path] ?? { closed: true, nodes: [] };
const sameNode = (a: NodeRef, b: NodeRef): boolean => a.film === b.film && a.path === b.path && a.node === b.node;
export type NodeEditing = ReturnType<typeof useNodeEditing>;
