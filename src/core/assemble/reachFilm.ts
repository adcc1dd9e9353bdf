import { distanceTo } from '../raster/distance.ts';
import { CLEAR, makeLabelMap } from '../raster/labelMap.ts';
import { within, type Task } from '../task/task.ts';
import { chordDistance2, chordsOf, eachCellNear } from '../outline/chords.ts';
import type { Curves } from '../outline/curves.ts';
import { closeSlits } from '../outline/mesh/closeSlits.ts';
import { fitMesh, type ArcMesh, type KeptCurves, type MeshOptions } from '../outline/mesh/arcMesh.ts';
import type { CrackPlaces } from '../outline/mesh/arcPoints.ts';
import { crackArcs } from '../outline/mesh/crackArcs.ts';
import { filmOutline, sidesOfLabels, startOfHalf } from '../outline/mesh/filmOutline.ts';
import { sameArcs, splitArcs } from '../outline/mesh/splitArcs.ts';

/** How far a film runs on under another, px; or as far as the other's middle. */
export type Under = number | 'middle';

/** A reach that is less than this is not seen in the pixels, px. */
const LEAST_REACH_PX = 0.6;
/** So far beyond a reach distances are known, so that its end can be placed between two pixels, px. */
const BAND_PX = 1.5;

/**
 * The outline of a film that runs on under neighbours, as printers trap: where it meets what lies below or nothing it keeps its true edge, node for node; under
 * a neighbour it ends along a line at its reach, half way to what lies beyond (counted from whole pixels, so true to half a one), or where the neighbour ends.
 * @param own outline of what the film covers without reaching.
 * @param filmOfCell film of each cell of the mesh's lattice, −1 for none.
 * @param film whose outline is wanted.
 * @param under how far it runs on under each film.
 * @param places of the true edges, between the mesh's labels.
 */
export function* reachedOutline(
  mesh: ArcMesh,
  own: Curves,
  filmOfCell: Int16Array,
  film: number,
  under: readonly Under[],
  places: CrackPlaces,
  options: MeshOptions,
): Task<Curves> {
  const { arcs, width, height } = mesh;
  const { cells, stride } = arcs;
  const films = new Int16Array(width * height);
  for (let y = 0; y < height; y++) films.set(filmOfCell.subarray((y + 1) * stride + 1, (y + 1) * stride + 1 + width), y * width);
  const beyond = beyondReach(own, films, film, under, width, height);
  if (under.includes('middle')) beyondMiddle(beyond, films, film, under, width, height);
  yield 0.3;
  const isOpen = openCells(beyond, films, film, width, height);
  closeSlits(isOpen, width, height, (i) => reachAt(films[i], film, under));
  const map = makeLabelMap(width, height, labelsOf(isOpen));
  const nodes = nodePlaces(mesh);
  const reached = splitArcs(
    yield* within(crackArcs(map, () => () => false), 0.3, 0.4),
    (vertex) => nodes.has(vertex),
  );
  const halfOf = sameArcs(arcs);
  const kept: KeptCurves = { curves: mesh.curves, halfOf: (arc) => halfOf(reached, arc), placeOf: (node) => nodes.get(node) };
  const fitted = yield* within(fitMesh(reached, new ReachPlaces(cells, stride, width, places, beyond), width, height, options, kept), 0.4, 1);
  return filmOutline(
    fitted,
    sidesOfLabels(reached, (label) => label === 0),
  );
}

/** 1 for each pixel where the film does not lie. A pixel beside its own is always within, or short reaches would come and go along a slanting edge. */
function openCells(beyond: Float32Array, films: Int16Array, film: number, width: number, height: number): Uint8Array {
  const open = new Uint8Array(beyond.length);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const value = beyond[i];
      if (value <= 0) continue;
      const isBeside =
        value !== Infinity &&
        ((x > 0 && films[i - 1] === film) || (x < width - 1 && films[i + 1] === film) || films[i - width] === film || films[i + width] === film);
      open[i] = isBeside ? 0 : 1;
    }
  }
  return open;
}

/** 0 where the film lies, clear elsewhere. */
function labelsOf(isOpen: Uint8Array): Uint8Array {
  const labels = new Uint8Array(isOpen.length);
  for (let i = 0; i < labels.length; i++) if (isOpen[i] !== 0) labels[i] = CLEAR;
  return labels;
}

/** Where the nodes of a mesh lie, by their vertices. */
function nodePlaces({ arcs, curves }: ArcMesh): Map<number, { x: number; y: number }> {
  const places = new Map<number, { x: number; y: number }>();
  for (let k = 0; k < arcs.count; k++) {
    if (arcs.from[k] < 0) continue;
    places.set(arcs.from[k], startOfHalf(curves, 2 * k));
    places.set(arcs.to[k], startOfHalf(curves, 2 * k + 1));
  }
  return places;
}

/**
 * How far each pixel lies beyond the end of the film's reach, px: below 0 within, far where it does not run on. The nearest chord of the film's outline is
 * passed on from pixel to pixel, only as far as the film reaches, and measured exactly.
 */
function beyondReach(own: Curves, films: Int16Array, film: number, under: readonly Under[], width: number, height: number): Float32Array {
  const beyond = new Float32Array(films.length).fill(Infinity);
  for (let i = 0; i < films.length; i++) if (films[i] === film) beyond[i] = -1;
  if (!under.some((reach) => typeof reach === 'number' && reach > 0)) return beyond;
  const chords = chordsOf(own);
  const nearest = new Int32Array(films.length).fill(-1);
  const queue: number[] = [];
  const offer = (i: number, x: number, y: number, chord: number): void => {
    const reach = reachAt(films[i], film, under);
    if (reach === 0 || chord === nearest[i]) return;
    // As it is kept: chords that are equally near, as two at their common end, would else take turns for ever, each a little nearer than what the other left rounded.
    const off = Math.fround(Math.sqrt(chordDistance2(chords, chord, x + 0.5, y + 0.5)) - reach);
    if (off > BAND_PX || off >= beyond[i]) return;
    beyond[i] = off;
    nearest[i] = chord;
    queue.push(i);
  };
  eachCellNear(chords, width, height, offer);
  for (let head = 0; head < queue.length; head++) {
    const i = queue[head];
    const x = i % width;
    const y = (i - x) / width;
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        if (x + dx >= 0 && x + dx < width && y + dy >= 0 && y + dy < height) offer(i + dy * width + dx, x + dx, y + dy, nearest[i]);
  }
  return beyond;
}

/** How far a film runs on under another, px; 0 where not at all or to its middle. */
function reachAt(other: number, film: number, under: readonly Under[]): number {
  const reach = other < 0 || other === film ? 0 : under[other];
  return typeof reach === 'number' && reach > 0 ? Math.max(LEAST_REACH_PX, reach) : 0;
}

/** The same for films under which it runs on to their middle: nearer to itself than to anything beyond them. */
function beyondMiddle(beyond: Float32Array, films: Int16Array, film: number, under: readonly Under[], width: number, height: number): void {
  const own = new Uint8Array(films.length);
  const rest = new Uint8Array(films.length);
  const isMiddle = (other: number): boolean => other >= 0 && other !== film && under[other] === 'middle';
  for (let i = 0; i < films.length; i++) {
    own[i] = films[i] === film ? 1 : 0;
    rest[i] = own[i] === 1 || isMiddle(films[i]) ? 0 : 1;
  }
  const toOwn = distanceTo(own, width, height);
  const toRest = distanceTo(rest, width, height);
  for (let i = 0; i < films.length; i++) if (isMiddle(films[i])) beyond[i] = toOwn[i] - toRest[i];
}

/** True edges where labels differ, and inside one label the line at which the film ends. */
class ReachPlaces implements CrackPlaces {
  private left = -1;
  private right = -1;
  /** Widths of the edges between the pairs of labels that this edge of the film ran along before the present one: their sum and number. */
  private widths = 0;
  private pairs = 0;

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
    this.widths = this.pairs = 0;
  }

  crossing(left: number, across: number, along: number, every: boolean): number {
    const a = this.cells[left];
    const b = this.cells[left + across];
    if (a === b) return this.where(left, left + across);
    if (a !== this.left || b !== this.right) {
      this.endPair();
      this.places.between(a, b);
    }
    this.left = a;
    this.right = b;
    return this.places.crossing(left, across, along, every);
  }

  /** Of the true edges along which this edge of the film runs; a line at which it only ends is as sharp as pixels are. */
  edgeWidthPx(): number {
    this.endPair();
    this.left = this.right = -1;
    return this.pairs === 0 ? 1 : this.widths / this.pairs;
  }

  /** It runs along many edges, and along lines that are none. */
  stray(): undefined {
    return undefined;
  }

  private endPair(): void {
    if (this.left === this.right) return;
    this.widths += this.places.edgeWidthPx();
    this.pairs++;
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
