import type { Film } from '../../core/film/film.ts';
import type { RectMm, Sheet } from '../../core/layout/laySheet.ts';
import { CurvesBuilder, type Curves } from '../../core/outline/curves.ts';
import { writeDxf } from './writeDxf.ts';

/** All sheets of a job as one DXF: for each film a layer and one for its weeding boxes, at the place where the film lies on its sheet, so that the layers line up. */
export const sheetsDxf = (films: readonly Film[], sheets: readonly Sheet[]): string =>
  writeDxf(sheets.map(({ curves, boxes }, k) => ({ film: films[k], curves, boxes: boxCurves(boxes) })), Math.max(...sheets.map(({ heightMm }) => heightMm)));

function boxCurves(boxes: readonly RectMm[]): Curves {
  const builder = new CurvesBuilder();
  for (const { xMm, yMm, widthMm, heightMm } of boxes) {
    builder.start(xMm, yMm, -1);
    builder.line(xMm + widthMm, yMm);
    builder.line(xMm + widthMm, yMm + heightMm);
    builder.line(xMm, yMm + heightMm);
    builder.line(xMm, yMm);
    builder.close();
  }
  return builder.build();
}
