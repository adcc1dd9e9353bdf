import { computed } from 'vue';
import { useRack } from '../../stores/rack.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';

/** The films of the part as paths in picture px, lowest first; only the one that is looked at when one is. */
export function useFilmPaths() {
  const rack = useRack();
  const all = computed(() => rack.films.map(({ film, outline }) => ({ id: film.id, colour: film.colour, path: pathFromCurves(outline) })));
  const paths = computed(() => (rack.isAlone ? all.value.filter(({ id }) => id === rack.roll?.film.id) : all.value));
  const colours = computed(() => all.value.map(({ colour }) => colour));
  return { paths, colours };
}
