import { z } from 'zod';
import { say } from '../words/say.ts';

export const processSchema = z.enum(['htv', 'decal', 'stencil', 'waterslide', 'panel']);
export type Process = z.infer<typeof processSchema>;

export interface ProcessRules {
  readonly name: string;
  readonly about: string;
  /** How its sheets lie in the machine, in words. */
  readonly lies: string;
  /** Whether its sheets are cut from the back and so read backwards. */
  readonly mirrored: boolean;
  /** Whether its art is printed in full colour rather than cut of films. */
  readonly isPrinted: boolean;
  /** Whether the art itself is what falls out, so that waste and design change places. */
  readonly artIsOpening: boolean;
  /** Smallest piece that can be handled, mm². */
  readonly leastPieceMm2: number;
  /** Thinnest strip that can be weeded, mm. */
  readonly leastStripMm: number;
  /** Narrowest gap between film that can be weeded, or opening of a stencil that paint goes through, mm. */
  readonly leastGapMm: number;
  /** Tips of film that are more pointed lift with the knife, degrees. */
  readonly leastTipDeg: number;
}

export const PROCESSES: { readonly [P in Process]: ProcessRules } = {
  htv: {
    name: say('Heat-transfer vinyl'),
    about: say('coloured film cut from the back, weeded, pressed on cloth'),
    lies: say('cut from the back'),
    mirrored: true,
    isPrinted: false,
    artIsOpening: false,
    leastPieceMm2: 1.5,
    leastStripMm: 0.8,
    leastGapMm: 0.4,
    leastTipDeg: 12,
  },
  decal: {
    name: say('Adhesive vinyl'),
    about: say('coloured film cut from the front, carried over with transfer tape'),
    lies: say('cut from the front'),
    mirrored: false,
    isPrinted: false,
    artIsOpening: false,
    leastPieceMm2: 2,
    leastStripMm: 0.8,
    leastGapMm: 0.4,
    leastTipDeg: 12,
  },
  stencil: {
    name: say('Stencil'),
    about: say('film with the art cut out of it; paint, powder or etching goes through'),
    lies: say('cut as it reads'),
    mirrored: false,
    isPrinted: false,
    artIsOpening: true,
    leastPieceMm2: 2,
    leastStripMm: 1,
    leastGapMm: 0.5,
    leastTipDeg: 0,
  },
  waterslide: {
    name: say('Waterslide'),
    about: say('printed on decal paper, sealed, cut out, slid on'),
    lies: say('printed face up'),
    mirrored: false,
    isPrinted: true,
    artIsOpening: false,
    leastPieceMm2: 0,
    leastStripMm: 0.3,
    leastGapMm: 0,
    leastTipDeg: 0,
  },
  panel: {
    name: say('Layered panel'),
    about: say('sheets of card, cloth or acrylic stacked on each other'),
    lies: say('cut as it reads'),
    mirrored: false,
    isPrinted: false,
    artIsOpening: false,
    leastPieceMm2: 9,
    leastStripMm: 2,
    leastGapMm: 1,
    leastTipDeg: 0,
  },
};
