/** Segments of path data: lines, curves, and what Z closes. */
export function nodesOf(paths: readonly string[]): number {
  let count = 0;
  for (const path of paths) {
    for (const [, command, rest] of path.matchAll(/([a-zA-Z])([^a-zA-Z]*)/g)) {
      const values = (rest.match(/-?\d*\.?\d+(?:e-?\d+)?/g) ?? []).length;
      const each = { M: 2, L: 2, H: 1, V: 1, C: 6, Q: 4, A: 7 }[command.toUpperCase()];
      if (each !== undefined) count += Math.floor(values / each) - (command.toUpperCase() === 'M' ? 1 : 0);
    }
  }
  return count;
}
