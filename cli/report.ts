import { layerOf } from '../src/core/assemble/design.ts';
import { figuresOf, figuresTogether, type Figures } from '../src/core/check/figures.ts';
import { mostLayers } from '../src/core/check/mostLayers.ts';
import type { Finding } from '../src/core/check/cutCheck.ts';
import type { Job } from '../src/core/job/job.ts';
import { proofOfFilms } from '../src/core/run/proofOfFilms.ts';
import { mirroringOf } from '../src/core/layout/mirroringOf.ts';
import { nodesOfFilms } from '../src/core/run/separateArt.ts';
import { piecesOf } from '../src/core/outline/pieces.ts';
import type { Art } from '../src/core/raster/art.ts';
import type { CutResult } from '../src/core/run/runJob.ts';

/** How much a report says: `full` compares the films with the art and counts layers, which takes as long as the cut. */
export type ReportKind = 'short' | 'full';

export const FINDING_WORDS: { readonly [Kind in Finding['kind']]: (size: number) => string } = {
  smallPiece: (size) => `piece of ${size.toFixed(2)} mm²`,
  smallHole: (size) => `hole of ${size.toFixed(2)} mm²`,
  island: (size) => `loose island of ${size.toFixed(2)} mm²`,
  thin: (size) => `strip only ${size.toFixed(2)} mm wide`,
  narrowGap: (size) => `gap only ${size.toFixed(2)} mm wide`,
  sharp: (size) => `tip of ${Math.round(size)}°`,
  jagged: (size) => `jagged edge with teeth of ${size.toFixed(2)} mm`,
  openOutline: (size) => `outline open by ${size.toFixed(2)} mm`,
  cutTwice: (size) => `overlap of ${size.toFixed(2)} mm², cut twice there`,
  crowded: (size) => `${size} nodes in a row less than 0.05 mm apart`,
  backwards: (size) => `${size} signs read backwards`,
  likeBlank: (size) => `a film hardly shows on the blank: difference ${size.toFixed(1)}`,
  holdsNone: (size) => `${size.toFixed(1)} mm² lie on film that takes none on top`,
  coarsePicture: (size) => `the picture has only ${Math.round(size)} dots per inch at this size`,
};

export function warningsOf(job: Job, cut: CutResult): string[] {
  const warnings = cut.findings.map(({ kind, size, xMm, yMm }) => (kind === 'coarsePicture' ? FINDING_WORDS[kind](size) : `${FINDING_WORDS[kind](size)} at ${xMm.toFixed(1)}, ${yMm.toFixed(1)} mm`));
  const { mirrored, against } = mirroringOf(job.layout, job.process);
  if (against) warnings.push(mirrored ? 'mirrored although the process does not want it' : 'NOT mirrored although the process wants it');
  if (job.layout.guide === true && cut.print === undefined && cut.guide === undefined) warnings.push('no placement guide: there is no room for one on the blank, or it is larger than the sheet');
  return warnings;
}

/** What the report says of a cut in numbers. */
export function measuresOf(job: Job, art: Art, cut: CutResult, kind: ReportKind): Record<string, unknown> {
  const { design, sheets: [sheet], films, rack } = cut;
  const figures = rack.map(({ id }) => figuresOf(layerOf(design, id).curves));
  const full = kind === 'short' ? {} : { mostLayers: mostLayers(design.layers.map(({ curves }) => curves)).layers, proof: proofFigures(job, art, cut) };
  return {
    widthMm: round(design.widthMm),
    heightMm: round(design.heightMm),
    pieces: design.layers.reduce((sum, { curves }) => sum + piecesOf(curves).length, 0),
    nodes: nodesOfFilms(films),
    films: rack.map((film, k) => {
      const held = films.find((each) => each.film.id === film.id)?.held;
      return { ...film, ...roundedAll(figures[k]), ...(held === undefined ? {} : { held }) };
    }),
    together: roundedAll(figuresTogether(figures)),
    copies: sheet.placements.length,
    mirrored: sheet.mirrored,
    usedMm: [round(sheet.used.widthMm), round(sheet.used.heightMm)],
    ...(cut.tones === undefined ? {} : { tones: cut.tones }),
    ...full,
  };
}

/** How the films, laid over each other, differ from the clean art. */
function proofFigures(job: Job, art: Art, cut: CutResult): Record<string, number> {
  const strayMm = (cut.strayPx ?? 0) / cut.place.resolution;
  return { differs: Math.round(proofOfFilms(job, art, cut).differs * 1e5) / 1e5, edgeMm: Math.round(strayMm * 1e4) / 1e4 };
}

const roundedAll = (figures: Figures): Record<string, number> => Object.fromEntries(Object.entries(figures).map(([name, value]) => [name, round(value as number)]));
const round = (value: number): number => Math.round(value * 1000) / 1000;
