import { describe, expect, it } from 'vitest';
import { rulerTicks } from './rulerTicks.ts';

describe('rulerTicks', () => {
  it('labels true millimetres from the zero', () => {
    const majors = rulerTicks(500, 100, 4, 'mm').filter((tick) => tick.level === 'major');
    const zero = majors.find((tick) => tick.label === '0');
    expect(zero?.at).toBe(100);
    expect(majors.find((tick) => tick.label === '20')?.at).toBe(180);
    expect(majors[0].label).toBe('-20');
  });

  it('keeps labels apart at every zoom', () => {
    for (const unit of ['mm', 'in'] as const) {
      for (let zoom = 0.05; zoom < 100; zoom *= 1.3) {
        const majors = rulerTicks(1200, 50, zoom, unit).filter((tick) => tick.level === 'major');
        for (let k = 1; k < majors.length; k++) expect(majors[k].at - majors[k - 1].at).toBeGreaterThanOrEqual(44 - 1e-9);
      }
    }
  });

  it('has nothing to show without a scale', () => {
    expect(rulerTicks(500, 0, 0, 'mm')).toEqual([]);
    expect(rulerTicks(500, 0, NaN, 'in')).toEqual([]);
  });
});
