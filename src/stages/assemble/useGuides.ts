import { computed, shallowRef, type Ref } from 'vue';
import { MAX_GUIDES, type Guide } from '../../core/assemble/placeOnBlank.ts';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { say } from '../../core/words/say.ts';

/** How near to a guide one may point, CSS px. */
const NEAR_PX = 4;

interface Held {
  readonly guides: readonly Guide[];
  readonly way: Guide['way'];
}

/** Lines on the blank that parts snap to: drawn out of the rulers, moved, and dragged back to go. Places are mm of the blank. */
export function useGuides(scale: Ref<number>) {
  const bench = useBench();
  const held = shallowRef<Held>();
  const guides = computed((): readonly Guide[] => (bench.job as Job).guides ?? []);

  function withGuides(next: readonly Guide[]): Job {
    const { guides: _before, ...rest } = bench.job as Job;
    return next.length === 0 ? rest : { ...rest, guides: [...next] };
  }
  const coordinate = (way: Guide['way'], { x, y }: { readonly x: number; readonly y: number }): number => Math.round((way === 'upright' ? x : y) * 10) / 10;

  /** A new one, from a ruler. */
  function draw(way: Guide['way'], point: TablePoint): void {
    if (guides.value.length >= MAX_GUIDES) return;
    held.value = { guides: guides.value, way };
    drag(point);
  }
  function guideAt(point: { readonly x: number; readonly y: number }): number {
    return guides.value.findIndex(({ way, atMm }) => Math.abs((way === 'upright' ? point.x : point.y) - atMm) * scale.value <= NEAR_PX);
  }
  /** Takes up the one that is pointed at. @returns whether there is one. */
  function take(point: TablePoint): boolean {
    const at = guideAt(point);
    if (at < 0) return false;
    held.value = { guides: guides.value.filter((_, k) => k !== at), way: guides.value[at].way };
    return true;
  }
  /** Over the rulers it is gone. */
  function drag(point: TablePoint): void {
    const now = held.value;
    if (now === undefined) return;
    const isGone = now.way === 'upright' ? point.screenX < 0 : point.screenY < 0;
    bench.preview(withGuides(isGone ? now.guides : [...now.guides, { way: now.way, atMm: coordinate(now.way, point) }]));
  }
  function letGo(): void {
    if (held.value === undefined) return;
    held.value = undefined;
    bench.commitPreview(say('Guide'));
  }
  function drop(): void {
    held.value = undefined;
    bench.revert();
  }
  const set = (label: string, next: readonly Guide[]): void => bench.commit(label, withGuides(next));
  const cursor = computed(() => (held.value === undefined ? undefined : held.value.way === 'upright' ? 'col-resize' : 'row-resize'));
  return { guides, held, draw, take, guideAt, drag, letGo, drop, set, cursor };
}
export type Guides = ReturnType<typeof useGuides>;
