import { AppError } from '../../src/core/errors/appError.ts';
import { KNIFE_TOOL } from '../../src/formats/plotter/writePlotter.ts';
import { readPlotter, type PlotterFile } from '../../src/formats/plotter/readPlotter.ts';
import { IDENTITY } from '../../src/core/geometry/affine.ts';
import type { CameraView } from '../../src/core/print/findMark.ts';
import { cameraView, type LyingPage, type PrintedPage } from './printedPage.ts';
import type { MachineFault, MachineLoad, MachineState } from '../../src/machines/machinePort.ts';

/** What the stand-in can be told to do wrong. */
export const MISHAPS = ['noMat', 'portBusy', 'connectionLost', 'pieceLifted', 'bladeBlunt', 'markHidden'] as const;
export type Mishap = (typeof MISHAPS)[number];

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A stroke with the times that it begins and ends at, s of the machine's own time. */
interface TimedStroke {
  readonly tool: number;
  readonly points: readonly Point[];
  readonly fromS: number;
  readonly toS: number;
}

/** What a tool left on the sheet. */
export interface Trace {
  readonly points: readonly Point[];
  readonly as: 'drawn' | 'cut' | 'scored';
}

/** How fast a lifted tool goes, mm/s, how long it takes down or up, s, and what is taken when a program tells no speed or force. */
const TRAVEL_MM_S = 400;
const LIFT_S = 0.05;
const USUAL = { speedMmS: 200, forceG: 80 } as const;
/** How long it takes to draw a sheet in, and to look at a mark, s of its own time. */
const LOAD_S = 2;
const LOOK_S = 1.5;
/** What its camera sees at once, and how finely. */
export const CAMERA = { sideMm: 26, pxPerMm: 10 } as const;
const NO_PAGE: PrintedPage = { widthPx: 0, heightPx: 0, pxPerMm: 1, data: new Uint8Array() };
/** A blunt knife needs so many times the force. */
const BLUNT = 3;
/** How long a line that was lost stays so, and a port that another program has, ms. */
const GONE_MS = 3000;

const refusal = (fault: MachineFault): AppError => new AppError('machineFault', { fault });

/**
 * A small cutter that is not there: it takes plotter language, goes along it in its own time, keeps what its tools left on the sheet, and can be told to fail. Nothing runs by itself: where it is follows from the clock each
 * time it is asked.
 */
export class StandInCutter {
  readonly log: string[] = [];
  readonly traces: Trace[] = [];
  private status: MachineState['status'] = 'idle';
  private fault: MachineFault | undefined;
  private loaded: MachineLoad | undefined;
  private origin = { xMm: 0, yMm: 0 };
  private strokes: readonly TimedStroke[] = [];
  private program: Pick<PlotterFile, 'speedMmS' | 'forceG'> = {};
  private done = 0;
  private elapsedS = 0;
  private seenMs: number;
  private mishap: { readonly kind: Mishap; readonly atShare: number } | undefined;
  private blunt = false;
  private goneUntilMs = 0;
  private busyUntilMs = 0;
  private loadingUntilMs = 0;
  private lookingUntilMs = 0;
  private lying: LyingPage | undefined;
  /** Where something lies over the bed, mm, y down. */
  private hiddenAt: Point | undefined;

  /** @param clock ms. @param haste how many times faster than a real one it goes. */
  constructor(
    private readonly area: MachineState['area'],
    private readonly clock: () => number = Date.now,
    private haste = 5,
  ) {
    this.seenMs = clock();
  }

  /** Whether it answers at all. */
  get answers(): boolean {
    return this.clock() >= this.goneUntilMs;
  }

  state(): MachineState {
    this.goOn();
    const lastS = this.strokes.at(-1)?.toS ?? 0;
    const at = this.placeNow();
    return {
      name: 'Stand-in cutter',
      area: this.area,
      status: this.statusNow(),
      ...(this.fault === undefined ? {} : { fault: this.fault }),
      ...(this.loaded === undefined ? {} : { loaded: this.loaded.film }),
      origin: this.origin,
      at: { xMm: at.x, yMm: at.y },
      tool: (this.strokes[Math.min(this.done, this.strokes.length - 1)]?.tool ?? KNIFE_TOOL) === KNIFE_TOOL ? 'knife' : 'pen',
      ...(this.strokes.length === 0 ? {} : { program: { strokes: this.strokes.length, done: this.done, share: lastS === 0 ? 1 : Math.min(1, this.elapsedS / lastS), leftS: Math.max(0, lastS - this.elapsedS) } }),
    };
  }

  /** What lies in it: a sheet without traces. */
  load(load: MachineLoad): void {
    this.goOn();
    if (this.status === 'cutting') throw refusal('portBusy');
    this.loaded = load;
    [this.lying, this.hiddenAt] = [undefined, undefined];
    this.traces.length = 0;
    this.reset();
    this.loadingUntilMs = this.after(LOAD_S);
    this.note(`loaded ${load.film}`);
  }

  /** A page that was printed is laid in it, not quite as it is told: that is for its marks to say. */
  loadPage(lying: LyingPage): void {
    this.load({ film: 'Printed page', needsG: 0 });
    this.lying = lying;
  }

  /** What its camera sees around a place of the bed, mm, y down; the bare mat where no page lies in it. */
  look(xMm: number, yMm: number, random: () => number = Math.random): CameraView {
    this.goOn();
    this.lookingUntilMs = this.after(LOOK_S);
    if (this.mishap?.kind === 'markHidden') {
      this.hiddenAt = { x: xMm, y: yMm };
      this.mishap = undefined;
    }
    const hidden = this.hiddenAt !== undefined && Math.hypot(this.hiddenAt.x - xMm, this.hiddenAt.y - yMm) < CAMERA.sideMm / 2;
    return cameraView(this.lying ?? { page: NO_PAGE, lies: IDENTITY }, xMm, yMm, { ...CAMERA, hidden, random });
  }

  setOrigin(at: { readonly xMm: number; readonly yMm: number }): void {
    this.goOn();
    if (at.xMm < 0 || at.yMm < 0 || at.xMm > this.area.widthMm || at.yMm > this.area.heightMm) throw refusal('outsideArea');
    this.origin = { xMm: at.xMm, yMm: at.yMm };
    this.note(`origin ${at.xMm}, ${at.yMm}`);
  }

  /** Takes a program and begins with it. @throws AppError `machineFault`, and those of the reader for what is no plotter language. */
  send(text: string): void {
    this.goOn();
    if (this.status === 'cutting' || this.clock() < this.busyUntilMs) throw refusal('portBusy');
    if (this.mishap?.kind === 'portBusy') {
      this.mishap = undefined;
      this.busyUntilMs = this.clock() + GONE_MS;
      throw refusal('portBusy');
    }
    if (this.loaded === undefined || this.mishap?.kind === 'noMat') {
      this.mishap = undefined;
      this.note('no mat');
      throw refusal('noMat');
    }
    const file = readPlotter(new TextEncoder().encode(text), 'the program');
    const strokes = timed(file);
    if (strokes.some(({ points }) => points.some(({ x, y }) => x + this.origin.xMm < -0.1 || y + this.origin.yMm < -0.1 || x + this.origin.xMm > this.area.widthMm + 0.1 || y + this.origin.yMm > this.area.heightMm + 0.1))) throw refusal('outsideArea');
    this.reset();
    [this.strokes, this.program, this.status] = [strokes, file, 'cutting'];
    this.loadingUntilMs = this.lookingUntilMs = 0;
    this.note(`program of ${strokes.length} strokes at ${file.speedMmS ?? USUAL.speedMmS} mm/s, ${file.forceG ?? USUAL.forceG} g`);
  }

  pause(): void {
    this.goOn();
    if (this.status === 'cutting') this.status = 'paused';
    this.note('paused');
  }

  /** Goes on after a pause or once a fault was seen to, with the stroke that it was at from its beginning. */
  resume(): void {
    this.goOn();
    if (this.status !== 'paused' && this.status !== 'fault') return;
    if (this.status === 'fault') this.elapsedS = this.strokes[this.done]?.fromS ?? this.elapsedS;
    [this.status, this.fault, this.seenMs] = ['cutting', undefined, this.clock()];
    this.note('went on');
  }

  stop(): void {
    this.goOn();
    this.status = 'idle';
    this.fault = undefined;
    this.note(`stopped after ${this.done} strokes`);
  }

  /** Tells it to fail: at once where a program is sent, or when so much of one is done. */
  fail(kind: Mishap, atShare = 0.5): void {
    this.mishap = { kind, atShare };
  }

  /** How many times faster than a real one it goes from now on. */
  hurry(haste: number): void {
    this.goOn();
    this.haste = haste;
  }

  private statusNow(): MachineState['status'] {
    if (this.status !== 'idle') return this.status;
    const now = this.clock();
    return now < this.loadingUntilMs ? 'loading' : now < this.lookingUntilMs ? 'readingMarks' : 'idle';
  }

  /** When so many seconds of its own time are over, ms. */
  private after(seconds: number): number {
    return this.clock() + (seconds * 1000) / this.haste;
  }

  private reset(): void {
    [this.strokes, this.done, this.elapsedS, this.fault, this.status, this.blunt, this.seenMs] = [[], 0, 0, undefined, 'idle', false, this.clock()];
  }

  private note(words: string): void {
    this.log.push(words);
    if (this.log.length > 500) this.log.shift();
  }

  /** Brings it to where it is by now. */
  private goOn(): void {
    const now = this.clock();
    const goneS = ((now - this.seenMs) / 1000) * this.haste;
    this.seenMs = now;
    if (this.status !== 'cutting') return;
    const lastS = this.strokes.at(-1)?.toS ?? 0;
    const failsS = this.mishap === undefined || this.mishap.kind === 'markHidden' ? Infinity : this.mishap.atShare * lastS;
    const until = this.elapsedS + goneS;
    this.reach(Math.min(until, lastS, failsS));
    if (until >= failsS && failsS <= lastS) this.befall();
    else if (this.elapsedS >= lastS) {
      this.status = 'idle';
      this.note(`done, ${this.done} strokes`);
    }
  }

  private reach(toS: number): void {
    this.elapsedS = Math.max(this.elapsedS, toS);
    while (this.done < this.strokes.length && this.strokes[this.done].toS <= this.elapsedS) this.leave(this.strokes[this.done++]);
  }

  private leave({ tool, points }: TimedStroke): void {
    const force = (this.program.forceG ?? USUAL.forceG) / (this.blunt ? BLUNT : 1);
    const through = force >= (this.loaded?.needsG ?? 0);
    this.traces.push({ points: points.map(({ x, y }) => ({ x: x + this.origin.xMm, y: y + this.origin.yMm })), as: tool !== KNIFE_TOOL ? 'drawn' : through ? 'cut' : 'scored' });
  }

  private befall(): void {
    const kind = this.mishap?.kind;
    this.mishap = undefined;
    if (kind === 'bladeBlunt') {
      this.blunt = true;
      this.note('blade blunt');
      return;
    }
    this.status = 'fault';
    this.fault = kind === 'connectionLost' ? 'connectionLost' : 'pieceLifted';
    if (kind === 'connectionLost') this.goneUntilMs = this.clock() + GONE_MS;
    this.note(this.fault);
  }

  private placeNow(): Point {
    const stroke = this.strokes[Math.min(this.done, this.strokes.length - 1)];
    if (stroke === undefined) return { x: 0, y: 0 };
    const share = stroke.toS === stroke.fromS ? 1 : Math.max(0, Math.min(1, (this.elapsedS - stroke.fromS) / (stroke.toS - stroke.fromS)));
    return along(stroke.points, share);
  }
}

function timed({ strokes, speedMmS = USUAL.speedMmS }: PlotterFile): TimedStroke[] {
  let [now, at]: [number, Point] = [0, { x: 0, y: 0 }];
  return strokes.map(({ tool, start, sides }) => {
    const points = [start, ...sides.map(({ to }) => to)];
    const fromS = now + LIFT_S + Math.hypot(start.x - at.x, start.y - at.y) / TRAVEL_MM_S;
    now = fromS + lengthOf(points) / Math.max(1, speedMmS);
    at = points[points.length - 1];
    return { tool, points, fromS, toS: now };
  });
}

const lengthOf = (points: readonly Point[]): number => points.slice(1).reduce((sum, { x, y }, k) => sum + Math.hypot(x - points[k].x, y - points[k].y), 0);

function along(points: readonly Point[], share: number): Point {
  let left = lengthOf(points) * share;
  for (let k = 1; k < points.length; k++) {
    const [a, b] = [points[k - 1], points[k]];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    if (left <= length && length > 0) return { x: a.x + ((b.x - a.x) * left) / length, y: a.y + ((b.y - a.y) * left) / length };
    left -= length;
  }
  return points[points.length - 1];
}
