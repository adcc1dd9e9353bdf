import type { Find } from '../../core/clean/finds.ts';
import { mm } from '../../core/units/length.ts';
import { formatArea, formatLength, type LengthUnit } from '../../core/units/parseLength.ts';
import { say } from '../../core/words/say.ts';

/** What a step found and how small it will be. @param perMm picture px on a mm at the finished size. */
export function findWords({ kind, size }: Find, perMm: number, unit: LengthUnit): string {
  const areaMm2 = size / (perMm * perMm);
  switch (kind) {
    case 'speck':
      return say`Speck of ${formatArea(areaMm2, unit)}`;
    case 'pinhole':
      return say`Pinhole of ${formatArea(areaMm2, unit)}`;
    case 'joint':
      return say`Break of ${formatLength(mm(size / perMm), unit, 2)}`;
    case 'enclosed':
      return say`Enclosed area of ${formatArea(areaMm2, unit, areaMm2 < 10 ? 2 : 0)}`;
  }
}
