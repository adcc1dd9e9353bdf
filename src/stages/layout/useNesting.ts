import { ElMessage } from 'element-plus';
import { ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { useBench } from '../../stores/bench.ts';
import { tellError } from '../shared/tellError.ts';
import { say } from '../../core/words/say.ts';

/** How long one look for a better arrangement takes, s. */
const SECONDS = 5;

/** Nests a film's parts more closely, and keeps what was found in the job. */
export function useNesting() {
  const bench = useBench();
  const isNesting = ref(false);
  const share = ref(0);

  async function improve(filmId: string): Promise<void> {
    const of = bench.ofJob();
    if (of === undefined || isNesting.value) return;
    [isNesting.value, share.value] = [true, 0];
    try {
      const record = await bench.nest({ ...of, filmId, seconds: SECONDS }, (done) => (share.value = done));
      const job = bench.job;
      // What was changed meanwhile keeps what was found for it, if its outlines are still the same.
      if (job !== undefined) {
        const others = (job.layout.nests ?? []).filter(({ film }) => film !== filmId);
        bench.commit(say('Lay closer'), { ...job, layout: { ...job.layout, nests: [...others, record] } });
      }
    } catch (error) {
      const told = asAppError(error, 'unexpected');
      if (told.code !== 'cancelled') tellError(told);
    } finally {
      isNesting.value = false;
    }
  }
  /** As many copies as one sheet of every film holds. */
  async function fill(): Promise<void> {
    const of = bench.ofJob();
    if (of === undefined || isNesting.value) return;
    [isNesting.value, share.value] = [true, 0];
    try {
      const copies = await bench.nestedRoom(of);
      const { job } = bench;
      if (copies < 1) ElMessage.warning(say('No copy fits on this sheet: turn it, scale it, or take a larger one.'));
      else if (job !== undefined) bench.commit(say('Fill the sheet'), { ...job, layout: { ...job.layout, copies } });
    } catch (error) {
      const told = asAppError(error, 'unexpected');
      if (told.code !== 'cancelled') tellError(told);
    } finally {
      isNesting.value = false;
    }
  }
  return { isNesting, share, improve, fill, stop: () => bench.cancel() };
}
