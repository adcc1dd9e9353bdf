import type { StepKindName } from '../../core/clean/recipe.ts';

/** The steps as they are chosen: by what one wants to do; two groups stand in a column of the chooser. */
export const STEP_GROUPS: readonly { readonly name: string; readonly kinds: readonly StepKindName[] }[] = [
  { name: 'Lay it straight', kinds: ['squaring', 'turn', 'crop', 'enlarging'] },
  { name: 'Mend', kinds: ['sweep', 'gapMending', 'edgeTidying'] },
  { name: 'Light and colour', kinds: ['lightLevelling', 'levels', 'smoothing', 'fewerColours'] },
  { name: 'By hand', kinds: ['drawIn', 'rubOut', 'bringBack'] },
  { name: 'Take the ground off', kinds: ['subjectLift', 'areaLift', 'colourLift', 'linePick'] },
];
