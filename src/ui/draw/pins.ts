import { toScreenX, toScreenY, type Viewport } from '../viewport.ts';

export interface Pin {
  /** World coordinates of what it points at. */
  readonly x: number;
  readonly y: number;
  /** Shown hollow: what it points at is left alone. */
  readonly hollow?: boolean;
  /** It points at what is not on the table now. */
  readonly elsewhere?: boolean;
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
/** Dots in one square of this side are one with their number in it, CSS px. */
const CLUSTER_PX = 26;
const CLUSTER_RADIUS_PX = 10;

/** Numbered pins at places; `chosen` is drawn last, in the accent. */
export function drawPins(context: CanvasRenderingContext2D, view: Viewport, pins: readonly Pin[], chosen: number | undefined): void {
  context.save();
  context.font = "700 11px 'Hanken Grotesk Variable', sans-serif";
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const asDots = pins.length > MOST_NUMBERED;
  if (asDots) for (const cluster of clustersOf(view, pins.filter(({ elsewhere }) => elsewhere !== true))) drawDot(context, view, cluster.pin, cluster.count);
  pins.forEach((pin, k) => {
    if (k !== chosen && !asDots && pin.elsewhere !== true) drawPin(context, view, pin, k + 1, OCHRE);
  });
  if (chosen !== undefined && pins[chosen] !== undefined && pins[chosen].elsewhere !== true) drawPin(context, view, pins[chosen], chosen + 1, MADDER);
  context.restore();
}

/** Pins that lie too near to each other on screen to be told apart, as one at their middle. */
export function clustersOf(view: Viewport, pins: readonly Pin[]): { pin: Pin; count: number }[] {
  const cells = new Map<string, { x: number; y: number; count: number; hollow: number }>();
  for (const pin of pins) {
    const key = `${Math.floor(toScreenX(view, pin.x) / CLUSTER_PX)},${Math.floor(toScreenY(view, pin.y) / CLUSTER_PX)}`;
    const cell = cells.get(key) ?? { x: 0, y: 0, count: 0, hollow: 0 };
    cells.set(key, { x: cell.x + pin.x, y: cell.y + pin.y, count: cell.count + 1, hollow: cell.hollow + (pin.hollow === true ? 1 : 0) });
  }
  return [...cells.values()].map(({ x, y, count, hollow }) => ({ pin: { x: x / count, y: y / count, hollow: hollow === count }, count }));
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

function drawDot(context: CanvasRenderingContext2D, view: Viewport, pin: Pin, count: number): void {
  context.fillStyle = pin.hollow === true ? PAPER : OCHRE;
  context.strokeStyle = pin.hollow === true ? OCHRE : PAPER;
  context.lineWidth = 1;
  context.beginPath();
  context.arc(toScreenX(view, pin.x), toScreenY(view, pin.y), count > 1 ? CLUSTER_RADIUS_PX : DOT_RADIUS_PX, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
  if (count < 2) return;
  context.fillStyle = pin.hollow === true ? OCHRE : '#fff';
  context.fillText(String(count), toScreenX(view, pin.x), toScreenY(view, pin.y) + 0.5, 2 * CLUSTER_RADIUS_PX - 2);
}

/** The pin under a screen point: the last drawn that covers it; of dots the nearest. */
export function pinAt(view: Viewport, pins: readonly Pin[], screenX: number, screenY: number): number | undefined {
  const asDots = pins.length > MOST_NUMBERED;
  const [lift, radius] = asDots ? [0, CLUSTER_RADIUS_PX + 2] : [HEAD_PX, HEAD_RADIUS_PX + 2];
  let nearest: number | undefined;
  let least = radius;
  for (let k = pins.length - 1; k >= 0; k--) {
    const off = Math.hypot(toScreenX(view, pins[k].x) - screenX, toScreenY(view, pins[k].y) - lift - screenY);
    if (off > least) continue;
    if (!asDots) return k;
    least = off;
    nearest = k;
  }
  return nearest;
}
