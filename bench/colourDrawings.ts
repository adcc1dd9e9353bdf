import { blob, ellipse, leaf, lettering, polygon, randomFrom, roundedBar, star, wave } from './drawings.ts';

/** A drawing in flat colours: shapes painted over each other, the first one over the whole ground. */
export interface ColourDrawing {
  readonly name: string;
  readonly size: number;
  readonly ground: string;
  readonly shapes: readonly { readonly fill: string; readonly path: string }[];
}

const SIZE = 512;
const INK = '#1c1b22';
const RED = '#b3262e';
const BLUE = '#24509a';
const SKY = '#9cc9e6';
const SUN = '#f2b632';
const GREEN = '#3c7a4b';
const SAND = '#e3cfa4';
const GREY = '#8a8d92';
const PINK = '#dd8a9c';

/** What a regatta workshop gets sent in colour: areas with and without lines around them, thin strips, junctions of three and four tones. */
export function colourDrawings(): ColourDrawing[] {
  const made: ColourDrawing[] = [];
  const add = (name: string, ground: string, ...shapes: readonly (readonly [string, ...string[]])[]): void => void made.push({ name, size: SIZE, ground, shapes: shapes.map(([fill, ...paths]) => ({ fill, path: paths.join('') })) });
  const hull = 'M60 300L460 300C440 380 400 420 340 430L180 430C120 420 80 380 60 300Z';
  const sail = 'M250 60L250 280L90 280C150 220 210 150 250 60Z';
  const jib = 'M266 90L266 280L420 280C390 210 330 140 266 90Z';
  add('boat', '#ffffff', [RED, hull], [BLUE, sail], [SUN, jib]);
  add('boat with lines', '#ffffff', [INK, outlined(hull, 8), outlined(sail, 8), outlined(jib, 8)], [RED, hull], [SKY, sail], [SUN, jib]);
  add('sun over water', SKY, [SUN, ellipse(256.3, 250.6, 120, 120)], [BLUE, 'M0 300C90 270 170 330 256 300C340 270 430 330 512 300L512 512L0 512Z'], [GREEN, 'M0 420C120 380 210 450 330 410C400 390 460 400 512 380L512 512L0 512Z']);
  add('pennants', '#ffffff', ...Array.from({ length: 9 }, (_, k): [string, string] => [[RED, BLUE, SUN][k % 3], polygon([[40 + k * 48, 80 + 9 * k], [88 + k * 48, 89 + 9 * k], [62 + k * 48, 190 + 12 * k]])]), [INK, roundedBar(256, 118, 470, 5, 2, 10.6)]);
  add('target', '#ffffff', [RED, ellipse(256.4, 255.7, 220, 220)], ['#ffffff', ellipse(256.4, 255.7, 170, 170)], [BLUE, ellipse(256.4, 255.7, 120, 120)], [SUN, ellipse(256.4, 255.7, 62, 62)]);
  add('lettering', SAND, [BLUE, lettering('Regatta', 14.4, 210.3, 128)], [RED, lettering('row 46', 22.1, 400.2, 138)], [INK, wave(240, 12, 24, 8)]);
  const r = randomFrom(31);
  add('patches', '#ffffff', [BLUE, blob(r, 190, 200, 150, 8, 0.2)], [RED, blob(r, 330, 220, 130, 7, 0.25)], [SUN, blob(r, 250, 350, 120, 9, 0.2)]);
  add('duck', '#ffffff', [INK, outlined(DUCK_BODY, 9), outlined(DUCK_BEAK, 9)], [SUN, DUCK_BODY], [RED, DUCK_BEAK], ['#ffffff', ellipse(322, 150, 20, 20)], [INK, ellipse(327, 151, 10, 10)]);
  add('flags', '#ffffff', [RED, 'M40 60L240 60L240 200L40 200Z'], [BLUE, 'M40 105L240 105L240 155L40 155Z'], [GREEN, 'M280 60L346 60L346 200L280 200Z'], [SUN, 'M346 60L412 60L412 200L346 200Z'], [PINK, 'M412 60L478 60L478 200L412 200Z'], [INK, 'M60 250L250 330L60 410Z'], [GREY, 'M60 250L250 330L300 250Z'], [SKY, 'M300 300L480 300L480 460L300 460Z'], [SUN, star(390, 380, 70, 30, 5, -1.57)]);
  add('landing stage', SKY, [GREEN, 'M0 180C130 120 240 200 360 150C420 130 470 150 512 140L512 300L0 300Z'], [BLUE, 'M0 260L512 240L512 512L0 512Z'], [SAND, 'M90 300L430 280L470 360L50 390Z'], [INK, roundedBar(120, 380, 18, 170, 3, 2), roundedBar(400, 360, 18, 170, 3, -3)], [RED, leaf(180, 240, 300, 230, 0.8)], ['#ffffff', wave(440, 9, 18, 9)]);
  add('leaves and rings', '#ffffff', ...Array.from({ length: 6 }, (_, k): [string, string] => [[GREEN, SUN, RED, BLUE, SKY, PINK][k], leaf(70 + k * 70, 40 + 10 * k, 120 + k * 62, 470 - 12 * k, 1.2 + 0.2 * k)]), [INK, ring(256, 256, 190, 182), ring(256, 256, 90, 78)]);
  add('shaded buoy', '#ffffff', [GREY, ellipse(256, 400, 190, 60, -4)], [RED, 'M180 390L220 150L292 150L332 390Z'], [PINK, 'M220 150L244 150L232 390L180 390Z'], [SUN, ellipse(256, 110, 52, 46)], [SAND, ellipse(240, 96, 24, 18, 20)], [INK, roundedBar(256, 270, 132, 30, 4, 0)]);
  return made;
}

const DUCK_BODY = 'M110 330C90 250 150 230 220 250C230 190 240 90 320 96C390 102 400 180 360 220C420 250 440 330 380 390C320 440 150 430 110 330Z';
const DUCK_BEAK = 'M385 140L462 158L388 192Z';

const ring = (x: number, y: number, outer: number, inner: number): string => `${ellipse(x, y, outer, outer)}${ellipse(x, y, inner, inner)}`;

/** Marks a path to be painted with a line of a width around it as well. */
export function outlined(path: string, width: number): string {
  return `${STROKE}${width};${path}`;
}
const STROKE = '\u0001';

/** The drawing as SVG. Its edges are crisp for the truth, soft for what customers send. */
export function colourSvgOf({ size, ground, shapes }: ColourDrawing, pixels: number, crisp: boolean): string {
  const body = shapes.map(({ fill, path }) => partsOf(path).map(({ d, width }) => `<path d="${d}" fill="${fill}" fill-rule="evenodd"${width === 0 ? '' : ` stroke="${fill}" stroke-width="${width}" stroke-linejoin="round"`}/>`).join('')).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels}" height="${pixels}" viewBox="0 0 ${size} ${size}"${crisp ? ' shape-rendering="crispEdges"' : ''}><rect width="${size}" height="${size}" fill="${ground}"/>${body}</svg>`;
}

function partsOf(path: string): { d: string; width: number }[] {
  if (!path.startsWith(STROKE)) return [{ d: path, width: 0 }];
  return path.split(STROKE).slice(1).map((part) => {
    const cut = part.indexOf(';');
    return { d: part.slice(cut + 1), width: Number(part.slice(0, cut)) };
  });
}

/** The tones that are seen, ground first. */
export const tonesOf = ({ ground, shapes }: ColourDrawing): string[] => [...new Set([ground, ...shapes.map(({ fill }) => fill)])];
