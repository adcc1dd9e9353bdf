import { computed } from 'vue';
import { useRack } from '../../stores/rack.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';

/** The films of the part as paths in picture px, lowest first; only the one that is looked at when one is. */
export function useFilmPaths() {
  const rack = useRack();
  const shown = computed(() => (rack.isAlone ? rack.films.filter(({ film }) => film.id === rack.roll?.film.id) : rack.films));
  // Made when it is drawn: not every view shows it.
  const paths = computed(() => shown.value.map(({ film, outline }) => ({ id: film.id, colour: film.colour, path: pathFromCurves(outline) })));
  const colours = computed(() => rack.films.map(({ film }) => film.colour));
  return { shown, paths, colours };
}
