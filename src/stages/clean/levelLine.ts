import { MAX_STRAIGHTEN_DEG } from '../../core/clean/steps/turn.ts';

/** Shorter lines say nothing about a direction, screen px. */
export const LEAST_LEVEL_PX = 20;

/** The angle, degrees, to which a turn of `angleDeg` changes so that a line drawn on what it shows lies level or upright, whichever is nearer. */
export function straightenedBy(angleDeg: number, from: { x: number; y: number }, to: { x: number; y: number }): number {
  const direction = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const off = direction - 90 * Math.round(direction / 90);
  return Math.max(-MAX_STRAIGHTEN_DEG, Math.min(MAX_STRAIGHTEN_DEG, Math.round((angleDeg - off) * 10) / 10));
}
