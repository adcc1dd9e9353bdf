/**
 * OKLab (Björn Ottosson, "A perceptual color space for image processing", 2020), scaled by 100 so that a difference of 1 is about the
 * smallest step that one sees between neighbouring flat areas. Input is sRGB, 8 bit.
 */
const LINEAR = new Float64Array(256);
for (let i = 0; i < 256; i++) {
  const v = i / 255;
  LINEAR[i] = v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
}

/** Cube roots of k/4096; between two entries a straight line is within 2·10⁻⁵ for values above 0.01. */
const ROOT_STEPS = 4096;
const ROOT = new Float64Array(ROOT_STEPS + 2);
for (let i = 0; i < ROOT.length; i++) ROOT[i] = Math.cbrt(i / ROOT_STEPS);

function root(value: number): number {
  if (value < 0.01) return Math.cbrt(value);
  const at = value * ROOT_STEPS;
  const i = at | 0;
  return ROOT[i] + (ROOT[i + 1] - ROOT[i]) * (at - i);
}

/** Writes L, a, b (L 0 to 100) of an sRGB colour (0 to 255 each) to out[at], out[at+1], out[at+2]. */
export function writeOklab(r: number, g: number, b: number, out: Float64Array, at = 0): void {
  const lr = LINEAR[r];
  const lg = LINEAR[g];
  const lb = LINEAR[b];
  const l = root(0.4122214708 * lr + 0.5363325363 * lg + 0.0514459929 * lb);
  const m = root(0.2119034982 * lr + 0.6806995451 * lg + 0.1073969566 * lb);
  const s = root(0.0883024619 * lr + 0.2817188376 * lg + 0.6299787005 * lb);
  out[at] = 100 * (0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s);
  out[at + 1] = 100 * (1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s);
  out[at + 2] = 100 * (0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s);
}

export interface Rgb {
  readonly r: number;
  readonly g: number;
  readonly b: number;
}

/** Perceptual difference of two sRGB colours, whole channels of 0 to 255: Euclidean in OKLab × 100. 0 is equal, black to white is 100. */
export function colourDifference(a: Rgb, b: Rgb): number {
  const lab = new Float64Array(6);
  writeOklab(a.r, a.g, a.b, lab, 0);
  writeOklab(b.r, b.g, b.b, lab, 3);
  return Math.hypot(lab[0] - lab[3], lab[1] - lab[4], lab[2] - lab[5]);
}

/**
 * By how much the tint of a colour differs from that of another one in more or less light, units of `colourDifference`: in OKLab less light brings a colour nearer
 * to black along a straight line.
 */
export function tintDifference(colour: Rgb, lit: Rgb): number {
  const lab = new Float64Array(6);
  writeOklab(colour.r, colour.g, colour.b, lab, 0);
  writeOklab(lit.r, lit.g, lit.b, lab, 3);
  const light = lab[3] === 0 ? 0 : lab[0] / lab[3];
  return Math.hypot(lab[1] - light * lab[4], lab[2] - light * lab[5]);
}

/** The inverse of `writeOklab`, clipped to what sRGB has. */
export function rgbFromOklab(l: number, a: number, b: number): Rgb {
  const long = ((l + 0.3963377774 * a + 0.2158037573 * b) / 100) ** 3;
  const middle = ((l - 0.1055613458 * a - 0.0638541728 * b) / 100) ** 3;
  const short = ((l - 0.0894841775 * a - 1.291485548 * b) / 100) ** 3;
  return {
    r: byteFromLinear(4.0767416621 * long - 3.3077115913 * middle + 0.2309699292 * short),
    g: byteFromLinear(-1.2684380046 * long + 2.6097574011 * middle - 0.3413193965 * short),
    b: byteFromLinear(-0.0041960863 * long - 0.7034186147 * middle + 1.707614701 * short),
  };
}

function byteFromLinear(value: number): number {
  const v = Math.max(0, Math.min(1, value));
  return Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055));
}

/** Lightness of a colour, 0 to 100. */
export function lightnessOf({ r, g, b }: Rgb): number {
  const lab = new Float64Array(3);
  writeOklab(Math.round(r), Math.round(g), Math.round(b), lab);
  return lab[0];
}
