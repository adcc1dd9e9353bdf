/** The day as it is written on what leaves, such as `2026-11-28`. */
export const today = (): string => new Date().toISOString().slice(0, 10);
