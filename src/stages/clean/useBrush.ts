import { computed, ref, shallowRef } from 'vue';
import { MAX_BRUSH_PX } from '../../core/clean/steps/strokes.ts';
import type { Stroke } from '../../core/clean/paintStrokes.ts';
import type { TablePoint } from '../../ui/useTableView.ts';

/** Points nearer than this share of the radius to the last one add nothing. */
const LEAST_STEP = 0.15;

/** The round brush. Size and strokes are in picture px; a stroke is stored as its path, never as pixels. */
export function useBrush() {
  const radiusPx = ref(12);
  /** What the strokes of a subject lift say. */
  const says = ref<'keep' | 'clear'>('keep');
  /** Strokes of a subject lift go around an area, or teach its colours everywhere. */
  const lasso = ref(false);
  const teaches = ref(false);
  /** Strokes go only over what is like the colour they begin on, up to this difference; none for everything. */
  const within = ref<number>();
  /** What ink is drawn in, `#rrggbb`. */
  const colour = ref('#000000');
  const stroke = shallowRef<Stroke>();
  const at = shallowRef<TablePoint>();
  /** Where the last stroke ended: Shift draws straight on from there. */
  let last: { x: number; y: number } | undefined;

  function resize(factor: number): void {
    radiusPx.value = Math.max(0.5, Math.min(MAX_BRUSH_PX, Math.round(radiusPx.value * factor * 10) / 10));
  }
  function begin(point: TablePoint, event: PointerEvent): void {
    const points = event.shiftKey && last !== undefined ? [last.x, last.y, point.x, point.y] : [point.x, point.y];
    const pressed = pressureOf(event);
    stroke.value = {
      radiusPx: radiusPx.value,
      points,
      ...(pressed === undefined ? {} : { widths: points.length === 2 ? [pressed] : [pressed, pressed] }),
      ...(within.value === undefined ? {} : { within: within.value }),
    };
  }
  function move(point: TablePoint, event: PointerEvent): void {
    at.value = point;
    const current = stroke.value;
    if (current === undefined) return;
    const { points } = current;
    const dx = point.x - points[points.length - 2];
    const dy = point.y - points[points.length - 1];
    if (Math.hypot(dx, dy) < radiusPx.value * LEAST_STEP) return;
    const widths = current.widths === undefined ? {} : { widths: [...current.widths, pressureOf(event) ?? 1] };
    stroke.value = { ...current, points: [...points, round(point.x), round(point.y)], ...widths };
  }
  /** Ends the stroke and gives it. */
  function end(): Stroke | undefined {
    const done = stroke.value;
    stroke.value = undefined;
    if (done !== undefined) last = { x: done.points[done.points.length - 2], y: done.points[done.points.length - 1] };
    return done;
  }
  function leave(): void {
    stroke.value = undefined;
  }
  const drawing = computed(() => stroke.value !== undefined);
  return { radiusPx, says, lasso, teaches, within, colour, stroke, at, drawing, resize, begin, move, end, leave };
}

/** The lightest touch of a pen still draws so much of the radius. */
const LEAST_PRESSED = 0.2;

/** Share of the radius that a pen's pressure gives; none for a mouse or a finger. */
function pressureOf(event: PointerEvent): number | undefined {
  return event.pointerType === 'pen' ? round(LEAST_PRESSED + (1 - LEAST_PRESSED) * event.pressure) : undefined;
}

/** Positions are kept to a hundredth of a pixel. */
const round = (value: number): number => Math.round(value * 100) / 100;
