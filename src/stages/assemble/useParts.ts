import { computed, ref, watch } from 'vue';
import { placeOnBlank } from '../../core/assemble/placeOnBlank.ts';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { colourDifference } from '../../core/colour/oklab.ts';
import { withDuplicate, withGroup, withoutGroup } from '../../core/edit/groupEdits.ts';
import { canLeave, nameOfObject, objectOf, withFilm, withNewObject, withObjectChanged, withObjectMoved, withoutObject, type FilmedObject } from '../../core/edit/objectEdits.ts';
import { boxAroundAll, withShifted, type Boxed } from '../../core/edit/placeEdits.ts';
import type { Film } from '../../core/film/film.ts';
import type { Job } from '../../core/job/job.ts';
import type { DesignObject, GroupCombine } from '../../core/job/objects.ts';
import { pictureOf } from '../../core/job/tracedPart.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import type { DesignPart } from '../../core/run/designRun.ts';
import type { ToneFact } from '../../core/separate/toneFact.ts';
import { useBench } from '../../stores/bench.ts';
import { useStock } from '../../stores/stock.ts';
import { newPart, type PartKind } from './newPart.ts';
import { say } from '../../core/words/say.ts';

/** So far a double lies beside what it was made of, mm. */
const BESIDE_MM = 8;

/** A line of the parts list. */
export interface PartRow {
  readonly id: string;
  readonly kind: DesignObject['kind'];
  readonly name: string;
  readonly colours: readonly string[];
  readonly cutsOut: boolean;
  /** In how many groups it lies. */
  readonly depth: number;
  readonly operations: number;
  /** Whether an operation did not find what it is for, or lettering the part that it follows. */
  readonly isLost: boolean;
}

/** The parts of the design: which are selected, and what can be done with them. */
export function useParts() {
  const bench = useBench();
  const stock = useStock();
  void stock.load();
  const chosen = ref<readonly string[]>([]);
  const job = computed(() => bench.job as Job);
  const cut = computed(() => bench.result?.cut);
  const inDesign = computed((): readonly DesignPart[] => cut.value?.parts ?? []);
  const partById = computed(() => new Map(inDesign.value.map((part) => [part.id, part])));

  const filmsOnRack = computed(() => cut.value?.rack.map(({ film }) => film) ?? job.value.films);
  /** What a part may lie on: the films on the rack, and those on the shelf that are of another colour. */
  const films = computed((): readonly Film[] => {
    const racked = [...filmsOnRack.value, ...job.value.films.filter(({ id }) => filmsOnRack.value.every((film) => film.id !== id))];
    return [...racked, ...stock.films.filter((film) => racked.every(({ colour, name }) => colour !== film.colour || name !== film.name))];
  });
  const colours = computed(() => new Map(films.value.map(({ id, colour }) => [id, colour])));
  const colourOf = (id: string): string => colours.value.get(id) ?? '#888888';

  const rowsOf = (objects: readonly DesignObject[], depth: number): PartRow[] =>
    [...objects].reverse().flatMap((object) => [
      {
        id: object.id,
        kind: object.kind,
        name: nameOfObject(object, object.kind === 'traced' ? pictureOf(job.value, object)?.fileName : undefined),
        colours: coloursOf(object),
        cutsOut: ('cutsOut' in object && object.cutsOut === true) || object.kind === 'holes',
        depth,
        operations: 'operations' in object ? (object.operations?.length ?? 0) : 0,
        isLost: partById.value.get(object.id)?.notes?.some(({ lost }) => lost > 0) === true || partById.value.get(object.id)?.isAstray === true,
      },
      ...(object.kind === 'group' ? rowsOf(object.objects, depth + 1) : []),
    ]);
  function coloursOf(object: DesignObject): string[] {
    if (object.kind === 'holes' || ('cutsOut' in object && object.cutsOut === true)) return [];
    const own = partById.value.get(object.id)?.layers.map(({ filmId }) => filmId);
    return (own ?? ('film' in object ? [object.film] : [])).slice(0, 5).map(colourOf);
  }
  /** Highest first, as they are seen; what lies in a group below it. */
  const rows = computed(() => rowsOf(job.value.objects, 0));

  const objects = computed((): readonly DesignObject[] => chosen.value.flatMap((id) => objectOf(job.value.objects, id) ?? []));
  const object = computed(() => (objects.value.length === 1 ? objects.value[0] : undefined));
  watch([job, () => objects.value.length], () => {
    if (objects.value.length < chosen.value.length) chosen.value = objects.value.map(({ id }) => id);
  });

  /** Boxes of the objects as they lie in the design; a group's is that of what it holds. */
  const idsWithin = (each: DesignObject | undefined): string[] => (each === undefined ? [] : [each.id, ...(each.kind === 'group' ? each.objects.flatMap(idsWithin) : [])]);
  function boxOf(each: DesignObject | undefined): Bounds | undefined {
    const own = idsWithin(each).flatMap((id) => partById.value.get(id) ?? []);
    return own.length === 0 ? undefined : boxAroundAll(own);
  }
  const boxed = computed((): Boxed[] => objects.value.flatMap((each) => {
    const box = boxOf(each);
    return box === undefined ? [] : [{ id: each.id, box }];
  }));
  const box = computed(() => (boxed.value.length === 0 ? undefined : boxAroundAll(boxed.value)));
  const canMove = computed(() => objects.value.length > 0 && objects.value.some(({ kind }) => kind !== 'base' && kind !== 'holes'));

  const select = (...ids: readonly string[]): void => void (chosen.value = ids);
  const toggle = (id: string): void => void (chosen.value = chosen.value.includes(id) ? chosen.value.filter((each) => each !== id) : [...chosen.value, id]);
  /** The part of the outermost list that a part lies in. */
  const outermostOf = computed(() => new Map(job.value.objects.flatMap((each) => idsWithin(each).map((id): [string, string] => [id, each.id]))));
  const outermost = (id: string): string => outermostOf.value.get(id) ?? id;

  /** Puts a new part on the design, in the film that is seen best on the blank. */
  function add(kind: PartKind): void {
    const film = mostSeen(filmsOnRack.value.length > 0 ? filmsOnRack.value : stock.films, job.value.blank.colour);
    const { design, originMm } = cut.value ?? { design: undefined, originMm: undefined };
    const made = newPart(kind, `${kind}-${crypto.randomUUID().slice(0, 8)}`, film.id, { widthMm: design?.widthMm ?? 100, heightMm: design?.heightMm ?? 100, originMm: originMm ?? { x: 0, y: 0 }, blankHeightMm: job.value.blank.heightMm });
    bench.commit(nameOfObject(made), withNewObject(job.value, made, made.kind === 'holes' ? undefined : film));
    select(made.id);
  }
  /** Puts a base of a film of its own below everything, so that it is pressed first. */
  function addBase(): void {
    const film = stock.films.find((each) => filmsOnRack.value.every(({ colour }) => colour !== each.colour)) ?? stock.films[0];
    const made = newPart('base', `base-${crypto.randomUUID().slice(0, 8)}`, film.id, { widthMm: 0, heightMm: 0, originMm: { x: 0, y: 0 }, blankHeightMm: 0 });
    bench.commit(nameOfObject(made), { ...withFilm(job.value, film, 0), objects: [made, ...job.value.objects] });
    select(made.id);
  }

  const changed = (change: (each: FilmedObject) => FilmedObject): Job => (object.value === undefined ? job.value : withObjectChanged(job.value, object.value.id, change));
  const preview = (change: (each: FilmedObject) => FilmedObject): void => bench.preview(changed(change));
  const commit = (label: string, change: (each: FilmedObject) => FilmedObject): void => bench.commit(label, changed(change));
  const setFilm = (film: Film): void => object.value && bench.commit(say('Film'), withObjectChanged<FilmedObject>(withFilm(job.value, film), object.value.id, (each) => ({ ...each, film: film.id })));

  /** The parts themselves and what lies in them. */
  const allWithin = (from: Job, ids: readonly string[]): Set<string> =>
    new Set(ids.flatMap((id) => [id, ...idsWithin(objectOf(from.objects, id))]));

  /** A job in which parts were changed so that the box around them is another one: everything else stays where it is on the blank, although the box around the design changes. What only cuts has no part in that box. */
  function keepingPlace(next: Job, box: Bounds, from: Job = job.value, parts: readonly DesignPart[] = inDesign.value, ids: readonly string[] = chosen.value): Job {
    const design = cut.value?.design;
    if (design === undefined) return next;
    const within = allWithin(from, ids);
    const onlyCuts = parts.some(({ id }) => within.has(id)) && parts.every(({ id, cutsOut }) => cutsOut === true || !within.has(id));
    const others = parts.filter(({ id, cutsOut }) => cutsOut !== true && !within.has(id)).map(({ box: own }) => own);
    const all = onlyCuts ? others : [...others, box];
    if (all.length === 0) return next;
    const place = placeOnBlank(from.place, from.blank, design);
    return { ...next, place: { xMm: place.xMm + Math.min(...all.map(({ left }) => left)), yMm: place.yMm + Math.min(...all.map(({ top }) => top)) } };
  }
  /** The selected parts moved. */
  function shifted(xMm: number, yMm: number, from: Job = job.value, boxes: readonly Boxed[] = boxed.value, parts: readonly DesignPart[] = inDesign.value): Job {
    if (boxes.length === 0) return from;
    const ids = boxes.map(({ id }) => id);
    const within = allWithin(from, ids);
    const own = parts.filter(({ id, cutsOut }) => cutsOut !== true && within.has(id));
    const { left, top, right, bottom } = boxAroundAll(own.length > 0 ? own : boxes);
    return keepingPlace(withShifted(from, new Set(ids), xMm, yMm), { left: left + xMm, top: top + yMm, right: right + xMm, bottom: bottom + yMm }, from, parts, ids);
  }
  /** The parts as they lie in the design that belong to a part. */
  const inDesignOf = (id: string): readonly DesignPart[] => {
    const within = allWithin(job.value, [id]);
    return inDesign.value.filter((each) => within.has(each.id));
  };

  const reorder = (by: number): void => object.value && bench.commit(by > 0 ? say('Higher') : say('Lower'), withObjectMoved(job.value, object.value.id, by));
  const removable = computed(() => objects.value.length > 0 && objects.value.reduce<Job | undefined>((left, { id }) => (left !== undefined && canLeave(left, id) ? withoutObject(left, id) : undefined), job.value) !== undefined);
  function remove(): void {
    if (removable.value) bench.commit(say('Part taken off'), objects.value.reduce((left, { id }) => withoutObject(left, id), job.value));
  }
  const tonesOf = (id: string): readonly ToneFact[] | undefined => (id === bench.part?.id ? bench.result?.cut?.tones : undefined);
  const doubled = (from: Job, each: DesignObject): { job: Job; id: string } => {
    const id = `${each.kind}-${crypto.randomUUID().slice(0, 8)}`;
    return { job: withDuplicate(from, each.id, id, BESIDE_MM, tonesOf), id };
  };
  const canDouble = computed(() => objects.value.some((each) => doubled(job.value, each).job !== job.value));
  function duplicate(): void {
    const twins: string[] = [];
    const next = objects.value.reduce((left, each) => {
      const { job: more, id } = doubled(left, each);
      if (more !== left) twins.push(id);
      return more;
    }, job.value);
    if (twins.length === 0) return;
    bench.commit(say('Doubled'), next);
    select(...twins);
  }
  /** What can lie in a group: parts of the outermost list. */
  const groupable = computed(() => objects.value.filter(({ id, kind }) => kind !== 'base' && kind !== 'holes' && job.value.objects.some((each) => each.id === id)));
  function group(how?: GroupCombine['how']): void {
    const id = `group-${crypto.randomUUID().slice(0, 8)}`;
    const inside = groupable.value;
    const filmId = inside.map((each) => ('film' in each ? each.film : inDesign.value.find((part) => part.id === each.id)?.layers[0]?.filmId)).find((each) => each !== undefined);
    const film = films.value.find((each) => each.id === filmId) ?? films.value[0];
    bench.commit(how === undefined ? say('Group') : say('Put together'), withGroup(job.value, new Set(inside.map((each) => each.id)), id, how === undefined ? undefined : { how, film }));
    select(id);
  }
  function ungroup(): void {
    const each = object.value;
    if (each?.kind !== 'group') return;
    bench.commit(say('Taken apart'), withoutGroup(job.value, each.id));
    select(...each.objects.map(({ id }) => id));
  }

  return {
    chosen, rows, object, objects, box, boxed, canDouble, boxOf: (id: string) => boxOf(objectOf(job.value.objects, id)), inDesign, films, canMove, removable, groupable, colourOf, select, toggle, outermost, add, addBase, preview, commit, setFilm, shifted, keepingPlace, inDesignOf, reorder, remove, duplicate, group, ungroup,
  };
}

/** The film that stands out most from some colours. */
export function mostSeen(films: readonly Film[], ...colours: readonly string[]): Film {
  const grounds = colours.map((colour) => rgbFromHex(colour) ?? WHITE);
  const away = (film: Film): number => Math.min(...grounds.map((ground) => colourDifference(rgbFromHex(film.colour) ?? WHITE, ground)));
  return films.reduce((best, film) => (away(film) > away(best) ? film : best));
}
const WHITE = { r: 255, g: 255, b: 255 };

export type Parts = ReturnType<typeof useParts>;
