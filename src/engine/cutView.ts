import { isProperlyNested } from '../core/outline/checkCurves.ts';
import type { Design, DesignLayer } from '../core/assemble/design.ts';
import { figuresOf, NO_FIGURES, type Figures } from '../core/check/figures.ts';
import { mostLayers, type MostLayers } from '../core/check/mostLayers.ts';
import { hexFromRgb } from '../core/colour/hex.ts';
import { isAppError } from '../core/errors/appError.ts';
import { followedBy, inverseOf, placed } from '../core/geometry/affine.ts';
import { pictureFromFrame } from '../core/outline/heldOutline.ts';
import type { TracedTones } from '../core/run/traceTones.ts';
import { regionMiddles } from '../core/outline/mesh/meshRegions.ts';
import type { Curves } from '../core/outline/curves.ts';
import { transformCurves } from '../core/outline/transformCurves.ts';
import { pxPerMm } from '../core/units/length.ts';
import type { Art } from '../core/raster/art.ts';
import { splitTone } from '../core/separate/splitTone.ts';
import type { CutResult } from '../core/run/runJob.ts';
import type { CutView, PartsView } from './protocol.ts';

const counted = new WeakMap<Curves, Figures>();
const most = new WeakMap<Design, MostLayers>();

/** What is told of outlines in numbers, counted once. */
function figuresKept(curves: Curves): Figures {
  const known = counted.get(curves) ?? figuresOf(curves);
  counted.set(curves, known);
  return known;
}

function mostKept(design: Design): MostLayers {
  const known = most.get(design) ?? mostLayers(design.layers.map(({ curves }) => curves));
  most.set(design, known);
  return known;
}

const byFilm = (layers: readonly DesignLayer[]): Map<string, Figures> => new Map(layers.map(({ filmId, curves }) => [filmId, figuresKept(curves)]));

/** What is shown of a cut: in px of the picture, whatever the art was reduced to. */
export function cutView(cut: CutResult, { frame }: Pick<Art, 'frame'>): CutView {
  const toPicture = pictureFromFrame(frame);
  const pictureFromDesign = followedBy(inverseOf(cut.place.fromOutline), toPicture);
  const figures = byFilm(cut.design.layers);
  const own = byFilm(cut.parts.find(({ id }) => id === cut.focus)?.layers ?? []);
  const optional = { tones: cut.tones, steps: cut.steps, histogram: cut.histogram };
  return {
    films: cut.films.map(({ film, outline, mark, held }) => ({ film, outline: transformCurves(outline, toPicture), mark, ...(held === undefined ? {} : { held }), ...(own.get(film.id) ?? NO_FIGURES) })),
    ...(Object.fromEntries(Object.entries(optional).filter(([, value]) => value !== undefined)) as Partial<Pick<CutView, 'tones' | 'steps' | 'histogram'>>),
    mostLayers: mostKept(cut.design),
    design: cut.design,
    ...(cut.laid.fan === undefined ? {} : { bent: { ...cut.laid, fan: cut.laid.fan } }),
    ...(cut.guide === undefined ? {} : { guide: cut.guide }),
    // In preview it counts reduced pixels; what is told is always in picture pixels.
    place: { fromOutline: cut.place.fromOutline, resolution: pxPerMm(cut.place.resolution / frame.scale) },
    rack: cut.rack.map((film) => ({ film, ...(figures.get(film.id) ?? NO_FIGURES) })),
    sheets: cut.sheets,
    parts: cut.parts,
    originMm: cut.originMm,
    ...(cut.held === undefined ? {} : { held: cut.held }),
    ...(cut.print === undefined ? {} : { print: cut.print }),
    findings: cut.findings,
    findingsAt: cut.findings.map(({ xMm, yMm }) => {
      const { x, y } = placed(pictureFromDesign, xMm, yMm);
      return { xPx: x, yPx: y };
    }),
  };
}

/** The areas of a tone and the two colours that are in it. */
export function partsOf({ tones, regions }: TracedTones, art: Art, tone: number): PartsView {
  const toPicture = pictureFromFrame(art.frame);
  const middles = regionMiddles(regions);
  const areas = Array.from(regions.label.keys())
    .filter((region) => regions.label[region] === tone && regions.firstPixel[region] >= 0)
    .map((region) => {
      const first = regions.firstPixel[region];
      const at = placed(toPicture, (first % art.width) + 0.5, Math.floor(first / art.width) + 0.5);
      const middle = placed(toPicture, middles[2 * region], middles[2 * region + 1]);
      return { xPx: at.x, yPx: at.y, middleXPx: middle.x, middleYPx: middle.y };
    });
  try {
    const [first, second] = splitTone(art.colour, tones.labels, tone);
    return { areas, colours: [hexFromRgb(first), hexFromRgb(second)] };
  } catch (error) {
    if (isAppError(error) && error.code === 'toneIsEven') return { areas };
    throw error;
  }
}

/** Chords by which the nesting of rings is checked, art px. */
const NESTING_PX = 0.02;

/** Tells of outlines that no picture should give. */
export function tellFaults({ films }: CutResult, onFault: (words: string) => void): void {
  for (const { film, outline } of films) if (!isProperlyNested(outline, NESTING_PX)) onFault(`the rings of ${film.name} do not lie in each other as they should`);
}
