/** Arrays that take more than this are handed over instead of being written into a message and read from it, bytes. */
const LARGE_BYTES = 256 * 1024;

/** An answer whose large arrays are its own, and their buffers: the page takes them over as they are. */
export interface OwnArrays {
  readonly value: unknown;
  readonly buffers: readonly ArrayBufferLike[];
}

/**
 * An answer of plain data with copies in place of its large arrays, so that they can be handed over and what is kept here stays whole. What stands in several
 * places of it does so still. @param taken buffers that are handed over anyway.
 */
export function withOwnArrays(answer: unknown, taken: ReadonlySet<unknown>): OwnArrays {
  const buffers: ArrayBufferLike[] = [];
  const copies = new Map<object, unknown>();
  const copied = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null) return value;
    const known = copies.get(value);
    if (known !== undefined) return known;
    const copy = copyOf(value);
    copies.set(value, copy);
    return copy;
  };
  const copyOf = (value: object): unknown => {
    if (value instanceof Float64Array || value instanceof Int32Array || value instanceof Uint8Array) {
      if (value.byteLength < LARGE_BYTES || taken.has(value.buffer)) return value;
      const copy = value.slice();
      buffers.push(copy.buffer);
      return copy;
    }
    if (Array.isArray(value)) {
      const list = value.map(copied);
      return list.some((each, k) => each !== value[k]) ? list : value;
    }
    if (Object.getPrototypeOf(value) !== Object.prototype) return value;
    const fields = Object.entries(value).map(([name, field]) => [name, copied(field)] as const);
    return fields.some(([name, field]) => field !== (value as Record<string, unknown>)[name]) ? Object.fromEntries(fields) : value;
  };
  return { value: copied(answer), buffers };
}
