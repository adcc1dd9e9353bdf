/** How parts may be turned: any way, by quarters, or not at all (grain, shine, nap). */
export const TURNS = ['free', 'quarter', 'none'] as const;
export type Turns = (typeof TURNS)[number];

const FULL = 2 * Math.PI;

/** The turns that are tried when parts are laid one after the other, radians. @param own turns at which the part itself lies well. */
export function firstTurns(turns: Turns, own: readonly number[] = []): number[] {
  if (turns === 'none') return [0];
  const quarters = [0, FULL / 4, FULL / 2, (3 * FULL) / 4];
  if (turns === 'quarter') return quarters;
  return [...new Set([0, ...own].flatMap((turn) => quarters.map((quarter) => Math.round(((turn + quarter) % FULL) * 1e9) / 1e9)))];
}

/** A turn by chance. @param before that of the part as it lies. */
export function chanceTurn(turns: Turns, before: number, random: () => number): number {
  if (turns === 'none') return before;
  if (turns === 'quarter') return Math.floor(random() * 4) * (FULL / 4);
  // Half of the time a right angle to how it lies: straight edges like to stay beside straight edges.
  return random() < 0.5 ? (before + Math.floor(random() * 4) * (FULL / 4)) % FULL : random() * FULL;
}
