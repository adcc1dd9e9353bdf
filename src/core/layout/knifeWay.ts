import type { CutSettings } from '../process/material.ts';
import type { CutPlan, PathRole } from './cutPlan.ts';
import type { Machine } from './machine.ts';
import { toolStrokes } from './toolStrokes.ts';

/** The way of the tool over a sheet, as it is done. */
export interface KnifeWay {
  /** x, y of each place that it comes to, mm of the sheet. */
  readonly points: Float64Array;
  /** What it does on the way to each place: 0 it is lifted, else one more than the role's place in `roles`. */
  readonly does: Uint8Array;
  readonly roles: readonly PathRole[];
  /** When it is there, s from the start. */
  readonly atS: Float64Array;
  readonly cutMm: number;
  readonly travelMm: number;
  readonly lifts: number;
}

/** What a machine is taken for when none was chosen. */
export const USUAL_PACE: Pick<Machine, 'speedMmS' | 'accelerationMmS2' | 'liftS'> = { speedMmS: 400, accelerationMmS2: 4000, liftS: 0.08 };

const CHORD_MM = 0.05;
/** Where the way turns by more than this the tool stands for a moment: cosine. */
const CORNER = Math.cos(Math.PI / 6);
const ROLES: readonly PathRole[] = ['cut', 'box', 'weedLine', 'mark', 'fold', 'print'];

/**
 * The way of the tool along a plan and when it is where: each stretch between corners begins and ends at rest, speeds up evenly to the speed of the material and slows down again; between paths it
 * is lifted and goes as fast as the machine does. Every pass is one more time around. Curves are taken at full speed: a machine that slows down in them takes longer.
 */
export function knifeWay(plan: CutPlan, { speedMmS, passes, tool, overcutMm = 0 }: Pick<CutSettings, 'speedMmS' | 'passes' | 'tool'> & Partial<Pick<CutSettings, 'overcutMm'>>, pace = USUAL_PACE): KnifeWay {
  const points: number[] = [0, 0];
  const does: number[] = [0];
  const atS: number[] = [0];
  let [now, cutMm, travelMm, lifts] = [0, 0, 0, 0];
  const speed = Math.min(speedMmS, pace.speedMmS);
  for (const { role, points: stroke } of toolStrokes(plan, { chordMm: CHORD_MM, passes, tool, overcutMm })) {
    const count = stroke.length / 2;
    const placeOf = (k: number): [number, number] => [stroke[2 * k], stroke[2 * k + 1]];
    const [x, y] = placeOf(0);
    const away = Math.hypot(x - points[points.length - 2], y - points[points.length - 1]);
    now += pace.liftS + tripS(away, pace.speedMmS, pace.accelerationMmS2);
    travelMm += away;
    lifts += 1;
    points.push(x, y);
    does.push(0);
    atS.push(now);
    let first = 0;
    while (first < count - 1) {
      const { last, lengthMm } = stretch(placeOf, first, count);
      let gone = 0;
      const takes = tripS(lengthMm, speed, pace.accelerationMmS2);
      for (let k = first + 1; k <= last; k++) {
        const [[ax, ay], [bx, by]] = [placeOf(k - 1), placeOf(k)];
        gone += Math.hypot(bx - ax, by - ay);
        points.push(bx, by);
        does.push(1 + ROLES.indexOf(role));
        atS.push(now + whenAt(gone, lengthMm, takes, speed, pace.accelerationMmS2));
      }
      now += takes;
      cutMm += lengthMm;
      first = last;
    }
  }
  return { points: Float64Array.from(points), does: Uint8Array.from(does), roles: ROLES, atS: Float64Array.from(atS), cutMm, travelMm, lifts };
}

/** From a place to the next corner, or the end. */
function stretch(placeOf: (k: number) => [number, number], first: number, count: number): { last: number; lengthMm: number } {
  let lengthMm = 0;
  for (let k = first; k < count - 1; k++) {
    const [[ax, ay], [bx, by]] = [placeOf(k), placeOf(k + 1)];
    const own = Math.hypot(bx - ax, by - ay);
    lengthMm += own;
    if (k + 2 >= count) break;
    const [cx, cy] = placeOf(k + 2);
    const next = Math.hypot(cx - bx, cy - by);
    if (own > 0 && next > 0 && ((bx - ax) * (cx - bx) + (by - ay) * (cy - by)) / (own * next) < CORNER) return { last: k + 1, lengthMm };
  }
  return { last: count - 1, lengthMm };
}

/** From rest to rest, s. */
const tripS = (mm: number, speed: number, acceleration: number): number => (mm >= speed ** 2 / acceleration ? mm / speed + speed / acceleration : 2 * Math.sqrt(mm / acceleration));

/** When on a trip from rest to rest so much of it is gone, s. */
function whenAt(gone: number, whole: number, takes: number, speed: number, acceleration: number): number {
  const top = Math.min(speed, Math.sqrt(whole * acceleration));
  const ramp = top ** 2 / (2 * acceleration);
  if (gone <= ramp) return Math.sqrt((2 * gone) / acceleration);
  const left = whole - gone;
  if (left <= ramp) return takes - Math.sqrt((2 * Math.max(0, left)) / acceleration);
  return top / acceleration + (gone - ramp) / top;
}
