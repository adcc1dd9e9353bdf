import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { radiiOf, type Blank } from '../process/blanks.ts';

/** How a blank is drawn around its printable area, mm from the area's upper left. */
export interface BlankShape {
  /** Filled in the blank's colour. */
  readonly body: Curves;
  /** Seams, hems, rims: thin lines over it. */
  readonly lines: readonly Polyline[];
  /** The box around all of it. */
  readonly box: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
  /** Radii of what is round to look at, about its upright middle line, at the area's upper and lower edge; flat when absent. */
  readonly radii?: { readonly upperMm: number; readonly lowerMm: number };
}

export type Polyline = readonly (readonly [number, number])[];

export function blankShape(blank: Pick<Blank, 'form' | 'round' | 'widthMm' | 'heightMm' | 'aroundMm' | 'aroundBelowMm' | 'belowCollarMm'>): BlankShape {
  const { form, round, widthMm: w, heightMm: h } = blank;
  const radii = radiiOf(blank);
  if (form === 'shirt') return shirt(w, blank.belowCollarMm);
  if (form === 'tote') return tote(w, h);
  if (radii !== undefined) return roundBlank(form === 'mug', w, h, radii);
  if (round === true) return boxed(path(ellipse(w / 2, h / 2, w / 2 + 6, h / 2 + 6)), [], 6, w, h);
  const [edge, corner] = form === 'soap' ? [6, 12] : [10, 2];
  return boxed(path(rounded(-edge, -edge, w + 2 * edge, h + 2 * edge, corner)), [], edge, w, h);
}

const path = (data: string): Curves => curvesFromPathData(data);
const boxed = (body: Curves, lines: readonly Polyline[], edge: number, w: number, h: number): BlankShape => ({ body, lines, box: { left: -edge, top: -edge, right: w + edge, bottom: h + edge } });

/** The collar's seam in its middle, where nothing else is known of it, in widths of the print above its area. */
const COLLAR = 0.19;

/** Measures by the chest print's width, as shirts are cut: body 1.76, length 2.35 of it, neck 0.56; its collar so far above the area as is measured. */
function shirt(w: number, belowCollarMm = COLLAR * w): BlankShape {
  const up = belowCollarMm - COLLAR * w;
  const at = (x: number, y: number): string => `${w / 2 + x * w} ${y * w - up}`;
  const body = path(
    `M${at(-0.28, -0.33)}C${at(-0.2, -0.2)} ${at(0.2, -0.2)} ${at(0.28, -0.33)}L${at(0.62, -0.24)}C${at(0.8, -0.18)} ${at(0.9, -0.05)} ${at(1.3, 0.52)}L${at(0.98, 0.72)}L${at(0.86, 0.5)}` +
      `C${at(0.85, 0.9)} ${at(0.86, 1.5)} ${at(0.88, 1.95)}C${at(0.4, 2.02)} ${at(-0.4, 2.02)} ${at(-0.88, 1.95)}C${at(-0.86, 1.5)} ${at(-0.85, 0.9)} ${at(-0.86, 0.5)}L${at(-0.98, 0.72)}L${at(-1.3, 0.52)}` +
      `C${at(-0.9, -0.05)} ${at(-0.8, -0.18)} ${at(-0.62, -0.24)}L${at(-0.28, -0.33)}Z`,
  );
  const point = (x: number, y: number): readonly [number, number] => [w / 2 + x * w, y * w - up];
  const collar = Array.from({ length: 21 }, (_, k) => {
    const t = k / 10 - 1;
    return point(0.31 * t, -COLLAR - 0.13 * t * t);
  });
  const seam = (sign: number): Polyline => [point(sign * 0.62, -0.24), point(sign * 0.76, 0.05), point(sign * 0.86, 0.5)];
  const cuff = (sign: number): Polyline => [point(sign * 1.25, 0.45), point(sign * 0.94, 0.65)];
  const hem: Polyline = Array.from({ length: 21 }, (_, k) => point(0.88 * (k / 10 - 1), 1.9 + 0.05 * (1 - (k / 10 - 1) ** 2)));
  return { body, lines: [collar, seam(1), seam(-1), cuff(1), cuff(-1), hem], box: { left: w / 2 - 1.32 * w, top: -0.36 * w - up, right: w / 2 + 1.32 * w, bottom: 2.04 * w - up } };
}

function tote(w: number, h: number): BlankShape {
  const [edge, top, grip] = [0.2 * w, 0.14 * h, 0.45 * h];
  const handle = (x: number): string => `M${x - 0.22 * w} ${-top}C${x - 0.22 * w} ${-top - grip} ${x + 0.22 * w} ${-top - grip} ${x + 0.22 * w} ${-top}L${x + 0.15 * w} ${-top}C${x + 0.15 * w} ${-top - 0.8 * grip} ${x - 0.15 * w} ${-top - 0.8 * grip} ${x - 0.15 * w} ${-top}Z`;
  const body = path(`${rounded(-edge, -top, w + 2 * edge, h + top + edge, 4)}${handle(w / 2)}`);
  return { body, lines: [[[-edge, -top + 0.06 * h], [w + edge, -top + 0.06 * h]]], box: { left: -edge, top: -top - grip, right: w + edge, bottom: h + edge } };
}

/** How far what is round reaches beyond its printable area, mm. */
export const BEYOND_MM = { above: 6, below: 8 } as const;

/** The radius of what is round so far below the upper edge of its printable area, mm. */
export const radiusAt = ({ upperMm, lowerMm }: NonNullable<BlankShape['radii']>, heightMm: number, yMm: number): number => Math.max(1, upperMm + ((lowerMm - upperMm) * yMm) / heightMm);

/** Seen from the front: what is wrapped around lies beside the middle by the sine of how far around it is. */
function roundBlank(hasHandle: boolean, w: number, h: number, radii: NonNullable<BlankShape['radii']>): BlankShape {
  const [top, bottom] = [-BEYOND_MM.above, h + BEYOND_MM.below];
  const [upper, lower] = [radiusAt(radii, h, top), radiusAt(radii, h, bottom)];
  const [left, right, leftBelow, rightBelow] = [w / 2 - upper, w / 2 + upper, w / 2 - lower, w / 2 + lower];
  const [dip, dipBelow] = [upper * 0.1, lower * 0.1];
  const cup = `M${left} ${top}C${left} ${top - dip} ${right} ${top - dip} ${right} ${top}L${rightBelow} ${bottom}C${rightBelow} ${bottom + dipBelow} ${leftBelow} ${bottom + dipBelow} ${leftBelow} ${bottom}Z`;
  const at = (y: number): number => w / 2 + radiusAt(radii, h, y) - 2;
  const [upperY, lowerY] = [h * 0.18, h - h * 0.18];
  const [hx, hx2] = [at(upperY), at(lowerY)];
  const ear = hasHandle ? `M${hx} ${upperY}C${hx + 34} ${upperY - 4} ${hx2 + 34} ${lowerY + 4} ${hx2} ${lowerY}L${hx2} ${lowerY - 10}C${hx2 + 21} ${lowerY - 8} ${hx + 21} ${upperY + 8} ${hx} ${upperY + 10}Z` : '';
  const rim = Array.from({ length: 41 }, (_, k): readonly [number, number] => [w / 2 - upper * Math.cos((Math.PI * k) / 40), top + dip * 0.75 * Math.sin((Math.PI * k) / 40)]);
  const widest = Math.max(upper, lower);
  return { body: path(cup + ear), lines: [rim], box: { left: w / 2 - widest - 4, top: top - dip - 4, right: w / 2 + widest + (hasHandle ? 28 : 4), bottom: bottom + dipBelow + 4 }, radii };
}

function rounded(x: number, y: number, w: number, h: number, r: number): string {
  const k = r * 0.4477;
  return `M${x + r} ${y}L${x + w - r} ${y}C${x + w - k} ${y} ${x + w} ${y + k} ${x + w} ${y + r}L${x + w} ${y + h - r}C${x + w} ${y + h - k} ${x + w - k} ${y + h} ${x + w - r} ${y + h}L${x + r} ${y + h}C${x + k} ${y + h} ${x} ${y + h - k} ${x} ${y + h - r}L${x} ${y + r}C${x} ${y + k} ${x + k} ${y} ${x + r} ${y}Z`;
}

function ellipse(cx: number, cy: number, rx: number, ry: number): string {
  const [kx, ky] = [0.5523 * rx, 0.5523 * ry];
  return `M${cx} ${cy - ry}C${cx + kx} ${cy - ry} ${cx + rx} ${cy - ky} ${cx + rx} ${cy}C${cx + rx} ${cy + ky} ${cx + kx} ${cy + ry} ${cx} ${cy + ry}C${cx - kx} ${cy + ry} ${cx - rx} ${cy + ky} ${cx - rx} ${cy}C${cx - rx} ${cy - ky} ${cx - kx} ${cy - ry} ${cx} ${cy - ry}Z`;
}

/** Lines as narrow outlines, to be filled. */
export function lineCurves(lines: readonly Polyline[], widthMm: number): Curves {
  const builder = new CurvesBuilder();
  for (const line of lines) {
    for (const [k, [x, y]] of line.slice(0, -1).entries()) {
      const [bx, by] = line[k + 1];
      const length = Math.hypot(bx - x, by - y);
      if (length === 0) continue;
      const [ox, oy] = [(-(by - y) / length) * (widthMm / 2), ((bx - x) / length) * (widthMm / 2)];
      builder.polygon([x - ox, y - oy, bx - ox, by - oy, bx + ox, by + oy, x + ox, y + oy]);
    }
  }
  return builder.build();
}
