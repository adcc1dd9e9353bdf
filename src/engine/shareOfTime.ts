/** How much of so many seconds from now is gone, 0 to 1; all of it where there are none. */
export function shareOfTime(seconds: number): () => number {
  const started = Date.now();
  return () => (seconds > 0 ? Math.min(1, (Date.now() - started) / (1000 * seconds)) : 1);
}
