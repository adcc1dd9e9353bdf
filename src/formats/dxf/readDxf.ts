import { AppError } from '../../core/errors/appError.ts';
import { followedBy, IDENTITY, rotation, translation, type Affine } from '../../core/geometry/affine.ts';
import { ringCount } from '../../core/outline/curves.ts';
import { nestRings } from '../../core/outline/nestRings.ts';
import { Drawing, type ImportedDrawing } from '../drawing.ts';
import { dxfFile, numberOf, textOf, trueColour, type DxfEntity, type DxfFile } from './dxfFile.ts';
import { movedPath, type DrawnPath } from '../paths/drawnPath.ts';
import { pathOfEntity } from './dxfPaths.ts';
import { colourOfIndex } from './colourIndex.ts';
import { joinPaths } from '../paths/joinPaths.ts';
import { say } from '../../core/words/say.ts';

/** Millimetres of the units that a header names; a file that names none is in mm. */
const MM: Readonly<Record<number, number>> = { 0: 1, 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 25.4e-6, 9: 0.0254, 13: 1e-3, 14: 100 };
const MAX_BYTES = 40_000_000;
/** Blocks in blocks. */
const MOST_DEEP = 16;
const MOST_PATHS = 200_000;
/** Ends nearer than this are one, mm. */
const SAME_MM = 0.05;
/** Entities that carry words, measures or points: nothing to cut. */
const WORDS: Readonly<Record<string, string>> = { TEXT: say('text'), MTEXT: say('text'), ATTDEF: say('text'), ATTRIB: say('text'), DIMENSION: say('measures'), POINT: say('points'), HATCH: say('hatching'), IMAGE: say('pictures'), VIEWPORT: say('views') };
/** Marks of a binary DXF. */
const BINARY = 'AutoCAD Binary DXF';

interface FoundPath {
  readonly path: DrawnPath;
  readonly layer: string;
  readonly colour: string;
}

/**
 * Reads the outlines of a DXF file at its true size, one layer for each of its layers, in mm with y down. The page is the drawing's stated extent, else the box around what is drawn. Paths whose ends meet
 * are joined, those that lie there twice are there once.
 * @throws AppError `fileTooLarge`, `badDrawing`, `tooIntricate`.
 */
export function readDxf(bytes: Uint8Array, file: string): ImportedDrawing {
  if (bytes.length > MAX_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_BYTES / 1e6 });
  const text = new TextDecoder().decode(bytes);
  if (text.startsWith(BINARY)) throw new AppError('badDrawing', { file, reason: say('it is a binary DXF: save it as text') });
  const dxf = dxfFile(text, file);
  const drawing = new Drawing();
  const found: FoundPath[] = [];
  const scale = MM[numberOf({ groups: dxf.header.get('$INSUNITS') ?? [] }, 70, 0)] ?? 1;
  new Collector(dxf, drawing, found).collect(dxf.entities, { ...IDENTITY, a: scale, d: -scale }, undefined, 0);
  const page = pageOf(dxf, found, scale);
  if (page === undefined) throw new AppError('badDrawing', { file, reason: say('it holds no outlines') });
  const toPage = translation(-page.left, -page.top);
  for (const [layer, paths] of byLayer(found)) {
    const moved = paths.flatMap(({ path }) => movedPath(path, toPage) ?? []);
    const { closed, open, joined, doubles } = joinPaths(moved, SAME_MM);
    if (joined > 0) drawing.note(say('ends that were joined'), joined);
    if (doubles > 0) drawing.note(say('paths that lay there twice'), doubles);
    if (ringCount(closed) > 0) drawing.add(paths[0].colour, nestRings(closed), layer);
    if (ringCount(open) > 0) drawing.addOpen(paths[0].colour, open, layer);
  }
  return drawing.finished(file, page.widthMm, page.heightMm);
}

class Collector {
  constructor(
    private readonly dxf: DxfFile,
    private readonly drawing: Drawing,
    private readonly found: FoundPath[],
  ) {}

  /** @param layer of the block that is inserted, for what lies on layer 0 in it. */
  collect(entities: readonly DxfEntity[], where: Affine, layer: string | undefined, deep: number): void {
    for (const entity of entities) {
      // What is hidden, or lies on the paper around a drawing.
      if (numberOf(entity, 60, 0) === 1 || numberOf(entity, 67, 0) === 1) continue;
      const said = textOf(entity, 8) ?? '0';
      const own = layer !== undefined && said === '0' ? layer : said;
      if (entity.kind === 'INSERT') {
        this.insert(entity, where, own, deep);
        continue;
      }
      const path = pathOfEntity(entity);
      const moved = path === undefined ? undefined : movedPath(path, where);
      if (moved === undefined) this.drawing.note(WORDS[entity.kind] ?? say`entities of the kind ${entity.kind.slice(0, 40)} that are not understood`);
      else this.found.push({ path: moved, layer: own, colour: this.colourOf(entity, own) });
      if (this.found.length > MOST_PATHS) throw new AppError('tooIntricate', { count: this.found.length, limit: MOST_PATHS });
    }
  }

  private insert(entity: DxfEntity, where: Affine, layer: string, deep: number): void {
    const block = this.dxf.blocks.get(textOf(entity, 2) ?? '');
    if (block === undefined || deep >= MOST_DEEP) return this.drawing.note(block === undefined ? say('blocks that are not there') : say('blocks in each other without end'));
    const number = (code: number, otherwise: number): number => numberOf(entity, code, otherwise);
    const [columns, rows] = [Math.max(1, Math.floor(number(70, 1))), Math.max(1, Math.floor(number(71, 1)))];
    const count = columns * rows * Math.max(1, block.entities.length);
    this.copies += count;
    if (this.copies > MOST_PATHS) throw new AppError('tooIntricate', { count: this.copies, limit: MOST_PATHS });
    const sized = followedBy(translation(-block.x, -block.y), { a: number(41, 1), b: 0, c: 0, d: number(42, 1), e: 0, f: 0 });
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const spread = followedBy(sized, translation(column * number(44, 0), row * number(45, 0)));
        const turned = followedBy(spread, rotation((number(50, 0) * Math.PI) / 180, 0, 0));
        this.collect(block.entities, followedBy(followedBy(turned, translation(number(10, 0), number(20, 0))), where), layer, deep + 1);
      }
    }
  }
  /** Entities of blocks that were put in so far. */
  private copies = 0;

  private colourOf(entity: DxfEntity, layer: string): string {
    const ofLayer = this.dxf.layerColours.get(layer);
    const index = numberOf(entity, 62, BY_LAYER);
    const rgb = trueColour(entity) ?? (index === BY_LAYER || index === 0 ? (ofLayer?.rgb ?? colourOfIndex(ofLayer?.index ?? 7)) : colourOfIndex(index));
    return `#${rgb.toString(16).padStart(6, '0')}`;
  }
}

/** An entity's colour is that of its layer. */
const BY_LAYER = 256;

function byLayer(found: readonly FoundPath[]): Map<string, FoundPath[]> {
  const layers = new Map<string, FoundPath[]>();
  for (const each of found) {
    const there = layers.get(each.layer);
    if (there === undefined) layers.set(each.layer, [each]);
    else there.push(each);
  }
  return layers;
}

/** Where the page begins, in mm with y down. */
function pageOf({ header }: DxfFile, found: readonly FoundPath[], scale: number): { left: number; top: number; widthMm: number; heightMm: number } | undefined {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { path } of found) {
    for (const { x, y } of [path.start, ...path.sides.flatMap(({ handles, to }) => [...(handles ?? []), to])]) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  if (!(right > left || bottom > top)) return undefined;
  const [low, high] = ['$EXTMIN', '$EXTMAX'].map((name) => {
    const groups = header.get(name);
    return groups === undefined ? undefined : { x: numberOf({ groups }, 10, 0), y: numberOf({ groups }, 20, 0) };
  });
  const stated = low === undefined || high === undefined ? undefined : { left: low.x * scale, top: -high.y * scale, right: high.x * scale, bottom: -low.y * scale };
  // An extent that does not hold what is drawn is an old one.
  const holds = stated !== undefined && stated.left <= left + SAME_MM && stated.top <= top + SAME_MM && stated.right >= right - SAME_MM && stated.bottom >= bottom - SAME_MM && stated.right - stated.left < 1e5;
  if (holds) return { left: stated.left, top: stated.top, widthMm: stated.right - stated.left, heightMm: stated.bottom - stated.top };
  return { left, top, widthMm: right - left, heightMm: bottom - top };
}
