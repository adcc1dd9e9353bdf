import { toScreenX, toScreenY, type Viewport } from '../viewport.ts';

export interface Pin {
  /** World coordinates of what it points at. */
  readonly x: number;
  readonly y: number;
  /** Shown hollow: what it points at is left alone. */
  readonly hollow?: boolean;
}

/** More pins than this are dots; only the chosen one keeps its number. */
const MOST_NUMBERED = 60;
const OCHRE = '#a9690f';
const MADDER = '#9e2f4b';
const PAPER = '#fffdf8';
/** Middle of a pin's head above its point, and the head's radius, CSS px. */
const HEAD_PX = 17;
const HEAD_RADIUS_PX = 9.5;
const DOT_RADIUS_PX = 4;

/** Numbered pins at places; `chosen` is drawn last, in the accent. */
export function drawPins(context: CanvasRenderingContext2D, view: Viewport, pins: readonly Pin[], chosen: number | undefined): void {
  context.save();
  context.font = "700 11px 'Hanken Grotesk Variable', sans-serif";
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const asDots = pins.length > MOST_NUMBERED;
  pins.forEach((pin, k) => {
    if (k === chosen) return;
    if (asDots) drawDot(context, view, pin);
    else drawPin(context, view, pin, k + 1, OCHRE);
  });
  if (chosen !== undefined && pins[chosen] !== undefined) drawPin(context, view, pins[chosen], chosen + 1, MADDER);
  context.restore();
}

function drawPin(context: CanvasRenderingContext2D, view: Viewport, pin: Pin, number: number, colour: string): void {
  const x = toScreenX(view, pin.x);
  const y = toScreenY(view, pin.y);
  const hollow = pin.hollow === true;
  context.fillStyle = hollow ? PAPER : colour;
  context.strokeStyle = hollow ? colour : PAPER;
  context.lineWidth = hollow ? 1.6 : 1;
  context.beginPath();
  context.moveTo(x, y);
  context.arc(x, y - HEAD_PX, HEAD_RADIUS_PX, Math.PI * 0.8, Math.PI * 0.2);
  context.closePath();
  context.fill();
  context.stroke();
  context.fillStyle = hollow ? colour : '#fff';
  context.fillText(String(number), x, y - HEAD_PX + 0.5, 2 * HEAD_RADIUS_PX);
}

function drawDot(context: CanvasRenderingContext2D, view: Viewport, pin: Pin): void {
  context.fillStyle = pin.hollow === true ? PAPER : OCHRE;
  context.strokeStyle = pin.hollow === true ? OCHRE : PAPER;
  context.lineWidth = 1;
  context.beginPath();
  context.arc(toScreenX(view, pin.x), toScreenY(view, pin.y), DOT_RADIUS_PX, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
}

/** The pin under a screen point: the last drawn that covers it. */
export function pinAt(view: Viewport, pins: readonly Pin[], screenX: number, screenY: number): number | undefined {
  const asDots = pins.length > MOST_NUMBERED;
  const [lift, radius] = asDots ? [0, DOT_RADIUS_PX + 3] : [HEAD_PX, HEAD_RADIUS_PX + 1];
  for (let k = pins.length - 1; k >= 0; k--) {
    if (Math.hypot(toScreenX(view, pins[k].x) - screenX, toScreenY(view, pins[k].y) - lift - screenY) <= radius) return k;
  }
  return undefined;
}
