import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import type { GlyphCommand } from './fontFace.ts';

/** A glyph's outline with y down, its origin at 0, 0; rings as the font has them, without nesting. Quadratic curves become the cubics that draw the same. @param scale of the font's units. */
export function glyphCurves(outline: readonly GlyphCommand[], scale: number): Curves {
  const pen = new GlyphPen(scale);
  for (const command of outline) pen.draw(command);
  pen.end();
  return pen.builder.build();
}

class GlyphPen {
  readonly builder = new CurvesBuilder();
  private x = 0;
  private y = 0;
  private startX = 0;
  private startY = 0;
  private isOpen = false;

  constructor(private readonly scale: number) {}

  draw(command: GlyphCommand): void {
    const { x: x0, y: y0 } = this;
    switch (command.step) {
      case 'close':
        this.end();
        this.x = this.startX;
        this.y = this.startY;
        return;
      case 'move':
        this.end();
        break;
      case 'line':
        if (command.x === x0 && command.y === y0) return;
        this.begin();
        this.builder.line(command.x * this.scale, -command.y * this.scale);
        break;
      case 'quadratic': {
        const { x1, y1, x, y } = command;
        this.cubic(x0 + (2 / 3) * (x1 - x0), y0 + (2 / 3) * (y1 - y0), x + (2 / 3) * (x1 - x), y + (2 / 3) * (y1 - y), x, y);
        break;
      }
      case 'cubic':
        this.cubic(command.x1, command.y1, command.x2, command.y2, command.x, command.y);
    }
    this.x = command.x;
    this.y = command.y;
  }

  /** Closes what was begun. */
  end(): void {
    if (!this.isOpen) return;
    if (this.x !== this.startX || this.y !== this.startY) this.builder.line(this.startX * this.scale, -this.startY * this.scale);
    this.builder.close();
    this.isOpen = false;
  }

  private cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    const { scale } = this;
    this.begin();
    this.builder.cubic(x1 * scale, -y1 * scale, x2 * scale, -y2 * scale, x * scale, -y * scale);
  }

  private begin(): void {
    if (this.isOpen) return;
    this.builder.start(this.x * this.scale, -this.y * this.scale, -1);
    this.startX = this.x;
    this.startY = this.y;
    this.isOpen = true;
  }
}
