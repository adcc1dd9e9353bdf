import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import { tracedPart } from '../job/tracedPart.ts';
import { fittedToSheet } from './fitToSheet.ts';

describe('fitting a design to its sheet', () => {
  const job = newJob('Sign');
  const sheet = { cutArea: { xMm: 3, yMm: 3, widthMm: 299, heightMm: 604 }, used: { xMm: 3, yMm: 3, widthMm: 412, heightMm: 212 } };
  it('leaves the box its margin and takes the side that is too long', () => {
    const part = tracedPart(job);
    const wide = { ...part, size: { ...part.size, sizeMm: 400 } };
    const fitted = fittedToSheet(job, wide, sheet, { widthMm: 400, heightMm: 200 });
    expect(tracedPart(fitted ?? job).size.sizeMm).toBeCloseTo(287 * 0.998, 1);
  });
  it('leaves several copies, and several parts, as they are', () => {
    const part = tracedPart(job);
    expect(fittedToSheet({ ...job, layout: { ...job.layout, copies: 3 } }, part, sheet, { widthMm: 400, heightMm: 200 })).toBeUndefined();
    expect(fittedToSheet({ ...job, objects: [...job.objects, ...job.objects] }, part, sheet, { widthMm: 400, heightMm: 200 })).toBeUndefined();
  });
  it('makes nothing larger, and nothing of what leaves no room', () => {
    const part = tracedPart(job);
    const room = { ...sheet, used: { ...sheet.used, widthMm: 100, heightMm: 100 } };
    expect(tracedPart(fittedToSheet(job, part, room, { widthMm: 90, heightMm: 90 }) ?? job).size.sizeMm).toBeLessThanOrEqual(part.size.sizeMm);
    expect(fittedToSheet(job, part, { cutArea: { ...sheet.cutArea, widthMm: 10 }, used: sheet.used }, { widthMm: 400, heightMm: 200 })).toBeUndefined();
  });
});
