import { computed, shallowRef, type Ref } from 'vue';
import { boxAroundAll, type Boxed } from '../../core/edit/placeEdits.ts';
import { snapped, type SnapLine, type SnapTo } from '../../core/edit/snap.ts';
import type { Job } from '../../core/job/job.ts';
import { plainObjects } from '../../core/job/objects.ts';
import { hitsAt, liesIn, type PieceHit } from '../../core/operate/partHits.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import type { DesignPart } from '../../core/run/designRun.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { useGuides } from './useGuides.ts';
import { useHandles } from './useHandles.ts';
import type { Operations } from './useOperations.ts';
import type { Parts } from './useParts.ts';
import type { Pieces } from './usePieces.ts';
import { useTableKeys } from './useTableKeys.ts';
import { say } from '../../core/words/say.ts';

/** Further than this the pointer drags, CSS px. */
const DRAG_PX = 3;
/** What one may point beside, and what snaps, CSS px. */
const SLACK_PX = 4;
const SNAP_PX = 6;

/** What the pointer holds while it is down. */
type Hold = { readonly from: TablePoint; readonly moved: boolean } & (
  | { readonly kind: 'place'; readonly place: { readonly xMm: number; readonly yMm: number } }
  | { readonly kind: 'parts'; readonly job: Job; readonly boxes: readonly Boxed[]; readonly parts: readonly DesignPart[]; readonly snapTo: SnapTo; readonly place: { readonly xMm: number; readonly yMm: number } }
  | { readonly kind: 'frame' }
  | { readonly kind: 'line' }
);

const round = (value: number): number => Math.round(value * 10) / 10;

/** Pointing, dragging, framing and keys on the table of Assemble. Places on the table are mm of the blank. @param isAway whether something else has the table for now. */
export function useTableTools(parts: Parts, pieces: Pieces, operations: Operations, place: Ref<{ readonly xMm: number; readonly yMm: number }>, scale: Ref<number>, isAway: () => boolean = () => false) {
  const bench = useBench();
  const hold = shallowRef<Hold>();
  /** Lines that what is dragged lies on, mm of the design as it was when it was taken up. */
  const snapLines = shallowRef<readonly SnapLine[]>([]);
  const pointer = shallowRef<TablePoint>();
  const job = computed(() => bench.job as Job);
  const films = computed(() => bench.result?.cut?.design.layers.map(({ filmId }) => filmId) ?? []);
  const handles = useHandles(parts, place, scale, () => isAway() || pieces.marks.value.length > 0 || operations.splitting.value || operations.filling.value !== undefined);
  const guides = useGuides(scale);
  const isOnePart = computed(() => plainObjects(job.value.objects).length === 1);
  /** A frame that is drawn, mm of the design. */
  const frame = computed((): Bounds | undefined => {
    const [held, to] = [hold.value, pointer.value];
    if (held?.kind !== 'frame' || !held.moved || to === undefined) return undefined;
    const [x0, y0, x1, y1] = [held.from.x - place.value.xMm, held.from.y - place.value.yMm, to.x - place.value.xMm, to.y - place.value.yMm];
    return { left: Math.min(x0, x1), top: Math.min(y0, y1), right: Math.max(x0, x1), bottom: Math.max(y0, y1) };
  });
  /** A line that is drawn to split along, mm of the design. */
  const line = computed(() => {
    const [held, to] = [hold.value, pointer.value];
    return held?.kind !== 'line' || to === undefined ? undefined : { from: inDesign(held.from), to: inDesign(to) };
  });
  const inDesign = (point: TablePoint): { x: number; y: number } => ({ x: point.x - place.value.xMm, y: point.y - place.value.yMm });
  const hits = (point: TablePoint): PieceHit[] => {
    const { x, y } = inDesign(point);
    return hitsAt(parts.inDesign.value, films.value, x, y, SLACK_PX / Math.max(scale.value, 0.01));
  };

  function press(point: TablePoint, event: PointerEvent): void {
    pointer.value = point;
    if (bench.result?.cut === undefined) return;
    if (operations.splitting.value) {
      hold.value = { kind: 'line', from: point, moved: false };
      return;
    }
    if (operations.filling.value !== undefined) {
      const { x, y } = inDesign(point);
      operations.pointArea(x, y);
      return;
    }
    if (!event.shiftKey && handles.take(inDesign(point))) return;
    const found = hits(point);
    if (found.length === 0) {
      if (guides.take(point)) return;
      if (!event.shiftKey) {
        pieces.clear();
        parts.select();
      }
      hold.value = { kind: 'frame', from: point, moved: false };
      return;
    }
    const id = parts.outermost(found[0].partId);
    if (event.shiftKey) {
      const same = found.find(({ partId }) => partId === pieces.partId.value);
      if (same !== undefined) pieces.pick(same, true);
      else parts.toggle(id);
      return;
    }
    const wasSelected = parts.chosen.value.some((chosen) => parts.outermost(chosen) === id);
    if (!wasSelected) parts.select(id);
    takeUp(point, wasSelected);
  }

  let deepens = false;
  function takeUp(from: TablePoint, wasSelected: boolean): void {
    deepens = wasSelected;
    if (isOnePart.value) {
      hold.value = { kind: 'place', from, moved: false, place: { ...place.value } };
      return;
    }
    const boxes = parts.boxed.value;
    const ids = new Set(parts.chosen.value.map(parts.outermost));
    const others = parts.inDesign.value.filter(({ id }) => !ids.has(parts.outermost(id))).map(({ box }) => box);
    const { widthMm, heightMm } = job.value.blank;
    const { xMm, yMm } = place.value;
    const lines: SnapLine[] = [0, widthMm / 2, widthMm].map((at): SnapLine => ({ way: 'upright', at: at - xMm })).concat([0, heightMm / 2, heightMm].map((at): SnapLine => ({ way: 'level', at: at - yMm })), guides.guides.value.map(({ way, atMm }): SnapLine => ({ way, at: atMm - (way === 'upright' ? xMm : yMm) })));
    hold.value = { kind: 'parts', from, moved: false, job: job.value, boxes, parts: parts.inDesign.value, snapTo: { boxes: others, lines }, place: { xMm, yMm } };
  }

  function move(point: TablePoint, event: PointerEvent): void {
    pointer.value = point;
    if (handles.held.value !== undefined) return handles.drag(point, event);
    if (guides.held.value !== undefined) return guides.drag(point);
    const held = hold.value;
    if (held === undefined) return;
    if (!held.moved && Math.hypot(point.screenX - held.from.screenX, point.screenY - held.from.screenY) < DRAG_PX) return;
    if (!held.moved) hold.value = { ...held, moved: true };
    const [dx, dy] = [point.x - held.from.x, point.y - held.from.y];
    if (held.kind === 'place') bench.preview({ ...job.value, place: { xMm: round(held.place.xMm + dx), yMm: round(held.place.yMm + dy) } });
    if (held.kind !== 'parts' || held.boxes.length === 0) return;
    const { left, top, right, bottom } = boxAroundAll(held.boxes);
    const box = { left: left + dx, top: top + dy, right: right + dx, bottom: bottom + dy };
    // With Alt held nothing snaps.
    const snap = event.altKey ? { x: 0, y: 0, lines: [] } : snapped(box, held.snapTo, SNAP_PX / scale.value);
    snapLines.value = snap.lines;
    const by = (moved: number, on: number): number => (on === 0 && snap.lines.length === 0 ? round(moved) : moved + on);
    bench.preview(parts.shifted(by(dx, snap.x), by(dy, snap.y), held.job, held.boxes, held.parts));
  }

  function release(point: TablePoint): void {
    pointer.value = point;
    if (handles.held.value !== undefined) return handles.letGo();
    if (guides.held.value !== undefined) return guides.letGo();
    const held = hold.value;
    const framed = frame.value;
    const split = line.value;
    hold.value = undefined;
    snapLines.value = [];
    if (held === undefined) return;
    if (held.kind === 'line') {
      if (split !== undefined && held.moved) operations.split(split.from, split.to);
    } else if (held.kind === 'frame') {
      if (framed !== undefined) pickFramed(framed);
    } else if (held.moved) bench.commitPreview(say('Place'));
    else if (deepens) deeper(point);
  }

  /** Of one part its pieces, of several the parts that lie in the frame. */
  function pickFramed(framed: Bounds): void {
    const id = isOnePart.value ? parts.inDesign.value[0]?.id : undefined;
    if (id !== undefined) return pieces.pickWithin(id, framed);
    parts.select(...new Set(parts.inDesign.value.filter(({ box }) => liesIn(box, framed)).map(({ id: inside }) => parts.outermost(inside))));
  }

  /** Pointing again goes from the part to its piece there, and from that to what lies under it. */
  function deeper(point: TablePoint): void {
    const found = hits(point);
    const at = found.findIndex(pieces.isPicked);
    if (at + 1 < found.length) pieces.pick(found[at + 1], false);
    else if (found.length > 0) {
      pieces.clear();
      parts.select(parts.outermost(found[0].partId));
    }
  }

  /** Lets go of what the pointer holds, as it was before. @returns whether it held anything. */
  function drop(): boolean {
    if (handles.held.value !== undefined) handles.drop();
    else if (guides.held.value !== undefined) guides.drop();
    else if (hold.value !== undefined) {
      hold.value = undefined;
      snapLines.value = [];
      bench.revert();
    } else return false;
    return true;
  }
  useTableKeys({ parts, pieces, operations, place, isOnePart, isAway, drop });

  const cursor = computed((): string | undefined => {
    if (operations.splitting.value || operations.filling.value !== undefined) return 'crosshair';
    if (guides.cursor.value !== undefined) return guides.cursor.value;
    const [held, at] = [handles.held.value, pointer.value];
    const handle = held?.handle ?? (at === undefined ? undefined : handles.handleAt(inDesign(at)));
    if (handle !== undefined) return handles.cursorOf(handle);
    if (hold.value?.moved === true && hold.value.kind !== 'frame') return 'grabbing';
    return undefined;
  });
  return { press, move, release, frame, line, snapLines, hold, cursor, isOnePart, handles, guides };
}
export type TableTools = ReturnType<typeof useTableTools>;
