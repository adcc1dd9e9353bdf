import { Blend, BrushCleaning, Crop, Eraser, ImageUpscale, Link2, Palette, Pencil, PenLine, Pipette, RotateCcw, RotateCw, Scan, SlidersHorizontal, Spline, SquareDashedMousePointer, Sun, UserRound } from '@lucide/vue';
import type { Component } from 'vue';
import type { StepKindName } from '../../core/clean/recipe.ts';

/** Icons of the steps: what each is done with, or what comes of it. Each always stands next to its name. */
export const STEP_ICONS: Readonly<Record<StepKindName, Component>> = {
  squaring: Scan,
  turn: RotateCw,
  crop: Crop,
  enlarging: ImageUpscale,
  levels: SlidersHorizontal,
  lightLevelling: Sun,
  smoothing: Blend,
  fewerColours: Palette,
  gapMending: Link2,
  linePick: PenLine,
  subjectLift: UserRound,
  areaLift: SquareDashedMousePointer,
  colourLift: Pipette,
  rubOut: Eraser,
  drawIn: Pencil,
  bringBack: RotateCcw,
  sweep: BrushCleaning,
  edgeTidying: Spline,
};
