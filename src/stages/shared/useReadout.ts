import { computed, ref, shallowRef } from 'vue';
import { useTimeoutFn } from '@vueuse/core';
import { watch } from 'vue';
import { dpiFromPxPerMm, mm, pxPerMm } from '../../core/units/length.ts';
import { formatLength, numberWords } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { say } from '../../core/words/say.ts';

/** Work is announced only when it takes longer than this, ms. */
const ANNOUNCE_AFTER_MS = 500;

/** What the readout strip says: pointer in true length, zoom, resolution, and the engine. Positions are handed in already in mm. */
export function useReadout() {
  const bench = useBench();
  const settings = useSettings();
  const pointerMm = shallowRef<{ x: number; y: number }>();
  /** Colour of the picture under the pointer. */
  const pointerColour = shallowRef<string>();
  // What lies under the pointer is another place once the picture is cropped, turned or sized anew: it is told with the next move.
  watch([() => bench.result?.clean.key, () => bench.resolutionPxPerMm, () => bench.picture], () => (pointerMm.value = undefined));
  /** CSS px on one true mm. */
  const cssPxPerMm = ref(1);

  const items = computed(() => {
    const list: { name: string; value: string; swatch?: string }[] = [];
    const { unit } = settings;
    if (pointerMm.value !== undefined) {
      list.push({ name: 'x', value: formatLength(mm(pointerMm.value.x), unit) }, { name: 'y', value: formatLength(mm(pointerMm.value.y), unit) });
    }
    if (pointerMm.value !== undefined && pointerColour.value !== undefined) list.push({ name: say('colour'), value: pointerColour.value, swatch: pointerColour.value });
    if (bench.resolutionPxPerMm !== undefined && bench.picture !== undefined) list.push({ name: say('picture at this size'), value: `${Math.round(dpiFromPxPerMm(pxPerMm(bench.resolutionPxPerMm)))} dpi` });
    return list;
  });
  const zoom = computed(() => say`${numberWords(cssPxPerMm.value / settings.screenPxPerMm, 2)} × true size`);

  const slow = ref(false);
  const { start, stop } = useTimeoutFn(() => (slow.value = true), ANNOUNCE_AFTER_MS, { immediate: false });
  watch(() => bench.busy !== undefined, (busy) => {
    if (busy) start();
    else {
      stop();
      slow.value = false;
    }
  }, { immediate: true });
  const progress = computed(() => (slow.value ? bench.busy : undefined));
  const status = computed(() => {
    if (slow.value) return say('working…');
    const ms = bench.result?.ms;
    return `${zoom.value} · ${ms === undefined ? say('engine idle') : say`last ${Math.round(ms.clean + ms.cut)} ms`}`;
  });
  return { pointerMm, pointerColour, cssPxPerMm, items, progress, status };
}
