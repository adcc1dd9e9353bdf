import type { MaterialLook } from '../process/material.ts';

/** Grains of glitter and of flock, mm across. */
const GLITTER_MM = 0.7;
const FLOCK_MM = 0.35;
/** So much of glitter's grains face the light. */
const SPARKLING = 0.07;
/** Bands of light on gloss and on metal are so far apart, mm, aslant as a window to the left throws them. */
const GLOSS_BAND_MM = 140;
const METAL_BAND_MM = 55;
/** How metal is brushed: fine lines across, mm. */
const BRUSHED_MM = 0.3;

/**
 * How much lighter, above 0 to 1, or darker, below 0 to −1, a film is at a place than its own colour: the same everywhere for matte film, grains and bands for others. Plain arithmetic, the same each time.
 * @param x @param y mm. @param pxMm size of a pixel, mm: grains that are finer are seen as large as it.
 */
export function shineAt(look: MaterialLook, x: number, y: number, pxMm: number): number {
  switch (look) {
    case 'matte':
      return 0;
    case 'gloss':
      return 0.16 * band(x, y, GLOSS_BAND_MM, 5);
    case 'metal':
      return 0.42 * band(x, y, METAL_BAND_MM, 2) - 0.2 + 0.06 * grain(0, y, BRUSHED_MM, pxMm);
    case 'flock':
      return -0.04 + 0.09 * grain(x, y, FLOCK_MM, pxMm);
    case 'glitter': {
      const cell = Math.max(GLITTER_MM, pxMm);
      const own = hash(Math.floor(x / cell), Math.floor(y / cell));
      return own > 1 - SPARKLING ? 0.75 : 0.44 * own - 0.24;
    }
  }
}

/** A band of light, 0 to 1; the higher the power the narrower. */
const band = (x: number, y: number, apartMm: number, power: number): number => (0.5 + 0.5 * Math.cos((2 * Math.PI * (x + 0.6 * y)) / apartMm)) ** power;

/** −1 to 1. */
function grain(x: number, y: number, sizeMm: number, pxMm: number): number {
  const cell = Math.max(sizeMm, pxMm);
  return 2 * hash(Math.floor(x / cell), Math.floor(y / cell)) - 1;
}

/** A number from 0 to below 1 that two whole numbers are scattered to (mixing as in the finaliser of MurmurHash3, A. Appleby, public domain). */
function hash(x: number, y: number): number {
  let h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32;
}
