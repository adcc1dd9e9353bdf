import type { Job } from '../../core/job/job.ts';
import { tracedPart } from '../../core/job/tracedPart.ts';
import { say } from '../../core/words/say.ts';

/** What the tour looks at to know whether a step is done. */
export interface TourSight {
  readonly job: Job;
  /** The job as it was when the step began. */
  readonly before: Job;
  /** Stage or page that is open. */
  readonly page: string;
  /** What the button says that was pressed last in this step. */
  readonly pressed: string;
}

/** One thing that a newcomer does. */
export interface TourStep {
  readonly title: string;
  readonly words: string;
  /** What is to be pressed or filled, as a selector: it is pointed out. */
  readonly at: string;
  readonly isDone: (sight: TourSight) => boolean;
}

const sizeOf = (job: Job): string => JSON.stringify(tracedPart(job).size);
const tonesOf = (job: Job): string => JSON.stringify(tracedPart(job).separation);

/** Whether a button saves by what it says, wherever a language has the verb. */
const saves = (pressed: string): boolean => pressed.toLowerCase().includes(say('Save').toLowerCase());

/** A first shirt, from the customer's picture to the files for the cutter. */
export const TOUR_STEPS: readonly TourStep[] = [
  { title: say('What does it go on?'), words: say('This is what the customer sent: the crest of a rowing crew. On the right, under “Blank and process”, take another shirt from the list, such as “Shirt, adult M”. Size and process follow.'), at: `.el-select:has([aria-label="${say('Blank')}"])`, isDone: ({ job, before }) => job.blank.name !== before.blank.name },
  { title: say('See its films'), words: say('The slip on the left has the six stages of a job. Press “Separate”: the colours were found, and each is a film as it lies on the shelf.'), at: '.tab:nth-of-type(3)', isDone: ({ page }) => page === 'separate' },
  { title: say('More colours, or fewer'), words: say('On the right, change the number at “Tones with background” to 4 and press Enter. Two colours become one film: less to cut, less to press.'), at: `[aria-label="${say('Tones with background')}"]`, isDone: ({ job, before }) => tonesOf(job) !== tonesOf(before) },
  { title: say('Make it the right size'), words: say('Press “Assemble” on the left. On the right, type 180 at “Width” and press Enter. The other side follows.'), at: `[aria-label="${say('Width')}"], .tab:nth-of-type(4)`, isDone: ({ job, before }) => sizeOf(job) !== sizeOf(before) },
  { title: say('See it on the shirt'), words: say('Press “Lay out” on the left. Each film is a sheet, mirrored by itself, for it is cut from the back. Above the table, press “on the blank”.'), at: '[role="radio"]:nth-of-type(4), .tab:nth-of-type(5)', isDone: ({ pressed }) => pressed === say('on the blank') },
  { title: say('A second shirt'), words: say('Press “sheet” above the table. On the right, under “Copies”, type 2 and press Enter: the sheet is laid out for two.'), at: `[aria-label="${say('On this sheet')}"], [aria-label="${say('Copies')}"]`, isDone: ({ job }) => job.layout.copies > 1 },
  { title: say('To the cutter'), words: say('Press “Hand off” on the left, then the red button: the files go to your downloads, a sheet for each film, at true size.'), at: '.plain-button.main, .tab:nth-of-type(6)', isDone: ({ page, pressed }) => page === 'handoff' && saves(pressed) },
];
