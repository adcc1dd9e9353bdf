import { Brush, Coin, Connection, Crop, EditPen, Filter, MostlyCloudy, Odometer, PictureRounded, RefreshLeft, Sunny, Sunrise, WindPower } from '@element-plus/icons-vue';
import type { Component } from 'vue';
import type { StepKindName } from '../../core/job/recipe.ts';

/** Icons of the steps; each always stands next to its name. */
export const STEP_ICONS: Readonly<Record<StepKindName, Component>> = {
  crop: Crop, levels: Odometer, lightLevelling: MostlyCloudy, smoothing: WindPower, fewerColours: Coin, gapMending: Connection, linePick: EditPen, subjectLift: PictureRounded, areaLift: Sunrise, colourLift: Sunny, rubOut: Brush, bringBack: RefreshLeft, sweep: Filter };
