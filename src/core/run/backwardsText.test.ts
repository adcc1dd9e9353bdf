import { describe, expect, it } from 'vitest';
import type { PartInDesign } from '../assemble/composeDesign.ts';
import { mirrorAbout, rotation, type Affine } from '../geometry/affine.ts';
import type { DesignObject } from '../job/objects.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { DEFAULT_LETTERING } from '../lettering/lettering.ts';
import { backwardsText } from './backwardsText.ts';

const name = (id: string, placement?: Affine): DesignObject => ({ kind: 'lettering', id, film: 'navy', lettering: { ...DEFAULT_LETTERING, text: 'Row on', font: 'lobster', heightMm: 12 }, ...(placement === undefined ? {} : { placement: { ...placement } }) });
const shown = (id: string): PartInDesign => ({ id, layers: [{ filmId: 'navy', curves: curvesFromPathData('M10 20L30 20L30 40L10 40Z') }] }) as unknown as PartInDesign;
const over = mirrorAbout(20);

describe('text that reads backwards', () => {
  it('is told where it lies, with its signs', () => {
    expect(backwardsText([name('a', over), name('b')], [shown('a'), shown('b')])).toEqual([{ kind: 'backwards', filmId: 'navy', xMm: 20, yMm: 30, size: 5 }]);
  });

  it('is not what is turned, nor what is turned over twice', () => {
    const group: DesignObject = { kind: 'group', id: 'g', placement: { ...over }, objects: [name('a', over)] };
    expect(backwardsText([name('b', rotation(2, 5, 5)), group], [shown('b'), shown('a')])).toEqual([]);
  });

  it('is told of a group that was turned over, as a whole where it is one part', () => {
    const group: DesignObject = { kind: 'group', id: 'g', placement: { ...over }, combine: { how: 'join', film: 'navy' }, objects: [name('a')] };
    expect(backwardsText([group], [shown('g')]).map(({ xMm }) => xMm)).toEqual([20]);
    expect(backwardsText([{ ...group, combine: undefined }], [shown('a')])).toHaveLength(1);
  });
});
