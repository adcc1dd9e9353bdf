import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { addTone, fillArea, pointApart, pointAt, setTone, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import type { Box } from '../../ui/viewport.ts';
import { colourAt } from '../shared/colourAt.ts';
import { say } from '../../core/words/say.ts';

/** What an area becomes when it is pointed at: a film by its id, no film, or a cut of its own. */
export type Target = `film:${string}` | 'none' | 'own';

/** Pointing at the art in Separate: picking a tone's colour, or giving areas another film. */
export function usePointing(artBox: () => Box) {
  const bench = useBench();
  const rack = useRack();
  const mode = ref<'off' | 'pick' | 'areas'>('off');
  const target = ref<Target>('none');
  /** The last tones that were found: while nothing is left to cut, the held ones are shown with what share they had. */
  const last = shallowRef<FoundFilms['tones']>([]);
  watch(() => bench.result?.cut?.tones, (tones) => {
    if (tones !== undefined) last.value = tones;
  }, { immediate: true });
  const found = computed<FoundFilms>(() => {
    const { separation, films } = bench.part as TracedPart;
    const cut = bench.result?.cut;
    if (cut === undefined && separation.way === 'flat' && separation.palette !== undefined) {
      return { tones: separation.palette.map(({ colour, film }) => ({ colour, film, share: last.value.find((tone) => tone.colour === colour)?.share ?? 0 })), films };
    }
    return { tones: cut?.tones ?? [], films: rack.films.map(({ film }) => film) };
  });

  /** The tone whose colour is picked; a new one when absent. */
  let picked: number | undefined;
  const toggle = (which: 'pick' | 'areas'): void => {
    picked = undefined;
    mode.value = mode.value === which ? 'off' : which;
  };
  /** Picks the colour of a tone that is there from the art. */
  function pickFor(tone: number): void {
    picked = tone;
    mode.value = 'pick';
  }

  function press({ x, y }: { readonly x: number; readonly y: number }): void {
    const part = bench.part as TracedPart;
    if (mode.value === 'pick') pick(part, x, y);
    else if (mode.value === 'areas') point(part, { xPx: Math.round(x * 10) / 10, yPx: Math.round(y * 10) / 10 });
  }

  function pick(part: TracedPart, x: number, y: number): void {
    const { cleanView } = bench;
    const box = artBox();
    mode.value = 'off';
    if (cleanView === undefined) return;
    const colour = colourAt({ view: cleanView.pixels, widthPx: box.width, heightPx: box.height }, { x: x - box.x, y: y - box.y });
    if (colour !== undefined) bench.commitPart(say`Tone ${colour}`, picked === undefined ? addTone(part, found.value, colour) : setTone(part, found.value, picked, colour));
  }

  function point(part: TracedPart, at: { readonly xPx: number; readonly yPx: number }): void {
    const now = filmAt(at);
    if (target.value === 'own') {
      if (now === undefined) bench.commitPart(say('Area filled'), fillArea(part, found.value, at));
      else bench.commitPart(say('Area as a cut of its own'), pointApart(part, found.value, at, now));
      return;
    }
    const id = target.value === 'none' ? null : target.value.slice('film:'.length);
    const name = found.value.films.find((film) => film.id === id)?.name;
    bench.commitPart(name === undefined ? say('Area not cut') : say`Area in ${name}`, pointAt(part, found.value, at, id));
  }

  /** The uppermost film at a point. */
  const context = document.createElement('canvas').getContext('2d');
  const filmAt = ({ xPx, yPx }: { readonly xPx: number; readonly yPx: number }) => rack.films.findLast(({ outline }) => context?.isPointInPath(pathFromCurves(outline), xPx, yPx, 'evenodd') === true)?.film;

  useEventListener('keydown', (event: KeyboardEvent) => {
    if (event.key === 'Escape') mode.value = 'off';
  });
  return { mode, target, found, toggle, pickFor, press };
}
