import { ElMessage } from 'element-plus';
import { computed, shallowRef } from 'vue';
import { mendWays, MEND_WAYS, withWeakMended, type MendWay } from '../../core/edit/mendWeak.ts';
import type { Finding } from '../../core/check/cutCheck.ts';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { say } from '../../core/words/say.ts';

/** A mend that was just done: what it was, how many places there were before, and what the sheet looked like. */
interface Trial {
  readonly label: string;
  readonly before: number;
  readonly job: Job;
  readonly path: Path2D | undefined;
}

/** Mends what the cut check found: done at once, shown against what was there, and taken back or kept. */
export function useMends(path: () => Path2D | undefined) {
  const bench = useBench();
  const trial = shallowRef<Trial>();
  /** Only as long as nothing else was done since. */
  const shown = computed(() => (trial.value !== undefined && bench.job === trial.value.job ? trial.value : undefined));
  const newId = (): string => `mend-${Date.now().toString(36)}-${Math.floor(Math.random() * 1e6).toString(36)}`;

  /** The ways in which all of some findings can be mended. */
  const waysOf = ({ kind }: Finding): readonly { readonly way: MendWay; readonly name: string }[] => mendWays(kind).map((way) => ({ way, name: MEND_WAYS[way] }));
  function mend(findings: readonly Finding[], way: MendWay, all: boolean): void {
    const cut = bench.result?.cut;
    const next = cut === undefined ? undefined : withWeakMended(bench.job as Job, cut.parts, findings, way, { all, newId });
    if (cut === undefined) return;
    if (next === undefined) {
      ElMessage.warning(say('What lies there is made from all parts, such as a base or bridges: change it where it is set.'));
      return;
    }
    const before = { label: `${MEND_WAYS[way]}${all ? say(' all') : ''}`, before: cut.findings.length, path: path() };
    bench.commit(before.label, next);
    trial.value = { ...before, job: bench.job as Job };
  }
  const words = computed(() => {
    const { value } = shown;
    if (value === undefined) return '';
    if (!bench.isCurrent) return `${value.label}…`;
    const now = bench.result?.cut?.findings.length ?? value.before;
    return say`${value.label}: ${value.before} places before, ${now} now. The dashed line is what was there.`;
  });
  return { trial: shown, words, waysOf, mend, keep: () => (trial.value = undefined), back: () => bench.undo() };
}
export type Mends = ReturnType<typeof useMends>;
