import { benchDots, benchFewerColours, benchSweep } from './cleaning.ts';
import { benchBetween } from './between.ts';
import { benchBridges } from './bridges.ts';
import { benchColourOutline, benchComposed } from './colourOutline.ts';
import { benchEnclosed } from './enclosed.ts';
import { benchEnlarging } from './enlarging.ts';
import { benchFirstRun } from './firstRun.ts';
import { benchGaps } from './gaps.ts';
import { benchLarge } from './large.ts';
import { benchLifts } from './lifts.ts';
import { benchMutations } from './mutations.ts';
import { benchNesting } from './nesting.ts';
import { benchOpen } from './open.ts';
import { benchOutline } from './outline.ts';
import { benchParts } from './parts.ts';
import { benchProposals } from './proposals.ts';
import { benchRoad } from './road.ts';
import { benchRoughGaps } from './roughGaps.ts';
import { benchSquares } from './squares.ts';
import { benchTidying } from './tidying.ts';
import { benchPhotographs, benchSubjects } from './subjects.ts';
import { benchTones } from './tones.ts';
import { benchSteps } from './steps.ts';
import { benchStages } from './stages.ts';

/** All benches, or those named on the command line. */
const BENCHES: Readonly<Record<string, () => Promise<void>>> = { outline: benchOutline, films: benchColourOutline, composed: benchComposed, road: benchRoad, 'first-run': benchFirstRun, open: benchOpen, large: benchLarge, parts: benchParts, nesting: benchNesting, bridges: benchBridges, mutations: benchMutations, colours: benchFewerColours, sweep: benchSweep, dots: benchDots, gaps: benchGaps, 'rough-gaps': benchRoughGaps, lifts: benchLifts, enclosed: benchEnclosed, subjects: benchSubjects, photographs: benchPhotographs, enlarging: benchEnlarging, tidying: benchTidying, squares: benchSquares, stages: benchStages, tones: benchTones, between: benchBetween, proposals: benchProposals, steps: benchSteps };
const wanted = process.argv.slice(2);
for (const [name, bench] of Object.entries(BENCHES)) if (wanted.length === 0 || wanted.includes(name)) await bench();
