import { CurvesBuilder, type Curves } from '../outline/curves.ts';

/** A basic shape by its measures, mm; its box's upper left at 0, 0. */
export type FigureShape =
  | { readonly form: 'rectangle'; readonly widthMm: number; readonly heightMm: number; readonly cornerMm?: number | undefined }
  | { readonly form: 'round'; readonly widthMm: number; readonly heightMm: number };

/** Arcs that a full round is drawn with: cubics of an eighth turn lie within 4·10⁻⁶ of the radius. */
const ARCS = 8;

/** The outline of a basic shape, mm, clockwise on screen. Corners of a rectangle are no larger than half its shorter side. */
export function figureCurves(shape: FigureShape): Curves {
  const { widthMm, heightMm } = shape;
  const builder = new CurvesBuilder();
  if (shape.form === 'round') {
    builder.start(widthMm, heightMm / 2, -1);
    arcs(builder, widthMm / 2, heightMm / 2, widthMm / 2, heightMm / 2, 0, ARCS);
  } else {
    const corner = Math.min(shape.cornerMm ?? 0, widthMm / 2, heightMm / 2);
    rectangle(builder, widthMm, heightMm, corner);
  }
  builder.close();
  return builder.build();
}

function rectangle(builder: CurvesBuilder, width: number, height: number, corner: number): void {
  builder.start(corner, 0, -1);
  const quarter = ARCS / 4;
  const corners: readonly (readonly [x: number, y: number])[] = [
    [width - corner, corner],
    [width - corner, height - corner],
    [corner, height - corner],
    [corner, corner],
  ];
  for (const [k, [cx, cy]] of corners.entries()) {
    const from = -Math.PI / 2 + (k * Math.PI) / 2;
    const [x, y] = [cx + corner * Math.round(Math.cos(from)), cy + corner * Math.round(Math.sin(from))];
    // The last side ends where the outline began, and its corner closes it.
    builder.line(x, y);
    if (corner > 0) arcs(builder, cx, cy, corner, corner, from, quarter);
  }
}

/** Eighths of a turn, clockwise on screen, from an angle on: each a cubic whose handles are 4/3·tan(φ/4) long (Riškus, 2006). */
function arcs(builder: CurvesBuilder, cx: number, cy: number, rx: number, ry: number, from: number, count: number): void {
  const step = (2 * Math.PI) / ARCS;
  const handle = (4 / 3) * Math.tan(step / 4);
  for (let k = 0; k < count; k++) {
    const [a, b] = [from + k * step, from + (k + 1) * step];
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    builder.cubic(
      cx + rx * (ca - handle * sa),
      cy + ry * (sa + handle * ca),
      cx + rx * (cb + handle * sb),
      cy + ry * (sb - handle * cb),
      cx + rx * cb,
      cy + ry * sb,
    );
  }
}
