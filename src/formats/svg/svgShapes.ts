import { SVGPathData } from 'svg-pathdata';
import { placed, type Affine } from '../../core/geometry/affine.ts';
import { CurvesBuilder, type Curves } from '../../core/outline/curves.ts';
import type { SvgNode } from './svgTree.ts';

/** Places this near to each other are one, in mm. */
const SAME_MM = 1e-6;

/** The path of a shape element in its own units, as SVG writes paths; undefined for other elements and shapes without a size. */
export function shapePath({ name, attributes }: SvgNode, lengthOf: (text: string | undefined, of: 'x' | 'y' | 'both') => number): string | undefined {
  const along = (key: string, of: 'x' | 'y' | 'both'): number => lengthOf(attributes[key], of);
  switch (name) {
    case 'path':
      return attributes['d'];
    case 'rect':
      return rectPath(along('x', 'x'), along('y', 'y'), along('width', 'x'), along('height', 'y'), attributes['rx'] === undefined ? along('ry', 'y') : along('rx', 'x'), attributes['ry'] === undefined ? along('rx', 'x') : along('ry', 'y'));
    case 'circle':
      return roundPath(along('cx', 'x'), along('cy', 'y'), along('r', 'both'), along('r', 'both'));
    case 'ellipse':
      return roundPath(along('cx', 'x'), along('cy', 'y'), along('rx', 'x'), along('ry', 'y'));
    case 'line':
      return `M${along('x1', 'x')} ${along('y1', 'y')}L${along('x2', 'x')} ${along('y2', 'y')}`;
    case 'polyline':
    case 'polygon': {
      const values = (attributes['points'] ?? '').trim().split(/[\s,]+/).map(Number);
      if (values.length < 4 || !values.every(Number.isFinite)) return undefined;
      return `M${values.slice(0, values.length & ~1).join(' ')}${name === 'polygon' ? 'Z' : ''}`;
    }
    default:
      return undefined;
  }
}

function rectPath(x: number, y: number, w: number, h: number, rx: number, ry: number): string | undefined {
  if (!(w > 0 && h > 0)) return undefined;
  const [a, b] = [Math.min(Math.max(0, rx), w / 2), Math.min(Math.max(0, ry), h / 2)];
  if (a === 0 || b === 0) return `M${x} ${y}h${w}v${h}h${-w}Z`;
  return `M${x + a} ${y}h${w - 2 * a}a${a} ${b} 0 0 1 ${a} ${b}v${h - 2 * b}a${a} ${b} 0 0 1 ${-a} ${b}h${2 * a - w}a${a} ${b} 0 0 1 ${-a} ${-b}v${2 * b - h}a${a} ${b} 0 0 1 ${a} ${-b}Z`;
}

const roundPath = (cx: number, cy: number, rx: number, ry: number): string | undefined =>
  rx > 0 && ry > 0 ? `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy + ry}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy - ry}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z` : undefined;

/**
 * Path data as rings of lines and cubics, put where they lie; rings without nesting. @param closes whether what is open is closed, as a fill is.
 * @returns undefined for what is no path data, or holds numbers without bounds.
 */
export function curvesOfPath(data: string, where: Affine, closes: boolean): Curves | undefined {
  let commands: ReturnType<typeof SVGPathData.parse>;
  try {
    commands = new SVGPathData(data).toAbs().normalizeHVZ(false).normalizeST().qtToC().commands;
  } catch {
    return undefined;
  }
  const builder = new CurvesBuilder();
  const pen = new Pen(builder, where, closes);
  for (const command of commands) {
    if (command.type === SVGPathData.CLOSE_PATH) pen.close();
    else if (command.type === SVGPathData.MOVE_TO) pen.moveTo(command.x, command.y);
    else if (command.type === SVGPathData.LINE_TO) pen.lineTo(command.x, command.y);
    else if (command.type === SVGPathData.CURVE_TO) pen.cubicTo(command.x1, command.y1, command.x2, command.y2, command.x, command.y);
    else if (command.type === SVGPathData.ARC) pen.arcTo(command.rX, command.rY, command.xRot, command.lArcFlag !== 0, command.sweepFlag !== 0, command.x, command.y);
    else return undefined;
  }
  pen.end();
  const curves = builder.build();
  return curves.coords.every((value) => Math.abs(value) < 1e7) ? curves : undefined;
}

/** Turn of an arc that one cubic draws at most: it strays by 4·10⁻⁶ of the radius. */
const MOST_TURN = Math.PI / 4;

/** Draws subpaths as rings; those of a single point are left out. */
class Pen {
  /** Where it is before it is put where the path lies. */
  private own = { x: 0, y: 0 };
  private first = this.own;
  private start: { x: number; y: number } | undefined;
  private at = { x: 0, y: 0 };
  private begun = false;

  constructor(
    private readonly builder: CurvesBuilder,
    private readonly where: Affine,
    private readonly closes: boolean,
  ) {}

  moveTo(x: number, y: number): void {
    this.end();
    this.own = this.first = { x, y };
    this.start = this.at = placed(this.where, x, y);
  }

  lineTo(x: number, y: number): void {
    this.own = { x, y };
    const to = placed(this.where, x, y);
    if (isSame(to, this.at)) return;
    this.begin();
    this.builder.line(to.x, to.y);
    this.at = to;
  }

  cubicTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.own = { x, y };
    const [a, b, to] = [placed(this.where, x1, y1), placed(this.where, x2, y2), placed(this.where, x, y)];
    if (isSame(to, this.at) && isSame(a, this.at) && isSame(b, this.at)) return;
    this.begin();
    this.builder.cubic(a.x, a.y, b.x, b.y, to.x, to.y);
    this.at = to;
  }

  /** An arc of an ellipse between two points (SVG 1.1, F.6.5). */
  arcTo(rx: number, ry: number, rotation: number, large: boolean, sweep: boolean, x: number, y: number): void {
    const from = this.own;
    if (rx === 0 || ry === 0 || (from.x === x && from.y === y)) return this.lineTo(x, y);
    const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
    const [hx, hy] = [(from.x - x) / 2, (from.y - y) / 2];
    const [px, py] = [cos * hx + sin * hy, -sin * hx + cos * hy];
    const grow = Math.max(1, Math.sqrt((px / rx) ** 2 + (py / ry) ** 2));
    const [a, b] = [Math.abs(rx) * grow, Math.abs(ry) * grow];
    const square = Math.max(0, (a * a * b * b - a * a * py * py - b * b * px * px) / (a * a * py * py + b * b * px * px));
    const side = (large === sweep ? -1 : 1) * Math.sqrt(square);
    const [ux, uy] = [(side * a * py) / b, (-side * b * px) / a];
    const [cx, cy] = [cos * ux - sin * uy + (from.x + x) / 2, sin * ux + cos * uy + (from.y + y) / 2];
    const start = Math.atan2((py - uy) / b, (px - ux) / a);
    let turn = Math.atan2((-py - uy) / b, (-px - ux) / a) - start;
    if (sweep && turn < 0) turn += 2 * Math.PI;
    if (!sweep && turn > 0) turn -= 2 * Math.PI;
    const count = Math.max(1, Math.ceil(Math.abs(turn) / MOST_TURN - 1e-9));
    const step = turn / count;
    const handle = (4 / 3) * Math.tan(step / 4);
    const at = (u: number, v: number): readonly [number, number] => [cx + cos * a * u - sin * b * v, cy + sin * a * u + cos * b * v];
    for (let k = 0; k < count; k++) {
      const [s, t] = [start + k * step, start + (k + 1) * step];
      const end = k === count - 1 ? ([x, y] as const) : at(Math.cos(t), Math.sin(t));
      this.cubicTo(...at(Math.cos(s) - handle * Math.sin(s), Math.sin(s) + handle * Math.cos(s)), ...at(Math.cos(t) + handle * Math.sin(t), Math.sin(t) - handle * Math.cos(t)), ...end);
    }
  }

  close(): void {
    if (!this.begun || this.start === undefined) return;
    if (!isSame(this.at, this.start)) this.builder.line(this.start.x, this.start.y);
    this.builder.close();
    this.begun = false;
    this.at = this.start;
    this.own = this.first;
  }

  end(): void {
    if (!this.begun) return;
    if (this.closes) return this.close();
    this.builder.close();
    this.begun = false;
  }

  private begin(): void {
    if (this.begun) return;
    this.begun = true;
    this.start = this.at;
    this.builder.start(this.at.x, this.at.y, -1);
  }
}

const isSame = (a: { x: number; y: number }, b: { x: number; y: number }): boolean => Math.abs(a.x - b.x) < SAME_MM && Math.abs(a.y - b.y) < SAME_MM;

