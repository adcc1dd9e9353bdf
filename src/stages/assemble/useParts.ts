import { computed, ref, watch } from 'vue';
import { nameOfObject, withDuplicate, withFilm, withNewObject, withObjectChanged, withObjectMoved, withObjectShifted, withoutObject, type FilmedObject } from '../../core/edit/objectEdits.ts';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { colourDifference } from '../../core/colour/oklab.ts';
import type { Film } from '../../core/film/film.ts';
import type { Job } from '../../core/job/job.ts';
import { plainObjects, type DesignObject } from '../../core/job/objects.ts';
import { pictureOf } from '../../core/job/tracedPart.ts';
import { useBench } from '../../stores/bench.ts';
import { useStock } from '../../stores/stock.ts';

export type PartKind = 'lettering' | 'rectangle' | 'round';

/** Share of the design's width that a new part has, and its height. */
const NEW_WIDTH = 0.6;
const NEW_HEIGHT = 0.14;
/** So far a double lies beside what it was made of, mm. */
const BESIDE_MM = 8;

/** The parts of the design: which is selected, and what can be done with it. */
export function useParts() {
  const bench = useBench();
  const stock = useStock();
  void stock.load();
  const selected = ref<string>();
  const job = computed(() => bench.job as Job);
  const cut = computed(() => bench.result?.cut);

  const filmsOnRack = computed(() => cut.value?.rack.map(({ film }) => film) ?? job.value.films);
  /** What a part may lie on: the films on the rack, and those on the shelf that are of another colour. */
  const films = computed((): readonly Film[] => [...filmsOnRack.value, ...stock.films.filter((film) => filmsOnRack.value.every(({ colour, name }) => colour !== film.colour || name !== film.name))]);
  const colourOf = (id: string): string | undefined => [...filmsOnRack.value, ...job.value.films].find((film) => film.id === id)?.colour;

  /** Highest first, as they are seen. */
  const parts = computed(() =>
    [...job.value.objects].reverse().map((object) => ({
      id: object.id,
      kind: object.kind,
      name: nameOfObject(object, object.kind === 'traced' ? pictureOf(job.value, object)?.fileName : undefined),
      colours: object.kind === 'lettering' || object.kind === 'figure' ? [colourOf(object.film) ?? '#888888'] : object.kind === 'traced' ? filmsOnRack.value.map(({ colour }) => colour).slice(0, 5) : [],
      cutsOut: (object.kind === 'lettering' || object.kind === 'figure') && object.cutsOut === true,
    })),
  );
  const part = computed((): DesignObject | undefined => plainObjects(job.value.objects).find(({ id }) => id === selected.value));
  const box = computed(() => cut.value?.boxes.find(({ id }) => id === selected.value));
  watch(part, (now) => {
    if (now === undefined) selected.value = undefined;
  });

  /** Puts a new part on the design, in the film that is seen best on the blank. */
  function add(kind: PartKind): void {
    const design = cut.value?.design;
    const origin = cut.value?.originMm ?? { x: 0, y: 0 };
    const [width, height] = [design?.widthMm ?? 100, design?.heightMm ?? 100].map(Number);
    const heightMm = Math.max(5, Math.round(width * NEW_HEIGHT));
    const widthMm = Math.max(10, Math.round(width * NEW_WIDTH));
    const film = mostSeen(filmsOnRack.value.length > 0 ? filmsOnRack.value : stock.films, job.value.blank.colour);
    const id = `${kind}-${crypto.randomUUID().slice(0, 8)}`;
    // Below the design where that is still on the blank, else in its middle.
    const isRoom = height + 1.6 * heightMm <= job.value.blank.heightMm;
    const middle = { x: width / 2 - origin.x, y: (isRoom ? height + heightMm : height / 2) - origin.y };
    const at = (x: number, y: number) => ({ a: 1, b: 0, c: 0, d: 1, e: x, f: y });
    const object: FilmedObject =
      kind === 'lettering'
        ? { kind, id, film: film.id, placement: at(middle.x, middle.y), lettering: { text: 'Name', font: 'Oswald', heightMm } }
        : { kind: 'figure', id, film: film.id, placement: at(middle.x - widthMm / 2, middle.y - heightMm / 2), shape: { form: kind, widthMm, heightMm } };
    bench.commit(kind === 'lettering' ? 'Lettering' : kind === 'round' ? 'Round' : 'Rectangle', withNewObject(job.value, object, film));
    selected.value = id;
  }

  const select = (id: string | undefined): void => void (selected.value = id);
  const changed = (change: (object: FilmedObject) => FilmedObject): Job => (selected.value === undefined ? job.value : withObjectChanged(job.value, selected.value, change));
  const preview = (change: (object: FilmedObject) => FilmedObject): void => bench.preview(changed(change));
  const commit = (label: string, change: (object: FilmedObject) => FilmedObject): void => bench.commit(label, changed(change));

  function setFilm(film: Film): void {
    const next = withFilm(job.value, film);
    bench.commit('Film', selected.value === undefined ? next : withObjectChanged<FilmedObject>(next, selected.value, (object) => ({ ...object, film: film.id })));
  }

  const shifted = (id: string, xMm: number, yMm: number, from: Job = job.value): Job => withObjectShifted(from, id, xMm, yMm);
  const reorder = (by: number): void => void (selected.value !== undefined && bench.commit(by > 0 ? 'Higher' : 'Lower', withObjectMoved(job.value, selected.value, by)));
  function remove(): void {
    if (part.value !== undefined && part.value.kind !== 'traced') bench.commit('Part taken off', withoutObject(job.value, part.value.id));
  }
  function duplicate(): void {
    if (part.value === undefined || part.value.kind === 'traced') return;
    const id = `${part.value.kind}-${crypto.randomUUID().slice(0, 8)}`;
    bench.commit('Doubled', withDuplicate(job.value, part.value.id, id, BESIDE_MM));
    selected.value = id;
  }

  return { selected, parts, part, box, films, add, preview, commit, setFilm, shifted, select, reorder, remove, duplicate };
}

/** The film that stands out most from a colour. */
function mostSeen(films: readonly Film[], colour: string): Film {
  const ground = rgbFromHex(colour) ?? WHITE;
  const away = (film: Film): number => colourDifference(rgbFromHex(film.colour) ?? WHITE, ground);
  return films.reduce((best, film) => (away(film) > away(best) ? film : best));
}
const WHITE = { r: 255, g: 255, b: 255 };

export type Parts = ReturnType<typeof useParts>;
