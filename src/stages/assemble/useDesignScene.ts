import { computed, onBeforeUnmount, ref, type Ref } from 'vue';
import type { PlaceMm } from '../../core/assemble/placeOnBlank.ts';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { colourDifference, type Rgb } from '../../core/colour/oklab.ts';
import { inverseOf } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';
import { loudColour } from '../../ui/backdrops.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import type { DrawScene } from '../../ui/LightTable.vue';
import { drawNodes } from '../shared/nodes/drawNodes.ts';
import { LineLayer } from '../shared/nodes/LineLayer.ts';
import { DesignBitmap } from './designBitmap.ts';
import { drawBlank } from './drawBlank.ts';
import { drawApart, drawAreas, drawFilms, drawGuides, drawHandles, drawPen, drawPictureOver, drawSelection, drawSpot, drawTools, type DrawnFilm } from './drawDesign.ts';
import type { Operations } from './useOperations.ts';
import type { Parts } from './useParts.ts';
import type { Pen } from './usePen.ts';
import type { Pieces } from './usePieces.ts';
import type { ShapeNodes } from './useShapeNodes.ts';
import type { TableTools } from './useTableTools.ts';
import { say } from '../../core/words/say.ts';

/** What the design is seen on, or beside. */
export const VIEWS = [{ value: 'blank', name: say('On the blank') }, { value: 'loud', name: say('On a loud ground') }, { value: 'picture', name: say('Over the picture') }, { value: 'spread', name: say('Films apart') }] as const;
export type View = (typeof VIEWS)[number]['value'];

/** Colours nearer than this are one to the eye at arm's length, OKLab × 100. */
const ALIKE = 6;

interface Shown {
  readonly parts: Parts;
  readonly pieces: Pieces;
  readonly operations: Operations;
  readonly tools: TableTools;
  readonly pen: Pen;
  readonly nodes: ShapeNodes;
  readonly place: Ref<PlaceMm>;
  /** Places of the design, mm, that are pointed out. */
  readonly spots: Ref<readonly { readonly x: number; readonly y: number }[]>;
  /** The traced art whose picture is compared with, by its id. */
  readonly tracedId: Ref<string>;
}

/** The design on the table of Assemble. */
export function useDesignScene({ parts, pieces, operations, tools, pen, nodes, place, spots, tracedId }: Shown) {
  const bench = useBench();
  const rack = useRack();
  const settings = useSettings();
  const view = ref<View>('blank');
  /** How much of the picture is seen through the design, per cent. */
  const mix = ref(50);
  /** Whether picture and design are subtracted: what they have alike is black. */
  const isDifference = ref(false);

  const job = computed(() => bench.job as Job);
  const design = computed(() => bench.result?.cut?.design);
  const films = computed(() => bench.result?.cut?.rack ?? []);
  const layer = new LineLayer();
  const paths = computed(() => (design.value?.layers ?? []).map(({ curves, marks }) => ({ path: pathFromCurves(curves), marks: marks === undefined ? undefined : pathFromCurves(marks) })));
  const picked = computed(() => pieces.selected.value.map(({ curves }) => pathFromCurves(curves)));
  /** From px of the picture to mm of the design. */
  const fromPicture = computed(() => {
    const own = parts.inDesign.value.find(({ id }) => id === tracedId.value);
    return own === undefined ? undefined : inverseOf(own.toMarks);
  });
  const ground = computed(() => (view.value !== 'loud' ? job.value.blank.colour : loudColour(films.value.map(({ film: { colour } }) => colour))));
  const isLost = (colour: string): boolean => colourDifference(rgbFromHex(colour) as Rgb, rgbFromHex(ground.value) as Rgb) < ALIKE;
  const drawn = computed((): DrawnFilm[] => paths.value.map((each, k) => ({ ...each, colour: films.value[k]?.film.colour ?? '#808080', isLost: isLost(films.value[k]?.film.colour ?? '#808080') })));
  /** Those on the table: a film that is chosen on the rack is looked at alone. */
  const seen = computed(() => (rack.isAlone ? drawn.value.filter((_, k) => films.value[k]?.film.id === rack.roll?.film.id) : drawn.value));
  const measures = computed((): readonly [string, string] | undefined => {
    const chosen = parts.box.value;
    return chosen === undefined ? undefined : [formatLength(mm(chosen.right - chosen.left), settings.unit), formatLength(mm(chosen.bottom - chosen.top), settings.unit)];
  });

  /** A crowded design is drawn sharply once the view rests. */
  const rested = ref(0);
  const bitmap = new DesignBitmap(() => rested.value++);
  onBeforeUnmount(() => bitmap.stop());
  const nodeTotal = computed(() => films.value.reduce((sum, each) => sum + each.nodes, 0));
  /** Films side by side: nothing is pointed at there. */
  const apart = computed(() => view.value === 'spread' && design.value !== undefined);

  const draw: DrawScene = (context, table, size) => {
    const { blank } = job.value;
    if (!apart.value) drawBlank(context, table, { ...blank, colour: ground.value });
    if (design.value === undefined) return;
    const moved = { scale: table.scale, x: table.x + place.value.xMm * table.scale, y: table.y + place.value.yMm * table.scale };
    const whole = { left: 0, top: 0, right: design.value.widthMm, bottom: design.value.heightMm };
    if (apart.value) {
      drawApart(context, table, drawn.value.map((each, k) => ({ ...each, name: films.value[k]?.film.name ?? '' })), whole, { x: 0, y: 0, width: blank.widthMm, height: blank.heightMm });
      return;
    }
    bitmap.draw(context, moved, size, nodeTotal.value, seen.value, (target) => drawFilms(target, moved, seen.value, ground.value));
    if (view.value === 'picture' && bench.base !== undefined && fromPicture.value !== undefined) drawPictureOver(context, moved, bench.base.view, bench.base.widthPx, fromPicture.value, isDifference.value ? 'difference' : mix.value / 100);
    drawGuides(context, table, size, tools.guides.guides.value);
    const boxes = pieces.marks.value.length > 0 || parts.box.value === undefined ? [] : [parts.box.value];
    drawSelection(context, moved, { design: whole, boxes, pieces: picked.value, measures: measures.value });
    drawHandles(context, moved, tools.handles.handles.value, tools.handles.turnedDeg.value);
    if (operations.filling.value !== undefined) drawAreas(context, moved, operations.areas.value);
    drawTools(context, moved, size, { frame: tools.frame.value, line: tools.line.value, snapLines: tools.snapLines.value });
    if (nodes.isOn.value) drawNodes(context, table, { films: nodes.editing.films.value, chosen: nodes.editing.refs.value, side: nodes.editing.side.value, frame: nodes.editing.frame.value, layer }, size);
    if (pen.path.value !== undefined) drawPen(context, table, size, pen.path.value, pen.pointer.value, pen.closes.value);
    for (const spot of spots.value) drawSpot(context, moved, spot);
  };
  const redrawOn = computed(() => [
    design.value, place.value, films.value, seen.value, job.value.blank, parts.box.value, picked.value, tools.frame.value, tools.line.value, tools.snapLines.value, tools.handles.handles.value, tools.handles.turnedDeg.value,
    tools.guides.guides.value, operations.areas.value, ground.value, view.value, mix.value, isDifference.value, bench.base, fromPicture.value, rested.value, spots.value,
    nodes.isOn.value, nodes.editing.films.value, nodes.editing.refs.value, nodes.editing.side.value, nodes.editing.frame.value, pen.path.value, pen.pointer.value, pen.closes.value,
  ]);
  return { view, mix, isDifference, apart, draw, redrawOn };
}
