/**
 * Which tone of a palette each pixel has, or `CLEAR`. Mixed pixels on an edge have the tone of which they have most; where inside them the edge runs is
 * read from their colour. Row by row, top left first.
 */
export interface LabelMap {
  readonly kind: 'labels';
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** What is not there, and what lies outside the picture. */
export const CLEAR = 255;

/** @throws RangeError when the size and the number of values do not agree. */
export function makeLabelMap(width: number, height: number, data: Uint8Array): LabelMap {
  if (data.length !== width * height) throw new RangeError(`labels: ${width} × ${height} needs ${width * height} values, got ${data.length}`);
  return { kind: 'labels', width, height, data };
}
