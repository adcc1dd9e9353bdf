import { useIntervalFn, useLocalStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';

const MS_A_MINUTE = 60_000;

/** What is running: which step, and when it is over. */
interface Running {
  readonly step: number;
  readonly endsAt: number;
}

/** The waits of what is done with a job after it was cut or printed: one running at a time, also while the page is closed, the same wherever it is looked at. @param jobId what it is kept under. @param waitsMin of each step. */
export function useStepTimer(jobId: string, waitsMin: Ref<readonly number[]>) {
  const kept = useLocalStorage<Readonly<Record<string, Running>>>('limner-seal-timers', {});
  const now = ref(Date.now());
  useIntervalFn(() => (now.value = Date.now()), 1000);
  const running = computed(() => {
    const own = kept.value[jobId] as Running | undefined;
    return own !== undefined && own.step < waitsMin.value.length ? own : undefined;
  });
  const leftMin = computed(() => (running.value === undefined ? undefined : (running.value.endsAt - now.value) / MS_A_MINUTE));
  function start(step: number): void {
    now.value = Date.now();
    kept.value = { ...kept.value, [jobId]: { step, endsAt: now.value + waitsMin.value[step] * MS_A_MINUTE } };
  }
  function stop(): void {
    const { [jobId]: _, ...others } = kept.value;
    kept.value = others;
  }
  return { running, leftMin, start, stop };
}
