/** A group of entries that was not checked yet. */
export type Fields = Readonly<Record<string, unknown>>;

export const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null && !Array.isArray(value);
