import { roundCorners } from '../combine/roundCorners.ts';
import { translation, followedBy, type Affine } from '../geometry/affine.ts';
import { boundsOf, CurvesBuilder, type Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { Figure } from './figure.ts';

/** Arcs that a full round is drawn with: cubics of an eighth turn lie within 4·10⁻⁶ of the radius. */
const ARCS = 8;

type Sized<Form extends Figure['form']> = Extract<Figure, { form: Form }>;

/** The outline of a basic shape, mm, clockwise on screen. Corners are no rounder, bands no broader than there is room for. */
export function figureCurves(figure: Figure): Curves {
  const { widthMm, heightMm } = figure;
  switch (figure.form) {
    case 'rectangle':
      return drawn((builder) => rectangle(builder, widthMm, heightMm, Math.min(figure.cornerMm ?? 0, widthMm / 2, heightMm / 2)));
    case 'round':
      return drawn((builder) => oval(builder, widthMm / 2, heightMm / 2, widthMm / 2, heightMm / 2));
    case 'ring':
      return ringCurves(figure);
    case 'bar':
      return barCurves(figure);
    case 'polygon':
      return roundCorners(inBox(polygon(figure.corners, 1, figure.corners % 2 === 0 ? 0.5 : 0), widthMm, heightMm), { radiusMm: figure.cornerMm ?? 0, manner: 'round', leastTurnRad: 0.05 });
    case 'star':
      return roundCorners(inBox(polygon(2 * figure.corners, 1 - figure.depth, 0), widthMm, heightMm), { radiusMm: figure.cornerMm ?? 0, manner: 'round', leastTurnRad: 0.05 });
    case 'arc':
      return arcCurves(figure);
    case 'wave':
      return waveCurves(figure);
    case 'ribbon':
      return ribbonCurves(figure);
    case 'shield':
      return inBox(drawn(shield), widthMm, heightMm);
    case 'speech':
      return speechCurves(figure);
    case 'heart':
      return inBox(drawn(heart), widthMm, heightMm);
    case 'drop':
      return inBox(drawn(drop), widthMm, heightMm);
  }
}

function drawn(draw: (builder: CurvesBuilder) => void): Curves {
  const builder = new CurvesBuilder();
  draw(builder);
  return builder.build();
}

/** Stretched so that its box is the given one. */
function inBox(curves: Curves, widthMm: number, heightMm: number): Curves {
  const box = boundsOf(curves);
  if (box === undefined) return curves;
  const stretch: Affine = { a: widthMm / (box.right - box.left), b: 0, c: 0, d: heightMm / (box.bottom - box.top), e: 0, f: 0 };
  return transformCurves(curves, followedBy(translation(-box.left, -box.top), stretch));
}

function oval(builder: CurvesBuilder, cx: number, cy: number, rx: number, ry: number): void {
  builder.start(cx + rx, cy, -1);
  arcs(builder, cx, cy, rx, ry, 0, 2 * Math.PI);
  builder.close();
}

function rectangle(builder: CurvesBuilder, width: number, height: number, corner: number): void {
  builder.start(corner, 0, -1);
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
    if (corner > 0) arcs(builder, cx, cy, corner, corner, from, Math.PI / 2);
  }
  builder.close();
}

function ringCurves({ widthMm, heightMm, bandMm }: Sized<'ring'>): Curves {
  const [rx, ry] = [widthMm / 2, heightMm / 2];
  const band = Math.min(bandMm, 0.95 * Math.min(rx, ry));
  return nestRings(
    drawn((builder) => {
      oval(builder, rx, ry, rx, ry);
      oval(builder, rx, ry, rx - band, ry - band);
    }),
  );
}

function barCurves({ widthMm, heightMm, ends }: Sized<'bar'>): Curves {
  const half = Math.min(widthMm, heightMm) / 2;
  if (ends !== 'pointed') return drawn((builder) => rectangle(builder, widthMm, heightMm, ends === 'round' ? half : 0));
  const isLying = widthMm >= heightMm;
  const points = isLying
    ? [half, 0, widthMm - half, 0, widthMm, heightMm / 2, widthMm - half, heightMm, half, heightMm, 0, heightMm / 2]
    : [widthMm / 2, 0, widthMm, half, widthMm, heightMm - half, widthMm / 2, heightMm, 0, heightMm - half, 0, half];
  return drawn((builder) => builder.polygon(points));
}

/** Corners on a circle, every second one at a share of its radius; the first on top, or beside it by a share of a step. */
function polygon(corners: number, inner: number, turned: number): Curves {
  const points = Array.from({ length: corners }, (_, k) => {
    const angle = -Math.PI / 2 + ((k + turned) * 2 * Math.PI) / corners;
    const radius = k % 2 === 1 ? inner : 1;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  });
  return drawn((builder) => builder.polygon(points.flat()));
}

function arcCurves({ widthMm, heightMm, bandMm, sweepDeg, ends }: Sized<'arc'>): Curves {
  const [rx, ry] = [widthMm / 2, heightMm / 2];
  const band = Math.min(bandMm, 0.95 * Math.min(rx, ry));
  const sweep = (sweepDeg * Math.PI) / 180;
  const [from, to] = [-Math.PI / 2 - sweep / 2, -Math.PI / 2 + sweep / 2];
  return drawn((builder) => {
    builder.start(rx + rx * Math.cos(from), ry + ry * Math.sin(from), -1);
    arcs(builder, rx, ry, rx, ry, from, sweep);
    end(builder, rx, ry, rx - band / 2, ry - band / 2, to, band / 2, ends === 'round', 0);
    builder.line(rx + (rx - band) * Math.cos(to), ry + (ry - band) * Math.sin(to));
    arcs(builder, rx, ry, rx - band, ry - band, to, -sweep);
    end(builder, rx, ry, rx - band / 2, ry - band / 2, from, band / 2, ends === 'round', Math.PI);
    builder.line(rx + rx * Math.cos(from), ry + ry * Math.sin(from));
    builder.close();
  });
}

/** A half round at the end of a band along a circle; the line that follows has no length then. */
function end(builder: CurvesBuilder, cx: number, cy: number, rx: number, ry: number, at: number, radius: number, isRound: boolean, way: number): void {
  if (isRound) arcs(builder, cx + rx * Math.cos(at), cy + ry * Math.sin(at), radius, radius, at + way, Math.PI);
}

function waveCurves({ widthMm, heightMm, bandMm, waves }: Sized<'wave'>): Curves {
  const band = Math.min(bandMm, 0.9 * heightMm);
  const [step, rise] = [widthMm / (2 * waves), heightMm - band];
  // Half waves of a cosine; a cubic with level ends a third of the way out lies within a hundredth of the rise of it.
  const half = (builder: CurvesBuilder, x: number, y: number, toX: number, toY: number): void => builder.cubic(x + (toX - x) * 0.3642, y, toX - (toX - x) * 0.3642, toY, toX, toY);
  const level = (k: number): number => (k % 2 === 0 ? rise : 0);
  return drawn((builder) => {
    builder.start(0, level(0), -1);
    for (let k = 0; k < 2 * waves; k++) half(builder, k * step, level(k), (k + 1) * step, level(k + 1));
    builder.line(widthMm, level(2 * waves) + band);
    for (let k = 2 * waves; k > 0; k--) half(builder, k * step, level(k) + band, (k - 1) * step, level(k - 1) + band);
    builder.line(0, level(0));
    builder.close();
  });
}

/** Share of a ribbon's height by which its tails hang lower, and of a tail's length that its notch is deep. */
const HANGS = 0.25;
const NOTCH = 0.4;
/** Between the band and its tails a slit shows the fold, a share of the height, or of the tail where that is less. */
const FOLD = 0.06;

function ribbonCurves({ widthMm: w, heightMm: h, tailMm }: Sized<'ribbon'>): Curves {
  const tail = Math.min(tailMm, w * 0.3);
  const [hang, slit] = [h * HANGS, Math.min(h, tail) * FOLD];
  const [top, bottom] = [hang, h];
  const bandBottom = h - hang;
  const behind = tail * 0.3;
  return nestRings(
    drawn((builder) => {
      builder.polygon([tail, 0, w - tail, 0, w - tail, bandBottom, tail, bandBottom]);
      for (const mirror of [(x: number) => x, (x: number) => w - x]) {
        builder.polygon(
          // From the fold under the band's end out to the notch and back.
          [tail - slit, top, 0, top, tail * NOTCH, (top + bottom) / 2, 0, bottom, tail + behind, bottom, tail + behind, bandBottom + slit, tail - slit, bandBottom + slit].map((value, k) => (k % 2 === 0 ? mirror(value) : value)),
        );
      }
    }),
  );
}

function speechCurves({ widthMm: w, heightMm: h, cornerMm, at, tailMm }: Sized<'speech'>): Curves {
  const tail = Math.min(tailMm, h * 0.6);
  const low = h - tail;
  const corner = Math.min(cornerMm ?? 0, low / 2, w / 3);
  const foot = Math.min(tail, (w - 2 * corner) / 2);
  const left = corner + Math.max(0, (w - 2 * corner - foot) * at);
  const points = [0, 0, w, 0, w, low, left + foot, low, left + foot * (at < 0.5 ? 0 : 1), h, left, low, 0, low];
  const sharp = drawn((builder) => builder.polygon(points));
  if (corner === 0) return sharp;
  // The corners of the field alone: those of the point stay sharp.
  return drawn((builder) => {
    builder.start(corner, 0, -1);
    builder.line(w - corner, 0);
    arcs(builder, w - corner, corner, corner, corner, -Math.PI / 2, Math.PI / 2);
    builder.line(w, low - corner);
    arcs(builder, w - corner, low - corner, corner, corner, 0, Math.PI / 2);
    for (const k of [6, 8, 10]) builder.line(points[k], points[k + 1]);
    builder.line(corner, low);
    arcs(builder, corner, low - corner, corner, corner, Math.PI / 2, Math.PI / 2);
    builder.line(0, corner);
    arcs(builder, corner, corner, corner, corner, Math.PI, Math.PI / 2);
    builder.close();
  });
}

function shield(builder: CurvesBuilder): void {
  builder.start(0, 0, -1);
  builder.line(10, 0);
  builder.line(10, 6);
  builder.cubic(10, 9, 7.6, 10.9, 5, 12);
  builder.cubic(2.4, 10.9, 0, 9, 0, 6);
  builder.line(0, 0);
  builder.close();
}

function heart(builder: CurvesBuilder): void {
  builder.start(5, 2.2, -1);
  builder.cubic(5.9, 0.4, 7.1, 0, 7.9, 0);
  builder.cubic(9.2, 0, 10, 1.1, 10, 2.5);
  builder.cubic(10, 5, 7.2, 6.6, 5, 9.2);
  builder.cubic(2.8, 6.6, 0, 5, 0, 2.5);
  builder.cubic(0, 1.1, 0.8, 0, 2.1, 0);
  builder.cubic(2.9, 0, 4.1, 0.4, 5, 2.2);
  builder.close();
}

function drop(builder: CurvesBuilder): void {
  const quarter = 3 * 0.5519150244935106;
  builder.start(5, 0, -1);
  builder.cubic(5.6, 2.4, 8, 4.4, 8, 7);
  builder.cubic(8, 7 + quarter, 5 + quarter, 10, 5, 10);
  builder.cubic(5 - quarter, 10, 2, 7 + quarter, 2, 7);
  builder.cubic(2, 4.4, 4.4, 2.4, 5, 0);
  builder.close();
}

/** An arc from an angle on, clockwise on screen above 0, by eighths of a turn at most: each a cubic whose handles are 4/3·tan(φ/4) long (Riškus, 2006). */
function arcs(builder: CurvesBuilder, cx: number, cy: number, rx: number, ry: number, from: number, sweep: number): void {
  const count = Math.max(1, Math.ceil((Math.abs(sweep) * ARCS) / (2 * Math.PI) - 1e-9));
  const step = sweep / count;
  const handle = (4 / 3) * Math.tan(step / 4);
  for (let k = 0; k < count; k++) {
    const [a, b] = [from + k * step, from + (k + 1) * step];
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    builder.cubic(cx + rx * (ca - handle * sa), cy + ry * (sa + handle * ca), cx + rx * (cb + handle * sb), cy + ry * (sb - handle * cb), cx + rx * cb, cy + ry * sb);
  }
}
