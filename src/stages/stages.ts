import { say } from '../core/words/say.ts';

/** The stages of a job in the order of work. */
export const STAGES = [
  { stage: 'picture', name: say('Picture') },
  { stage: 'clean', name: say('Clean') },
  { stage: 'separate', name: say('Separate') },
  { stage: 'assemble', name: say('Assemble') },
  { stage: 'layout', name: say('Lay out') },
  { stage: 'handoff', name: say('Hand off') },
] as const;

export type Stage = (typeof STAGES)[number]['stage'];

export const isStage = (text: string): text is Stage => STAGES.some(({ stage }) => stage === text);
