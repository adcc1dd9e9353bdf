import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import type { LetteringObject } from '../job/objects.ts';
import { slotsOf, withSlotsFilled } from './fillSlots.ts';

const start = newJob('Crew');
const lettering = (id: string, text: string): LetteringObject => ({ kind: 'lettering', id, film: start.films[0].id, lettering: { text, font: 'Oswald', heightMm: 20 } });
const job: Job = { ...start, objects: [...start.objects, lettering('name', '{Name}'), { kind: 'group', id: 'g', objects: [lettering('line', 'Boat { boat }, seat {seat}')] }] };
const textsOf = ({ objects }: Job): string[] => objects.flatMap((object) => (object.kind === 'lettering' ? [object.lettering.text] : object.kind === 'group' ? textsOf({ ...job, objects: object.objects }) : []));

describe('slots', () => {
  it('are found once each, however they are written', () => {
    expect(slotsOf(job)).toEqual(['name', 'boat', 'seat']);
    expect(slotsOf(start)).toEqual([]);
  });

  it('are filled; what says nothing then is left out, what no value is for stays', () => {
    const filled = withSlotsFilled(job, new Map([['name', 'Ida'], ['boat', '7']]));
    expect(textsOf(filled)).toEqual(['Ida', 'Boat 7, seat {seat}']);
    expect(textsOf(withSlotsFilled(job, new Map([['name', ' ']])))).toEqual(['Boat { boat }, seat {seat}']);
    expect(textsOf(job)).toEqual(['{Name}', 'Boat { boat }, seat {seat}']);
  });
});
