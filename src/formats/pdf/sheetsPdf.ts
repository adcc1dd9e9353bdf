import { PDFDocument, PDFHexString, PDFName, PDFOperator, popGraphicsState, pushGraphicsState, setLineWidth, stroke, type PDFOperatorNames, type PDFPage, type PDFRef } from 'pdf-lib';
import type { CutPlan, PathRole } from '../../core/layout/cutPlan.ts';
import { draw, pathOperators, pointsOf, PT_PER_MM, resource, Spots, type SpotName } from './pdfLines.ts';

/** Lines as thin as cutters take for a cut, pt. */
const LINE_PT = 0.25;

const SPOT_OF: Readonly<Record<PathRole, SpotName>> = { cut: 'Cut', box: 'Weeding box', weedLine: 'Weed line', mark: 'Mark', fold: 'Fold', print: 'Mark' };

/**
 * The cut sheets of a job as a PDF at true size: a page for each sheet, what belongs to a film on a layer of its own that can be hidden (ISO 32000-1, 8.11: optional content), lines in spot colours named after what they are for.
 * Films whose sheets are alike and that are lined up on each other share a page.
 * @param title of the document. @param together films lie on each other: their first sheets are one page, and so on.
 */
export async function sheetsPdf(plans: readonly CutPlan[], title: string, together: boolean): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setCreator('Limner');
  // The same sheets are the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const layers = new Layers(document, plans);
  const spots = new Spots(document);
  for (const page of pagesOf(plans, together)) {
    const [{ widthMm, heightMm }] = page;
    const size: [number, number] = [widthMm * PT_PER_MM, heightMm * PT_PER_MM];
    const own = document.addPage(size);
    own.setTrimBox(0, 0, ...size);
    own.setBleedBox(0, 0, ...size);
    const toPage = pointsOf(heightMm);
    for (const plan of page) {
      own.pushOperators(layers.begin(own, plan.film.id), pushGraphicsState(), setLineWidth(LINE_PT));
      let last: SpotName | undefined;
      for (const { role, curves } of plan.runs) {
        if (SPOT_OF[role] !== last) own.pushOperators(...spots.stroking(own, SPOT_OF[role]));
        last = SPOT_OF[role];
        draw(own, pathOperators(curves, toPage));
        own.pushOperators(stroke());
      }
      own.pushOperators(popGraphicsState(), Layers.end);
    }
  }
  return new Uint8Array(await document.save());
}

function pagesOf(plans: readonly CutPlan[], together: boolean): CutPlan[][] {
  const [first] = plans;
  if (!together || !plans.every(({ widthMm, heightMm }) => widthMm === first.widthMm && heightMm === first.heightMm)) return plans.map((plan) => [plan]);
  const numbers = [...new Set(plans.map(({ number = 1 }) => number))].sort((a, b) => a - b);
  return numbers.map((wanted) => plans.filter(({ number = 1 }) => number === wanted));
}

/** A layer for each film, listed in pressing order. */
class Layers {
  private readonly groups = new Map<string, PDFRef>();
  private readonly places = new Map<string, number>();
  static readonly end = PDFOperator.of('EMC' as PDFOperatorNames, []);

  constructor(document: PDFDocument, plans: readonly CutPlan[]) {
    const { context, catalog } = document;
    for (const { film } of plans) {
      if (this.groups.has(film.id)) continue;
      this.places.set(film.id, this.groups.size + 1);
      this.groups.set(film.id, context.register(context.obj({ Type: 'OCG', Name: PDFHexString.fromText(film.name) })));
    }
    const all = [...this.groups.values()];
    catalog.set(PDFName.of('OCProperties'), context.obj({ OCGs: all, D: { Name: PDFHexString.fromText('Films'), Order: all, ON: all } }));
  }

  begin(page: PDFPage, filmId: string): PDFOperator {
    const name = resource(page, 'Properties', `Film${this.places.get(filmId)}`, this.groups.get(filmId) as PDFRef);
    return PDFOperator.of('BDC' as PDFOperatorNames, [PDFName.of('OC'), name]);
  }
}
