import { useIntervalFn, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { sealPlan, type SealStep } from '../../core/print/sealPlan.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { materialOf } from '../../core/job/materials.ts';

const MS_A_MINUTE = 60_000;

/** What is running: which step, and when it is over. */
interface Running {
  readonly step: number;
  readonly endsAt: number;
}

export const stepName = ({ what, coat }: SealStep): string => (what === 'dry' ? 'dry the print' : what === 'coat' ? `coat ${coat}, and wait` : 'dry for good');

/** A wait in words: hours and minutes, or minutes and seconds when it is short. */
export function waitWords(minutes: number): string {
  const seconds = Math.max(0, Math.round(minutes * 60));
  if (seconds >= 3600) return `${Math.floor(seconds / 3600)} h ${String(Math.floor((seconds % 3600) / 60)).padStart(2, '0')} min`;
  return seconds < 600 && seconds % 60 !== 0 ? `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min` : `${Math.round(seconds / 60)} min`;
}

/** The waits of sealing and drying a job's prints, one running at a time, also while the page is closed. @param jobId what it is kept under. */
export function useSealTimer(jobId: string) {
  const { job } = useLayoutEdits();
  const seal = computed(() => materialOf(job.value).seal);
  const steps = computed(() => (seal.value === undefined ? [] : sealPlan(seal.value)));
  const kept = useLocalStorage<Readonly<Record<string, Running>>>('limner-seal-timers', {});
  const now = ref(Date.now());
  useIntervalFn(() => (now.value = Date.now()), 1000);
  const running = computed(() => {
    const own = kept.value[jobId] as Running | undefined;
    return own !== undefined && own.step < steps.value.length ? own : undefined;
  });
  const leftMin = computed(() => (running.value === undefined ? undefined : (running.value.endsAt - now.value) / MS_A_MINUTE));
  function start(step: number): void {
    now.value = Date.now();
    kept.value = { ...kept.value, [jobId]: { step, endsAt: now.value + steps.value[step].waitMin * MS_A_MINUTE } };
  }
  function stop(): void {
    const { [jobId]: _, ...others } = kept.value;
    kept.value = others;
  }
  return { steps, seal, running, leftMin, start, stop };
}
