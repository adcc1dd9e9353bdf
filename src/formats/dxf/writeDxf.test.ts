import { describe, expect, it } from 'vitest';
import { CurvesBuilder } from '../../core/outline/curves.ts';
import { writeDxf } from './writeDxf.ts';

const film = (name: string, colour: string) => ({ id: name, name, colour });

/** A half disc: a line and two cubics, 40 mm across. */
function halfDisc() {
  const builder = new CurvesBuilder();
  builder.start(10, 30, -1);
  builder.cubic(10, 19, 19, 10, 30, 10);
  builder.cubic(41, 10, 50, 19, 50, 30);
  builder.line(10, 30);
  builder.close();
  return builder.build();
}

/** Code and value pairs, as a reader takes them. */
function pairsOf(text: string): [number, string][] {
  const lines = text.trimEnd().split('\n');
  return Array.from({ length: lines.length / 2 }, (_, k) => [Number(lines[2 * k]), lines[2 * k + 1]]);
}

describe('DXF', () => {
  const pairs = pairsOf(writeDxf([{ film: film('Harbour navy', '#22375f'), curves: halfDisc() }, { film: film('Harbour navy', '#f2b632'), curves: halfDisc() }], 100));

  it('is pairs of codes and values with millimetres as its unit', () => {
    expect(pairs.every(([code]) => Number.isInteger(code))).toBe(true);
    expect(pairs[pairs.findIndex(([, value]) => value === '$INSUNITS') + 1]).toEqual([70, '4']);
    expect(pairs.at(-1)).toEqual([0, 'EOF']);
    expect(pairs.filter(([code, value]) => code === 0 && value === 'SECTION').length).toBe(pairs.filter(([code, value]) => code === 0 && value === 'ENDSEC').length);
  });

  it('has a layer for each film, told apart by name, in the film’s colour', () => {
    const at = pairs.flatMap(([code, value], k) => (code === 0 && value === 'LAYER' ? [k] : []));
    // Layer 0 is there in every file.
    const records = at.slice(1).map((k) => Object.fromEntries(pairs.slice(k, k + 10)));
    expect(records.map((record) => record[2])).toEqual(['HARBOUR-NAVY', 'HARBOUR-NAVY-2']);
    expect(records.map((record) => record[420])).toEqual([String(0x22375f), String(0xf2b632)]);
  });

  it('keeps cubics as splines through the same control points, y up, and lines as lines', () => {
    const first = pairs.findIndex(([code, value]) => code === 0 && value === 'SPLINE');
    const spline = pairs.slice(first, pairs.findIndex(([code], k) => k > first && code === 0));
    const of = (code: number): number[] => spline.filter(([c]) => c === code).map(([, value]) => Number(value));
    expect([of(71), of(72), of(73)]).toEqual([[3], [8], [4]]);
    expect(of(40)).toEqual([0, 0, 0, 0, 1, 1, 1, 1]);
    expect([of(10), of(20)]).toEqual([[10, 10, 19, 30], [70, 81, 90, 90]]);
    expect(pairs.filter(([code, value]) => code === 0 && value === 'SPLINE')).toHaveLength(4);
    expect(pairs.filter(([code, value]) => code === 0 && value === 'LINE')).toHaveLength(2);
  });

  it('gives every record a handle of its own and an owner that is there, as strict readers want it', () => {
    const handles = pairs.filter(([code]) => code === 5 || code === 105).map(([, value]) => value);
    const seed = pairs[pairs.findIndex(([, value]) => value === '$HANDSEED') + 1][1];
    const own = handles.filter((handle) => handle !== seed);
    expect(new Set(own).size).toBe(own.length);
    expect(Math.max(...own.map((handle) => parseInt(handle, 16)))).toBeLessThan(parseInt(seed, 16));
    for (const [code, value] of pairs) if ((code === 330 || code === 340 || code === 350) && value !== '0') expect(own).toContain(value);
    const names = pairs.flatMap(([code, value], k) => (code === 0 && value === 'TABLE' ? [pairs[k + 1][1]] : []));
    expect(names).toEqual(['VPORT', 'LTYPE', 'LAYER', 'STYLE', 'VIEW', 'UCS', 'APPID', 'DIMSTYLE', 'BLOCK_RECORD']);
    const entities = pairs.findIndex(([, value]) => value === 'ENTITIES');
    const owners = pairs.slice(entities, pairs.findIndex(([, value]) => value === 'OBJECTS')).filter(([code]) => code === 330);
    expect(owners).toHaveLength(6);
  });

  it('keeps weeding boxes on a layer of their own', () => {
    const text = writeDxf([{ film: film('Sun', '#f2b632'), curves: halfDisc() }, { film: film('Sun', '#f2b632'), ending: 'BOXES', curves: halfDisc() }], 100);
    const layers = pairsOf(text).flatMap(([code, value], k, all) => (code === 0 && ['LINE', 'SPLINE'].includes(value) ? [all.slice(k).find(([c]) => c === 8)?.[1]] : []));
    expect(layers).toEqual(['SUN', 'SUN', 'SUN', 'SUN-BOXES', 'SUN-BOXES', 'SUN-BOXES']);
  });
});
