import type { Find } from '../../core/clean/finds.ts';
import { trimNumber } from '../../core/units/parseLength.ts';

/** What a step found and how small it will be. @param perMm picture px on a mm at the finished size. */
export function findWords({ kind, size }: Find, perMm: number): string {
  const areaMm2 = size / (perMm * perMm);
  switch (kind) {
    case 'speck':
      return `Speck of ${trimNumber(areaMm2, 2)} mm²`;
    case 'pinhole':
      return `Pinhole of ${trimNumber(areaMm2, 2)} mm²`;
    case 'joint':
      return `Break of ${trimNumber(size / perMm, 2)} mm`;
    case 'enclosed':
      return `Enclosed area of ${trimNumber(areaMm2, areaMm2 < 10 ? 2 : 0)} mm²`;
  }
}
