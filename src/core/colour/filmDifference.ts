import { converter, differenceCiede2000, modeLab65, modeRgb, useMode } from 'culori/fn';
import type { Rgb } from './oklab.ts';

useMode(modeRgb);
useMode(modeLab65);
const lab = converter('lab65');
const difference = differenceCiede2000();

/**
 * How far two colours are apart for the eye, by CIEDE2000 (CIE 142-2001) under daylight D65: 1 is just seen between large areas side by side, over 10 they are
 * other colours. What the trade states its tolerances in.
 */
export function filmDifference(a: Rgb, b: Rgb): number {
  const culori = ({ r, g, b: blue }: Rgb) => lab({ mode: 'rgb', r: r / 255, g: g / 255, b: blue / 255 });
  return difference(culori(a), culori(b));
}
