import { useEventListener } from '@vueuse/core';
import { ref, watch } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { partAreas, splitTone, type FoundFilms } from '../../core/edit/paletteEdits.ts';
import type { PartsView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { tellError } from '../shared/tellError.ts';
import { say } from '../../core/words/say.ts';

interface Frame {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Parting a tone in two: by the two colours that are in it, or by a frame around some of its areas. */
export function useParting(found: () => FoundFilms, onFraming: (on: boolean) => void) {
  const bench = useBench();
  const note = ref<string>();
  /** The tone whose areas are about to be framed. */
  const framing = ref<number>();
  watch(framing, (tone) => onFraming(tone !== undefined));

  async function partsOf(tone: number): Promise<PartsView | undefined> {
    const of = bench.ofJob();
    note.value = undefined;
    if (of === undefined) return undefined;
    try {
      return await bench.parts({ ...of, tone });
    } catch (error) {
      tellError(asAppError(error, 'unexpected'));
      return undefined;
    }
  }

  async function byColour(tone: number): Promise<void> {
    const parts = await partsOf(tone);
    if (parts === undefined) return;
    if (parts.colours === undefined) {
      const { what, todo } = explain({ code: 'toneIsEven', details: {} });
      note.value = `${what} ${todo}`;
      return;
    }
    bench.commitPart(say('Tone split by colour'), splitTone(bench.part as TracedPart, found(), tone, parts.colours));
  }

  /** Areas whose middle lies in the frame become a film of their own. */
  async function byPlace({ left, top, right, bottom }: Frame): Promise<void> {
    const tone = framing.value;
    framing.value = undefined;
    if (tone === undefined) return;
    const parts = await partsOf(tone);
    const like = found().films.find(({ id }) => id === found().tones[tone].film);
    if (parts === undefined || like === undefined) return;
    const inside = parts.areas.filter(({ middleXPx, middleYPx }) => middleXPx >= left && middleXPx <= right && middleYPx >= top && middleYPx <= bottom);
    if (inside.length === 0) note.value = say('No area of that tone has its middle in the frame.');
    else if (inside.length === parts.areas.length) note.value = say('All areas of that tone lie in the frame: there is nothing to part.');
    else bench.commitPart(say`${like.name} split by place`, partAreas(bench.part as TracedPart, found(), inside, like));
  }

  useEventListener('keydown', (event: KeyboardEvent) => {
    if (event.key === 'Escape') framing.value = undefined;
  });
  return { note, framing, byColour, byPlace };
}
