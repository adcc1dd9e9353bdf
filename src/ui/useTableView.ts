import { useEventListener, useResizeObserver } from '@vueuse/core';
import { computed, ref, shallowRef, watch, type Ref } from 'vue';
import { centredOn, fitted, panned, toWorldX, toWorldY, zoomedAt, type Box, type Size, type Viewport } from './viewport.ts';

export interface TablePoint {
  /** World coordinates. */
  readonly x: number;
  readonly y: number;
  /** CSS px on the table. */
  readonly screenX: number;
  readonly screenY: number;
}

const WHEEL_RATE = 0.0016;

/** What the view keeps to by itself: all of the box in sight, the true size of what is made, or how it was last zoomed and moved by hand. */
type Keeping = 'fit' | 'trueSize' | 'asLeft';

/**
 * What of the world is seen on the table: fits it when its box changes, zooms to the pointer with the wheel, pans with space and drag or the
 * middle button, and fits again on request. Shown at true size it stays so when the box, the size of the design or the measure of the screen
 * changes, until it is zoomed by hand.
 * @param trueScale CSS px on one world unit at true size
 */
export function useTableView(host: Ref<HTMLElement | undefined>, box: Ref<Box>, trueScale: Ref<number>) {
  const size = ref<Size>({ width: 100, height: 100 });
  const view = shallowRef<Viewport>({ scale: 1, x: 0, y: 0 });
  const pointer = shallowRef<TablePoint>();
  const spaceHeld = ref(false);
  const panning = ref(false);
  let keeping: Keeping = 'fit';

  useResizeObserver(host, ([entry]) => {
    size.value = { width: entry.contentRect.width, height: entry.contentRect.height };
    if (keeping === 'fit') fit();
  });

  function fit(): void {
    keeping = 'fit';
    view.value = fitted(box.value, size.value);
  }
  /** Shows things as large as they will be made, around the middle. */
  function showTrueSize(): void {
    keeping = 'trueSize';
    view.value = zoomedAt(view.value, trueScale.value / view.value.scale, size.value.width / 2, size.value.height / 2);
  }
  watch(box, (next, before) => {
    if (next.width === before.width && next.height === before.height && next.x === before.x && next.y === before.y) return;
    const atTrueSize = keeping === 'trueSize';
    fit();
    if (atTrueSize) showTrueSize();
  });
  watch(trueScale, () => {
    if (keeping === 'trueSize') showTrueSize();
  });

  function zoomBy(factor: number, x = size.value.width / 2, y = size.value.height / 2): void {
    keeping = 'asLeft';
    view.value = zoomedAt(view.value, factor, x, y);
  }
  /** Zooms about a place of the screen and moves, as two fingers do. */
  function pinch(factor: number, x: number, y: number, dx: number, dy: number): void {
    keeping = 'asLeft';
    view.value = panned(zoomedAt(view.value, factor, x, y), dx, dy);
  }
  /** Brings a world point to the middle. */
  function centre(x: number, y: number): void {
    keeping = 'asLeft';
    view.value = centredOn(view.value, size.value, x, y);
  }

  function pointOf(event: PointerEvent | WheelEvent): TablePoint {
    const rect = host.value?.getBoundingClientRect();
    const screenX = event.clientX - (rect?.left ?? 0);
    const screenY = event.clientY - (rect?.top ?? 0);
    return { x: toWorldX(view.value, screenX), y: toWorldY(view.value, screenY), screenX, screenY };
  }

  useEventListener(host, 'wheel', (event: WheelEvent) => {
    event.preventDefault();
    const { screenX, screenY } = pointOf(event);
    zoomBy(Math.exp(-event.deltaY * (event.deltaMode === 1 ? 16 : 1) * WHEEL_RATE), screenX, screenY);
  }, { passive: false });

  const typing = (target: EventTarget | null): boolean => target instanceof HTMLElement && target.closest('input, textarea, select, button, [role="switch"], [role="slider"], [role="menuitem"]') !== null;
  useEventListener('keydown', (event: KeyboardEvent) => {
    if (event.code !== 'Space' || typing(event.target)) return;
    event.preventDefault();
    spaceHeld.value = true;
  });
  useEventListener('keyup', (event: KeyboardEvent) => {
    if (event.code === 'Space') spaceHeld.value = false;
  });
  useEventListener(window, 'blur', () => (spaceHeld.value = false));

  /** Takes a pointer press that is meant for panning. True when it did. */
  function pan(event: PointerEvent): boolean {
    if (event.button !== 1 && !(event.button === 0 && spaceHeld.value)) return false;
    event.preventDefault();
    panning.value = true;
    if (keeping === 'fit') keeping = 'asLeft';
    let { clientX, clientY } = event;
    const stopMove = useEventListener('pointermove', (move: PointerEvent) => {
      view.value = panned(view.value, move.clientX - clientX, move.clientY - clientY);
      ({ clientX, clientY } = move);
    });
    const stopUp = useEventListener('pointerup', () => {
      panning.value = false;
      stopMove();
      stopUp();
    });
    return true;
  }

  const cursor = computed(() => (panning.value ? 'grabbing' : spaceHeld.value ? 'grab' : undefined));
  return { size, view, pointer, cursor, fit, showTrueSize, zoomBy, pinch, centre, pointOf, pan };
}
