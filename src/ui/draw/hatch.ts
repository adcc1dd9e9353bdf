/** What lies behind the art: the hatch that means clear, paper, the blank's colour, or a loud one that the job does not use. */
export interface BackdropPaint {
  readonly ground: string;
  /** Colour of the hatch lines; clear is hatched on every backdrop. */
  readonly line: string;
}

const SPACING_PX = 9;
const tiles = new Map<string, HTMLCanvasElement>();

/** A seamless tile of fine diagonal lines. */
function tileOf({ ground, line }: BackdropPaint): HTMLCanvasElement {
  const key = `${ground}|${line}`;
  const kept = tiles.get(key);
  if (kept !== undefined) return kept;
  const tile = document.createElement('canvas');
  const size = SPACING_PX * 2;
  tile.width = tile.height = size;
  const context = tile.getContext('2d');
  if (context !== null) {
    context.fillStyle = ground;
    context.fillRect(0, 0, size, size);
    context.strokeStyle = line;
    context.lineWidth = 1;
    context.beginPath();
    for (let k = -size; k <= size * 2; k += SPACING_PX) {
      context.moveTo(k, size);
      context.lineTo(k + size, 0);
    }
    context.stroke();
  }
  tiles.set(key, tile);
  return tile;
}

/** Fills a screen rectangle with the sign for clear. */
export function fillHatch(context: CanvasRenderingContext2D, paint: BackdropPaint, x: number, y: number, width: number, height: number): void {
  const pattern = context.createPattern(tileOf(paint), 'repeat');
  if (pattern === null) return;
  context.fillStyle = pattern;
  context.fillRect(x, y, width, height);
}
