import sharp from 'sharp';
import { finish } from '../src/core/task/task.ts';
import { applyRecipe } from '../src/core/run/applyRecipe.ts';
import { firstLook } from '../src/core/propose/firstLook.ts';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import type { Recipe, Step } from '../src/core/clean/recipe.ts';
import { artFromPicture, isOpaque, pictureFromArt, type Art, type Frame } from '../src/core/raster/art.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { writePng } from '../src/formats/picture/writePng.ts';
import { unturnedPoint } from '../src/core/raster/turn.ts';
import { colourDrawings, colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { CONDITIONS, degraded } from './degrade.ts';
import { oneColourDrawings } from './drawings.ts';
import { outlined } from './outlined.ts';
import { compareEdges, truthOf, type DrawingTruth, type EdgeComparison, type Window } from './toneTruth.ts';

/** Crowded drawings among those that go the road. */
const COMPOSED = 4;
const TURN_DEG = 3;

type Bare<Kind extends Step['kind']> = Omit<Extract<Step, { kind: Kind }>, 'id' | 'enabled' | 'v'>;
const step = <Kind extends Step['kind']>(settings: Bare<Kind>): Step => ({ id: settings.kind, enabled: true, v: 1, ...settings }) as unknown as Step;

/** A way to the outlines: what is done to the picture first. */
interface Road {
  readonly name: string;
  readonly recipe: (drawing: ColourDrawing, picture: Rgba8) => Recipe;
  /** Goes with drawings in one ink alone, with which no other road goes. */
  readonly inked?: true;
}

const corner = { xPx: 2, yPx: 2 };

const ROADS: readonly Road[] = [
  { name: 'fewer colours', recipe: (drawing) => [step<'fewerColours'>({ kind: 'fewerColours', tones: tonesOf(drawing).length })] },
  { name: 'area lift', recipe: () => [step<'areaLift'>({ kind: 'areaLift', at: corner, tolerance: 'auto', enclosed: true, soft: true })] },
  { name: 'colour lift', recipe: ({ ground }) => [step<'colourLift'>({ kind: 'colourLift', colour: ground, tolerance: 6, soft: true })] },
  { name: 'subject lift', recipe: () => [step<'subjectLift'>({ kind: 'subjectLift', strokes: [] })] },
  { name: 'sweep', recipe: () => [step<'sweep'>({ kind: 'sweep', speckMm2: 1, pinholeMm2: 1 })] },
  { name: 'smoothing', recipe: () => [step<'smoothing'>({ kind: 'smoothing', strength: 12 })] },
  { name: 'light levelling', recipe: () => [step<'lightLevelling'>({ kind: 'lightLevelling', strength: 1 })] },
  { name: 'levels', recipe: () => [step<'levels'>({ kind: 'levels', points: 'auto', gamma: 1, saturation: 1, invert: false })] },
  { name: 'enlarging 2×', recipe: () => [step<'enlarging'>({ kind: 'enlarging', times: 2 })] },
  { name: 'gap mending', recipe: () => [step<'gapMending'>({ kind: 'gapMending', widestPx: 8 })] },
  { name: 'edge tidying', recipe: () => [step<'edgeTidying'>({ kind: 'edgeTidying', amountPx: 1 })] },
  { name: 'turn by 3°', recipe: () => [step<'turn'>({ kind: 'turn', mirrored: false, quarters: 0, angleDeg: TURN_DEG })] },
  { name: 'crop', recipe: (_drawing, { width, height }) => [step<'crop'>({ kind: 'crop', rect: { xPx: 0.1 * width, yPx: 0.1 * height, widthPx: 0.8 * width, heightPx: 0.8 * height } })] },
  { name: 'line pick', inked: true, recipe: () => [step<'linePick'>({ kind: 'linePick', detail: 0.5 })] },
  { name: 'proposed', recipe: (_drawing, picture) => firstLook(picture).recipe },
];

type Figures = EdgeComparison & { readonly nodes: number };

/** A drawing as it was sent, and as it truly is. */
interface Sent {
  readonly drawing: ColourDrawing;
  readonly picture: Rgba8;
  readonly truth: DrawingTruth;
}

/** @param frame where the art lies in the picture. */
async function figuresOf({ drawing, picture, truth }: Sent, recipe: Recipe, frame: Frame, art: Art, window: Window | undefined): Promise<Figures> {
  const turn = recipe.find((each) => each.kind === 'turn');
  const undo = (x: number, y: number): [number, number] => {
    const [px, py] = [x / frame.scale + frame.leftPx, y / frame.scale + frame.topPx];
    return turn?.kind === 'turn' ? unturnedPoint(turn, picture.width, picture.height, px, py) : [px, py];
  };
  const { ground, shapes, nodes } = outlined(art, tonesOf(drawing), undo, groundLeft(art, drawing) ? 1 : 0);
  return { ...(await compareEdges(truth, ground, shapes, window)), nodes };
}

/** A step that lifts the ground may rightly leave some of its tone inside of the art, as the white of an eye: so many px² of it are a film of their own. */
const LEFT_PX2 = 40;
/** How near a pixel of the ground is to its colour after compression, levels of each channel. */
const LIKE_GROUND = 12;

function groundLeft({ alpha, colour: { data } }: Art, { ground }: ColourDrawing): boolean {
  if (isOpaque(alpha)) return false;
  const { r, g, b } = rgbFromHex(ground) ?? { r: 255, g: 255, b: 255 };
  let left = 0;
  for (let i = 0; i < alpha.length; i++)
    if (alpha[i] === 255 && Math.abs(data[4 * i] - r) <= LIKE_GROUND && Math.abs(data[4 * i + 1] - g) <= LIKE_GROUND && Math.abs(data[4 * i + 2] - b) <= LIKE_GROUND) left++;
  return left >= LEFT_PX2;
}

/** The art as another program gets it: written and read again. */
async function throughFile(art: Art): Promise<Art> {
  const { data, info } = await sharp(writePng(pictureFromArt(art))).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const picture = makeRgba8(info.width, info.height, new Uint8Array(data));
  return artFromPicture(isOpaque(artFromPicture(picture).alpha) ? { ...picture, opaque: true } : picture);
}

const isSame = (a: Art, b: Art): boolean => a.frame.scale === b.frame.scale && Buffer.compare(a.alpha, b.alpha) === 0 && Buffer.compare(new Uint8Array(pictureFromArt(a).data), new Uint8Array(pictureFromArt(b).data)) === 0;

const KEYS = ['mean', 'p95', 'nodes'] as const;
type Key = (typeof KEYS)[number];

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b);
const told = (values: readonly number[]): string => `${(sorted(values)[values.length >> 1] ?? NaN).toFixed(2)} (${Math.max(...values).toFixed(2)})`;

/** Distances below this are below what the comparison tells apart, px. */
const LEAST_P95 = 1 / 16;
const ratioOf = (key: Key, after: Figures, before: Figures): number => (key === 'p95' ? Math.max(after[key], LEAST_P95) / Math.max(before[key], LEAST_P95) : after[key] / before[key]);

class Row {
  private readonly ratios: Record<Key, number[]> = { mean: [], p95: [], nodes: [] };
  constructor(private readonly name: string) {}

  add(drawing: string, after: Figures, before: Figures): void {
    for (const key of KEYS) this.ratios[key].push(ratioOf(key, after, before));
    if (process.env['ROAD_VERBOSE'] === undefined) return;
    console.log(`    ${this.name}, ${drawing}: ${KEYS.map((key) => `${key} ${before[key].toFixed(3)} → ${after[key].toFixed(3)}`).join(', ')}, wrong ${(100 * before.wrong).toFixed(2)} → ${(100 * after.wrong).toFixed(2)}`);
  }

  print(note: string): void {
    if (this.ratios.mean.length > 0) console.log(`| ${this.name} | ${KEYS.map((key) => told(this.ratios[key])).join(' | ')} |${note}`);
  }
}

function windowOf(recipe: Recipe): Window | undefined {
  const crop = recipe.find((each) => each.kind === 'crop');
  if (crop?.kind !== 'crop') return undefined;
  const { xPx, yPx, widthPx, heightPx } = crop.rect;
  return { left: xPx, top: yPx, right: xPx + widthPx, bottom: yPx + heightPx };
}

async function walk(road: Road, sent: readonly Sent[], plain: ReadonlyMap<string, Figures>): Promise<void> {
  const [within, saved] = [new Row(road.name), new Row(`${road.name}, saved as PNG`)];
  const failed: string[] = [];
  for (const each of sent) {
    const { drawing, picture } = each;
    const recipe = road.recipe(drawing, picture);
    const window = windowOf(recipe);
    const came = artFromPicture(picture);
    try {
      const before = window === undefined ? plain.get(drawing.name) : await figuresOf(each, [], came.frame, came, window);
      if (before === undefined) continue;
      const { art } = finish(applyRecipe({ picture: came, pictureKey: 'road', recipe, finished: { by: 'width', sizeMm: 200, turnDeg: 0 } }));
      const after = await figuresOf(each, recipe, art.frame, art, window);
      within.add(drawing.name, after, before);
      const read = await throughFile(art);
      saved.add(drawing.name, isSame(art, read) ? after : await figuresOf(each, recipe, art.frame, read, window), before);
    } catch (error) {
      failed.push(`${drawing.name}: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  within.print(failed.length === 0 ? '' : ` failed: ${failed.join('; ')}`);
  saved.print('');
}

/**
 * What each clean-up step costs the outlines: beside outlines of the picture as it came, inside of a job and through a saved PNG. Medians of the ratios, the
 * worst drawing in brackets. `ROAD_STEPS` and `ROAD_CONDITIONS` name some of them, `ROAD_VERBOSE` tells each drawing.
 */
export async function benchRoad(): Promise<void> {
  const drawings = [...colourDrawings(), ...Array.from({ length: COMPOSED }, (_, k) => composedDrawing(60 + k, 3 + k))];
  const inked = oneColourDrawings().map(({ name, size, path }): ColourDrawing => ({ name, size, ground: '#ffffff', shapes: [{ fill: '#16161c', path }] }));
  const asked = (name: string, of: string | undefined): boolean => of === undefined || of.split(',').includes(name);
  for (const condition of CONDITIONS.filter((each) => asked(each, process.env['ROAD_CONDITIONS']))) {
    const sent: Sent[] = [];
    const plain = new Map<string, Figures>();
    for (const drawing of [...drawings, ...inked]) {
      const picture = await degraded((pixels) => colourSvgOf(drawing, pixels, false), condition);
      const each = { drawing, picture, truth: await truthOf(drawing, picture.width) };
      const came = artFromPicture(picture);
      sent.push(each);
      plain.set(drawing.name, await figuresOf(each, [], came.frame, came, undefined));
    }
    console.log(`\n### The road, ${condition}\n\n| step | edge error | 95 % | nodes |\n|---|---|---|---|`);
    for (const road of ROADS.filter(({ name }) => asked(name, process.env['ROAD_STEPS']))) await walk(road, sent.filter(({ drawing }) => inked.includes(drawing) === (road.inked === true)), plain);
  }
}
