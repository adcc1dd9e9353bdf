import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { withSettings } from '../../core/edit/objectEdits.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { orderCode, type Order } from '../../core/job/order.ts';
import { ticketWords } from '../../core/ticket/ticketWords.ts';
import type { TicketView } from '../../engine/jobTicket.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { useVersions } from '../../stores/versions.ts';
import { tellError } from '../shared/tellError.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { say } from '../../core/words/say.ts';

const WAIT_MS = 250;

/** The ticket of the job on the bench: what it says, made anew when the job changes, and the order's own fields. */
export function useTicket() {
  const bench = useBench();
  const settings = useSettings();
  const versions = useVersions();
  const job = computed(() => bench.job as Job);
  const view = shallowRef<TicketView>();
  const failed = ref<string>();
  useMadeAnew([() => bench.result, () => job.value.order, () => job.value.rights, () => job.value.name], () => WAIT_MS, async (isLatest) => {
    const of = bench.ofJob();
    if (of === undefined || bench.result?.cut === undefined) return;
    try {
      const made = await bench.ticket(of);
      if (!isLatest()) return;
      view.value = made;
      failed.value = undefined;
    } catch (caught) {
      const error = asAppError(caught, 'unexpected');
      if (!isLatest() || error.code === 'cancelled') return;
      failed.value = error.code;
      tellError(error);
    }
  });
  const sections = computed(() => (view.value === undefined ? [] : ticketWords(view.value.ticket, settings.unit)));
  const order = computed<Order>(() => job.value.order ?? {});
  function change(label: string, changes: Partial<Order>): void {
    bench.commit(label, { ...job.value, order: withSettings(order.value, changes) });
    // What the customer has agreed to is kept as it is now.
    if (changes.state === 'approved' && bench.entry !== undefined) void versions.keep(bench.entry.id, job.value, say('as approved')).catch((error: unknown) => tellError(asAppError(error, 'storageFailed')));
  }
  // A job that has a ticket is found again by its code.
  watch(() => bench.entry?.id, () => {
    if (bench.entry !== undefined && order.value.code === undefined) change(say('Ticket'), { code: orderCode(crypto.getRandomValues(new Uint8Array(8))) });
  }, { immediate: true });
  const proof = shallowRef<ImageBitmap>();
  watch(view, async (made) => {
    if (made === undefined) return;
    const { width, height, data } = made.proof;
    const bitmap = await createImageBitmap(new ImageData(new Uint8ClampedArray(data), width, height));
    proof.value?.close();
    proof.value = bitmap;
  });
  onScopeDispose(() => proof.value?.close());
  return { job, view, sections, order, change, proof, failed };
}
