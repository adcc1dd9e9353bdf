import { rgbFromHex, lumaOf } from '../core/colour/hex.ts';
import { colourDifference } from '../core/colour/oklab.ts';
import type { BackdropPaint } from './draw/hatch.ts';

/** Loud colours to choose from; one is taken that is far from every film. */
const LOUD = ['#ff2fa0', '#20e3b2', '#ffe600', '#7a3cff', '#ff6a00'];

/** The loud colour that is furthest from all the given ones. */
export function loudColour(films: readonly string[]): string {
  const used = films.flatMap((film) => rgbFromHex(film) ?? []);
  const distance = (colour: string): number => {
    const rgb = rgbFromHex(colour);
    return rgb === undefined ? 0 : Math.min(Infinity, ...used.map((other) => colourDifference(rgb, other)));
  };
  return LOUD.reduce((best, colour) => (distance(colour) > distance(best) ? colour : best));
}

/** How clear is drawn on a backdrop. */
export function backdropPaint(kind: 'hatch' | 'paper' | 'blank' | 'loud', blank: string, films: readonly string[], dark: boolean): BackdropPaint {
  if (kind === 'hatch') return dark ? { ground: '#2c2436', line: '#4b4157' } : { ground: '#fbf8f3', line: '#dccfbb' };
  const ground = kind === 'paper' ? '#ffffff' : kind === 'blank' ? blank : loudColour(films);
  const rgb = rgbFromHex(ground) ?? { r: 255, g: 255, b: 255 };
  return { ground, line: lumaOf(rgb) > 120 ? 'rgba(36, 27, 47, 0.16)' : 'rgba(255, 253, 248, 0.2)' };
}
