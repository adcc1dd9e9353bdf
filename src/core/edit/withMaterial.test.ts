import { describe, expect, it } from 'vitest';
import { jobSchema } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import { newJob } from '../job/newJob.ts';
import { sheetFor, USUAL_MACHINES, type Machine } from '../layout/machine.ts';
import { limitsOf, USUAL_MATERIALS, usualMaterial, type Material } from '../process/material.ts';
import { PROCESSES, type Process } from '../process/processes.ts';
import { withMachine, withMaterial, withStockMaterials } from './withMaterial.ts';
import { withProcess } from './withProcess.ts';

const material = (id: string): Material => USUAL_MATERIALS.find((each) => each.id === id) as Material;
const machine = (id: string): Machine => USUAL_MACHINES.find((each) => each.id === id) as Machine;
const job = newJob('Crew shirt');

describe('what films are made of', () => {
  it('is what is usual for the process until something else is chosen, for all films or for one', () => {
    for (const process of Object.keys(PROCESSES) as Process[]) expect(materialOf({ process })).toMatchObject({ process, least: limitsOf(process) });
    const glitter = withMaterial(job, material('glitter-heat-film'));
    expect([materialOf(glitter).id, materialOf(glitter, 'any').id]).toEqual(['glitter-heat-film', 'glitter-heat-film']);
    const one = withMaterial(glitter, material('flock-heat-film'), 'red');
    expect([materialOf(one, 'red').id, materialOf(one, 'blue').id]).toEqual(['flock-heat-film', 'glitter-heat-film']);
    expect(withMaterial(one, material('foil-heat-film'), 'red').materials?.ofFilms).toHaveLength(1);
    expect(jobSchema.safeParse(one).success).toBe(true);
    // By another process it is passed over, and comes back with it.
    expect(materialOf(withProcess(one, 'decal'), 'red').id).toBe(usualMaterial('decal').id);
    expect(materialOf(withProcess(withProcess(one, 'decal'), 'htv'), 'red').id).toBe('flock-heat-film');
  });

  it('comes with the films that are taken from the shelf, by name and colour, where it is for this process', () => {
    const [film] = job.films;
    const stock = [{ ...film, id: 'stock-1', material: 'flock-heat-film' }, { id: 'stock-2', name: 'Other', colour: '#123456', material: 'glitter-heat-film' }];
    expect(materialOf(withStockMaterials(job, stock, USUAL_MATERIALS), film.id).id).toBe('flock-heat-film');
    expect(withStockMaterials(withProcess(job, 'decal'), stock, USUAL_MATERIALS).materials).toBeUndefined();
    expect(withStockMaterials(job, [{ ...film, id: 'stock-1', material: 'gone' }], USUAL_MATERIALS)).toEqual(job);
  });
});

describe('a machine', () => {
  it('gives a job its sheet; from a roll one as wide as the film comes', () => {
    const rolled = withMachine(job, machine('cutter-roll'));
    expect(rolled.layout.sheet).toMatchObject({ name: 'Roll 500, 1 m', widthMm: 500 });
    const narrow = { ...material('glitter-heat-film'), widthMm: 300 };
    const on = withMaterial(rolled, narrow);
    expect(on.layout.sheet).toMatchObject({ name: 'Roll 300', widthMm: 300, marginMm: { left: 10, right: 10 } });
    expect(withMaterial(on, material('smooth-heat-film')).layout.sheet.widthMm).toBe(500);
    expect(jobSchema.safeParse(on).success).toBe(true);
    expect(withMachine(on, machine('cutter-mat')).layout.sheet).toMatchObject({ name: 'Mat 305 × 610', widthMm: 305 });
  });

  it('leaves a size that was typed as it is, and a film that it cannot grip out of account', () => {
    const typed = withMachine(job, machine('cutter-roll'));
    const own = { ...typed, layout: { ...typed.layout, sheet: { ...typed.layout.sheet, name: 'Own size', widthMm: 420 } } };
    expect(withMaterial(own, { ...material('glitter-heat-film'), widthMm: 300 }).layout.sheet.widthMm).toBe(420);
    expect(sheetFor(machine('cutter-roll'), { widthMm: 15 })).toBe(machine('cutter-roll').sheet);
    expect(sheetFor(machine('printer-a4'), { widthMm: 15 })).toBe(machine('printer-a4').sheet);
  });
});
