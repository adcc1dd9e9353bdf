import { Brush, Coin, Connection, Crop, Delete, EditPen, Filter, FullScreen, MagicStick, MostlyCloudy, Odometer, PictureRounded, RefreshLeft, RefreshRight, Sunny, Sunrise, WindPower, ZoomIn } from '@element-plus/icons-vue';
import type { Component } from 'vue';
import type { StepKindName } from '../../core/clean/recipe.ts';

/** Icons of the steps; each always stands next to its name. */
export const STEP_ICONS: Readonly<Record<StepKindName, Component>> = {
  squaring: FullScreen, turn: RefreshRight, crop: Crop, enlarging: ZoomIn, levels: Odometer, lightLevelling: MostlyCloudy, smoothing: WindPower, fewerColours: Coin, gapMending: Connection, linePick: EditPen, subjectLift: PictureRounded, areaLift: Sunrise, colourLift: Sunny, rubOut: Delete, drawIn: Brush, bringBack: RefreshLeft, sweep: Filter, edgeTidying: MagicStick };
