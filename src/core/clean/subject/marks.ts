/** What was settled for a pixel of the picture before its subject is looked for; 0 is nothing. */
export const MARK = { keep: 1, clear: 2 } as const;
