/** What can be done with a job as it lies on the shelf. */
export const SHELF_ACTIONS = { again: 'Same again…', versions: 'Versions…', collect: 'Collections…', rename: 'Rename…', duplicate: 'Duplicate', keep: 'Save as a file', remove: 'Delete' } as const;
export type ShelfAction = keyof typeof SHELF_ACTIONS;
