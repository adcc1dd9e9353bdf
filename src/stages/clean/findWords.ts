import type { Find } from '../../core/clean/finds.ts';
import { mm } from '../../core/units/length.ts';
import { formatArea, formatLength, type LengthUnit } from '../../core/units/parseLength.ts';

/** What a step found and how small it will be. @param perMm picture px on a mm at the finished size. */
export function findWords({ kind, size }: Find, perMm: number, unit: LengthUnit): string {
  const areaMm2 = size / (perMm * perMm);
  switch (kind) {
    case 'speck':
      return `Speck of ${formatArea(areaMm2, unit)}`;
    case 'pinhole':
      return `Pinhole of ${formatArea(areaMm2, unit)}`;
    case 'joint':
      return `Break of ${formatLength(mm(size / perMm), unit, 2)}`;
    case 'enclosed':
      return `Enclosed area of ${formatArea(areaMm2, unit, areaMm2 < 10 ? 2 : 0)}`;
  }
}
