import { computed, ref, shallowRef, watch } from 'vue';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import { STEP_NAMES, type Step, type StepKindName } from '../../core/clean/recipe.ts';
import { turnedPart } from '../../core/edit/carriedPart.ts';
import { basesFirst } from '../../core/edit/carryTurn.ts';
import { stepsBefore, withChanged, withStep } from '../../core/edit/recipeEdits.ts';
import { useBench } from '../../stores/bench.ts';
import type { Stroke } from '../../core/clean/paintStrokes.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { colourAt } from '../shared/colourAt.ts';
import { cropDragged, cropHoldAt, type CropHold } from './cropDrag.ts';
import { LEAST_LEVEL_PX, straightenedBy } from './levelLine.ts';
import { newStep } from './newStep.ts';
import { sizeBeforeTurn } from './sizeBeforeTurn.ts';
import { useBrush } from './useBrush.ts';
import { useCorners } from './useCorners.ts';
import { useLiftPull } from './useLiftPull.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** Kinds that need a point on the table before they become a step. */
type Waiting = 'areaLift' | 'colourLift';

/** Kinds whose tool is the round brush. */
const BRUSHES: readonly (StepKindName | undefined)[] = ['rubOut', 'bringBack', 'drawIn', 'subjectLift'];

/**
 * What the pointer does on the table of Clean: the tool of the step that is open, or of the one that waits for its place. Each tool is a small
 * state machine of its own; this one passes press, move and release on to it and turns its outcome into a change of the recipe.
 */
export function useCleanTools(reach: () => number, scale: () => number) {
  const bench = useBench();
  const selected = ref<string>();
  const waiting = ref<Waiting>();
  const pull = useLiftPull();
  const brush = useBrush();
  /** Width over height that the crop frame keeps while it is dragged. */
  const cropAspect = ref<number>();
  const hold = shallowRef<{ kind: CropHold; from: TablePoint; step: Extract<Step, { kind: 'crop' }> }>();

  const part = computed(() => bench.part as TracedPart);
  const step = computed(() => part.value.recipe.find(({ id }) => id === selected.value));
  const tool = computed<StepKindName | undefined>(() => waiting.value ?? step.value?.kind);
  const corners = useCorners(step);
  /** The line drawn along an edge that is to lie straight, while it is drawn. */
  const level = shallowRef<{ from: TablePoint; to: TablePoint }>();
  const isBrush = computed(() => BRUSHES.includes(tool.value));
  /** Whether a press on the table does something by itself. */
  const hasTool = computed(() => waiting.value !== undefined || isBrush.value || tool.value === 'areaLift' || tool.value === 'colourLift' || tool.value === 'crop' || tool.value === 'turn');
  /** The job came anew or undo took the step away: nothing is open then. */
  watch(step, (now) => {
    if (now === undefined) selected.value = undefined;
  });

  function select(id: string | undefined): void {
    waiting.value = undefined;
    selected.value = id;
  }

  function add(next: Step): void {
    bench.commitPart(say`Add ${inSentence(STEP_NAMES[next.kind])}`, { ...part.value, recipe: basesFirst(withStep(part.value.recipe, next, selected.value)) });
    select(next.id);
  }

  /** Starts a step of a kind: at once, or when its place was pointed at. */
  function start(kind: StepKindName): void {
    const { base: picture } = bench;
    if (picture === undefined) return;
    if (kind === 'areaLift' || kind === 'colourLift') {
      waiting.value = kind;
      return;
    }
    const inset = { xPx: 0, yPx: 0, widthPx: picture.widthPx, heightPx: picture.heightPx };
    add(kind === 'crop' ? newStep.crop(inset) : newStep[kind]());
  }

  function press(point: TablePoint, event: PointerEvent): void {
    const current = step.value;
    if (corners.press(point, scale())) return;
    if (tool.value === 'areaLift') {
      const before = waiting.value === undefined && current !== undefined ? stepsBefore(part.value.recipe, current.id) : part.value.recipe;
      void pull.begin(before, point);
    } else if (tool.value === 'colourLift') {
      const colour = bench.base === undefined ? undefined : colourAt(bench.base, point);
      if (colour === undefined) return;
      if (waiting.value !== undefined) add(newStep.colourLift(colour));
      else if (current !== undefined) bench.commitPart(say('Colour lift: colour'), { ...part.value, recipe: withChanged<'colourLift'>(part.value.recipe, current.id, { colour }) });
    } else if (isBrush.value) {
      if (tool.value === 'drawIn' && event.altKey) pickInk(point);
      else brush.begin(point, event);
    } else if (current?.kind === 'gapMending') {
      frameFrom.value = point;
      frameTo.value = point;
    } else if (current?.kind === 'turn') {
      level.value = { from: point, to: point };
    } else if (current?.kind === 'crop' && bench.base !== undefined) {
      const { widthPx, heightPx } = bench.base;
      hold.value = { kind: cropHoldAt(current.rect, point.x, point.y, reach(), widthPx, heightPx), from: point, step: current };
    }
  }

  /** Takes the colour under a point for the ink that is drawn in. */
  function pickInk(point: TablePoint): void {
    const colour = inkAt(point);
    if (colour !== undefined) brush.colour.value = colour;
  }
  /** The art's colour at a point of the picture, where it is there, else that of the picture. */
  function inkAt({ x, y }: { readonly x: number; readonly y: number }): string | undefined {
    const { cleanView, base: picture, result } = bench;
    const clean = result?.clean;
    const box = clean === undefined ? undefined : { x: clean.frame.leftPx, y: clean.frame.topPx, widthPx: clean.widthPx / clean.frame.scale, heightPx: clean.heightPx / clean.frame.scale };
    const ofArt = cleanView === undefined || box === undefined ? undefined : colourAt({ view: cleanView.pixels, ...box }, { x: x - box.x, y: y - box.y });
    return ofArt ?? (picture === undefined ? undefined : colourAt(picture, { x, y }));
  }

  /** A frame that is drawn for gap mending. */
  const frameFrom = shallowRef<TablePoint>();
  const frameTo = shallowRef<TablePoint>();
  const frame = computed(() => {
    const [from, to] = [frameFrom.value, frameTo.value];
    return from === undefined || to === undefined ? undefined : { xPx: Math.min(from.x, to.x), yPx: Math.min(from.y, to.y), widthPx: Math.abs(to.x - from.x), heightPx: Math.abs(to.y - from.y) };
  });
  function finishFrame(): void {
    const drawn = frame.value;
    const [from, to] = [frameFrom.value, frameTo.value];
    frameFrom.value = frameTo.value = undefined;
    const current = step.value;
    if (drawn === undefined || from === undefined || to === undefined || current?.kind !== 'gapMending' || Math.min(Math.abs(to.screenX - from.screenX), Math.abs(to.screenY - from.screenY)) < LEAST_LEVEL_PX) return;
    bench.commitPart(say('Gap mending: frame'), { ...part.value, recipe: withChanged<'gapMending'>(part.value.recipe, current.id, { frame: drawn }) });
  }

  function move(point: TablePoint, event: PointerEvent): void {
    pull.pull(point);
    brush.move(point, event);
    corners.move(point);
    if (level.value !== undefined) level.value = { ...level.value, to: point };
    if (frameFrom.value !== undefined) frameTo.value = point;
    const { base: picture } = bench;
    if (hold.value === undefined || picture === undefined) return;
    const { kind, from, step: crop } = hold.value;
    const rect = cropDragged(crop.rect, kind, from, point, picture.widthPx, picture.heightPx, cropAspect.value);
    bench.previewPart({ ...part.value, recipe: withChanged<'crop'>(part.value.recipe, crop.id, { rect: { ...rect } }) });
  }

  function release(): void {
    corners.release();
    if (hold.value !== undefined) {
      hold.value = undefined;
      bench.commitPreview(say('Crop'));
      return;
    }
    if (level.value !== undefined) finishLevel(level.value);
    if (frameFrom.value !== undefined) finishFrame();
    const lift = pull.release();
    if (lift !== undefined) finishLift(lift);
    const stroke = brush.end();
    const current = step.value;
    if (stroke !== undefined && current !== undefined) addStroke(current, stroke);
  }

  /** Straightens so that the drawn line comes to lie level or upright, whichever is nearer. */
  function finishLevel({ from, to }: { from: TablePoint; to: TablePoint }): void {
    level.value = undefined;
    const current = step.value;
    if (current?.kind !== 'turn' || Math.hypot(to.screenX - from.screenX, to.screenY - from.screenY) < LEAST_LEVEL_PX) return;
    const next = { ...current, angleDeg: straightenedBy(current.angleDeg, from, to) };
    const report = bench.result?.clean.steps.find(({ id }) => id === current.id);
    bench.commitPart(say('Turn: straightened'), turnedPart(part.value, current.id, next, sizeBeforeTurn(report, bench.base)));
  }

  function addStroke(current: Step, { radiusPx, points, widths, within }: Stroke): void {
    const { recipe } = part.value;
    const { id } = current;
    const path = { radiusPx, points: [...points] };
    let changed: Step[];
    if (current.kind === 'subjectLift') changed = withChanged<'subjectLift'>(recipe, id, { strokes: [...current.strokes, { ...path, says: brush.says.value, ...(brush.lasso.value ? { lasso: true } : {}), ...(brush.teaches.value && !brush.lasso.value ? { teaches: true } : {}) }] });
    else if (current.kind === 'drawIn') changed = withChanged<'drawIn'>(recipe, id, { strokes: [...current.strokes, { ...path, colour: brush.colour.value, ...(widths === undefined ? {} : { widths: [...widths] }), ...(within === undefined ? {} : { within }) }] });
    else if (current.kind === 'rubOut' || current.kind === 'bringBack') {
      const stroke = { ...path, ...(widths === undefined ? {} : { widths: [...widths] }), ...(within === undefined ? {} : { within }) };
      changed = withChanged<'rubOut'>(recipe, id, { strokes: [...current.strokes, stroke] });
    } else return;
    bench.commitPart(say`${STEP_NAMES[current.kind]}: stroke`, { ...part.value, recipe: changed });
  }

  function finishLift({ xPx, yPx, tolerance }: { xPx: number; yPx: number; tolerance: 'auto' | number }): void {
    const current = step.value;
    if (waiting.value === undefined && current?.kind === 'areaLift') {
      bench.commitPart(say('Area lift: place'), { ...part.value, recipe: withChanged<'areaLift'>(part.value.recipe, current.id, { at: { xPx, yPx }, tolerance }) });
    } else add(newStep.areaLift(xPx, yPx, tolerance));
  }

  /** Whether nothing is under way that Escape would leave. */
  const isIdle = computed(() => pull.start.value === undefined && !brush.drawing.value && level.value === undefined && frameFrom.value === undefined && hold.value === undefined && corners.held.value === undefined && waiting.value === undefined);

  /** Escape: leaves what is under way, then the waiting tool, then the open step. */
  function escape(): void {
    if (corners.leave()) return;
    if (pull.start.value !== undefined) pull.leave();
    else if (brush.drawing.value) brush.leave();
    else if (level.value !== undefined) level.value = undefined;
    else if (frameFrom.value !== undefined) frameFrom.value = frameTo.value = undefined;
    else if (hold.value !== undefined) {
      hold.value = undefined;
      bench.revert();
    } else if (waiting.value !== undefined) waiting.value = undefined;
    else selected.value = undefined;
  }

  return { selected, step, tool, isBrush, hasTool, isIdle, waiting, level, frame, inkAt, cropAspect, corners, pull, brush, select, start, press, move, release, escape };
}
