/** A time in words: seconds, minutes, or hours and minutes, whichever reads best. */
export function timeWords(seconds: number): string {
  if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** A wait in words: hours and minutes, or minutes and seconds when it is short. */
export function waitWords(minutes: number): string {
  const seconds = Math.max(0, Math.round(minutes * 60));
  if (seconds >= 3600) return `${Math.floor(seconds / 3600)} h ${String(Math.floor((seconds % 3600) / 60)).padStart(2, '0')} min`;
  if (seconds < 60 && seconds > 0) return `${seconds} s`;
  return seconds < 600 && seconds % 60 !== 0 ? `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min` : `${Math.round(seconds / 60)} min`;
}
