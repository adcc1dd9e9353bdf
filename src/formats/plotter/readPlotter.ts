import { AppError } from '../../core/errors/appError.ts';
import { followedBy, translation, type Affine } from '../../core/geometry/affine.ts';
import { arcPath, type DrawnPath, type DrawnPoint, type DrawnSide } from '../paths/drawnPath.ts';
import { PLOTTER_STEP_MM } from './writePlotter.ts';
import { say } from '../../core/words/say.ts';

/** What one tool draws between coming down and going up, mm, y up from the machine's corner. */
export interface PlotterStroke extends DrawnPath {
  readonly tool: number;
}

export interface PlotterFile {
  readonly strokes: readonly PlotterStroke[];
  /** Last told speed, mm/s, and force, g; absent when none is told. */
  readonly speedMmS?: number | undefined;
  readonly forceG?: number | undefined;
  /** Instructions that were not understood, and how often. */
  readonly leftOut: ReadonlyMap<string, number>;
}

const MAX_BYTES = 40_000_000;
const MOST_PLACES = 2_000_000;
/** Where the scaling points lie when a file names none: those of a page. */
const USUAL_CORNERS = [0, 0, 10_000, 7200] as const;
/** Instructions that draw nothing and change nothing that is drawn. */
const QUIET = new Set(['AS', 'CA', 'CS', 'DF', 'DI', 'DR', 'DT', 'IW', 'LT', 'OE', 'OS', 'PS', 'PW', 'SI', 'SL', 'SR', 'WU', 'BP', 'PG', 'NP', 'CO', 'TR', 'PC', 'CR', 'LA', 'AC', 'FT', 'SM', 'NR', 'AF', 'AH', 'EC', 'OH', 'OA', 'OC', 'IM', 'QL', 'MC', 'PP']);

/**
 * Reads strokes of plotter language (HP-GL and the parts of HP-GL/2 that draw alike): tools up and down, absolute and relative, scaling, arcs, circles and boxes. Everything else is counted and left out.
 * @throws AppError `fileTooLarge`, `tooIntricate`, `badDrawing` when nothing is drawn.
 */
export function readPlotter(bytes: Uint8Array, file: string): PlotterFile {
  if (bytes.length > MAX_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_BYTES / 1e6 });
  const reader = new PlotterReader();
  for (const [name, values] of instructions(new TextDecoder('latin1').decode(bytes))) reader.take(name, values);
  const read = reader.finished();
  if (read.strokes.length === 0) throw new AppError('badDrawing', { file, reason: say('it draws nothing in plotter language') });
  return read;
}

/** Two letters and what follows them: numbers, or words up to their end sign. */
function* instructions(text: string): Generator<[string, number[]]> {
  const pattern = /\u001b[.%][^:;A-Za-z]*[:;A-Za-z]?|LB[^\u0003]*\u0003?|([A-Za-z]{2})([^A-Za-z\u001b;]*);?/g;
  for (const [, name, values] of text.matchAll(pattern)) {
    if (name === undefined) continue;
    yield [name.toUpperCase(), (values.match(/[-+]?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number)];
  }
}

class PlotterReader {
  private readonly strokes: PlotterStroke[] = [];
  private readonly leftOut = new Map<string, number>();
  private at: DrawnPoint = { x: 0, y: 0 };
  private sides: DrawnSide[] = [];
  private start: DrawnPoint = { x: 0, y: 0 };
  private isDown = false;
  private isRelative = false;
  private tool = 1;
  private corners: readonly number[] = USUAL_CORNERS;
  private units: readonly number[] | undefined;
  private speedMmS: number | undefined;
  private forceG: number | undefined;
  private places = 0;

  take(name: string, values: readonly number[]): void {
    switch (name) {
      case 'IN':
        return this.initialise();
      case 'PU':
      case 'PD':
        this.lower(name === 'PD');
        return this.goAll(values);
      case 'PA':
      case 'PR':
        this.isRelative = name === 'PR';
        return this.goAll(values);
      case 'SP':
        this.lower(false);
        this.tool = values[0] ?? 0;
        return;
      case 'VS':
        this.speedMmS = values[0] === undefined ? undefined : values[0] * 10;
        return;
      case 'FS':
        this.forceG = values[0];
        return;
      case 'IP':
        this.corners = values.length >= 4 ? values.slice(0, 4) : USUAL_CORNERS;
        return;
      case 'SC':
        this.units = values.length >= 4 && values[1] !== values[0] && values[3] !== values[2] ? values.slice(0, 4) : undefined;
        return;
      case 'AA':
      case 'AR':
        return this.arc(values, name === 'AR');
      case 'CI':
        return this.circle(values[0] ?? 0);
      case 'EA':
      case 'ER':
        return this.box(values, name === 'ER');
      default:
        if (!QUIET.has(name)) this.leftOut.set(name, (this.leftOut.get(name) ?? 0) + 1);
    }
  }

  finished(): PlotterFile {
    this.lower(false);
    return { strokes: this.strokes, leftOut: this.leftOut, ...(this.speedMmS === undefined ? {} : { speedMmS: this.speedMmS }), ...(this.forceG === undefined ? {} : { forceG: this.forceG }) };
  }

  private initialise(): void {
    this.lower(false);
    [this.isRelative, this.units, this.corners, this.at] = [false, undefined, USUAL_CORNERS, { x: 0, y: 0 }];
  }

  /** From the file's own units to mm. */
  private toMm(): Affine {
    const plain = { a: PLOTTER_STEP_MM, b: 0, c: 0, d: PLOTTER_STEP_MM, e: 0, f: 0 };
    if (this.units === undefined) return plain;
    const [[x1, y1, x2, y2], [left, right, low, high]] = [this.corners, this.units];
    const [a, d] = [(x2 - x1) / (right - left), (y2 - y1) / (high - low)];
    return followedBy({ a, b: 0, c: 0, d, e: x1 - left * a, f: y1 - low * d }, plain);
  }

  private lower(isDown: boolean): void {
    if (isDown === this.isDown) return;
    if (!isDown && this.sides.length > 0) this.strokes.push({ tool: this.tool, start: this.start, sides: this.sides });
    this.sides = [];
    this.start = this.at;
    this.isDown = isDown;
  }

  private goAll(values: readonly number[]): void {
    const { a, d, e, f } = this.toMm();
    for (let k = 0; k + 1 < values.length; k += 2) {
      const [x, y] = [values[k] * a, values[k + 1] * d];
      this.go({ to: this.isRelative ? { x: this.at.x + x, y: this.at.y + y } : { x: x + e, y: y + f } });
    }
  }

  private go(side: DrawnSide): void {
    if (++this.places > MOST_PLACES) throw new AppError('tooIntricate', { count: this.places, limit: MOST_PLACES });
    if (this.isDown) this.sides.push(side);
    else this.start = side.to;
    this.at = side.to;
  }

  private arc([x = 0, y = 0, degrees = 0]: readonly number[], isRelative: boolean): void {
    const { a, d, e, f } = this.toMm();
    const middle = isRelative ? { x: this.at.x + x * a, y: this.at.y + y * d } : { x: x * a + e, y: y * d + f };
    const radius = Math.hypot(this.at.x - middle.x, this.at.y - middle.y);
    if (radius === 0 || degrees === 0) return;
    const from = Math.atan2(this.at.y - middle.y, this.at.x - middle.x);
    for (const side of arcPath({ a: radius, b: 0, c: 0, d: radius, e: middle.x, f: middle.y }, from, Math.max(-2 * Math.PI, Math.min(2 * Math.PI, (degrees * Math.PI) / 180))).sides) this.go(side);
  }

  /** Around where the tool is, with the tool down whatever it was. */
  private circle(radius: number): void {
    const mm = Math.abs(radius * this.toMm().a);
    if (mm === 0) return;
    const { start, sides } = arcPath(followedBy({ a: mm, b: 0, c: 0, d: mm, e: 0, f: 0 }, translation(this.at.x, this.at.y)), 0, 2 * Math.PI);
    this.strokes.push({ tool: this.tool, start, sides });
  }

  private box([x = 0, y = 0]: readonly number[], isRelative: boolean): void {
    const { a, d, e, f } = this.toMm();
    const { at } = this;
    const far = isRelative ? { x: at.x + x * a, y: at.y + y * d } : { x: x * a + e, y: y * d + f };
    this.strokes.push({ tool: this.tool, start: at, sides: [{ to: { x: far.x, y: at.y } }, { to: far }, { to: { x: at.x, y: far.y } }, { to: at }] });
  }
}
