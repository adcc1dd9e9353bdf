import type { RectPx } from '../../core/raster/crop.ts';
import type { Step } from '../../core/clean/recipe.ts';

const base = () => ({ id: crypto.randomUUID(), enabled: true, v: 1 }) as const;

/** Steps as they start. */
export const newStep = {
  squaring: (): Step => ({ kind: 'squaring', ...base(), marks: { by: 'sheet' }, levelLight: true }),
  turn: (): Step => ({ kind: 'turn', ...base(), mirrored: false, quarters: 0, angleDeg: 0 }),
  enlarging: (): Step => ({ kind: 'enlarging', ...base(), times: 2 }),
  crop: (rect: RectPx): Step => ({ kind: 'crop', ...base(), rect: { ...rect } }),
  levels: (): Step => ({ kind: 'levels', ...base(), points: 'auto', gamma: 1, saturation: 1, invert: false }),
  lightLevelling: (): Step => ({ kind: 'lightLevelling', ...base(), strength: 1 }),
  smoothing: (): Step => ({ kind: 'smoothing', ...base(), strength: 16 }),
  fewerColours: (): Step => ({ kind: 'fewerColours', ...base(), tones: 'auto' }),
  gapMending: (): Step => ({ kind: 'gapMending', ...base(), widestPx: 12 }),
  linePick: (): Step => ({ kind: 'linePick', ...base(), detail: 0.4 }),
  subjectLift: (): Step => ({ kind: 'subjectLift', ...base(), strokes: [] }),
  areaLift: (xPx: number, yPx: number, tolerance: 'auto' | number): Step => ({ kind: 'areaLift', ...base(), at: { xPx, yPx }, tolerance, enclosed: false, soft: true }),
  colourLift: (colour: string): Step => ({ kind: 'colourLift', ...base(), colour, tolerance: 4, soft: true }),
  rubOut: (): Step => ({ kind: 'rubOut', ...base(), strokes: [] }),
  bringBack: (): Step => ({ kind: 'bringBack', ...base(), strokes: [] }),
  drawIn: (): Step => ({ kind: 'drawIn', ...base(), strokes: [] }),
  edgeTidying: (): Step => ({ kind: 'edgeTidying', ...base(), amountPx: 2 }),
  sweep: (): Step => ({ kind: 'sweep', ...base(), speckMm2: 1, pinholeMm2: 1 }),
};
