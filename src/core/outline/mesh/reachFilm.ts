import { distanceTo } from '../../raster/distance.ts';
import { CLEAR, makeLabelMap } from '../../raster/labelMap.ts';
import { finish } from '../../task/task.ts';
import type { Curves } from '../curves.ts';
import { fitMesh, type ArcMesh, type MeshOptions } from './arcMesh.ts';
import type { CrackPlaces } from './arcPoints.ts';
import { crackArcs } from './crackArcs.ts';
import { filmOutline, sidesOfLabels } from './filmOutline.ts';

/** A reach that is less than this is not seen in the pixels, px. */
const LEAST_REACH_PX = 0.6;
/** Distances are counted from the centres of a film's outermost pixels; its edge runs half a pixel further out. */
const RIM_PX = 0.5;

/**
 * The outline of a film that runs on under its upper neighbours by a reach, as printers trap: where it meets what lies below or nothing it keeps its true edge; under a neighbour it
 * ends along a line at that distance (counted from whole pixels, so true to half a one), or where the neighbour ends.
 * @param rankOfCell place of the film of each cell of the mesh's lattice on the rack, −1 for none. @param rank whose outline is wanted. @param places of the true edges, between
 * the mesh's labels.
 */
export function reachedOutline(mesh: ArcMesh, rankOfCell: Int16Array, rank: number, reachPx: number, places: CrackPlaces, options: MeshOptions): Curves {
  const { arcs, width, height } = mesh;
  const { cells, stride } = arcs;
  const ranks = new Int16Array(width * height);
  for (let y = 0; y < height; y++) ranks.set(rankOfCell.subarray((y + 1) * stride + 1, (y + 1) * stride + 1 + width), y * width);
  const distance = distanceTo(Uint8Array.from(ranks, (other) => (other === rank ? 1 : 0)), width, height);
  const limit = Math.max(LEAST_REACH_PX, reachPx) + RIM_PX;
  const film = makeLabelMap(width, height, Uint8Array.from(ranks, (other, i) => (other === rank || (other > rank && distance[i] <= limit) ? 0 : CLEAR)));
  const reached = crackArcs(film, () => () => false);
  const fitted = finish(fitMesh(reached, new ReachPlaces(cells, stride, width, places, distance, limit), width, height, options));
  return filmOutline(fitted, sidesOfLabels(reached, (label) => label === 0));
}

/** True edges where labels differ, and inside one label the line at a distance. */
class ReachPlaces implements CrackPlaces {
  private left = -1;
  private right = -1;

  constructor(
    private readonly cells: Uint8Array,
    private readonly stride: number,
    private readonly width: number,
    private readonly places: CrackPlaces,
    private readonly distance: Float32Array,
    private readonly limit: number,
  ) {}

  /** What lies on the two sides changes along a film's edge: it is asked for at each crack. */
  between(): void {
    this.left = this.right = -1;
  }

  crossing(left: number, across: number, along: number, every: boolean): number {
    const a = this.cells[left];
    const b = this.cells[left + across];
    if (a === b) return this.atDistance(left, left + across);
    if (a !== this.left || b !== this.right) this.places.between(a, b);
    this.left = a;
    this.right = b;
    return this.places.crossing(left, across, along, every);
  }

  edgeWidthPx(): number {
    return this.places.edgeWidthPx();
  }

  private atDistance(from: number, to: number): number {
    const a = this.distance[this.pixel(from)];
    const b = this.distance[this.pixel(to)];
    return a === b ? 0.5 : Math.max(0, Math.min(1, (this.limit - a) / (b - a)));
  }

  private pixel(cell: number): number {
    const row = Math.floor(cell / this.stride);
    return (row - 1) * this.width + (cell - row * this.stride) - 1;
  }
}
