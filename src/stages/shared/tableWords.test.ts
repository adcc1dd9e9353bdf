import { describe, expect, it } from 'vitest';
import { figureCurves } from '../../core/figure/figureCurves.ts';
import { laySheet } from '../../core/layout/laySheet.ts';
import { SHEETS } from '../../core/layout/sheetStock.ts';
import { mm } from '../../core/units/length.ts';
import { filmsContents, partsContents, sheetContents } from './tableWords.ts';

const length = (value: number): string => `${Math.round(value)} mm`;

describe('what lies on the light table, in words', () => {
  it('is a sheet: how much of what, where, and what was found', () => {
    const curves = figureCurves({ form: 'round', widthMm: 40, heightMm: 40 });
    const sheet = laySheet({ layers: [{ filmId: 'a', curves }], widthMm: mm(40), heightMm: mm(40) }, 'a', { sheet: SHEETS[0], mirrored: true, box: { on: true, marginMm: 5 }, copies: 2, gapMm: 4 });
    expect(sheetContents(sheet, 'Harbour navy', 1, length)).toBe('Harbour navy, 2 copies, 104 mm by 50 mm; 3 mm from the left and 3 mm from the top of a sheet of 305 mm by 305 mm; mirrored; 2 weeding boxes; 1 place to look at');
    expect(sheetContents(undefined, 'Harbour navy', 0, length)).toBe('nothing to cut yet');
  });

  it('is films and parts, each once, with which is chosen', () => {
    expect(filmsContents([])).toBe('no films yet');
    expect(filmsContents([{ film: { id: 'a', name: 'Rust', colour: '#b5532c' }, pieces: 1 } as never, { film: { id: 'b', name: 'Sand', colour: '#e2be74' }, pieces: 3 } as never])).toBe('Rust, 1 piece; Sand, 3 pieces');
    expect(partsContents([{ name: 'crest.png', isChosen: false, box: { left: 0, top: 0, right: 100, bottom: 80 } }, { name: '“Row on”', isChosen: true }], { xMm: 5, yMm: 7 }, length)).toBe('crest.png, 100 mm by 80 mm, 5 mm from the left and 7 mm from the top; “Row on”, chosen');
  });
});
