import { z } from 'zod';
import { PROCESSES, processSchema, type Process } from './processes.ts';
import { say, sayOf } from '../words/say.ts';

/** How a material looks when light falls on it. */
export const LOOKS = ['matte', 'gloss', 'glitter', 'flock', 'metal'] as const;
export type MaterialLook = (typeof LOOKS)[number];
export const LOOK_WORDS: Readonly<Record<MaterialLook, string>> = { matte: say('matte'), gloss: say('gloss'), glitter: say('glitter'), flock: say('flock'), metal: say('metal') };

export const MATERIAL_ID = z.string().min(1).max(60);

/** What will cut, weed and hold: smaller is told by the cut check. */
export const limitsSchema = z.strictObject({
  /** Thinnest strip, mm. */
  stripMm: z.number().min(0).max(50),
  /** Narrowest gap between film, or opening of a stencil, mm. */
  gapMm: z.number().min(0).max(50),
  /** Smallest piece, mm². */
  pieceMm2: z.number().min(0).max(10_000),
  /** Tips that are more pointed lift, degrees. */
  tipDeg: z.number().min(0).max(90),
});
export type MaterialLimits = z.infer<typeof limitsSchema>;

export const cutSettingsSchema = z.strictObject({
  tool: z.enum(['knife', 'pen']),
  /** Weight on the knife, gram-force. */
  forceG: z.number().min(0).max(10_000),
  speedMmS: z.number().min(1).max(3000),
  passes: z.number().int().min(1).max(10),
  /** From the middle of the holder to the tip of a knife that trails behind it, mm. */
  bladeOffsetMm: z.number().min(0).max(2),
  /** How far a closed line is cut on beyond where it began, mm. */
  overcutMm: z.number().min(0).max(10),
});
export type CutSettings = z.infer<typeof cutSettingsSchema>;
export const TOOL_WORDS: Readonly<Record<CutSettings['tool'], string>> = { knife: say('knife'), pen: say('pen') };

/** How it is pressed on cloth. */
export const pressSchema = z.strictObject({
  temperatureC: z.number().min(20).max(260),
  timeS: z.number().min(1).max(600),
  pressure: z.enum(['light', 'medium', 'firm']),
  peel: z.enum(['hot', 'warm', 'cold']),
});
export type PressSettings = z.infer<typeof pressSchema>;
export const PRESSURE_WORDS: Readonly<Record<PressSettings['pressure'], string>> = { light: sayOf('pressure', 'light'), medium: sayOf('pressure', 'medium'), firm: sayOf('pressure', 'firm') };
export const PEEL_WORDS: Readonly<Record<PressSettings['peel'], string>> = { hot: say('hot'), warm: say('warm'), cold: say('cold') };

/** What a printed sheet needs before it can be used. */
export const sealSchema = z.strictObject({
  ink: z.enum(['inkJet', 'laser']),
  /** Until the print may be touched, minutes. */
  dryMin: z.number().min(0).max(10_000),
  coats: z.number().int().min(0).max(20),
  /** After each coat, minutes. */
  coatMin: z.number().min(0).max(10_000),
  /** After the last coat until it may go into water, hours. */
  finalH: z.number().min(0).max(1000),
});
export type SealSettings = z.infer<typeof sealSchema>;

/** What films of several colours are made of: how wide it comes, what it takes to cut, weed and press it. */
export const materialSchema = z.strictObject({
  id: MATERIAL_ID,
  name: z.string().trim().min(1).max(120),
  process: processSchema,
  look: z.enum(LOOKS),
  widthMm: z.number().min(10).max(10_000),
  /** Of a sheet; it comes from a roll when absent. */
  lengthMm: z.number().min(10).max(20_000).optional(),
  thicknessMm: z.number().min(0.01).max(50),
  least: limitsSchema,
  /** For a square metre, in the shop's own money. */
  pricePerM2: z.number().min(0).max(100_000).optional(),
  cut: cutSettingsSchema,
  press: pressSchema.optional(),
  seal: sealSchema.optional(),
  /** Whether another film holds on top of it. */
  takesFilm: z.boolean(),
});
export type Material = z.infer<typeof materialSchema>;

/** The limits of a process, for what nothing else is known of. */
export function limitsOf(process: Process): MaterialLimits {
  const { leastStripMm, leastGapMm, leastPieceMm2, leastTipDeg } = PROCESSES[process];
  return { stripMm: leastStripMm, gapMm: leastGapMm, pieceMm2: leastPieceMm2, tipDeg: leastTipDeg };
}

const knife = (forceG: number, speedMmS: number, passes = 1): CutSettings => ({ tool: 'knife', forceG, speedMmS, passes, bladeOffsetMm: 0.25, overcutMm: 0.3 });
const press = (temperatureC: number, timeS: number, peel: PressSettings['peel']): PressSettings => ({ temperatureC, timeS, pressure: 'medium', peel });

/** What a workshop has before anyone wrote down its own: of each process the first is the usual one. Settings to start a test cut with. */
export const USUAL_MATERIALS: readonly Material[] = [
  { id: 'smooth-heat-film', name: say('Smooth heat-transfer film'), process: 'htv', look: 'matte', widthMm: 500, thicknessMm: 0.09, least: limitsOf('htv'), cut: knife(90, 300), press: press(155, 12, 'warm'), takesFilm: true },
  { id: 'stretch-heat-film', name: say('Stretch heat-transfer film'), process: 'htv', look: 'matte', widthMm: 500, thicknessMm: 0.06, least: limitsOf('htv'), cut: knife(75, 300), press: press(145, 10, 'hot'), takesFilm: true },
  { id: 'glitter-heat-film', name: say('Glitter heat-transfer film'), process: 'htv', look: 'glitter', widthMm: 500, thicknessMm: 0.28, least: { stripMm: 1.6, gapMm: 0.8, pieceMm2: 6, tipDeg: 18 }, cut: knife(180, 120), press: press(160, 15, 'warm'), takesFilm: false },
  { id: 'flock-heat-film', name: say('Flock heat-transfer film'), process: 'htv', look: 'flock', widthMm: 500, thicknessMm: 0.5, least: { stripMm: 2, gapMm: 1, pieceMm2: 9, tipDeg: 20 }, cut: knife(160, 150), press: press(160, 15, 'cold'), takesFilm: false },
  { id: 'foil-heat-film', name: say('Metal-look heat-transfer film'), process: 'htv', look: 'metal', widthMm: 500, thicknessMm: 0.1, least: { stripMm: 1.2, gapMm: 0.6, pieceMm2: 3, tipDeg: 15 }, cut: knife(100, 200), press: press(150, 12, 'cold'), takesFilm: false },
  { id: 'gloss-vinyl', name: say('Gloss adhesive vinyl'), process: 'decal', look: 'gloss', widthMm: 610, thicknessMm: 0.07, least: limitsOf('decal'), cut: knife(80, 350), takesFilm: true },
  { id: 'matte-vinyl', name: say('Matte adhesive vinyl'), process: 'decal', look: 'matte', widthMm: 610, thicknessMm: 0.08, least: limitsOf('decal'), cut: knife(85, 350), takesFilm: true },
  { id: 'stencil-film', name: say('Stencil film'), process: 'stencil', look: 'matte', widthMm: 305, thicknessMm: 0.19, least: limitsOf('stencil'), cut: knife(200, 150), takesFilm: true },
  { id: 'stencil-card', name: say('Oiled stencil card'), process: 'stencil', look: 'matte', widthMm: 300, lengthMm: 420, thicknessMm: 0.3, least: { stripMm: 2, gapMm: 1, pieceMm2: 6, tipDeg: 0 }, cut: knife(320, 80, 2), takesFilm: true },
  {
    id: 'decal-paper-inkjet', name: say('Waterslide paper, ink-jet'), process: 'waterslide', look: 'gloss', widthMm: 210, lengthMm: 297, thicknessMm: 0.2, least: limitsOf('waterslide'), cut: knife(90, 200),
    seal: { ink: 'inkJet', dryMin: 30, coats: 3, coatMin: 20, finalH: 12 }, takesFilm: false,
  },
  {
    id: 'decal-paper-laser', name: say('Waterslide paper, laser'), process: 'waterslide', look: 'gloss', widthMm: 210, lengthMm: 297, thicknessMm: 0.2, least: limitsOf('waterslide'), cut: knife(90, 200),
    seal: { ink: 'laser', dryMin: 0, coats: 0, coatMin: 0, finalH: 0 }, takesFilm: false,
  },
  { id: 'card', name: say('Card'), process: 'panel', look: 'matte', widthMm: 300, lengthMm: 600, thicknessMm: 0.35, least: limitsOf('panel'), cut: knife(350, 80, 2), takesFilm: true },
  { id: 'stiff-cloth', name: say('Stiffened cloth'), process: 'panel', look: 'matte', widthMm: 450, thicknessMm: 0.4, least: { stripMm: 3, gapMm: 1.5, pieceMm2: 25, tipDeg: 0 }, cut: knife(250, 100, 2), takesFilm: true },
];

/** The material that a process is done with when none was chosen. */
export const usualMaterial = (process: Process): Material => USUAL_MATERIALS.find((each) => each.process === process) as Material;
