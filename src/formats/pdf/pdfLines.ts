import { appendBezierCurve, closePath, lineTo, moveTo, PDFDict, PDFName, PDFNumber, PDFOperator, type PDFDocument, type PDFOperatorNames, type PDFPage, type PDFRef } from 'pdf-lib';
import type { Affine } from '../../core/geometry/affine.ts';
import { isOpenRing, LINE, type Curves } from '../../core/outline/curves.ts';
import { transformCurves } from '../../core/outline/transformCurves.ts';

export const PT_PER_MM = 72 / 25.4;

/** From mm of a page, y down, to its points, y up. */
export const pointsOf = (heightMm: number): Affine => ({ a: PT_PER_MM, b: 0, c: 0, d: -PT_PER_MM, e: 0, f: heightMm * PT_PER_MM });

/** Inks and lines with a name of their own, and how they are shown: red, green and blue from 0 to 1. */
const SPOTS = { White: [0.93, 0.96, 1], Cut: [0.62, 0.18, 0.29], 'Weeding box': [0.18, 0.36, 0.54], 'Weed line': [0.73, 0.46, 0.1], Mark: [0.2, 0.2, 0.2], Fold: [0.3, 0.5, 0.3] } as const;
export type SpotName = keyof typeof SPOTS;

/** Spot colours of a document: named, so that a printer or cutter finds them. */
export class Spots {
  private readonly spaces = new Map<SpotName, PDFRef>();

  constructor(private readonly document: PDFDocument) {}

  filling = (page: PDFPage, name: SpotName): PDFOperator[] => [this.operator(page, name, 'cs'), PDFOperator.of('scn' as PDFOperatorNames, [PDFNumber.of(1)])];
  stroking = (page: PDFPage, name: SpotName): PDFOperator[] => [this.operator(page, name, 'CS'), PDFOperator.of('SCN' as PDFOperatorNames, [PDFNumber.of(1)])];

  /** Chooses the ink, and makes it known to the page. ISO 32000-1, 8.6.6.4: separation colour spaces. */
  private operator(page: PDFPage, name: SpotName, operator: 'cs' | 'CS'): PDFOperator {
    const { context } = this.document;
    let space = this.spaces.get(name);
    if (space === undefined) {
      const tint = context.register(context.obj({ FunctionType: 2, Domain: [0, 1], C0: [1, 1, 1], C1: [...SPOTS[name]], N: 1 }));
      space = context.register(context.obj(['Separation', name, 'DeviceRGB', tint]));
      this.spaces.set(name, space);
    }
    return PDFOperator.of(operator as PDFOperatorNames, [resource(page, 'ColorSpace', name.replaceAll(' ', ''), space)]);
  }
}

/** Makes something known to a page by a name, which it gives. */
export function resource(page: PDFPage, kind: 'ColorSpace' | 'Properties', name: string, what: PDFRef): PDFName {
  const resources = page.node.Resources() ?? page.node.normalizedEntries().Resources;
  const key = PDFName.of(kind);
  const known = resources.lookupMaybe(key, PDFDict) ?? page.doc.context.obj({});
  const own = PDFName.of(name);
  known.set(own, what);
  resources.set(key, known);
  return own;
}

/** Operators that are handed to a page at once: more than some ten thousand arguments of a call are too many. */
const AT_ONCE = 4000;

/** Puts operators on a page, however many. */
export function draw(page: PDFPage, operators: readonly PDFOperator[]): void {
  for (let k = 0; k < operators.length; k += AT_ONCE) page.pushOperators(...operators.slice(k, k + AT_ONCE));
}

/** What draws the outlines of curves on a page. */
export function pathOperators(curves: Curves, toPage: Affine): PDFOperator[] {
  const { verbs, coords, verbStart, coordStart, parent } = transformCurves(curves, toPage);
  const operators: PDFOperator[] = [];
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    operators.push(moveTo(coords[at], coords[at + 1]));
    at += 2;
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      if (verbs[v] === LINE) operators.push(lineTo(coords[at], coords[at + 1]));
      else operators.push(appendBezierCurve(coords[at], coords[at + 1], coords[at + 2], coords[at + 3], coords[at + 4], coords[at + 5]));
      at += verbs[v] === LINE ? 2 : 6;
    }
    if (!isOpenRing(curves, ring)) operators.push(closePath());
  }
  return operators;
}
