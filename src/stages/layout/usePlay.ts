import { useRafFn } from '@vueuse/core';
import { computed, ref, watch, type Ref } from 'vue';

/** A play takes at most so long, s; what takes longer is shown faster. */
const MOST_S = 14;

/** A place between 0 and an end that runs forward while it is played. @param perS how far it goes in a second of its own time. */
export function usePlay(end: Ref<number>, perS: (end: number) => number = () => 1) {
  const at = ref(Infinity);
  const shown = computed(() => Math.min(at.value, end.value));
  const speed = computed(() => Math.max(perS(end.value), end.value / MOST_S));
  const { pause, resume, isActive } = useRafFn(
    ({ delta }) => {
      at.value = shown.value + (speed.value * delta) / 1000;
      if (at.value >= end.value) pause();
    },
    { immediate: false },
  );
  watch(end, () => pause());
  function toggle(): void {
    if (isActive.value) return pause();
    if (shown.value >= end.value) at.value = 0;
    resume();
  }
  function show(place: number): void {
    pause();
    at.value = place;
  }
  return { at: shown, end, isPlaying: isActive, times: computed(() => speed.value / perS(end.value)), toggle, show };
}
export type Play = ReturnType<typeof usePlay>;
