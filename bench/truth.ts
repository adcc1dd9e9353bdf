/** Outlines as many short chords, from SVG path data with M L H V C Q A Z (absolute or relative). Enough for the paths that the bench draws and reads. */
export interface Chords {
  /** x0, y0, x1, y1 of each chord. */
  readonly ends: Float64Array;
  readonly count: number;
}

export function chordsOf(path: string, scale: number, offsetX = 0, offsetY = 0, stepPx = 0.25, scaleY = scale): Chords {
  const out: number[] = [];
  const tokens = path.match(/[a-zA-Z]|-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g) ?? [];
  let i = 0;
  let x = 0;
  let y = 0;
  let startX = 0;
  let startY = 0;
  let command = '';
  const number = (): number => Number(tokens[i++]);
  const to = (nx: number, ny: number): void => {
    if (nx !== x || ny !== y) out.push(x * scale + offsetX, y * scaleY + offsetY, nx * scale + offsetX, ny * scaleY + offsetY);
    x = nx;
    y = ny;
  };
  const line = (nx: number, ny: number): void => {
    const n = Math.max(1, Math.ceil((Math.hypot(nx - x, ny - y) * Math.abs(scale)) / stepPx));
    const [ax, ay] = [x, y];
    for (let k = 1; k <= n; k++) to(ax + ((nx - ax) * k) / n, ay + ((ny - ay) * k) / n);
  };
  const cubic = (x1: number, y1: number, x2: number, y2: number, x3: number, y3: number): void => {
    const [x0, y0] = [x, y];
    const length = (Math.hypot(x1 - x0, y1 - y0) + Math.hypot(x2 - x1, y2 - y1) + Math.hypot(x3 - x2, y3 - y2)) * Math.abs(scale);
    const n = Math.max(2, Math.ceil(length / stepPx));
    for (let k = 1; k <= n; k++) {
      const t = k / n;
      const u = 1 - t;
      to(u * u * u * x0 + 3 * u * u * t * x1 + 3 * u * t * t * x2 + t * t * t * x3, u * u * u * y0 + 3 * u * u * t * y1 + 3 * u * t * t * y2 + t * t * t * y3);
    }
  };
  while (i < tokens.length) {
    if (/[a-zA-Z]/.test(tokens[i])) command = tokens[i++];
    const upper = command.toUpperCase();
    const [ox, oy] = command === upper ? [0, 0] : [x, y];
    if (upper === 'M') {
      x = ox + number();
      y = oy + number();
      startX = x;
      startY = y;
      command = command === 'M' ? 'L' : 'l';
    } else if (upper === 'L') line(ox + number(), oy + number());
    else if (upper === 'H') line(ox + number(), y);
    else if (upper === 'V') line(x, oy + number());
    else if (upper === 'C') cubic(ox + number(), oy + number(), ox + number(), oy + number(), ox + number(), oy + number());
    else if (upper === 'Q') {
      const [cx, cy, ex, ey] = [ox + number(), oy + number(), ox + number(), oy + number()];
      cubic(x + (2 / 3) * (cx - x), y + (2 / 3) * (cy - y), ex + (2 / 3) * (cx - ex), ey + (2 / 3) * (cy - ey), ex, ey);
    } else if (upper === 'A') arc(number(), number(), number(), number(), number(), ox + number(), oy + number());
    else if (upper === 'Z') line(startX, startY);
    else throw new Error(`path command ${command}`);
  }

  /** SVG 1.1 appendix F.6: the arc's centre from its ends. */
  function arc(rx: number, ry: number, turnDeg: number, large: number, sweep: number, ex: number, ey: number): void {
    const phi = (turnDeg * Math.PI) / 180;
    const [c, s] = [Math.cos(phi), Math.sin(phi)];
    const px = (c * (x - ex)) / 2 + (s * (y - ey)) / 2;
    const py = (-s * (x - ex)) / 2 + (c * (y - ey)) / 2;
    const grow = Math.sqrt(Math.max(1, (px * px) / (rx * rx) + (py * py) / (ry * ry)));
    rx *= grow;
    ry *= grow;
    const k = Math.sqrt(Math.max(0, (rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px) / (rx * rx * py * py + ry * ry * px * px))) * (large === sweep ? -1 : 1);
    const [qx, qy] = [(k * rx * py) / ry, (-k * ry * px) / rx];
    const [mx, my] = [c * qx - s * qy + (x + ex) / 2, s * qx + c * qy + (y + ey) / 2];
    const from = Math.atan2((py - qy) / ry, (px - qx) / rx);
    let turn = Math.atan2((-py - qy) / ry, (-px - qx) / rx) - from;
    if (sweep === 0 && turn > 0) turn -= 2 * Math.PI;
    if (sweep !== 0 && turn < 0) turn += 2 * Math.PI;
    const n = Math.max(4, Math.ceil((Math.abs(turn) * Math.max(rx, ry) * Math.abs(scale)) / stepPx));
    for (let j = 1; j <= n; j++) {
      const a = from + (turn * j) / n;
      to(mx + c * rx * Math.cos(a) - s * ry * Math.sin(a), my + s * rx * Math.cos(a) + c * ry * Math.sin(a));
    }
  }
  return { ends: Float64Array.from(out), count: out.length / 4 };
}

export function joined(parts: readonly Chords[]): Chords {
  const ends = new Float64Array(parts.reduce((sum, part) => sum + part.ends.length, 0));
  let at = 0;
  for (const part of parts) {
    ends.set(part.ends, at);
    at += part.ends.length;
  }
  return { ends, count: ends.length / 4 };
}

export interface EdgeError {
  readonly mean: number;
  readonly p95: number;
}

/** Distances both ways between two outlines: from every chord of one to the nearest point of the other. In the unit of the chords. */
export function edgeError(a: Chords, b: Chords): EdgeError {
  const distances = [...distancesTo(a, b), ...distancesTo(b, a)].sort((x, y) => x - y);
  if (distances.length === 0) return { mean: Infinity, p95: Infinity };
  return { mean: distances.reduce((sum, d) => sum + d, 0) / distances.length, p95: distances[Math.floor(distances.length * 0.95)] };
}

const CELL = 4;
const FAR = 12;

function distancesTo(from: Chords, to: Chords): number[] {
  const grid = new Map<number, number[]>();
  const key = (cx: number, cy: number): number => cx * 100003 + cy;
  for (let k = 0; k < to.count; k++) {
    const cx = Math.floor(to.ends[4 * k] / CELL);
    const cy = Math.floor(to.ends[4 * k + 1] / CELL);
    const list = grid.get(key(cx, cy));
    if (list === undefined) grid.set(key(cx, cy), [k]);
    else list.push(k);
  }
  const out: number[] = [];
  for (let k = 0; k < from.count; k++) {
    const x = (from.ends[4 * k] + from.ends[4 * k + 2]) / 2;
    const y = (from.ends[4 * k + 1] + from.ends[4 * k + 3]) / 2;
    out.push(nearest(x, y));
  }
  return out;

  function nearest(x: number, y: number): number {
    const cx = Math.floor(x / CELL);
    const cy = Math.floor(y / CELL);
    let best = FAR;
    for (let ring = 0; ring <= FAR / CELL; ring++) {
      for (let gx = cx - ring; gx <= cx + ring; gx++) {
        for (let gy = cy - ring; gy <= cy + ring; gy++) {
          if (Math.max(Math.abs(gx - cx), Math.abs(gy - cy)) !== ring) continue;
          for (const k of grid.get(key(gx, gy)) ?? []) best = Math.min(best, toChord(x, y, k));
        }
      }
      if (best < ring * CELL) break;
    }
    return best;
  }

  function toChord(x: number, y: number, k: number): number {
    const { ends } = to;
    const dx = ends[4 * k + 2] - ends[4 * k];
    const dy = ends[4 * k + 3] - ends[4 * k + 1];
    const length2 = dx * dx + dy * dy;
    const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - ends[4 * k]) * dx + (y - ends[4 * k + 1]) * dy) / length2));
    return Math.hypot(x - ends[4 * k] - t * dx, y - ends[4 * k + 1] - t * dy);
  }
}
