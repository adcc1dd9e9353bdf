import { colourName } from '../core/colour/colourName.ts';
import { rgbFromHex } from '../core/colour/hex.ts';
import { AppError } from '../core/errors/appError.ts';
import { CurvesBuilder, nodeCount, ringCount, type Curves } from '../core/outline/curves.ts';
import { say } from '../core/words/say.ts';

/** What becomes of strokes: outlines around them, the line itself, or nothing. */
export type StrokeUse = 'outline' | 'line' | 'drop';

/** What a drawing brings in one colour, mm of its page. */
export interface ImportedLayer {
  readonly name: string;
  /** `#rrggbb`. */
  readonly colour: string;
  readonly curves: Curves;
  /** Rings that do not end where they begin, of `curves`. */
  readonly openEnds: number;
}

/** The outlines of a file, lowest layer first. */
export interface ImportedDrawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly layers: readonly ImportedLayer[];
  /** What was not understood or left out, and how often. */
  readonly leftOut: readonly { readonly what: string; readonly count: number }[];
}

const MOST_NODES = 400_000;

/** Collects the outlines of a drawing by their colours. */
export class Drawing {
  private readonly layers = new Map<string, { readonly name: string | undefined; readonly colour: string; readonly builder: CurvesBuilder; rings: number; openEnds: number }>();
  private readonly notes = new Map<string, number>();
  private nodes = 0;

  note(what: string, count = 1): void {
    this.notes.set(what, (this.notes.get(what) ?? 0) + count);
  }

  /** @param name of its layer, when the file has one; its colour names it else. @throws AppError `tooIntricate`. */
  add(colour: string, curves: Curves, name?: string): void {
    if (ringCount(curves) === 0) return;
    const layer = this.layerOf(colour, name);
    for (let ring = 0; ring < ringCount(curves); ring++) layer.builder.copy(curves, ring, curves.parent[ring] < 0 ? -1 : layer.rings + curves.parent[ring]);
    layer.rings += ringCount(curves);
    this.nodes += nodeCount(curves);
    if (this.nodes > MOST_NODES) throw new AppError('tooIntricate', { count: this.nodes, limit: MOST_NODES });
  }

  /** Gives a colour its place among the layers before anything of it is added. */
  reserve(colour: string, name?: string): void {
    this.layerOf(colour, name);
  }

  /** Lines that end somewhere: no piece, but a knife can follow them. */
  addOpen(colour: string, curves: Curves, name?: string): void {
    this.add(colour, curves, name);
    this.layerOf(colour, name).openEnds += ringCount(curves);
  }

  /** @throws AppError `badDrawing` when nothing was drawn. */
  finished(file: string, widthMm: number, heightMm: number): ImportedDrawing {
    if (this.layers.size === 0) throw new AppError('badDrawing', { file, reason: say('it holds no outlines') });
    const taken = new Set<string>();
    const layers = [...this.layers.values()].map(({ name, colour, builder, openEnds }): ImportedLayer => {
      const plain = name ?? colourName(rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 });
      let own = plain;
      for (let k = 2; taken.has(own); k++) own = `${plain} ${k}`;
      taken.add(own);
      return { name: own, colour, curves: builder.build(), openEnds };
    });
    return { widthMm, heightMm, layers, leftOut: [...this.notes].map(([what, count]) => ({ what, count })) };
  }

  private layerOf(colour: string, name: string | undefined) {
    const key = name ?? colour;
    let layer = this.layers.get(key);
    if (layer === undefined) {
      layer = { name, colour, builder: new CurvesBuilder(), rings: 0, openEnds: 0 };
      this.layers.set(key, layer);
    }
    return layer;
  }
}
