import type { Rgb } from './oklab.ts';

/** `#rrggbb` in lower case; channels are rounded and kept within 0 to 255. */
export function hexFromRgb({ r, g, b }: Rgb): string {
  const part = (v: number): string =>
    Math.max(0, Math.min(255, Math.round(v)))
      .toString(16)
      .padStart(2, '0');
  return `#${part(r)}${part(g)}${part(b)}`;
}

/** Reads `#rrggbb`; undefined for anything else. */
export function rgbFromHex(text: string): Rgb | undefined {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(text);
  if (match === null) return undefined;
  return { r: parseInt(match[1], 16), g: parseInt(match[2], 16), b: parseInt(match[3], 16) };
}

/** How far two colours are apart, levels of the channel that differs most. */
export const levelsApart = (a: Rgb, b: Rgb): number => Math.max(Math.abs(a.r - b.r), Math.abs(a.g - b.g), Math.abs(a.b - b.b));

/** Rec. 709 luma of sRGB channels, 0 to 255: what the eye sees as light or dark on screen. */
export const lumaOf = ({ r, g, b }: Rgb): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;
