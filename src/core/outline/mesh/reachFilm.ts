import { distanceTo } from '../../raster/distance.ts';
import { CLEAR, makeLabelMap } from '../../raster/labelMap.ts';
import { within, type Task } from '../../task/task.ts';
import type { Curves } from '../curves.ts';
import { fitMesh, type ArcMesh, type MeshOptions } from './arcMesh.ts';
import type { CrackPlaces } from './arcPoints.ts';
import { crackArcs } from './crackArcs.ts';
import { filmOutline, sidesOfLabels } from './filmOutline.ts';

/** How far a film runs on under another, px; or as far as the other's middle. */
export type Under = number | 'middle';

/** A reach that is less than this is not seen in the pixels, px. */
const LEAST_REACH_PX = 0.6;
/** Distances are counted from the centres of a film's outermost pixels; its edge runs half a pixel further out. */
const RIM_PX = 0.5;

/**
 * The outline of a film that runs on under neighbours, as printers trap: where it meets what lies below or nothing it keeps its true edge; under a neighbour it
 * ends along a line at its reach (counted from whole pixels, so true to half a one), half way to what lies beyond, or where the neighbour ends.
 * @param filmOfCell film of each cell of the mesh's lattice, −1 for none. @param film whose outline is wanted. @param under how far it runs on under each film.
 * @param places of the true edges, between the mesh's labels.
 */
export function* reachedOutline(mesh: ArcMesh, filmOfCell: Int16Array, film: number, under: readonly Under[], places: CrackPlaces, options: MeshOptions): Task<Curves> {
  const { arcs, width, height } = mesh;
  const { cells, stride } = arcs;
  const films = new Int16Array(width * height);
  for (let y = 0; y < height; y++) films.set(filmOfCell.subarray((y + 1) * stride + 1, (y + 1) * stride + 1 + width), y * width);
  const beyond = beyondBy(films, film, under, width, height);
  yield 0.3;
  const map = makeLabelMap(width, height, Uint8Array.from(beyond, (value) => (value <= 0 ? 0 : CLEAR)));
  const reached = crackArcs(map, () => () => false);
  const fitted = yield* within(fitMesh(reached, new ReachPlaces(cells, stride, width, places, beyond), width, height, options), 0.4, 1);
  return filmOutline(fitted, sidesOfLabels(reached, (label) => label === 0));
}

/** How far each pixel lies beyond the film's edge, px: below 0 inside. Where the film does not run on it is far. */
function beyondBy(films: Int16Array, film: number, under: readonly Under[], width: number, height: number): Float32Array {
  const own = new Uint8Array(films.length);
  const rest = new Uint8Array(films.length);
  const toMiddle = under.includes('middle');
  for (let i = 0; i < films.length; i++) {
    own[i] = films[i] === film ? 1 : 0;
    rest[i] = own[i] === 1 || (films[i] >= 0 && under[films[i]] === 'middle') ? 0 : 1;
  }
  const beyond = distanceTo(own, width, height);
  const toRest = toMiddle ? distanceTo(rest, width, height) : undefined;
  for (let i = 0; i < films.length; i++) {
    const other = films[i];
    if (other === film) continue;
    const reach = other < 0 ? 0 : under[other];
    if (reach === 0) beyond[i] = Infinity;
    else beyond[i] -= reach === 'middle' && toRest !== undefined ? toRest[i] : Math.max(LEAST_REACH_PX, Number(reach)) + RIM_PX;
  }
  return beyond;
}

/** True edges where labels differ, and inside one label the line at which the film ends. */
class ReachPlaces implements CrackPlaces {
  private left = -1;
  private right = -1;

  constructor(
    private readonly cells: Uint8Array,
    private readonly stride: number,
    private readonly width: number,
    private readonly places: CrackPlaces,
    private readonly beyond: Float32Array,
  ) {}

  /** What lies on the two sides changes along a film's edge: it is asked for at each crack. */
  between(): void {
    this.left = this.right = -1;
  }

  crossing(left: number, across: number, along: number, every: boolean): number {
    const a = this.cells[left];
    const b = this.cells[left + across];
    if (a === b) return this.where(left, left + across);
    if (a !== this.left || b !== this.right) this.places.between(a, b);
    this.left = a;
    this.right = b;
    return this.places.crossing(left, across, along, every);
  }

  edgeWidthPx(): number {
    return this.places.edgeWidthPx();
  }

  private where(from: number, to: number): number {
    const a = this.beyond[this.pixel(from)];
    const b = this.beyond[this.pixel(to)];
    return Number.isFinite(a) && Number.isFinite(b) && a !== b ? Math.max(0, Math.min(1, a / (a - b))) : 0.5;
  }

  private pixel(cell: number): number {
    const row = Math.floor(cell / this.stride);
    return (row - 1) * this.width + (cell - row * this.stride) - 1;
  }
}
