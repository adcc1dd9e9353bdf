import { lightnessOf, writeOklab, type Rgb } from './oklab.ts';
import { say } from '../words/say.ts';

/** Less chroma than this (OKLab × 100) is a grey. */
const GREY = 3.5;

/** Hues of OKLab, degrees, up to which each name holds. */
const HUES: readonly (readonly [number, string])[] = [
  [12, 'pink'],
  [42, 'red'],
  [72, 'orange'],
  [112, 'yellow'],
  [165, 'green'],
  [222, 'turquoise'],
  [282, 'blue'],
  [325, 'violet'],
  [360, 'pink'],
];

/** Lightness (OKLab × 100) below which a colour is called dark: of green and turquoise, which one thinks of as light, earlier than of others. */
const DARK_ANY = 38;
const DARK: Readonly<Record<string, number>> = { green: 46, turquoise: 46 };

const WORDS: Readonly<Record<string, string>> = {
  ...{ pink: say('pink'), red: say('red'), orange: say('orange'), yellow: say('yellow'), green: say('green'), turquoise: say('turquoise'), blue: say('blue'), violet: say('violet') },
  ...{ black: say('black'), white: say('white'), grey: say('grey'), brown: say('brown'), sand: say('sand') },
};

/** A name as it is said. */
function said(name: string): string {
  const [hue, lightness] = name.split(' ').reverse();
  return lightness === undefined ? WORDS[hue] : lightness === 'dark' ? say`dark ${WORDS[hue]}` : say`light ${WORDS[hue]}`;
}

/** A plain word for a colour, such as “dark blue”, as it would stand on a roll of film. */
export const colourName = (colour: Rgb): string => said(nameOf(colour));

function nameOf({ r, g, b }: Rgb): string {
  const lab = new Float64Array(3);
  writeOklab(Math.round(r), Math.round(g), Math.round(b), lab);
  const [light, x, y] = lab;
  if (Math.hypot(x, y) < GREY) return light < 28 ? 'black' : light > 94 ? 'white' : light < 52 ? 'dark grey' : light > 78 ? 'light grey' : 'grey';
  const hue = ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360;
  const name = HUES.find(([to]) => hue <= to)?.[1] ?? 'pink';
  // Dark orange and dark yellow are what one calls brown.
  if ((name === 'orange' || name === 'yellow') && light < 62) return light < 42 ? 'dark brown' : 'brown';
  if (name === 'red' && light > 68) return 'pink';
  if (name === 'yellow' && Math.hypot(x, y) < 9 && light > 78) return 'sand';
  return light < (DARK[name] ?? DARK_ANY) ? `dark ${name}` : light > 80 && name !== 'yellow' ? `light ${name}` : name;
}

/** Of colours of one name, one that differs from the rest by this much lightness (OKLab × 100) is told apart as the light or the dark one. */
const LIGHTER = 8;
/** Names that say nothing of how light a colour is. */
const ANY_LIGHTNESS = new Set([...HUES.map(([, name]) => name), 'brown']);

/** Names for several colours: where two would be the same, the light and the dark one are called so, and what is still the same is numbered. */
export function colourNames(colours: readonly Rgb[]): string[] {
  const counts = new Map<string, number>();
  return toldByLightness(colours).map(said).map((name) => {
    const count = (counts.get(name) ?? 0) + 1;
    counts.set(name, count);
    const capital = name[0].toUpperCase() + name.slice(1);
    return count === 1 ? capital : `${capital} ${count}`;
  });
}

function toldByLightness(colours: readonly Rgb[]): string[] {
  const plain = colours.map(nameOf);
  const lights = colours.map(lightnessOf);
  return plain.map((name, k) => {
    const others = lights.filter((_, j) => j !== k && plain[j] === name);
    if (others.length === 0 || !ANY_LIGHTNESS.has(name)) return name;
    if (lights[k] - Math.max(...others) >= LIGHTER && !plain.includes(`light ${name}`)) return `light ${name}`;
    return others.length > 1 && Math.min(...others) - lights[k] >= LIGHTER && !plain.includes(`dark ${name}`) ? `dark ${name}` : name;
  });
}
