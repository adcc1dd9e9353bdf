/** The stages of a job in the order of work. */
export const STAGES = [
  { stage: 'picture', name: 'Picture' },
  { stage: 'clean', name: 'Clean' },
  { stage: 'separate', name: 'Separate' },
  { stage: 'assemble', name: 'Assemble' },
  { stage: 'layout', name: 'Lay out' },
  { stage: 'handoff', name: 'Hand off' },
] as const;

export type Stage = (typeof STAGES)[number]['stage'];

export const isStage = (text: string): text is Stage => STAGES.some(({ stage }) => stage === text);
