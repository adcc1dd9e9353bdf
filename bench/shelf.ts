import { jobText, wordsOfSearch } from '../src/core/job/jobText.ts';
import { jobSchema, type Job } from '../src/core/job/job.ts';
import { newJob } from '../src/core/job/newJob.ts';

const JOBS = 5000;
const NAMES = ['Crew', 'Heron', 'Lantern', 'Buoy', 'Pennant', 'Oars', 'Harbour', 'Regatta', 'Duck', 'Sail'];
const CUSTOMERS = ['Mill Lane Rowing', 'Landing Stage', 'Bread, rope and boats', 'The Lower Lock'];

/** A shelf of five thousand jobs: reading them as stored rows, making their texts once, and each search. */
export async function benchShelf(): Promise<void> {
  const jobs = Array.from({ length: JOBS }, (_, k): Job => {
    const job = newJob(`${NAMES[k % NAMES.length]} ${NAMES[(k * 7 + 3) % NAMES.length].toLowerCase()} ${k}`);
    return { ...job, keywords: ['regatta', `row ${k % 60}`], order: { customer: CUSTOMERS[k % CUSTOMERS.length], notes: `For boat ${k}.` } };
  });
  const timed = (work: () => unknown): number => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  const checked = timed(() => jobs.forEach((job) => jobSchema.parse(job)));
  let texts: string[] = [];
  const written = timed(() => (texts = jobs.map(jobText)));
  const searches = ['lantern 12', 'mill lane', 'heron buoy', 'nothing of this', 'row 46'].map((typed) => timed(() => {
    const words = wordsOfSearch(typed);
    return texts.filter((text) => words.every((word) => text.includes(word)));
  }));
  console.log(`\n### A shelf of ${JOBS.toLocaleString('en')} jobs\n\nRows checked ${checked.toFixed(0)} ms, texts made once ${written.toFixed(0)} ms, each search ${Math.max(...searches).toFixed(1)} ms at most.`);
  return Promise.resolve();
}
