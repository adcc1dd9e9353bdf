import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { EditPath } from '../../../core/outline/edit/editPath.ts';
import type { Viewport } from '../../../ui/viewport.ts';
import { LineLayer } from './LineLayer.ts';
import { linesOf } from './pathLines.ts';

/** A path that only knows where it begins. */
class LineStub {
  from: [number, number] | undefined;
  moveTo(x: number, y: number): void {
    this.from ??= [x, y];
  }
  lineTo(): void {}
  bezierCurveTo(): void {}
  closePath(): void {}
}

/** A context that notes what is stroked, and which boxes are cleared. */
class ContextStub {
  readonly stroked: LineStub[] = [];
  readonly cleared: number[][] = [];
  shown = 0;
  constructor(readonly canvas: unknown) {}
  getTransform = (): { a: number } => ({ a: 1 });
  setTransform(): void {}
  save(): void {}
  restore(): void {}
  translate(): void {}
  scale(): void {}
  beginPath(): void {}
  rect(): void {}
  clip(): void {}
  clearRect(...box: number[]): void {
    this.cleared.push(box);
  }
  stroke(line: LineStub): void {
    // Each line has a casing and a core.
    if (this.stroked[this.stroked.length - 1] !== line) this.stroked.push(line);
  }
  drawImage(): void {
    this.shown++;
  }
}

const made: ContextStub[] = [];
beforeEach(() => {
  made.length = 0;
  vi.stubGlobal('Path2D', LineStub);
  vi.stubGlobal('document', {
    createElement: () => {
      const canvas = { width: 0, height: 0, getContext: () => context };
      const context = new ContextStub(canvas);
      made.push(context);
      return canvas;
    },
  });
});
afterEach(() => void vi.unstubAllGlobals());

const SIZE = { width: 400, height: 400 };
const VIEW: Viewport = { x: 0, y: 0, scale: 1 };
const square = (x: number, y: number): EditPath => ({ closed: true, nodes: [{ x, y }, { x: x + 4, y }, { x: x + 4, y: y + 4 }, { x, y: y + 4 }] }) as EditPath;
/** Nine hundred squares, ten px apart. */
const grid = (): EditPath[] => Array.from({ length: 900 }, (_, k) => square(10 * (k % 30), 10 * Math.floor(k / 30)));

describe('the lines of many outlines', () => {
  const shown = (): { layer: LineLayer; draw: (paths: readonly EditPath[], view?: Viewport) => ContextStub; main: ContextStub } => {
    const layer = new LineLayer();
    const main = new ContextStub({});
    const draw = (paths: readonly EditPath[], view = VIEW): ContextStub => {
      layer.draw(main as unknown as CanvasRenderingContext2D, view, SIZE, linesOf(paths));
      return made[0];
    };
    return { layer, draw, main };
  };

  it('are drawn once for a view, and after an edit anew only where it was and is', () => {
    const { draw, main } = shown();
    const paths = grid();
    const own = draw(paths);
    const all = own.stroked.length;
    expect([all, main.shown]).toEqual([Math.ceil(900 / 64), 1]);
    draw(paths);
    expect([own.stroked.length, main.shown, main.stroked.length]).toEqual([all, 2, 0]);

    const edited = paths.with(465, square(152, 153));
    own.cleared.length = 0;
    draw(edited);
    // The square itself and those that its two boxes touch, not the bunch of sixty-four.
    const anew = own.stroked.slice(all);
    expect(anew.length).toBeGreaterThan(1);
    expect(anew.length).toBeLessThan(20);
    expect(anew.every(({ from }) => from !== undefined && Math.abs(from[0] - 152) < 16 && Math.abs(from[1] - 152) < 16)).toBe(true);
    for (const [x, y, width, height] of own.cleared) expect([x > 140, y > 140, x + width < 165, y + height < 165]).toEqual([true, true, true, true]);
  });

  it('are all drawn anew for another view, and where much has changed', () => {
    const { draw } = shown();
    const paths = grid();
    const own = draw(paths);
    const all = own.stroked.length;
    draw(paths, { ...VIEW, x: 5 });
    expect(own.stroked.length).toBe(2 * all);
    draw(paths.map((path, k) => (k % 15 === 0 ? square(path.nodes[0].x + 1, path.nodes[0].y) : path)), { ...VIEW, x: 5 });
    expect(own.stroked.length).toBe(3 * all);
    // Zoomed in, what lies outside of the view is not.
    own.stroked.length = 0;
    draw(paths, { x: 0, y: 0, scale: 10 });
    expect(own.stroked.length).toBeLessThan(all / 2);
  });
});
