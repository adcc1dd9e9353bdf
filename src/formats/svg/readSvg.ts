import { joinOverlaps, combineCurves } from '../../core/combine/combineCurves.ts';
import { strokeCurves } from '../../core/combine/offsetCurves.ts';
import type { PolygonLibrary } from '../../core/combine/polygonLibrary.ts';
import { AppError } from '../../core/errors/appError.ts';
import { followedBy, IDENTITY, type Affine } from '../../core/geometry/affine.ts';
import { CurvesBuilder, isOpenRing, nodeCount, ringCount, type Curves } from '../../core/outline/curves.ts';
import { nestRings } from '../../core/outline/nestRings.ts';
import { Drawing, type ImportedDrawing, type StrokeUse } from '../drawing.ts';
import { lengthOf, MM } from './svgLength.ts';
import { curvesOfPath, shapePath } from './svgShapes.ts';
import { FIRST_PAINT, paintOf, styleRules, type StyleRules, type SvgPaint } from './svgStyle.ts';
import { svgTransform } from './svgTransform.ts';
import { svgTree, type SvgNode } from './svgTree.ts';
import { ROLE_ATTRIBUTE } from './writeSvg.ts';
import { say } from '../../core/words/say.ts';

/** Elements that draw nothing by themselves. */
const SILENT = new Set(['defs', 'title', 'desc', 'metadata', 'style', 'clipPath', 'symbol', 'linearGradient', 'radialGradient', 'namedview']);
/** Elements that hold others. */
const HOLDERS = new Set(['svg', 'g', 'a', 'switch']);
/** Groups of Limner's own sheets that are no art. */
const SHEET_ROLES = new Set(['box', 'weedLine', 'mark', 'fold']);
/** What is not drawn as outlines, in words. */
const NOT_DRAWN: Readonly<Record<string, string>> = { text: say('text: set it as lettering, or turn it into outlines first'), image: say('pictures'), script: say('scripts, which never run'), foreignObject: say('foreign content'), mask: say('masks'), filter: say('effects'), pattern: say('patterns') };
/** `use` in `use`. */
const MOST_USES = 20;
const MOST_SHAPES = 20_000;
/** Strokes up to this width are lines that a knife follows, mm. */
const HAIRLINE_MM = 0.3;

export interface SvgOptions {
  /** What becomes of strokes; without it hairlines are lines and broad ones outlines. */
  readonly strokes?: StrokeUse | undefined;
  /** Boxes, weed lines and marks of a sheet of our own are read too; the art alone when absent. */
  readonly aids?: boolean | undefined;
}

/**
 * Reads the outlines of an SVG (SVG 1.1 and the shapes of SVG 2) at its true size, one layer for each fill, in mm of its page.
 * @throws AppError `fileTooLarge`, `badDrawing`, `tooIntricate`.
 */
export function readSvg(library: PolygonLibrary, bytes: Uint8Array, file: string, options: SvgOptions = {}): ImportedDrawing {
  const root = svgTree(bytes, file);
  const reader = new SvgReader(library, root, options);
  const { widthMm, heightMm, where } = pageOf(root);
  reader.draw(root.children, where, paintOf(root, FIRST_PAINT, reader.rules), [], 0);
  reader.finish();
  return reader.drawing.finished(file, widthMm, heightMm);
}

class SvgReader {
  readonly drawing: Drawing;
  readonly rules: StyleRules;
  private readonly byId = new Map<string, SvgNode>();
  private readonly lines = new Map<string, CurvesBuilder>();
  private shapes = 0;

  constructor(
    private readonly library: PolygonLibrary,
    root: SvgNode,
    private readonly options: SvgOptions,
  ) {
    this.drawing = new Drawing();
    this.rules = styleRules(root);
    if (this.rules.others > 0) this.drawing.note(say('style rules that are not for an element, a class or an id'), this.rules.others);
    const index = (node: SvgNode): void => {
      const { id } = node.attributes;
      if (id !== undefined && !this.byId.has(id)) this.byId.set(id, node);
      node.children.forEach(index);
    };
    index(root);
  }

  draw(nodes: readonly SvgNode[], where: Affine, around: SvgPaint, clips: readonly Curves[], uses: number): void {
    for (const node of nodes) {
      if (SILENT.has(node.name)) continue;
      if (this.options.aids !== true && node.name === 'g' && SHEET_ROLES.has(node.attributes[ROLE_ATTRIBUTE] ?? '')) {
        this.drawing.note(say('boxes, weed lines and marks of a sheet'));
        continue;
      }
      const paint = paintOf(node, around, this.rules);
      const here = followedBy(svgTransform(node.attributes['transform']), where);
      const clipped = this.clipsOf(node, here, clips);
      if (node.name === 'use') this.drawUse(node, here, paint, clipped, uses);
      else if (HOLDERS.has(node.name)) this.draw(node.children, node.name === 'svg' ? followedBy(innerPage(node), here) : here, paint, clipped, uses);
      else if (node.name in NOT_DRAWN) this.drawing.note(NOT_DRAWN[node.name]);
      else this.drawShape(node, here, paint, clipped);
    }
  }

  private drawUse({ attributes }: SvgNode, where: Affine, paint: SvgPaint, clips: readonly Curves[], uses: number): void {
    const href = attributes['href'] ?? '';
    const target = href.startsWith('#') ? this.byId.get(href.slice(1)) : undefined;
    if (target === undefined) return this.drawing.note(say('references to what lies outside of the file or is not there'));
    if (uses >= MOST_USES) return this.drawing.note(say('shapes used in each other without end'));
    const moved = followedBy({ ...IDENTITY, e: lengthOf(attributes['x'], 0), f: lengthOf(attributes['y'], 0) }, where);
    this.draw(target.name === 'symbol' ? target.children : [target], moved, paint, clips, uses + 1);
  }

  private clipsOf({ attributes }: SvgNode, where: Affine, clips: readonly Curves[]): readonly Curves[] {
    const named = /url\(\s*["']?#([^"')]+)/.exec(attributes['clip-path'] ?? '')?.[1];
    const clip = named === undefined ? undefined : this.byId.get(named);
    if (clip === undefined) return clips;
    const builder = new CurvesBuilder();
    for (const shape of clip.children) {
      const data = shapePath(shape, percentOf);
      const curves = data === undefined ? undefined : curvesOfPath(data, followedBy(svgTransform(shape.attributes['transform']), followedBy(svgTransform(clip.attributes['transform']), where)), true);
      for (let ring = 0; curves !== undefined && ring < ringCount(curves); ring++) builder.copy(curves, ring, -1);
    }
    return [...clips, joinOverlaps(this.library, nestRings(builder.build()))];
  }

  private drawShape(node: SvgNode, where: Affine, paint: SvgPaint, clips: readonly Curves[]): void {
    const data = shapePath(node, percentOf);
    if (data === undefined || !paint.isShown) return;
    if (++this.shapes > MOST_SHAPES) throw new AppError('tooIntricate', { count: this.shapes, limit: MOST_SHAPES });
    const { fill, stroke, strokeWidth, evenOdd } = paint;
    const filled = fill === undefined ? undefined : curvesOfPath(data, where, true);
    if (fill !== undefined && filled === undefined) return this.drawing.note(say('paths that are not written as paths are'));
    if (fill !== undefined && filled !== undefined && ringCount(filled) > 0) this.drawing.add(fill, this.within(evenOdd ? nestRings(filled) : joinOverlaps(this.library, filled), clips));
    if (stroke === undefined || !(strokeWidth > 0)) return;
    const line = curvesOfPath(data, where, false);
    if (line !== undefined && ringCount(line) > 0) this.drawStroke(line, { ...paint, stroke, strokeWidth: strokeWidth * Math.sqrt(Math.abs(where.a * where.d - where.b * where.c)) }, clips);
  }

  /** @param paint with the stroke's width in mm. */
  private drawStroke(line: Curves, { fill, stroke, strokeWidth: widthMm, strokeCorners, strokeEnds }: SvgPaint & { readonly stroke: string }, clips: readonly Curves[]): void {
    const use = this.options.strokes ?? (widthMm <= HAIRLINE_MM ? 'line' : 'outline');
    if (use === 'drop') return this.drawing.note(say('strokes that were left out'));
    if (use === 'outline') return this.drawing.add(stroke, this.within(strokeCurves(this.library, line, widthMm / 2, strokeCorners, strokeEnds), clips));
    // The line around a filled shape is the shape's own outline.
    if (fill !== undefined) return;
    const closed = new CurvesBuilder();
    const open = new CurvesBuilder();
    for (let ring = 0; ring < ringCount(line); ring++) (isOpenRing(line, ring) ? open : closed).copy(line, ring, -1);
    const whole = this.within(nestRings(closed.build()), clips);
    if (ringCount(whole) > 0) this.lineOf(stroke, whole);
    const loose = open.build();
    if (ringCount(loose) > 0) this.drawing.addOpen(stroke, loose);
  }

  /** Lines around the same film: which of them is an opening in another shows when all are known. */
  private lineOf(colour: string, curves: Curves): void {
    this.drawing.reserve(colour);
    const known = this.lines.get(colour) ?? new CurvesBuilder();
    for (let ring = 0; ring < ringCount(curves); ring++) known.copy(curves, ring, -1);
    this.lines.set(colour, known);
  }

  /** Ends a drawing: lines of one colour lie in each other as they do, whatever paths they were written as. */
  finish(): void {
    for (const [colour, builder] of this.lines) this.drawing.add(colour, nestRings(builder.build()));
  }

  private within(curves: Curves, clips: readonly Curves[]): Curves {
    return clips.reduce((left, clip) => (nodeCount(left) === 0 ? left : combineCurves(this.library, 'common', left, clip)), curves);
  }
}

/** Per cent are of nothing that an outline is measured by: they count as 0. */
const percentOf = (text: string | undefined): number => lengthOf(text, 0);

interface Page {
  readonly widthMm: number;
  readonly heightMm: number;
  /** From user units to mm of the page. */
  readonly where: Affine;
}

/** The page of a drawing: width and height as they are given, else as the view box says; the view box in its middle. */
function pageOf({ attributes }: SvgNode): Page {
  const box = viewBoxOf(attributes['viewBox']);
  const percent = (text: string | undefined): boolean => text === undefined || text.trim().endsWith('%') || text.trim() === 'auto';
  const side = (text: string | undefined, ofBox: number | undefined, other: number | undefined, otherOfBox: number | undefined): number => {
    if (!percent(text)) return lengthOf(text, 0);
    if (other !== undefined && ofBox !== undefined && otherOfBox !== undefined) return (other * ofBox) / otherOfBox;
    return ofBox ?? 300;
  };
  const given = (text: string | undefined): number | undefined => (percent(text) ? undefined : lengthOf(text, 0));
  const width = side(attributes['width'], box?.width, given(attributes['height']), box?.height);
  const height = side(attributes['height'], box?.height, given(attributes['width']), box?.width);
  const px = MM[''];
  const fit = box === undefined ? IDENTITY : fitted(box, width, height, attributes['preserveAspectRatio']);
  return { widthMm: width * px, heightMm: height * px, where: followedBy(fit, { a: px, b: 0, c: 0, d: px, e: 0, f: 0 }) };
}

function innerPage({ attributes }: SvgNode): Affine {
  const box = viewBoxOf(attributes['viewBox']);
  const at = { ...IDENTITY, e: lengthOf(attributes['x'], 0), f: lengthOf(attributes['y'], 0) };
  const [width, height] = [lengthOf(attributes['width'], box?.width ?? 0), lengthOf(attributes['height'], box?.height ?? 0)];
  return box === undefined ? at : followedBy(fitted(box, width, height, attributes['preserveAspectRatio']), at);
}

interface ViewBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

function viewBoxOf(text: string | undefined): ViewBox | undefined {
  const values = (text ?? '').trim().split(/[\s,]+/).map(Number);
  if (values.length !== 4 || !values.every(Number.isFinite)) return undefined;
  const [x, y, width, height] = values;
  return width > 0 && height > 0 ? { x, y, width, height } : undefined;
}

/** A view box put into a page (SVG 1.1, 7.8): as large as fits and in the middle, stretched for `none`. */
function fitted(box: ViewBox, width: number, height: number, aspect: string | undefined): Affine {
  const [sx, sy] = [width / box.width, height / box.height];
  if (aspect?.trim().startsWith('none') === true) return { a: sx, b: 0, c: 0, d: sy, e: -box.x * sx, f: -box.y * sy };
  const scale = aspect?.includes('slice') === true ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (axis: 'X' | 'Y'): number => (new RegExp(`${axis}Min`, 'i').test(aspect ?? '') ? 0 : new RegExp(`${axis}Max`, 'i').test(aspect ?? '') ? 1 : 0.5);
  return { a: scale, b: 0, c: 0, d: scale, e: (width - box.width * scale) * share('X') - box.x * scale, f: (height - box.height * scale) * share('Y') - box.y * scale };
}
