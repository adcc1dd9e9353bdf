import type { Finding } from '../../core/check/cutCheck.ts';
import type { LengthUnit } from '../../core/units/parseLength.ts';
import { findingWords, manyWords } from './findingWords.ts';

/** More places of a kind than this are told in one line. */
const MOST_SINGLE = 30;

/** A line of the list: one place, or many of a kind. */
export interface FindingLine {
  /** Places that it stands for, as indices. */
  readonly places: readonly number[];
  /** The one that says how far a mend must reach to take all of them. */
  readonly worst: Finding;
  readonly words: string;
}

/** The findings as lines, in their order: kinds with many places are one line each. */
export function findingLines(findings: readonly Finding[], unit: LengthUnit): FindingLine[] {
  const byKind = new Map<Finding['kind'], number[]>();
  for (const [k, { kind }] of findings.entries()) byKind.set(kind, [...(byKind.get(kind) ?? []), k]);
  return [...byKind.values()].flatMap((places): FindingLine[] => {
    if (places.length <= MOST_SINGLE) return places.map((k) => ({ places: [k], worst: findings[k], words: findingWords(findings[k], unit) }));
    const worst = places.map((k) => findings[k]).reduce((most, finding) => (finding.size > most.size ? finding : most));
    return [{ places, worst, words: manyWords(worst.kind, places.length, worst.size, unit) }];
  });
}
