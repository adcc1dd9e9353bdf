import type { SealSettings } from '../process/material.ts';

/** One wait of sealing and drying a print. */
export interface SealStep {
  readonly what: 'dry' | 'coat' | 'final';
  /** Of several coats, from 1. */
  readonly coat?: number;
  readonly waitMin: number;
}

const MINUTES_AN_HOUR = 60;

/** What is done with a print before it may go into water: dried, coated with a wait after each coat, dried for good. Nothing where its ink needs none of it. */
export function sealPlan({ dryMin, coats, coatMin, finalH }: SealSettings): SealStep[] {
  const dry: SealStep[] = dryMin > 0 ? [{ what: 'dry', waitMin: dryMin }] : [];
  const coated = Array.from({ length: coats }, (_, k): SealStep => ({ what: 'coat', coat: k + 1, waitMin: coatMin }));
  return [...dry, ...coated, ...(finalH > 0 ? [{ what: 'final' as const, waitMin: finalH * MINUTES_AN_HOUR }] : [])];
}

/** How long all of it takes, minutes. */
export const sealMinutes = (steps: readonly SealStep[]): number => steps.reduce((sum, { waitMin }) => sum + waitMin, 0);
