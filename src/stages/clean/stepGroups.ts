import type { StepKindName } from '../../core/clean/recipe.ts';
import { say } from '../../core/words/say.ts';

/** The steps as they are chosen: by what one wants to do; two groups stand in a column of the chooser. */
export const STEP_GROUPS: readonly { readonly name: string; readonly kinds: readonly StepKindName[] }[] = [
  { name: say('Lay it straight'), kinds: ['squaring', 'turn', 'crop', 'enlarging'] },
  { name: say('Mend'), kinds: ['sweep', 'gapMending', 'edgeTidying'] },
  { name: say('Light and colour'), kinds: ['lightLevelling', 'levels', 'smoothing', 'fewerColours'] },
  { name: say('By hand'), kinds: ['drawIn', 'rubOut', 'bringBack'] },
  { name: say('Take the ground off'), kinds: ['subjectLift', 'areaLift', 'colourLift', 'linePick'] },
];
