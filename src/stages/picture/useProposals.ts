import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import { isAppError } from '../../core/errors/appError.ts';
import { asCame, isAsCame, isStartedWith, startedWith } from '../../core/propose/propose.ts';
import type { Proposal, Proposals } from '../../core/propose/proposal.ts';
import type { VariantView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useStock } from '../../stores/stock.ts';
import { say } from '../../core/words/say.ts';

/** How a job may be started, with what each of the ways would cut. */
export function useProposals() {
  const bench = useBench();
  const stock = useStock();
  const found = shallowRef<Proposals>();
  const views = shallowRef<ReadonlyMap<Proposal, VariantView>>(new Map());
  let turn = 0;

  async function make(): Promise<void> {
    const mine = ++turn;
    found.value = undefined;
    views.value = new Map();
    const { picture, job } = bench;
    if (picture === undefined || job === undefined) return;
    try {
      await stock.load();
      const proposals = await bench.propose({ pictureKey: picture.pictureKey, job, stock: stock.films });
      if (mine !== turn) return;
      found.value = proposals;
      for (const proposal of proposals.proposals) {
        const view = await bench.variant({ pictureKey: picture.pictureKey, job: startedWith(job, proposal) });
        if (mine !== turn) return;
        views.value = new Map([...views.value, [proposal, view]]);
      }
    } catch (error) {
      // Without a look the card stays away; whatever ails the picture is said where it is opened.
      if (!isAppError(error)) throw error;
    }
  }
  // The job itself comes first: what it cuts is on the table before the other ways are looked at.
  const wanted = computed(() => (bench.picture === undefined || bench.job === undefined ? undefined : `${bench.picture.pictureKey} ${bench.job.process} ${bench.job.blank.name}`));
  let made: string | undefined;
  watch([wanted, () => bench.isCurrent && bench.busy === undefined], ([key, isIdle]) => {
    if (key === made || isIdle !== true) return;
    made = key;
    void make();
  }, { immediate: true });
  onScopeDispose(() => turn++);

  /** The proposal as which the job stands, if it does. */
  const taken = computed(() => found.value?.proposals.find((proposal) => bench.job !== undefined && isStartedWith(bench.job, proposal)));
  const isAsItCame = computed(() => bench.job !== undefined && isAsCame(bench.job));

  function take(proposal: Proposal): void {
    if (bench.job !== undefined) bench.commit(say`Start: ${proposal.title}`, startedWith(bench.job, proposal));
  }
  /** Nothing cleaned, one film. */
  function asItCame(): void {
    if (bench.job !== undefined) bench.commit(say('As it came'), asCame(bench.job));
  }
  return { found, views, taken, isAsItCame, take, asItCame };
}
